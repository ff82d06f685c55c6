import type { Metadata } from 'next';
import { askedOf } from '@/app/asked';
import { jsonUpcoming, upcomingWords } from '@/app/json-upcoming';
import { pageActor } from '@/app/session';
import { jsonMinor } from '@/core/money/money';
import { mayDo } from '@/core/person/rights';
import { upcomingCharges, upcomingMonth, upcomingSetting } from '@/flows/plan/upcoming';
import { UpcomingPageInput } from '@/input/plan-input';
import { Upcoming } from '@/ui/upcoming/upcoming';
import { MoneyTabs } from '../money-tabs';

export const metadata: Metadata = { title: 'Upcoming' };

export default async function UpcomingPage({ searchParams }: { searchParams: Promise<object> }) {
  const actor = await pageActor();
  const asked = await askedOf(UpcomingPageInput, searchParams);
  const { business, today, feed } = await upcomingSetting(actor);
  const looksAhead = !asked.from && !asked.to && !asked.state && !asked.notCarried && !asked.words;
  const words = upcomingWords({ ...asked, ...(looksAhead ? { from: today } : {}) });
  const month = asked.month ?? today.slice(0, 7);
  const [page, days] = await Promise.all([
    upcomingCharges(actor, words, null),
    upcomingMonth(actor, month, { ...words, from: '', to: '' }),
  ]);
  return (
    <>
      <MoneyTabs here="Upcoming" />
      <Upcoming
        key={JSON.stringify(asked)}
        rows={page.rows.map(jsonUpcoming)}
        next={page.next}
        days={days.map(({ minor, ...day }) => ({ ...day, minor: jsonMinor(minor) }))}
        month={month}
        asked={{
          words: asked.words ?? '',
          state: asked.state ?? '',
          from: words.from,
          to: words.to,
          notCarried: asked.notCarried === 'yes',
          as: asked.as === 'calendar' ? 'calendar' : 'list',
        }}
        feed={feed}
        currency={business.currency}
        locale={business.deskLocale}
        zone={business.zone}
        today={today}
        mayAsk={mayDo(actor, 'ask')}
      />
    </>
  );
}
