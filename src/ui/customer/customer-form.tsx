'use client';
import { useEffect, useState } from 'react';
import { type Customer, newCustomer } from '@/core/customer/customer';
import type { DueChoice } from '@/core/paper/paper';
import { NO_ADDRESS } from '@/core/place/address';
import { Field, FieldError, SelectField, TextField, TickField } from '../field';
import { send } from '../send';
import { AddressFields } from './address-fields';

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

const listed = (text: string): string[] =>
  text
    .split(/[,;\n]/)
    .map((part) => part.trim())
    .filter(Boolean);

/**
 * A customer's whole record. With `short` only name and the ways to reach them stand open; the rest folds out.
 *
 * @param customer who is changed, or null where somebody is added
 */
export function CustomerForm({
  customer,
  start,
  home,
  short = false,
  onDone,
  onLeave,
}: {
  customer: Customer | null;
  start?: Omit<Customer, 'id'>;
  home: string;
  short?: boolean;
  onDone: (customer: Customer) => void;
  onLeave: () => void;
}) {
  const [fields, setFields] = useState<Omit<Customer, 'id'>>(customer ?? start ?? newCustomer(''));
  const [copies, setCopies] = useState(fields.copies.join(', '));
  const [groups, setGroups] = useState(fields.groups.join(', '));
  const [folded, setFolded] = useState(short);
  const [troubles, setTroubles] = useState<Readonly<Record<string, string>>>({});
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const [alike, setAlike] = useState<readonly Customer[]>([]);
  const set = (part: Partial<Omit<Customer, 'id'>>) => setFields((before) => ({ ...before, ...part }));

  // Who is about to be added may be on file already: said as soon as it can be known, never in the way.
  useEffect(() => {
    if (customer || fields.name.trim().length < 3) return setAlike([]);
    const timer = setTimeout(async () => {
      const asked = new URLSearchParams({ name: fields.name.trim(), email: fields.email.trim() });
      const answer = await send<Customer[]>('GET', `/api/customers/alike?${asked}`);
      if (answer.ok) setAlike(answer.value);
    }, 250);
    return () => clearTimeout(timer);
  }, [customer, fields.name, fields.email]);

  async function keep() {
    setBusy(true);
    const { id: _, ...rest } = { id: '', ...fields };
    const body = { ...rest, copies: listed(copies), groups: listed(groups) };
    const answer = customer
      ? await send<Customer>('PUT', `/api/customers/${customer.id}`, body)
      : await send<Customer>('POST', '/api/customers', body);
    setBusy(false);
    if (answer.ok) return onDone(answer.value);
    setTroubles(Object.fromEntries(answer.fields.map(({ field, words }) => [field, words])));
    if (answer.fields.some(({ field }) => !['name', 'email', 'phone'].includes(field))) setFolded(false);
    setTrouble(answer.fields.length > 0 ? '' : answer.words);
  }

  return (
    <form
      noValidate
      className="grid gap-4"
      onSubmit={(event) => {
        event.preventDefault();
        // Where this form stands over a paper, the paper is a form of its own.
        event.stopPropagation();
        void keep();
      }}
    >
      <fieldset>
        <legend className="sr-only">Who they are</legend>
        <div className="segment">
          {(['person', 'company'] as const).map((kind) => (
            <button
              key={kind}
              type="button"
              data-state={fields.kind === kind ? 'on' : 'off'}
              aria-pressed={fields.kind === kind}
              onClick={() => set({ kind })}
            >
              {kind === 'person' ? 'A person' : 'A company'}
            </button>
          ))}
        </div>
      </fieldset>
      <Field
        label="Name"
        value={fields.name}
        onChange={(event) => set({ name: event.target.value })}
        error={troubles.name}
        autoFocus
        maxLength={160}
      />
      {alike.length > 0 ? (
        <div className="border-l-0 bg-ochre-tint px-3 py-2" role="status">
          <p className="font-medium">Already on file?</p>
          <ul>
            {alike.map((one) => (
              <li key={one.id} className="flex items-baseline gap-2">
                <button type="button" className="link private" onClick={() => onDone(one)}>
                  {one.name}
                </button>
                <span className="private small truncate text-soft">{one.email || one.phone}</span>
              </li>
            ))}
          </ul>
        </div>
      ) : null}
      <Field
        label="E-mail address"
        type="email"
        value={fields.email}
        onChange={(event) => set({ email: event.target.value })}
        error={troubles.email}
        hint="The invoice and the receipt go there."
      />
      <Field
        label="Phone"
        type="tel"
        value={fields.phone}
        onChange={(event) => set({ phone: event.target.value })}
        error={troubles.phone}
        maxLength={40}
      />
      {folded ? (
        <button type="button" className="link justify-self-start" onClick={() => setFolded(false)}>
          Address, language, terms and more
        </button>
      ) : (
        <>
          <Field
            label="Copies to"
            value={copies}
            onChange={(event) => setCopies(event.target.value)}
            error={troubles.copies}
            hint="Further e-mail addresses, with commas between them."
          />
          <AddressFields
            legend="Billing address"
            name="billing"
            address={fields.billing}
            home={home}
            troubles={troubles}
            onChange={(billing) => set({ billing })}
          />
          <TickField
            label="Goods go to another address"
            checked={fields.delivery !== null}
            onChange={(event) => set({ delivery: event.target.checked ? { ...NO_ADDRESS, country: home } : null })}
          />
          {fields.delivery ? (
            <AddressFields
              legend="Delivery address"
              name="delivery"
              address={fields.delivery}
              home={home}
              troubles={troubles}
              onChange={(delivery) => set({ delivery })}
            />
          ) : null}
          <div className="grid gap-3 sm:grid-cols-2">
            <SelectField
              label="Language"
              value={fields.language}
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
              value={fields.currency}
              maxLength={3}
              placeholder="As the business"
              error={troubles.currency ? 'Three letters, such as EUR.' : undefined}
              onChange={(event) => set({ currency: event.target.value.toUpperCase() })}
            />
            <SelectField
              label="Usually due"
              value={termOf(fields.due)}
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
              value={fields.taxNumber}
              maxLength={60}
              onChange={(event) => set({ taxNumber: event.target.value })}
            />
          </div>
          <Field
            label="Groups"
            value={groups}
            onChange={(event) => setGroups(event.target.value)}
            hint="Such as “School” or “Rents a cello”, with commas between them."
          />
          <TextField
            label="Private note"
            value={fields.note}
            maxLength={4000}
            error={troubles.note}
            hint="Only seen here."
            onChange={(event) => set({ note: event.target.value })}
          />
        </>
      )}
      {trouble ? <FieldError>{trouble}</FieldError> : null}
      <div className="flex justify-end gap-3">
        <button type="button" className="btn" onClick={onLeave}>
          Leave it
        </button>
        <button type="submit" className="btn btn-go" disabled={busy}>
          {busy ? 'Keeping' : customer ? 'Keep changes' : 'Add customer'}
        </button>
      </div>
    </form>
  );
}
