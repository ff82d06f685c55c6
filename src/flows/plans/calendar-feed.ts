import { addDays } from '@/core/dates/calendar-date';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { businessById, feedVersion, raiseFeedVersion } from '@/db/businesses';
import { upcomingPage } from '@/db/charges';
import type { Actor } from '@/db/people';
import { inBusiness, readBusiness } from '@/db/transaction';
import { chargesCalendar } from '@/documents/calendar/charges';
import { services } from '@/outside/services';
import { found, requireRight } from '../access';
import { Refusal } from '../refusal';
import { sealed, unsealed } from '../signing';
import { todayOf } from './plan-setting';

const MOST = 2000;
const AHEAD_DAYS = 400;

/** What stands in the address of a business's private calendar; a later version makes earlier ones void. */
export const feedSecret = (businessId: string, version: number): string =>
  sealed('calendar', { b: businessId, v: version });

/** Gives the private calendar another address: whoever had the old one reads nothing any more. */
export async function renewFeed(actor: Actor): Promise<void> {
  requireRight(actor, 'ask');
  await inBusiness(actor.businessId, (tx) => raiseFeedVersion(tx, actor.businessId));
}

/** The coming charges as an iCalendar file (RFC 5545). @throws Refusal `not-found` for an address that is not ours */
export async function calendarFeed(secret: string): Promise<string> {
  const { b: businessId, v } = found(unsealed<{ b: string; v: number }>('calendar', secret));
  const now = await services().clock.now();
  return readBusiness(businessId, async (db) => {
    if (v !== (await feedVersion(db, businessId))) throw new Refusal('not-found');
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
      now,
    );
  });
}
