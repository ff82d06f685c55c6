'use client';
import { calendarDate } from '@/core/dates/calendar-date';
import { numberText, patternProblem } from '@/core/invoice/numbering';
import { reminderWords } from '@/core/invoice/reminders';
import { USUAL_WAYS } from '@/core/paper/paper';
import { LANGUAGES } from '@/core/words/words';
import { ItemPrices } from '../item/item-prices';
import { Button } from '../kit/button';
import { TickField } from '../kit/check';
import { Field, FieldError, TextField } from '../kit/field';
import type { Typed } from '../kit/form';
import { SelectField } from '../kit/select';
import { Heading } from './heading';
import { daysOf, type ProfileTyped } from './profile-typed';
import type { TermsText } from './terms-section';

type Part = { of: Typed<ProfileTyped> };

/** How new invoices are paid, priced and reminded of, unless one says otherwise. */
export function ProfileInvoices({
  of: { values, set, at },
  terms,
  currency,
  locale,
}: Part & { terms: readonly TermsText[]; currency: string; locale: string }) {
  const ways = values.ways ?? USUAL_WAYS;
  const offsets = daysOf(values.reminders);
  return (
    <>
      <Heading>New invoices</Heading>
      <div className="grid gap-3 sm:grid-cols-2">
        <TickField
          label="Can be paid by card"
          checked={ways.card}
          onChange={(event) => set({ ways: { ...ways, card: event.target.checked } })}
        />
        <TickField
          label="Can be paid by bank debit"
          checked={ways.debit ?? false}
          onChange={(event) => set({ ways: { ...ways, debit: event.target.checked } })}
        />
        <TickField
          label="Can be paid by bank transfer"
          checked={ways.transfer}
          onChange={(event) => set({ ways: { ...ways, transfer: event.target.checked } })}
        />
        <TickField
          label="Can be paid in parts"
          checked={ways.parts}
          onChange={(event) => set({ ways: { ...ways, parts: event.target.checked } })}
        />
        <TickField
          label="Prices hold the tax"
          checked={values.pricesIncludeTax}
          onChange={(event) => set({ pricesIncludeTax: event.target.checked })}
        />
      </div>
      <div className="grid gap-4 sm:grid-cols-2">
        <SelectField
          label="Usual terms"
          value={values.termsId ?? ''}
          onChange={(event) => set({ termsId: event.target.value || null })}
        >
          <option value="">none</option>
          {terms.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </SelectField>
        <p className="self-end pb-2 text-soft">
          Sums are counted in {currency}; dates are written as in {locale}.
        </p>
      </div>
      <Heading>The smallest card payment</Heading>
      <ItemPrices
        label="At least"
        prices={values.smallestPayments}
        currency={currency}
        onChange={(smallestPayments) => set({ smallestPayments })}
      />
      {at('smallestPayments') ? <FieldError>{at('smallestPayments')}</FieldError> : null}
      <p className="text-soft">
        A part of an invoice is never smaller, nor is what a part leaves open; an offer can ask for more.
      </p>
      <Heading>Reminders</Heading>
      <div className="grid gap-4 sm:grid-cols-[2fr_1fr_1fr]">
        <Field
          label="Days from the due date"
          value={values.reminders}
          placeholder="-3, 4, 14"
          hint={offsets.length > 0 ? offsets.map(reminderWords).join(', ') : 'No reminders by themselves.'}
          onChange={(event) => set({ reminders: event.target.value })}
        />
        <Field
          label="Quiet from"
          type="time"
          value={values.quietFrom}
          onChange={(event) => set({ quietFrom: event.target.value })}
        />
        <Field
          label="Quiet until"
          type="time"
          value={values.quietTo}
          onChange={(event) => set({ quietTo: event.target.value })}
        />
      </div>
    </>
  );
}

/** The words that invoices are sent with, by language. */
export function ProfileMail({ of: { values, set } }: Part) {
  return (
    <>
      <Heading>Words of the e-mail</Heading>
      <div className="grid gap-4 sm:grid-cols-2">
        {Object.entries(LANGUAGES).map(([code, words]) => (
          <TextField
            key={code}
            label={words.name}
            maxLength={4000}
            placeholder={words.invoiceText}
            value={values.mailTexts[code] ?? ''}
            onChange={(event) => set({ mailTexts: { ...values.mailTexts, [code]: event.target.value } })}
          />
        ))}
      </div>
    </>
  );
}

/** The series in which invoices are numbered. */
export function ProfileNumbers({ of: { values, set, at } }: Part) {
  const today = calendarDate(new Date().toISOString().slice(0, 10));
  return (
    <>
      <Heading>Invoice numbers</Heading>
      {values.series.map((one, at) => (
        <div key={at} className="grid items-start gap-3 sm:grid-cols-[1fr_1.4fr_1fr_auto]">
          <Field
            label="Series"
            value={one.name}
            placeholder="Usual"
            onChange={(event) => set({ series: values.series.toSpliced(at, 1, { ...one, name: event.target.value }) })}
          />
          <Field
            label="Pattern"
            value={one.pattern}
            error={patternProblem(one.pattern) ?? undefined}
            onChange={(event) =>
              set({ series: values.series.toSpliced(at, 1, { ...one, pattern: event.target.value }) })
            }
          />
          <p className="pt-7 text-soft">such as {numberText(one, 42n, today)}</p>
          <Button
            look="link"
            className="pt-7"
            onClick={() => set({ series: values.series.filter((_, place) => place !== at) })}
          >
            Remove
          </Button>
        </div>
      ))}
      <p className="text-soft">
        {values.series.length === 0 ? 'Numbers simply count on. ' : ''}
        <Button
          look="link"
          opens
          onClick={() => set({ series: [...values.series, { name: '', pattern: '{year}-{n:4}' }] })}
        >
          Add a series
        </Button>{' '}
        {'{n}'} counts, {'{n:4}'} with four digits, {'{year}'} begins again each year.
      </p>
      {at('series') ? <FieldError>{at('series')}</FieldError> : null}
    </>
  );
}
