import type { Metadata } from 'next';
import { pageActor } from '@/app/session';
import { shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { donors } from '@/flows/gifts';
import { businessToday } from '@/flows/payment-list';
import { GiftLetters } from '@/ui/gifts/gift-letters';
import { RecordsShelf } from '../shelf';

export const metadata: Metadata = { title: 'Yearly letters' };

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
      <RecordsShelf here="Customers" />
      <GiftLetters
        key={year}
        year={year}
        years={years}
        locale={business.locale}
        mayAsk={actor.role !== 'reader'}
        donors={rows.map(({ sentAt, ...donor }) => ({
          ...donor,
          sent: sentAt ? shortDate(dateInZone(sentAt, business.zone), business.locale, { year: true }) : '',
        }))}
      />
    </>
  );
}
