'use client';
import { useId } from 'react';
import { type Address, addressForm, countryName } from '@/core/place/address';
import { Field } from '../kit/field';
import { SelectField } from '../kit/select';
import { usePlaces } from './use-places';

/** An address in the order and with the parts of its country. @param name the part of the form, for its errors (`billing`) */
export function AddressFields({
  legend,
  name,
  address,
  home,
  troubles,
  onChange,
}: {
  legend: string;
  name: string;
  address: Address;
  home: string;
  troubles: Readonly<Record<string, string>>;
  onChange: (address: Address) => void;
}) {
  // Two of these can stand on one page, one of them behind a dialog.
  const id = useId();
  const countries = usePlaces('');
  const country = address.country || home;
  const form = addressForm(country);
  const regions = usePlaces(form.region ? country : null);
  const set = (part: Partial<Address>) => onChange({ ...address, country, ...part });
  const code = form.postalCode ? (
    <Field
      label={form.postalCode}
      value={address.postalCode}
      maxLength={20}
      error={troubles[`${name}.postalCode`]}
      onChange={(event) => set({ postalCode: event.target.value })}
    />
  ) : null;
  const city = (
    <Field
      label="City"
      value={address.city}
      maxLength={120}
      error={troubles[`${name}.city`]}
      onChange={(event) => set({ city: event.target.value })}
    />
  );
  const region =
    form.region && regions.length > 0 ? (
      <SelectField label={form.region} value={address.region} onChange={(event) => set({ region: event.target.value })}>
        <option value="">none</option>
        {regions.map((one) => (
          <option key={one.code} value={one.code}>
            {one.name}
          </option>
        ))}
      </SelectField>
    ) : null;
  return (
    <fieldset className="grid gap-3">
      <legend className="mb-2 font-semibold">{legend}</legend>
      <SelectField
        label="Country"
        value={country}
        onChange={(event) => onChange({ ...address, country: event.target.value, region: '' })}
      >
        {countries.length === 0 ? <option value={country}>{countryName(country, 'en')}</option> : null}
        {countries.map((one) => (
          <option key={one.code} value={one.code}>
            {one.name}
          </option>
        ))}
      </SelectField>
      <div>
        <label className="label mb-1" htmlFor={id}>
          Street and number
        </label>
        <textarea
          id={id}
          rows={2}
          className="input py-2 [field-sizing:content]"
          value={address.lines.join('\n')}
          onChange={(event) => set({ lines: event.target.value.split('\n').slice(0, 6) })}
        />
      </div>
      <div className="grid gap-3 sm:grid-cols-[1fr_1fr]">
        {form.order === 'code-city' ? (
          <>
            {code}
            {city}
          </>
        ) : (
          <>
            {city}
            {code}
          </>
        )}
        {region}
      </div>
    </fieldset>
  );
}
