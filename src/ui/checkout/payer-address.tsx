'use client';
import { useEffect, useState } from 'react';
import { type Address, addressForm } from '@/core/place/address';
import { NativeSelect } from '../kit/native-select';
import { send } from '../kit/send';
import type { CheckoutWords } from './checkout-words';
import { PayerField } from './payer-field';

type Place = { readonly code: string; readonly name: string };

/** An address in the order and with the parts of its country. */
export function PayerAddress({
  legend,
  optional,
  address,
  countries,
  troubleOf,
  words,
  onChange,
  onLeave,
}: {
  legend: string;
  optional?: string | undefined;
  address: Address;
  countries: readonly Place[];
  /** What is wrong with a part: `country`, `street`, `city`, `postalCode`. */
  troubleOf: (part: string) => string | undefined;
  words: CheckoutWords;
  onChange: (address: Address) => void;
  onLeave: (part: string) => void;
}) {
  const [regions, setRegions] = useState<readonly Place[]>([]);
  const { country } = address;
  const form = addressForm(country);
  const needsRegion = form.regionPrinted && country !== '';
  useEffect(() => {
    if (!needsRegion) return setRegions([]);
    const asked = new AbortController();
    const { signal } = asked;
    void send<Place[]>('GET', `/api/regions?country=${country}`, undefined, { signal }).then(
      (answer) => answer.ok && !signal.aborted && setRegions(answer.value),
    );
    return () => asked.abort();
  }, [country, needsRegion]);
  const set = (part: Partial<Address>) => onChange({ ...address, ...part });
  const code = form.postalCode ? (
    <PayerField key="code" label={words.postalCode} trouble={troubleOf('postalCode')}>
      {(tied) => (
        <input
          {...tied}
          autoComplete="postal-code"
          maxLength={20}
          value={address.postalCode}
          onChange={(event) => set({ postalCode: event.target.value })}
          onBlur={() => onLeave('postalCode')}
        />
      )}
    </PayerField>
  ) : null;
  const city = (
    <PayerField key="city" label={words.city} trouble={troubleOf('city')}>
      {(tied) => (
        <input
          {...tied}
          autoComplete="address-level2"
          maxLength={120}
          value={address.city}
          onChange={(event) => set({ city: event.target.value })}
          onBlur={() => onLeave('city')}
        />
      )}
    </PayerField>
  );
  return (
    <fieldset className="grid gap-3">
      <legend className="mb-2 text-[15px] font-medium">
        {legend}
        {optional ? <span className="font-normal text-soft"> ({optional})</span> : null}
      </legend>
      <PayerField label={words.country} trouble={troubleOf('country')}>
        {(tied) => (
          <NativeSelect
            {...tied}
            autoComplete="country"
            value={country}
            onChange={(event) => onChange({ ...address, country: event.target.value, region: '' })}
          >
            <option value="">{words.choose}</option>
            {countries.map((one) => (
              <option key={one.code} value={one.code}>
                {one.name}
              </option>
            ))}
          </NativeSelect>
        )}
      </PayerField>
      <PayerField label={words.street} trouble={troubleOf('street')}>
        {(tied) => (
          <input
            {...tied}
            autoComplete="street-address"
            maxLength={120}
            value={address.lines.join(', ')}
            onChange={(event) => set({ lines: event.target.value ? [event.target.value] : [] })}
            onBlur={() => onLeave('street')}
          />
        )}
      </PayerField>
      <div className="grid grid-cols-2 gap-3">{form.order === 'code-city' ? [code, city] : [city, code]}</div>
      {regions.length > 0 ? (
        <PayerField label={words.region}>
          {(tied) => (
            <NativeSelect
              {...tied}
              autoComplete="address-level1"
              value={address.region}
              onChange={(event) => set({ region: event.target.value })}
            >
              <option value="">{words.choose}</option>
              {regions.map((one) => (
                <option key={one.code} value={one.code}>
                  {one.name}
                </option>
              ))}
            </NativeSelect>
          )}
        </PayerField>
      ) : null}
    </fieldset>
  );
}
