import { addDays } from '@/core/dates/calendar-date';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { businessById } from '@/db/businesses';
import { upcomingPage } from '@/db/charges';
import { readBusiness } from '@/db/transaction';
import { chargesCalendar } from '@/documents/calendar/charges';
import { services } from '@/outside/services';
import { found } from '../access';
import { sealed, unsealed } from '../signing';
import { todayOf } from './plan-setting';

const MOST = 2000;
const AHEAD_DAYS = 400;

/** What stands in the address of a business's private calendar. */
export const businessFeedSecret = (businessId: string): string => sealed('calendar', { b: businessId });

/** The coming charges as an iCalendar file (RFC 5545). @throws Refusal `not-found` for an address that is not ours */
export async function calendarFeed(secret: string): Promise<string> {
  const { b: businessId } = found(unsealed<{ b: string }>('calendar', secret));
  const now = await services().clock.now();
  return readBusiness(businessId, async (db) => {
    const business = await businessById(db, businessId);
    const today = todayOf(business, now);
    const ask = {
      words: '',
      states: ['upcoming', 'refused'] as const,
      from: today,
      to: addDays(today, AHEAD_DAYS),
      notCarried: false,
    };
    const rows = await upcomingPage(db, businessId, ask, null, MOST);
    return chargesCalendar(
      business.name,
      rows.map(({ id, chargedOn, amountMinor, currency, customer, plan }) => ({
        id,
        on: chargedOn,
        words: `${moneyText(money(amountMinor, currency), business.locale)}, ${customer}`,
        more: plan,
      })),
    );
  });
}
