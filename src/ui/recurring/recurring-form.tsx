'use client';
import type { Route } from 'next';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { Field, FieldError } from '../field';
import { send, troubleOf } from '../send';
import { say } from '../toasts';
import { readSchedule, ScheduleForm, type ScheduleTyped } from './schedule-form';

/** Lets an invoice come again: its name, its dates, and whether it is sent or waits as a draft. */
export function RecurringForm({
  from,
  id,
  first,
  firstName,
  firstMakes,
  locale,
  onDone,
}: {
  /** The invoice that comes again, for a new repeat. */
  from?: string;
  /** The repeat that is changed. */
  id?: string;
  first: ScheduleTyped;
  firstName: string;
  firstMakes: 'draft' | 'send';
  locale: string;
  onDone?: () => void;
}) {
  const router = useRouter();
  const [typed, setTyped] = useState(first);
  const [name, setName] = useState(firstName);
  const [makes, setMakes] = useState(firstMakes);
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);

  async function keep() {
    const read = readSchedule(typed);
    if ('trouble' in read) return setTrouble(read.trouble);
    setBusy(true);
    const plan = { name, makes, schedule: read.schedule };
    const answer = id
      ? await send<{ id: string }>('PUT', `/api/recurring/${id}`, plan)
      : await send<{ id: string }>('POST', '/api/recurring', { ...plan, invoiceId: from });
    setBusy(false);
    if (!answer.ok) return setTrouble(troubleOf(answer));
    say(id ? 'It is changed from the next one on' : 'It comes again by itself');
    if (onDone) onDone();
    else router.push(`/ask/recurring/${answer.value.id}` as Route);
    router.refresh();
  }

  return (
    <form
      className="grid gap-5"
      onSubmit={(event) => {
        event.preventDefault();
        void keep();
      }}
    >
      <Field label="Name" maxLength={80} value={name} onChange={(event) => setName(event.target.value)} />
      <ScheduleForm typed={typed} locale={locale} onChange={(part) => setTyped({ ...typed, ...part })} />
      <fieldset>
        <legend className="label mb-1">On each of these days</legend>
        <div className="segment">
          <button
            type="button"
            data-state={makes === 'send' ? 'on' : 'off'}
            aria-pressed={makes === 'send'}
            onClick={() => setMakes('send')}
          >
            it is sent
          </button>
          <button
            type="button"
            data-state={makes === 'draft' ? 'on' : 'off'}
            aria-pressed={makes === 'draft'}
            onClick={() => setMakes('draft')}
          >
            a draft waits for you
          </button>
        </div>
        <p className="small mt-1.5 text-soft">
          {'{month}'} and {'{year}'} in its texts are filled in each time.
        </p>
      </fieldset>
      {trouble ? <FieldError>{trouble}</FieldError> : null}
      <div className="flex justify-end gap-3">
        {onDone ? (
          <button type="button" className="btn" onClick={onDone}>
            Leave it
          </button>
        ) : null}
        <button type="submit" className="btn btn-go" disabled={busy || !name.trim()}>
          {busy ? 'Keeping' : id ? 'Change from the next on' : 'Let it come again'}
        </button>
      </div>
    </form>
  );
}
