import type { Metadata, Route } from 'next';
import Link from 'next/link';
import { notFound } from 'next/navigation';
import { askedOf } from '@/app/asked';
import { pageActor } from '@/app/session';
import { clockTime, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { happensTo, LOG_WORDS } from '@/core/log/kinds';
import { mayDo } from '@/core/person/rights';
import { logPage } from '@/flows/log/log';
import { businessToday } from '@/flows/payment/payment-list';
import { LogInput } from '@/input/list-input';
import { Empty } from '@/ui/kit/empty';
import { Field } from '@/ui/kit/field';

export const metadata: Metadata = { title: 'The log' };

/** Who changed what holds for the whole business, and who signed in: newest first, for the owners. */
export default async function LogPage({ searchParams }: { searchParams: Promise<object> }) {
  const actor = await pageActor();
  if (!mayDo(actor, 'people')) notFound();
  const { business } = await businessToday(actor);
  const { key, id, words = '' } = await askedOf(LogInput, searchParams);
  const { entries, next } = await logPage(actor, key && id ? { at: new Date(key), id } : null, words);
  const asked = words ? `words=${encodeURIComponent(words)}` : '';
  return (
    <div className="mx-auto max-w-[920px] px-4 pb-10 pt-6 sm:px-7">
      <h1 className="title-screen">The log</h1>
      <p className="document pb-4 pt-1">
        Who changed what holds for the whole business, and who signed in or tried to. Only owners read it, and nobody
        can change it.
      </p>
      <form action="/settings/log" className="flex flex-wrap items-end gap-x-4 gap-y-2 pb-4">
        <Field
          label="Look for"
          name="words"
          defaultValue={words}
          hint="A name, what was changed, a network address, a value."
          className="min-w-[280px] flex-1"
        />
        <p className="flex items-center gap-5 pb-[22px]">
          <button type="submit" className="btn">
            Find
          </button>
          {words ? (
            <Link href="/settings/log" className="link">
              All of it
            </Link>
          ) : null}
          <a className="link" href={`/files/log?words=${encodeURIComponent(words)}`}>
            CSV
          </a>
        </p>
      </form>
      {entries.length === 0 ? (
        <Empty words={words ? 'Nothing is noted with these words.' : 'Nothing has been noted yet.'} />
      ) : (
        <ul className="border-t border-ink">
          {entries.map((entry) => (
            <li key={entry.id} className="grid gap-x-5 border-b border-rule py-2 sm:grid-cols-[170px_minmax(0,1fr)]">
              <span className="text-soft">
                {shortDate(dateInZone(entry.notedAt, business.zone), business.deskLocale, { year: true })},{' '}
                {clockTime(entry.notedAt, business.zone)}
              </span>
              <div className="min-w-0">
                <span className="name private">{entry.byName}</span>
                {happensTo(entry.kind) ? ': ' : ' '}
                {LOG_WORDS[entry.kind]}
                {entry.address ? <span className="private text-soft"> from {entry.address}</span> : null}
                {entry.changes.map(({ what, from, to }) => (
                  <p key={what} className="private break-words">
                    {what}: {to || 'nothing'} <span className="text-soft">(before: {from || 'nothing'})</span>
                  </p>
                ))}
              </div>
            </li>
          ))}
        </ul>
      )}
      {next ? (
        <p className="pt-4">
          <Link
            className="link"
            href={
              `/settings/log?key=${encodeURIComponent(next.notedAt.toISOString())}&id=${next.id}${asked && `&${asked}`}` as Route
            }
          >
            Earlier
          </Link>
        </p>
      ) : null}
    </div>
  );
}
