'use client';
import { useRouter } from 'next/navigation';
import { type ReactNode, useState } from 'react';
import type { Business } from '@/core/business/business';
import { calendarDate } from '@/core/dates/calendar-date';
import { type NumberSeries, numberText, patternProblem } from '@/core/invoice/numbering';
import { reminderWords } from '@/core/invoice/reminders';
import { contrast } from '@/core/look/contrast';
import { USUAL_WAYS } from '@/core/paper/paper';
import { LANGUAGES } from '@/core/words/words';
import { AddressFields } from '../customer/address-fields';
import { Field, FieldError, TextField, TickField } from '../field';
import { PictureField } from '../picture-field';
import { send, troubleOf } from '../send';
import { say, sayTrouble } from '../toasts';
import { TermsSection, type TermsText } from './terms-section';

type Fields = Omit<
  Business,
  | 'id'
  | 'address'
  | 'zone'
  | 'locale'
  | 'currency'
  | 'smallestPaymentMinor'
  | 'signingSecret'
  | 'receiptStyle'
  | 'charging'
> & {
  readonly series: readonly NumberSeries[];
};

const Heading = ({ children }: { children: string }) => (
  <h2 className="title-section mt-2 border-b border-ink pb-1">{children}</h2>
);

/** All that the business's documents show and how they go out. */
export function ProfileForm({
  fields: kept,
  terms,
  locale,
  currency,
  mayAsk,
  children,
}: {
  fields: Fields;
  terms: readonly TermsText[];
  locale: string;
  currency: string;
  mayAsk: boolean;
  /** Sections of their own, below. */
  children?: ReactNode;
}) {
  const router = useRouter();
  const [fields, setFields] = useState(kept);
  const [reminders, setReminders] = useState(kept.reminders.join(', '));
  const [troubles, setTroubles] = useState<Readonly<Record<string, string>>>({});
  const [busy, setBusy] = useState(false);
  const set = (part: Partial<Fields>) => setFields((before) => ({ ...before, ...part }));
  const ways = fields.ways ?? USUAL_WAYS;

  async function keep() {
    setBusy(true);
    const offsets = reminders
      .split(/[\s,;]+/)
      .filter((part) => /^-?\d{1,3}$/.test(part))
      .map(Number);
    const answer = await send('PUT', '/api/profile', {
      ...fields,
      reminders: [...new Set(offsets)].sort((a, b) => a - b),
    });
    setBusy(false);
    if (!answer.ok) {
      setTroubles(Object.fromEntries(answer.fields.map(({ field, words }) => [field, words])));
      return sayTrouble(troubleOf(answer));
    }
    setTroubles({});
    say('The profile is kept');
    router.refresh();
  }

  const pale = /^#[0-9a-f]{6}$/i.test(fields.accent) && contrast(fields.accent, '#fffdf9') < 4.5;
  const today = calendarDate(new Date().toISOString().slice(0, 10));
  const offsets = reminders
    .split(/[\s,;]+/)
    .filter((part) => /^-?\d{1,3}$/.test(part))
    .map(Number);
  return (
    <div className="mx-auto max-w-[860px] px-4 pb-12 pt-4 sm:px-7">
      <article className="sheet px-5 py-5 sm:px-8" aria-label="The business’s profile">
        <form
          noValidate
          onSubmit={(event) => {
            event.preventDefault();
            void keep();
          }}
        >
          <fieldset disabled={!mayAsk} className="grid min-w-0 gap-4">
            <legend className="sr-only">The profile</legend>
            <div className="flex flex-wrap items-baseline gap-4">
              <h1 className="title-screen flex-1">{fields.name || 'The business'}</h1>
              <button type="submit" className="btn btn-go" disabled={busy || !mayAsk}>
                {busy ? 'Keeping' : 'Keep profile'}
              </button>
            </div>
            <div className="grid gap-4 sm:grid-cols-2">
              <Field
                label="Name"
                value={fields.name}
                error={troubles.name}
                onChange={(event) => set({ name: event.target.value })}
              />
              <Field
                label="E-mail address"
                type="email"
                value={fields.email}
                error={troubles.email}
                hint="Answers to your mails go there."
                onChange={(event) => set({ email: event.target.value })}
              />
              <Field label="Phone" value={fields.phone} onChange={(event) => set({ phone: event.target.value })} />
              <Field
                label="Website"
                value={fields.website}
                onChange={(event) => set({ website: event.target.value })}
              />
              <Field
                label="Tax number"
                value={fields.taxNumber}
                onChange={(event) => set({ taxNumber: event.target.value })}
              />
              <div>
                <label className="label mb-1" htmlFor="accent">
                  Colour of your documents
                </label>
                <div className="flex items-center gap-3">
                  <input
                    id="accent"
                    type="color"
                    className="h-9 w-14"
                    value={fields.accent}
                    onChange={(event) => set({ accent: event.target.value })}
                  />
                  <span className="text-soft">{fields.accent}</span>
                </div>
                {pale ? (
                  <p className="small mt-1 font-medium text-ochre">
                    This is hard to read on paper. A darker one reads better.
                  </p>
                ) : null}
              </div>
            </div>
            <PictureField name="logo" purpose="logo" fileId={fields.logoId} onPicture={(logoId) => set({ logoId })} />
            <AddressFields
              legend="Address"
              name="place"
              address={fields.place}
              home={fields.country}
              troubles={troubles}
              onChange={(place) => set({ place })}
            />
            <Heading>Bank account for transfers</Heading>
            <div className="grid gap-4 sm:grid-cols-2">
              {(
                [
                  ['holder', 'Account holder'],
                  ['account', 'Account number or IBAN'],
                  ['bankCode', 'Bank code or BIC'],
                  ['bank', 'Bank'],
                ] as const
              ).map(([part, words]) => (
                <Field
                  key={part}
                  label={words}
                  value={fields.bank[part]}
                  onChange={(event) => set({ bank: { ...fields.bank, [part]: event.target.value } })}
                />
              ))}
            </div>
            <Heading>New invoices</Heading>
            <div className="grid gap-3 sm:grid-cols-2">
              <TickField
                label="Can be paid by card"
                checked={ways.card}
                onChange={(event) => set({ ways: { ...ways, card: event.target.checked } })}
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
                checked={fields.pricesIncludeTax}
                onChange={(event) => set({ pricesIncludeTax: event.target.checked })}
              />
            </div>
            <div className="grid gap-4 sm:grid-cols-2">
              <div>
                <label className="label mb-1" htmlFor="usual-terms">
                  Usual terms
                </label>
                <select
                  id="usual-terms"
                  className="input"
                  value={fields.termsId ?? ''}
                  onChange={(event) => set({ termsId: event.target.value || null })}
                >
                  <option value="">none</option>
                  {terms.map((one) => (
                    <option key={one.id} value={one.id}>
                      {one.name}
                    </option>
                  ))}
                </select>
              </div>
              <p className="self-end pb-2 text-soft">
                Sums are counted in {currency}; dates are written as in {locale}.
              </p>
            </div>
            <Heading>Reminders</Heading>
            <div className="grid gap-4 sm:grid-cols-[2fr_1fr_1fr]">
              <Field
                label="Days from the due date"
                value={reminders}
                placeholder="-3, 4, 14"
                hint={offsets.length > 0 ? offsets.map(reminderWords).join(', ') : 'No reminders by themselves.'}
                onChange={(event) => setReminders(event.target.value)}
              />
              <Field
                label="Quiet from"
                type="time"
                value={fields.quietFrom}
                onChange={(event) => set({ quietFrom: event.target.value })}
              />
              <Field
                label="Quiet until"
                type="time"
                value={fields.quietTo}
                onChange={(event) => set({ quietTo: event.target.value })}
              />
            </div>
            <Heading>Words of the e-mail</Heading>
            <div className="grid gap-4 sm:grid-cols-2">
              {Object.entries(LANGUAGES).map(([code, words]) => (
                <TextField
                  key={code}
                  label={words.name}
                  maxLength={4000}
                  placeholder={words.invoiceText}
                  value={fields.mailTexts[code] ?? ''}
                  onChange={(event) => set({ mailTexts: { ...fields.mailTexts, [code]: event.target.value } })}
                />
              ))}
            </div>
            <Heading>Invoice numbers</Heading>
            {fields.series.map((one, at) => (
              <div key={at} className="grid items-start gap-3 sm:grid-cols-[1fr_1.4fr_1fr_auto]">
                <Field
                  label="Series"
                  value={one.name}
                  placeholder="Usual"
                  onChange={(event) =>
                    set({ series: fields.series.toSpliced(at, 1, { ...one, name: event.target.value }) })
                  }
                />
                <Field
                  label="Pattern"
                  value={one.pattern}
                  error={patternProblem(one.pattern) ?? undefined}
                  onChange={(event) =>
                    set({ series: fields.series.toSpliced(at, 1, { ...one, pattern: event.target.value }) })
                  }
                />
                <p className="pt-7 text-soft">such as {numberText(one, 42n, today)}</p>
                <button
                  type="button"
                  className="link pt-7"
                  onClick={() => set({ series: fields.series.filter((_, place) => place !== at) })}
                >
                  Remove
                </button>
              </div>
            ))}
            <p className="text-soft">
              {fields.series.length === 0 ? 'Numbers simply count on. ' : ''}
              <button
                type="button"
                className="link"
                onClick={() => set({ series: [...fields.series, { name: '', pattern: '{year}-{n:4}' }] })}
              >
                Add a series
              </button>{' '}
              {'{n}'} counts, {'{n:4}'} with four digits, {'{year}'} begins again each year.
            </p>
            {troubles.series ? <FieldError>{troubles.series}</FieldError> : null}
          </fieldset>
        </form>
        <div className="mt-6">
          <TermsSection terms={terms} mayAsk={mayAsk} />
        </div>
        {children}
      </article>
    </div>
  );
}
