'use client';
import { countryName } from '@/core/place/address';
import { Button } from '../kit/button';
import { TickField } from '../kit/check';
import { FieldError } from '../kit/field';
import { Collapsible } from './collapsible';
import { CountryChoice } from './country-choice';
import { PriceFields } from './price-fields';
import { type OfferEditing } from './use-offer';

/** Where it is delivered to, at which price. */
export function DeliverySection({ of }: { of: OfferEditing }) {
  const { offer, set, troubles } = of;
  const { delivery } = offer;
  const currencies = [...new Set([offer.currency, ...offer.currencies])];
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
              </div>
            );
          })}
          <Button
            look="link"
            opens
            className="justify-self-start"
            onClick={() => set({ delivery: { ...delivery, zones: [...delivery.zones, zone()] } })}
          >
            Add a zone
          </Button>
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
