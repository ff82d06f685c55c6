import { addDays } from '@/core/dates/calendar-date';
import { longDate } from '@/core/dates/date-text';
import { dateInZone, instantInZone } from '@/core/dates/zone';
import { canBeOf, type ToldDispute } from '@/core/dispute/dispute';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { isUuid } from '@/core/uuid';
import { businessById } from '@/db/businesses';
import { type Dispute, disputesByKeys, takeToRemind } from '@/db/disputes';
import { paymentById } from '@/db/payments';
import type { Context } from '@/flows/door/operation';
import { services } from '@/outside/services';
import { recordDispute, tellOwners } from './record-dispute';

/** So many days before the last one the owners are reminded. */
const REMIND_DAYS = 3;

/** Asks the processor which payments are disputed, and writes down what is news. While it does not answer, nothing is lost: it is asked again. */
export async function lookForDisputes(ctx: Context): Promise<void> {
  const told = await services().cards.disputes(`${ctx.businessId}.`);
  if (!told) return;
  const later = await ctx.later();
  for (const one of await newsOf(later, told)) await later.turn((tx) => recordDispute(tx, one));
  await later.write(async (tx) => {
    const { zone, paperLocale: locale } = await businessById(tx);
    const before = instantInZone(addDays(dateInZone(tx.now, zone), REMIND_DAYS + 1), '00:00', zone);
    for (const dispute of await takeToRemind(tx, before)) {
      const sum = moneyText(money(dispute.amountMinor, dispute.currency), locale);
      const last = longDate(dateInZone(dispute.answerBy, zone), locale);
      await tellOwners(
        tx,
        dispute,
        'reminder',
        `The dispute about ${sum} is not answered yet: the last day is ${last}`,
      );
    }
  });
}

/** What of it is not written down yet, of payments that are here. */
async function newsOf(ctx: Context, told: readonly ToldDispute[]): Promise<ToldDispute[]> {
  return ctx.read(async (db) => {
    const known = new Map<string, Dispute>();
    for (const one of await disputesByKeys(
      db,
      told.map(({ key }) => key),
    ))
      known.set(one.key, one);
    const fresh: ToldDispute[] = [];
    for (const one of told) {
      const here = known.get(one.key);
      if (here && (here.settledAt || !one.decided)) continue;
      const payment = isUuid(one.paymentId) ? await paymentById(db, one.paymentId) : null;
      if (payment && canBeOf(one, payment)) fresh.push(one);
    }
    return fresh;
  });
}
