'use client';
import type { Route } from 'next';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { shortDate } from '@/core/dates/date-text';
import { everyWords } from '@/core/invoice/recurring';
import type { Schedule, ScheduledDate } from '@/core/schedule/schedule';
import { typedSchedule } from '@/core/schedule/typed';
import { Button } from '../kit/button';
import { send } from '../kit/send';
import { say, sayTrouble } from '../kit/toasts';
import { DateLine } from '../schedule/coming-dates';
import { RecurringForm } from './recurring-form';

const STATE = { active: 'Active', paused: 'Paused', finished: 'Finished' } as const;

/** An invoice that comes again: what comes, what came, and what can be done about it. */
export function RecurringSheet({
  id,
  name,
  customer,
  schedule,
  makes,
  state,
  coming,
  runs,
  locale,
  mayAsk,
}: {
  id: string;
  name: string;
  customer: string;
  schedule: Schedule;
  makes: 'draft' | 'send';
  state: keyof typeof STATE;
  coming: readonly ScheduledDate[];
  runs: readonly { nominal: CalendarDate; invoiceId: string | null; number: string | null; trouble: string | null }[];
  locale: string;
  mayAsk: boolean;
}) {
  const router = useRouter();
  const [changing, setChanging] = useState(false);
  const [busy, setBusy] = useState(false);
  async function act(action: 'pause' | 'resume' | 'skip' | 'end', done: string) {
    setBusy(true);
    const answer = await send('POST', `/api/recurring/${id}`, { action });
    setBusy(false);
    if (!answer.ok) return sayTrouble(answer.words);
    say(done);
    router.refresh();
  }
  const [next, ...later] = coming;
  return (
    <article className="sheet px-7 py-5" aria-label={name}>
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-2">
        <h1 className="title-screen flex-1">{name}</h1>
        {mayAsk && !changing && state !== 'finished' ? (
          <>
            <Button look="link" opens onClick={() => setChanging(true)}>
              Edit
            </Button>
            {state === 'active' ? (
              <Button look="link" disabled={busy} onClick={() => void act('pause', 'It is paused')}>
                Pause
              </Button>
            ) : (
              <Button look="go" disabled={busy} onClick={() => void act('resume', 'It goes on')}>
                Resume
              </Button>
            )}
            <Button look="link" disabled={busy} onClick={() => void act('end', 'It has ended')}>
              End it
            </Button>
          </>
        ) : null}
      </div>
      <p className="document">
        <b className="font-semibold">{STATE[state]}.</b> For <span className="private">{customer}</span>,{' '}
        {everyWords(schedule)}; {makes === 'send' ? 'sent by itself' : 'waits as a draft'}.
      </p>
      {changing ? (
        <div className="mt-5">
          <RecurringForm
            id={id}
            first={typedSchedule(schedule)}
            firstName={name}
            firstMakes={makes}
            locale={locale}
            onDone={() => setChanging(false)}
          />
        </div>
      ) : (
        <div className="mt-5 grid gap-8 sm:grid-cols-2">
          <section aria-label="What comes">
            <h2 className="title-section border-b border-ink pb-1">What comes</h2>
            {next ? (
              <ol>
                <li className="flex items-baseline gap-3 border-b border-rule py-1.5">
                  <span className="flex-1 font-semibold">
                    <DateLine date={next} locale={locale} />
                  </span>
                  {mayAsk ? (
                    <Button
                      look="small-link"
                      disabled={busy}
                      onClick={() => void act('skip', 'The next one is left out')}
                    >
                      Leave this one out
                    </Button>
                  ) : null}
                </li>
                {later.map((date) => (
                  <li key={date.nominal} className="border-b border-rule py-1">
                    <DateLine date={date} locale={locale} />
                  </li>
                ))}
              </ol>
            ) : (
              <p className="py-2 text-soft">Nothing more.</p>
            )}
          </section>
          <section aria-label="What came">
            <h2 className="title-section border-b border-ink pb-1">What came</h2>
            <ul>
              {runs.map((run) => (
                <li key={run.nominal} className="border-b border-rule py-1">
                  {shortDate(run.nominal, locale, { year: true })}{' '}
                  {run.invoiceId ? (
                    <Link
                      className="link link-small"
                      href={(run.number ? `/ask/invoices/${run.invoiceId}` : `/ask/compose/${run.invoiceId}`) as Route}
                    >
                      {run.number ? `Invoice ${run.number}` : 'Draft'}
                    </Link>
                  ) : (
                    <span className="text-soft">discarded</span>
                  )}
                  {run.trouble ? (
                    <span className="small block font-medium text-brick">Not sent: {run.trouble}</span>
                  ) : null}
                </li>
              ))}
              {runs.length === 0 ? <li className="py-2 text-soft">Nothing yet.</li> : null}
            </ul>
          </section>
        </div>
      )}
    </article>
  );
}
