import { addDays } from '@/core/dates/calendar-date';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { todayOf } from '@/core/plan/days';
import { businessById, feedVersion, raiseFeedVersion } from '@/db/businesses';
import { chargesCalendar } from '@/documents/calendar/charges';
import { CALENDAR_LINK, type CalendarSeal } from '@/flows/door/links';
import { byLink, desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { sealed } from '@/flows/door/signing';
import { chargesByDate, idOfDate } from './beyond';

const MOST = 2000;
const AHEAD_DAYS = 400;

/** What stands in the address of a business's private calendar; a later version makes earlier ones void. */
export const feedSecret = (businessId: string, version: number): string =>
  sealed('calendar', { b: businessId, v: version } satisfies CalendarSeal);

/** Gives the private calendar another address: whoever had the old one reads nothing any more. */
export const renewFeed = desk('ask').write(async (tx): Promise<void> => {
  await raiseFeedVersion(tx);
});

/** The coming charges as an iCalendar file (RFC 5545). @throws Refusal `not-found` for an address that is not ours */
export const calendarFeed = byLink(CALENDAR_LINK).read(async (db, version): Promise<string> => {
  if (version !== (await feedVersion(db))) throw new Refusal('not-found');
  const business = await businessById(db);
  const today = todayOf(business, db.now);
  const ask = {
    words: '',
    states: ['upcoming', 'refused'] as const,
    from: today,
    to: addDays(today, AHEAD_DAYS),
    notCarried: false,
  };
  const rows = await chargesByDate(db, business, ask, null, MOST);
  return chargesCalendar(
    business.name,
    rows.map(({ planId, part, nominal, chargedOn, amountMinor, currency, customer, plan }) => ({
      // The same before it is written down and after.
      id: idOfDate({ planId, part, nominal }),
      on: chargedOn,
      words: `${moneyText(money(amountMinor, currency), business.paperLocale)}, ${customer}`,
      more: plan,
    })),
    db.now,
  );
});
