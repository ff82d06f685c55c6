'use client';
import { useState } from 'react';
import { type FirstSetting, localeIn } from '@/core/beginning/first-setting';
import { USUAL_CURRENCIES } from '@/core/money/currency';
import { countryName } from '@/core/place/address';
import { LANGUAGES } from '@/core/words/words';
import { Button } from '../kit/button';
import { SelectField } from '../kit/select';

/** A country to choose. */
export type Place = { readonly code: string; readonly name: string };

/** A zone as people call it: its town. */
const townOf = (zone: string): string => (zone.split('/').at(-1) ?? zone).replaceAll('_', ' ');

/** What is guessed of where somebody works, in one sentence; it opens to be changed. */
export function SettingFields({
  from,
  values,
  set,
  countries,
}: {
  /** Where the guess comes from, as the sentence says it. */
  from: string;
  values: FirstSetting;
  set: (part: Partial<FirstSetting>) => void;
  countries: readonly Place[];
}) {
  const [open, setOpen] = useState(false);
  const language = values.locale.slice(0, 2);
  const { country, zone, currency } = values;
  if (!open) {
    const called = LANGUAGES[language as keyof typeof LANGUAGES]?.name ?? 'English';
    return (
      <p className="text-soft">
        {from}: <b className="font-semibold text-ink">{countryName(country, 'en')}</b>, time of{' '}
        <b className="font-semibold text-ink">{townOf(zone)}</b>, sums in{' '}
        <b className="font-semibold text-ink">{currency}</b>, customers read{' '}
        <b className="font-semibold text-ink">{called}</b>.{' '}
        <Button look="link" opens onClick={() => setOpen(true)}>
          Change
        </Button>
      </p>
    );
  }
  return (
    <div className="grid gap-4 sm:grid-cols-2">
      <SelectField
        label="Country"
        value={country}
        onChange={({ target }) => set({ country: target.value, locale: localeIn(language, target.value) })}
      >
        {countries.map(({ code, name }) => (
          <option key={code} value={code}>
            {name}
          </option>
        ))}
      </SelectField>
      <SelectField label="Currency" value={currency} onChange={({ target }) => set({ currency: target.value })}>
        {[...new Set([currency, ...USUAL_CURRENCIES])].map((code) => (
          <option key={code} value={code}>
            {code}
          </option>
        ))}
      </SelectField>
      <SelectField label="Time zone" value={zone} onChange={({ target }) => set({ zone: target.value })}>
        {[...new Set([zone, ...Intl.supportedValuesOf('timeZone')])].map((one) => (
          <option key={one} value={one}>
            {one.replaceAll('_', ' ')}
          </option>
        ))}
      </SelectField>
      <SelectField
        label="Customers read"
        value={language}
        onChange={({ target }) => set({ locale: localeIn(target.value, country) })}
      >
        {Object.entries(LANGUAGES).map(([code, { name }]) => (
          <option key={code} value={code}>
            {name}
          </option>
        ))}
      </SelectField>
      <p className="small text-soft sm:col-span-2">
        Zone and currency stay with the business: what was counted was counted in them.
      </p>
    </div>
  );
}
