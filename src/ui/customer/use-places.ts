'use client';
import { useEffect, useState } from 'react';
import { send } from '../kit/send';

type PlaceChoice = { readonly code: string; readonly name: string };

const asked = new Map<string, Promise<readonly PlaceChoice[]>>();

/** The regions of a country, or all countries for ``; asked once a page and kept. Empty until they are there. */
export function usePlaces(country: string | null): readonly PlaceChoice[] {
  const [places, setPlaces] = useState<readonly PlaceChoice[]>([]);
  useEffect(() => {
    if (country === null) return setPlaces([]);
    let current = true;
    const path = country ? `/api/places?country=${country}` : '/api/places';
    const coming =
      asked.get(country) ??
      send<PlaceChoice[]>('GET', path).then((answer) => {
        // A lost connection is not kept: the next form asks again.
        if (!answer.ok) asked.delete(country);
        return answer.ok ? answer.value : [];
      });
    asked.set(country, coming);
    void coming.then((list) => current && setPlaces(list));
    return () => {
      current = false;
    };
  }, [country]);
  return places;
}
