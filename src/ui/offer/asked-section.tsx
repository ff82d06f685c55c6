'use client';
import { Trash2 } from 'lucide-react';
import { fillTime } from '@/core/offer/fields';
import { type Asked, FIELD_KINDS, type FieldKind, MOST_FIELDS, type OfferField } from '@/core/offer/offer';
import { Button } from '../kit/button';
import { TickField } from '../kit/check';
import { Field, TextField } from '../kit/field';
import { SelectField } from '../kit/select';
import { Collapsible } from './collapsible';
import { type OfferEditing } from './use-offer';

const ASKED_WORDS: Readonly<Record<Asked, string>> = { no: 'not asked', may: 'if they like', must: 'needed' };

const KINDS: Readonly<Record<FieldKind, string>> = {
  text: 'A text',
  number: 'A number',
  choice: 'A choice',
  date: 'A day',
  tick: 'A box to tick',
  file: 'A file',
};

function AskedChoice({ label, value, onChange }: { label: string; value: Asked; onChange: (value: Asked) => void }) {
  return (
    <SelectField
      label={label}
      className="w-[150px]"
      value={value}
      onChange={(event) => onChange(event.target.value as Asked)}
    >
      {Object.entries(ASKED_WORDS).map(([key, words]) => (
        <option key={key} value={key}>
          {words}
        </option>
      ))}
    </SelectField>
  );
}

/** One question of the business's own. */
function OwnQuestion({ field, at, of }: { field: OfferField; at: number; of: OfferEditing }) {
  const { offer, set, troubles } = of;
  const change = (part: Partial<OfferField>) =>
    set({ fields: offer.fields.map((one) => (one.id === field.id ? { ...one, ...part } : one)) });
  return (
    <li className="grid gap-3 border-b border-rule py-3">
      <div className="flex flex-wrap items-start gap-3">
        <Field
          label="Question"
          className="min-w-[180px] flex-1"
          value={field.label}
          maxLength={120}
          error={troubles[`fields.${at}.label`]}
          onChange={(event) => change({ label: event.target.value })}
        />
        <SelectField
          label="Answer"
          className="w-[130px]"
          value={field.kind}
          onChange={(event) => change({ kind: event.target.value as FieldKind })}
        >
          {FIELD_KINDS.map((kind) => (
            <option key={kind} value={kind}>
              {KINDS[kind]}
            </option>
          ))}
        </SelectField>
        <button
          type="button"
          className="mt-6 grid size-8 place-items-center text-soft hover:text-ink"
          aria-label={`Remove “${field.label || 'this question'}”`}
          onClick={() => set({ fields: offer.fields.filter(({ id }) => id !== field.id) })}
        >
          <Trash2 size={15} strokeWidth={1.5} aria-hidden="true" />
        </button>
      </div>
      <Field
        label="Help below it"
        value={field.help}
        maxLength={300}
        onChange={(event) => change({ help: event.target.value })}
      />
      {field.kind === 'choice' ? (
        <TextField
          label="Answers to choose from, one a line"
          value={field.choices.join('\n')}
          error={troubles[`fields.${at}.choices`]}
          onChange={(event) => change({ choices: event.target.value.split('\n').slice(0, 40) })}
          onBlur={() => change({ choices: field.choices.map((line) => line.trim()).filter(Boolean) })}
        />
      ) : null}
      <div className="flex flex-wrap gap-6">
        <TickField
          label="Needed"
          checked={field.required}
          onChange={(event) => change({ required: event.target.checked })}
        />
        <TickField
          label="Stands on the receipt"
          checked={field.onReceipt}
          onChange={(event) => change({ onReceipt: event.target.checked })}
        />
      </div>
    </li>
  );
}

const timeWords = (seconds: number): string =>
  seconds < 60 ? `about ${seconds} seconds to fill in` : `about ${Math.round(seconds / 30) / 2} minutes to fill in`;

/** What the payer is asked. */
export function AskedSection({ of, terms }: { of: OfferEditing; terms: readonly { id: string; name: string }[] }) {
  const { offer, set } = of;
  const time = fillTime(offer);
  return (
    <Collapsible name="What the payer is asked" now={timeWords(time.seconds)}>
      <p className={time.long ? 'font-medium text-ochre' : 'text-soft'}>
        Name and e-mail address always.{' '}
        {time.long
          ? `The form takes ${timeWords(time.seconds)}: many will leave it. Ask only for what you need.`
          : `The form takes ${timeWords(time.seconds)}.`}
      </p>
      <div className="flex flex-wrap gap-3">
        <AskedChoice label="Phone" value={offer.phone} onChange={(phone) => set({ phone })} />
        <AskedChoice label="Billing address" value={offer.billing} onChange={(billing) => set({ billing })} />
      </div>
      <TickField
        label="They may write you a message"
        checked={offer.message}
        onChange={(event) => set({ message: event.target.checked })}
      />
      {terms.length > 0 ? (
        <SelectField
          label="Terms to accept"
          className="w-[260px]"
          value={offer.termsId ?? ''}
          onChange={(event) => set({ termsId: event.target.value || null })}
        >
          <option value="">none</option>
          {terms.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </SelectField>
      ) : null}
      <ul className="border-t border-rule">
        {offer.fields.map((field, at) => (
          <OwnQuestion key={field.id} field={field} at={at} of={of} />
        ))}
      </ul>
      {offer.fields.length < MOST_FIELDS ? (
        <Button
          look="link"
          opens
          className="justify-self-start"
          onClick={() =>
            set({
              fields: [
                ...offer.fields,
                {
                  id: crypto.randomUUID(),
                  kind: 'text',
                  label: '',
                  help: '',
                  required: false,
                  choices: [],
                  onReceipt: false,
                },
              ],
            })
          }
        >
          Ask something of your own
        </Button>
      ) : null}
    </Collapsible>
  );
}
