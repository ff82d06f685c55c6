'use client';
import { type Fronts, tradingNameOf } from '@/core/front/front';
import { FrontFields } from '../parts/front-fields';
import { Collapsible } from './collapsible';
import type { OfferEditing } from './use-offer';

/** Under which name, and from which place, the payer is asked; nothing where the business has no others. */
export function FrontSection({ of, house }: { of: OfferEditing; house: Fronts & { readonly name: string } }) {
  const { offer, set } = of;
  if (house.tradingNames.length === 0 && house.locations.length === 0) return null;
  const place = house.locations.find(({ id }) => id === offer.locationId);
  return (
    <Collapsible
      name="Under which name"
      now={[tradingNameOf(house, offer)?.name ?? house.name, place?.name].filter(Boolean).join(', ')}
    >
      <FrontFields house={house} chosen={offer} onChange={set} />
    </Collapsible>
  );
}
