import type { Metadata } from 'next';
import { pageActor } from '@/app/session';
import { shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { jsonMinor } from '@/core/money/money';
import { mayDo } from '@/core/person/rights';
import { businessToday } from '@/flows/payment/payment-list';
import { donors } from '@/flows/records/gifts';
import { GiftLetters } from '@/ui/gifts/gift-letters';
import { RecordsTabs } from '../records-tabs';

export const metadata: Metadata = { title: 'Donation statements' };

/** How many years back are offered. */
const YEARS = 6;

export default async function GiftLettersPage({ searchParams }: { searchParams: Promise<{ year?: string }> }) {
  const actor = await pageActor();
  const { business, today } = await businessToday(actor);
  const thisYear = Number(today.slice(0, 4));
  const asked = Number((await searchParams).year);
  const years = Array.from({ length: YEARS }, (_, back) => thisYear - back);
  // A letter is usually written about the year that is over.
  const year = years.includes(asked) ? asked : today.slice(5, 7) === '12' ? thisYear : thisYear - 1;
  const rows = await donors(actor, year);
  return (
    <>
      <RecordsTabs here="Customers" />
      <GiftLetters
        key={year}
        year={year}
        years={years}
        locale={business.deskLocale}
        mayAsk={mayDo(actor, 'ask')}
        donors={rows.map(({ sentAt, minor, ...donor }) => ({
          ...donor,
          minor: jsonMinor(minor),
          sent: sentAt ? shortDate(dateInZone(sentAt, business.zone), business.deskLocale, { year: true }) : '',
        }))}
      />
    </>
  );
}
