'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import {
  AFTERWARDS,
  type Afterwards,
  type ChargingPolicy,
  MISSED_POLICIES,
  type MissedPolicy,
} from '@/core/plan/dunning';
import { FileDrop } from '../import/file-drop';
import { Button } from '../kit/button';
import { TickField } from '../kit/check';
import { Field, FieldError, TextField } from '../kit/field';
import { SelectField } from '../kit/select';
import { send, troubleOf } from '../kit/send';
import { sendFile } from '../kit/send-file';
import { say, sayTrouble } from '../kit/toasts';

const AFTER: Readonly<Record<Afterwards, string>> = {
  pause: 'the plan is paused',
  cancel: 'the plan is cancelled',
  'carry-on': 'the plan goes on, the charge stays open',
};

const MISSED: Readonly<Record<MissedPolicy, string>> = {
  ask: 'nothing is charged until somebody decides',
  last: 'the last one is charged, the others are left out',
  all: 'all of them are charged at once',
};

/** How billing plans are charged: when, how often a refused charge is tried again, what then; days off; what customers agree to. */
export function ChargingSection({
  policy,
  wording: firstWording,
  mayAsk,
}: {
  policy: ChargingPolicy;
  wording: string;
  mayAsk: boolean;
}) {
  const router = useRouter();
  const [fields, setFields] = useState(policy);
  const [days, setDays] = useState(policy.retryDays.join(', '));
  const [wording, setWording] = useState(firstWording);
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const set = (part: Partial<ChargingPolicy>) => setFields((before) => ({ ...before, ...part }));
  const whole = (text: string): number => (/^\d{1,3}$/.test(text.trim()) ? Number(text) : 0);

  async function keep() {
    setBusy(true);
    const retryDays = days
      .split(/[\s,;]+/)
      .filter(Boolean)
      .map(Number);
    const answer = await send('PUT', '/api/charging', {
      ...fields,
      retryDays,
      ...(wording === firstWording ? {} : { wording }),
    });
    setBusy(false);
    setTrouble(troubleOf(answer));
    if (!answer.ok) return;
    say('Saved: plans are charged like this from now on');
    router.refresh();
  }

  async function bringDays(file: File) {
    const answer = await sendFile<{ on: string; name: string }[]>('/api/holidays', file);
    if (!answer.ok) return sayTrouble(answer.words);
    const known = new Map(fields.holidays.map((day) => [day.on, day]));
    for (const day of answer.value) known.set(day.on, day);
    set({ holidays: [...known.values()].sort((a, b) => (a.on < b.on ? -1 : 1)) });
    say(`${answer.value.length} days are read; save them below`);
  }

  return (
    <section className="mt-8" aria-label="Billing plans">
      <h2 className="title-section border-b border-ink pb-1">Billing plans</h2>
      <fieldset disabled={!mayAsk} className="mt-4 grid gap-4 sm:grid-cols-2">
        <Field
          label="Hour of charging, in your zone"
          value={fields.hour}
          onChange={(event) => set({ hour: event.target.value })}
        />
        <Field
          label="A refused charge is tried again after so many days"
          hint="Such as 3, 5, 9; empty for never."
          value={days}
          onChange={(event) => setDays(event.target.value)}
        />
        <SelectField
          label="If it stays refused"
          value={fields.afterwards}
          onChange={(event) => set({ afterwards: event.target.value as Afterwards })}
        >
          {AFTERWARDS.map((one) => (
            <option key={one} value={one}>
              {AFTER[one]}
            </option>
          ))}
        </SelectField>
        <Field
          label="Ask for a new card so many days before one ends"
          inputMode="numeric"
          value={String(fields.expiryDays)}
          onChange={(event) => set({ expiryDays: whole(event.target.value) })}
        />
        <Field
          label="Remind of a link nobody followed after so many days"
          inputMode="numeric"
          value={String(fields.remindDays)}
          onChange={(event) => set({ remindDays: whole(event.target.value) })}
        />
        <Field
          label="Such a link lapses after so many days"
          inputMode="numeric"
          value={String(fields.lapseDays)}
          onChange={(event) => set({ lapseDays: whole(event.target.value) })}
        />
        <SelectField
          label="If several charges of a plan were missed, because nothing ran for days"
          value={fields.missed}
          onChange={(event) => set({ missed: event.target.value as MissedPolicy })}
        >
          {MISSED_POLICIES.map((one) => (
            <option key={one} value={one}>
              {MISSED[one]}
            </option>
          ))}
        </SelectField>
        <TickField
          label="Try the customer’s second card at once"
          checked={fields.secondCard}
          onChange={(event) => set({ secondCard: event.target.checked })}
        />
        <TickField
          label="Write to the customer when a charge is refused"
          checked={fields.tellCustomer}
          onChange={(event) => set({ tellCustomer: event.target.checked })}
        />
        <TextField
          label="What customers agree to"
          className="sm:col-span-2"
          hint="{business}, {customer} and {what} are filled in. A change is a new version; what was agreed to stays as it was."
          value={wording}
          maxLength={4000}
          onChange={(event) => setWording(event.target.value)}
        />
        <div className="sm:col-span-2">
          <span className="label mb-1">Days off, from an iCalendar file</span>
          <FileDrop label="Days off" accept=".ics,text/calendar" hint="or drop an .ics file here" onFile={bringDays} />
          {fields.holidays.length > 0 ? (
            <ul className="mt-2 columns-2 gap-8" aria-label="Days off">
              {fields.holidays.map((day) => (
                <li key={day.on} className="flex items-baseline gap-3 border-b border-rule py-0.5">
                  <span className="tabular-nums">{day.on}</span>
                  <span className="min-w-0 flex-1 truncate text-soft">{day.name}</span>
                  <Button
                    look="small-link"
                    aria-label={`Remove ${day.on}`}
                    onClick={() => set({ holidays: fields.holidays.filter(({ on }) => on !== day.on) })}
                  >
                    Away
                  </Button>
                </li>
              ))}
            </ul>
          ) : null}
        </div>
      </fieldset>
      {trouble ? <FieldError>{trouble}</FieldError> : null}
      {mayAsk ? (
        <div className="mt-4 flex justify-end">
          <Button look="go" busy={busy} onClick={() => void keep()} busyWords="Saving">
            Save how plans are charged
          </Button>
        </div>
      ) : null}
    </section>
  );
}
