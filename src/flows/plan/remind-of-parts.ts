import { daysBetween } from '@/core/dates/calendar-date';
import { instantInZone } from '@/core/dates/zone';
import { todayOf } from '@/core/plan/days';
import { partReminder } from '@/core/plan/dunning';
import { payBy } from '@/core/plan/plan';
import { businessById } from '@/db/businesses';
import { chargesOfPlan, claimOpenParts } from '@/db/charges';
import { customerById } from '@/db/customers';
import { planById } from '@/db/plans';
import { each, type ManyResult } from '@/flows/door/many';
import { type Context, desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { queueMessage } from '@/flows/message/queue-message';
import { lookTomorrow } from './daily-look';
import { isQuietNow } from './quiet';

const AT_ONCE = 50;

/** Reminds of parts that were asked for by invoice, as the business reminds of invoices. Each is looked at once a day. */
export async function remindOfParts(ctx: Context): Promise<void> {
  for (;;) {
    const claimed = await ctx.write(async (tx) => {
      if (await isQuietNow(tx)) return null;
      const business = await businessById(tx);
      if (business.reminders.length === 0) return 0;
      const today = todayOf(business, ctx.now);
      const parts = await claimOpenParts(tx, instantInZone(today, '00:00', business.zone), AT_ONCE);
      for (const { id, planId, customerId, chargedOn } of parts) {
        const { terms } = found(await planById(tx, planId));
        const days = partReminder(business.reminders, { askedOn: chargedOn, payBy: payBy(terms, chargedOn) }, today);
        const customer = found(await customerById(tx, customerId));
        if (days === null || !customer.email) continue;
        const details = { chargeId: id, offset: days };
        const about = { kind: 'part-due', planId, customerId, details, key: `part-due:${id}:${days}` } as const;
        await queueMessage(tx, { ...about, toName: customer.name, toAddress: customer.email });
      }
      return parts.length;
    });
    if (claimed === null) return;
    if (claimed < AT_ONCE) return lookTomorrow(ctx, 'parts');
  }
}

/**
 * Reminds the customers of these plans of the oldest part that is late, now.
 *
 * @param requestKey one press, one reminder each
 * @returns how many were reminded, and why the others were not
 */
export const remindOfLateParts = desk('ask').run(
  (ctx, planIds: readonly string[], requestKey: string): Promise<ManyResult> =>
    each([...new Set(planIds)], (planId) =>
      ctx.write(async (tx) => {
        const today = todayOf(await businessById(tx), tx.now);
        const { terms, customerId } = found(await planById(tx, planId));
        const late = (await chargesOfPlan(tx, planId)).find(
          ({ state, chargedOn }) => state === 'billed' && payBy(terms, chargedOn) < today,
        );
        if (!late) throw new Refusal('already-paid');
        const customer = found(await customerById(tx, customerId));
        if (!customer.email) throw new Refusal('customer-without-email');
        const details = { chargeId: late.id, offset: daysBetween(payBy(terms, late.chargedOn), today) };
        const about = {
          kind: 'part-due',
          planId,
          customerId,
          details,
          key: `part-due:${late.id}:${requestKey}`,
        } as const;
        await queueMessage(tx, { ...about, toName: customer.name, toAddress: customer.email });
      }),
    ),
);
