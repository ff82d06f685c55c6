'use client';
import { currencyOf } from '@/core/money/rates';
import type { DueChoice } from '@/core/paper/paper';
import { NO_ADDRESS } from '@/core/place/address';
import { useBusinessCurrency } from '../kit/at-desk';
import { TickField } from '../kit/check';
import { Field, TextField } from '../kit/field';
import type { Typed } from '../kit/form';
import { SelectField } from '../kit/select';
import { AddressFields } from './address-fields';
import type { CustomerTyped } from './customer-typed';

const LANGUAGES = [
  ['en', 'English'],
  ['de', 'German'],
  ['fr', 'French'],
  ['es', 'Spanish'],
] as const;

const TERMS: readonly (readonly [string, DueChoice | null])[] = [
  ['', null],
  ['receipt', { kind: 'receipt' }],
  ['7', { kind: 'days', days: 7 }],
  ['14', { kind: 'days', days: 14 }],
  ['30', { kind: 'days', days: 30 }],
  ['60', { kind: 'days', days: 60 }],
  ['month-end', { kind: 'month-end' }],
];
const TERM_WORDS: Readonly<Record<string, string>> = {
  '': 'As usual',
  receipt: 'On receipt',
  '7': 'In 7 days',
  '14': 'In 14 days',
  '30': 'In 30 days',
  '60': 'In 60 days',
  'month-end': 'End of the month',
};
const termOf = (due: DueChoice | null): string =>
  due === null ? '' : due.kind === 'days' ? String(due.days) : due.kind === 'date' ? '' : due.kind;

/** What seldom is needed of a customer: further addresses, language, terms, groups and a note. */
export function CustomerMore({ of, home }: { of: Typed<CustomerTyped>; home: string }) {
  const { values, set, at, troubles } = of;
  const house = useBusinessCurrency();
  const usual = currencyOf(values.billing.country);
  return (
    <>
      <Field
        label="Copies to"
        value={values.copies}
        onChange={(event) => set({ copies: event.target.value })}
        error={at('copies')}
        hint="Further e-mail addresses, with commas between them."
      />
      <AddressFields
        legend="Billing address"
        name="billing"
        address={values.billing}
        home={home}
        troubles={troubles}
        onChange={(billing) => set({ billing })}
      />
      <TickField
        label="Goods go to another address"
        checked={values.delivery !== null}
        onChange={(event) => set({ delivery: event.target.checked ? { ...NO_ADDRESS, country: home } : null })}
      />
      {values.delivery ? (
        <AddressFields
          legend="Delivery address"
          name="delivery"
          address={values.delivery}
          home={home}
          troubles={troubles}
          onChange={(delivery) => set({ delivery })}
        />
      ) : null}
      <div className="grid gap-3 sm:grid-cols-2">
        <SelectField
          label="Language"
          value={values.language}
          onChange={(event) => set({ language: event.target.value })}
        >
          <option value="">As the business</option>
          {LANGUAGES.map(([code, name]) => (
            <option key={code} value={code}>
              {name}
            </option>
          ))}
        </SelectField>
        <Field
          label="Currency"
          value={values.currency}
          maxLength={3}
          placeholder="As the business"
          error={at('currency') ? 'Three letters, such as EUR.' : undefined}
          hint={usual && !values.currency && usual !== house ? `${usual} is usual in their country.` : undefined}
          onChange={(event) => set({ currency: event.target.value.toUpperCase() })}
        />
        <SelectField
          label="Usually due"
          value={termOf(values.due)}
          onChange={(event) => set({ due: TERMS.find(([key]) => key === event.target.value)?.[1] ?? null })}
        >
          {TERMS.map(([key]) => (
            <option key={key} value={key}>
              {TERM_WORDS[key]}
            </option>
          ))}
        </SelectField>
        <Field
          label="Tax number"
          value={values.taxNumber}
          maxLength={60}
          error={at('taxNumber')}
          onChange={(event) => set({ taxNumber: event.target.value })}
        />
      </div>
      <SelectField
        label="Parcels on account"
        value={values.shipsFirst === null ? '' : values.shipsFirst ? 'first' : 'paid'}
        onChange={({ target: { value } }) => set({ shipsFirst: value === '' ? null : value === 'first' })}
      >
        <option value="">As the business usually does</option>
        <option value="first">Leave before they have paid</option>
        <option value="paid">Leave once they have paid</option>
      </SelectField>
      <Field
        label="Groups"
        value={values.groups}
        onChange={(event) => set({ groups: event.target.value })}
        hint="Such as “School” or “Rents a cello”, with commas between them."
      />
      <TextField
        label="Private note"
        value={values.note}
        maxLength={4000}
        error={at('note')}
        hint="Only seen here."
        onChange={(event) => set({ note: event.target.value })}
      />
    </>
  );
}
