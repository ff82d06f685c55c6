'use client';
import { useEffect, useState } from 'react';
import { send } from '../kit/send';
import { ShipmentRows } from './shipment-list';
import type { ShipmentRowShown } from './shown';

type Page = {
  readonly rows: readonly ShipmentRowShown[];
  readonly next: { readonly key: string; readonly id: string } | null;
};

const WAIT_MS = 180;

/** Shipments, found as one types by name, number, sale or what is in them. */
export function ShipmentFinder({
  underWay,
  looks,
  first,
}: {
  underWay: number;
  looks: readonly ShipmentRowShown[];
  first: Page;
}) {
  const [words, setWords] = useState('');
  const [found, setFound] = useState<{ words: string; page: Page } | null>(null);
  useEffect(() => {
    const asked = words.trim();
    if (!asked) return setFound(null);
    const stopped = new AbortController();
    const timer = setTimeout(async () => {
      const answer = await send<Page>('GET', `/api/parcels?under=all&words=${encodeURIComponent(asked)}`, undefined, {
        signal: stopped.signal,
      });
      if (answer.ok && !stopped.signal.aborted) setFound({ words: asked, page: answer.value });
    }, WAIT_MS);
    return () => {
      clearTimeout(timer);
      stopped.abort();
    };
  }, [words]);
  const address = `/api/parcels?under=all&words=${encodeURIComponent(found?.words ?? '')}`;
  return (
    <>
      <p className="flex items-baseline pb-1 pt-2 text-[12.5px]/5 font-semibold">
        {underWay === 0 ? 'All is at the door' : `${underWay} not at the door yet`}
      </p>
      <input
        type="search"
        className="input"
        aria-label="Name, number or sale"
        placeholder="Name, number or sale"
        value={words}
        maxLength={120}
        onChange={(event) => setWords(event.target.value)}
      />
      {found ? (
        found.page.rows.length === 0 ? (
          <p className="document py-4 text-soft">No shipment answers to that.</p>
        ) : (
          <ShipmentRows looks={[]} first={found.page} address={address} />
        )
      ) : (
        <ShipmentRows looks={looks} first={first} address={address} />
      )}
    </>
  );
}
