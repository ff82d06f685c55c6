'use client';
import { useState } from 'react';
import { addressForm } from '@/core/place/address';
import { type BusinessTax, placeTaxes, taxClasses } from '@/core/tax/business-tax';
import type { Place } from '@/core/tax/tax-rules';
import { usePlaces } from '../customer/use-places';
import { Field } from '../kit/field';
import { SelectField } from '../kit/select';

/** A place and a class that are asked for, and the rules that apply there. */
export type Asked = {
  readonly country: string;
  readonly region: string;
  readonly postalCode: string;
  readonly taxClass: string;
};

export function rulesFor(asked: Asked, rules: readonly BusinessTax[]): readonly BusinessTax[] {
  const { country, region, postalCode, taxClass } = asked;
  const place: Place = { country, ...(region ? { region } : {}), ...(postalCode ? { postalCode } : {}) };
  const found = placeTaxes(place, taxClass, rules);
  return rules.filter((rule) => found.includes(rule.id));
}

export const useAsked = (home: string) =>
  useState<Asked>({ country: home, region: '', postalCode: '', taxClass: 'standard' });

/** What somebody at a place pays; the answer follows what stands in the table. */
export function WhichTax({
  asked,
  rules,
  set,
}: {
  asked: Asked;
  rules: readonly BusinessTax[];
  set: (part: Partial<Asked>) => void;
}) {
  const { country, region, postalCode, taxClass } = asked;
  const countries = usePlaces('');
  const regions = usePlaces(country);
  const applying = rulesFor(asked, rules);
  const sum = applying.reduce((total, rule) => total + Number(rule.rate), 0);
  return (
    <aside className="grid gap-3" aria-label="Which tax">
      <h2 className="title-section border-b border-ink pb-1">Who pays which tax?</h2>
      <SelectField
        label="Country"
        value={country}
        onChange={(event) => set({ country: event.target.value, region: '' })}
      >
        {countries.length === 0 ? <option value={country}>{country}</option> : null}
        {countries.map((one) => (
          <option key={one.code} value={one.code}>
            {one.name}
          </option>
        ))}
      </SelectField>
      {regions.length > 0 ? (
        <SelectField
          label={addressForm(country).region || 'Region'}
          value={region}
          onChange={(event) => set({ region: event.target.value })}
        >
          <option value="">any</option>
          {regions.map((one) => (
            <option key={one.code} value={one.code}>
              {one.name}
            </option>
          ))}
        </SelectField>
      ) : null}
      <Field
        label="Postal code"
        placeholder="32055"
        value={postalCode}
        onChange={(event) => set({ postalCode: event.target.value })}
      />
      <SelectField label="Class" value={taxClass} onChange={(event) => set({ taxClass: event.target.value })}>
        {taxClasses(rules).map((one) => (
          <option key={one} value={one}>
            {one}
          </option>
        ))}
      </SelectField>
      <div className="border-t border-ink pt-2" role="status" aria-label="The answer">
        {applying.length === 0 ? (
          <p className="document">No tax.</p>
        ) : (
          applying.map((rule) => (
            <p key={rule.id} className="leader document">
              <span>{rule.name}</span>
              <span className="dots" aria-hidden="true" />
              <span>{rule.rate} %</span>
            </p>
          ))
        )}
        {applying.length > 1 ? (
          <p className="leader document rule-total font-semibold">
            <span>Together</span>
            <span className="dots" aria-hidden="true" />
            <span>{Number(sum.toFixed(4))} %</span>
          </p>
        ) : null}
      </div>
    </aside>
  );
}
