import type { Metadata, Route } from 'next';
import Link from 'next/link';
import { notFound } from 'next/navigation';
import { askedOf } from '@/app/asked';
import { pageActor } from '@/app/session';
import { clockTime, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { mayDo } from '@/core/person/rights';
import { type LogEntry, logPage } from '@/flows/log/log';
import { businessToday } from '@/flows/payment/payment-list';
import { PageInput } from '@/input/list-input';
import { Empty } from '@/ui/kit/empty';

export const metadata: Metadata = { title: 'The log' };

const WORDS: Readonly<Record<LogEntry['kind'], string>> = {
  profile: 'changed the profile of the business',
  taxes: 'changed the tax rules',
  tariff: 'changed the card fees agreed',
  charging: 'changed how plans are charged',
  partner: 'changed whom shares are paid to',
  payouts: 'changed when money is paid out',
  vouchers: 'Gift vouchers',
  'bank-account': 'changed an account to which money is paid out',
  'signed-in': 'signed in',
  'sign-in-failed': 'a wrong password was tried',
  'signed-out': 'signed out',
  password: 'chose a new password',
  'signed-up': 'signed up',
  'address-confirmed': 'confirmed their address',
  'address-changed': 'corrected their address',
  'password-asked': 'a link for a new password was asked for',
  'sessions-ended': 'signed out everywhere else',
  invited: 'invited somebody',
  'invitation-withdrawn': 'withdrew an invitation',
  joined: 'joined',
  rights: 'changed who may what',
  left: 'ended somebody’s time here',
};

/** Who changed what holds for the whole business, and who signed in: newest first, for the owners. */
export default async function LogPage({ searchParams }: { searchParams: Promise<object> }) {
  const actor = await pageActor();
  if (!mayDo(actor, 'people')) notFound();
  const { business } = await businessToday(actor);
  const { key, id } = await askedOf(PageInput, searchParams);
  const { entries, next } = await logPage(actor, key && id ? { at: new Date(key), id } : null);
  return (
    <div className="mx-auto max-w-[920px] px-4 pb-10 pt-6 sm:px-7">
      <h1 className="title-screen">The log</h1>
      <p className="document pb-4 pt-1">
        Who changed what holds for the whole business, and who signed in or tried to. Only owners read it, and nobody
        can change it.
      </p>
      {entries.length === 0 ? (
        <Empty words="Nothing has been noted yet." />
      ) : (
        <ul className="border-t border-ink">
          {entries.map((entry) => (
            <li key={entry.id} className="grid gap-x-5 border-b border-rule py-2 sm:grid-cols-[170px_minmax(0,1fr)]">
              <span className="text-soft">
                {shortDate(dateInZone(entry.notedAt, business.zone), business.locale, { year: true })},{' '}
                {clockTime(entry.notedAt, business.zone)}
              </span>
              <div className="min-w-0">
                <span className="name private">{entry.byName}</span>
                {['sign-in-failed', 'password-asked'].includes(entry.kind) ? ': ' : ' '}
                {WORDS[entry.kind]}
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
            href={`/settings/log?key=${encodeURIComponent(next.notedAt.toISOString())}&id=${next.id}` as Route}
          >
            Earlier
          </Link>
        </p>
      ) : null}
    </div>
  );
}
