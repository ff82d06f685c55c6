'use client';
import { useState } from 'react';
import { minorDigits } from '@/core/money/currency';
import { fixedText } from '@/core/money/decimal';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import type { OfferItem } from '@/core/offer/offer';
import { countryName } from '@/core/place/address';
import { useDeskLocale } from '../kit/at-desk';
import { Button } from '../kit/button';
import { TickField } from '../kit/check';
import { FieldError } from '../kit/field';
import { usePress } from '../kit/press';
import { troubleOf } from '../kit/send';
import { Collapsible } from './collapsible';
import { CountryChoice } from './country-choice';
import { PriceFields } from './price-fields';
import { type OfferEditing } from './use-offer';

type Case = { readonly what: string; readonly country: string; readonly service: string; readonly cost: number | null };
type Proposal = {
  readonly zoneId: string;
  readonly least: Case | null;
  readonly most: Case | null;
  readonly unknown: readonly Case[];
  readonly price: number | null;
  readonly before: { readonly count: number; readonly cost: number } | null;
};

/** The items that an offer names, each as all of its options. */
const thingsOf = (items: readonly OfferItem[]) =>
  items.flatMap(({ itemId, options }) =>
    itemId
      ? options.length > 0
        ? options.map(({ optionId }) => ({ itemId, optionId }))
        : [{ itemId, optionId: null }]
      : [],
  );

/** What delivery into a zone costs, in words, and the price that covers it. */
function Proposed({
  proposal: { least, most, unknown, price, before },
  currency,
  onTake,
}: {
  proposal: Proposal;
  currency: string;
  onTake: (price: string) => void;
}) {
  const locale = useDeskLocale();
  const sum = (minor: number) => moneyText(money(BigInt(minor), currency), locale);
  const where = (one: Case) => `${one.what} to ${countryName(one.country, 'en')}`;
  const [missing] = unknown;
  return (
    <p className="small w-full text-soft">
      {least && most && most.cost !== null && least.cost !== null ? (
        <>
          It costs{' '}
          {least.cost === most.cost
            ? `${sum(most.cost)}, packing included (${most.service})`
            : `${sum(least.cost)} to ${sum(most.cost)}, packing included; most for ${where(most)} (${most.service})`}
          .{' '}
        </>
      ) : null}
      {before && before.count > 0
        ? `${before.count === 1 ? 'One parcel' : `${before.count} parcels`} went there in half a year, for ${sum(Math.round(before.cost / before.count))} each. `
        : ''}
      {missing
        ? `Not known for ${where(missing)}: ${missing.service ? 'no price' : 'no profile or no service takes it'}. `
        : ''}
      {price === null ? null : (
        <Button look="small-link" onClick={() => onTake(fixedText(BigInt(price), minorDigits(currency)))}>
          Take {sum(price)}
        </Button>
      )}
    </p>
  );
}

/** Where it is delivered to, at which price. */
export function DeliverySection({ of }: { of: OfferEditing }) {
  const { offer, set, troubles } = of;
  const { delivery } = offer;
  const currencies = [...new Set([offer.currency, ...offer.currencies])];
  const [proposed, setProposed] = useState<readonly Proposal[]>([]);
  const [trouble, setTrouble] = useState('');
  const { busy, press } = usePress();
  async function propose() {
    const answer = await press<{ zones: readonly Proposal[] }>('/api/offers/delivery', {
      currency: offer.currency,
      things: thingsOf(offer.items),
      zones: (delivery?.zones ?? []).map(({ id, countries }) => ({ id, countries })),
    });
    setTrouble(troubleOf(answer));
    if (answer.ok) setProposed(answer.value.zones);
  }
  const zone = () => ({ id: crypto.randomUUID(), name: '', countries: [], prices: {} });
  return (
    <Collapsible
      name="Delivery"
      now={
        delivery
          ? delivery.zones
              .map(({ countries }) => countries.map((code) => countryName(code, 'en')).join(', ') || 'everywhere else')
              .join(' · ')
          : 'none'
      }
    >
      {/* Reached by its name: a browser unfolds what an address names within. */}
      <span id="delivery" className="sr-only">
        Delivery of this offer
      </span>
      <TickField
        label="It is sent to the payer"
        hint="They are asked for an address."
        checked={delivery !== null}
        onChange={(event) => set({ delivery: event.target.checked ? { zones: [zone()], freeFrom: {} } : null })}
      />
      {troubles.delivery ? <FieldError>{troubles.delivery}</FieldError> : null}
      {delivery ? (
        <>
          {delivery.zones.map((one, at) => {
            const change = (part: Partial<typeof one>) =>
              set({
                delivery: {
                  ...delivery,
                  zones: delivery.zones.map((each) => (each.id === one.id ? { ...each, ...part } : each)),
                },
              });
            return (
              <div key={one.id} className="flex flex-wrap items-start gap-3 border-b border-rule pb-3">
                <CountryChoice
                  label="Countries"
                  codes={one.countries}
                  none="Everywhere that no other line names."
                  onChange={(countries) => change({ countries: [...countries] })}
                />
                <PriceFields
                  label="Price"
                  prices={one.prices}
                  currencies={currencies}
                  path={`delivery.zones.${at}.prices`}
                  troubles={troubles}
                  onChange={(prices) => change({ prices })}
                />
                <Button
                  look="small-link"
                  className="mt-7"
                  onClick={() =>
                    set({ delivery: { ...delivery, zones: delivery.zones.filter(({ id }) => id !== one.id) } })
                  }
                >
                  Remove
                </Button>
                {proposed
                  .filter(({ zoneId }) => zoneId === one.id)
                  .map((proposal) => (
                    <Proposed
                      key={proposal.zoneId}
                      proposal={proposal}
                      currency={offer.currency}
                      onTake={(price) => change({ prices: { ...one.prices, [offer.currency]: price } })}
                    />
                  ))}
              </div>
            );
          })}
          <p className="flex flex-wrap gap-5">
            <Button
              look="link"
              opens
              onClick={() => set({ delivery: { ...delivery, zones: [...delivery.zones, zone()] } })}
            >
              Add a zone
            </Button>
            {offer.items.some(({ itemId }) => itemId) ? (
              <Button look="link" busy={busy} busyWords="Asking the carrier" onClick={() => void propose()}>
                Propose prices from what it costs
              </Button>
            ) : null}
          </p>
          {trouble ? <FieldError>{trouble}</FieldError> : null}
          <PriceFields
            label="Free from"
            prices={delivery.freeFrom}
            currencies={currencies}
            path="delivery.freeFrom"
            troubles={troubles}
            onChange={(freeFrom) => set({ delivery: { ...delivery, freeFrom } })}
          />
        </>
      ) : null}
    </Collapsible>
  );
}
