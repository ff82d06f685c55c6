import { customerById } from '@/db/customers';
import { claimWaiting, markReminded } from '@/db/plans';
import { addToTimeline } from '@/db/timeline';
import { type Context } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { queueMessage } from '@/flows/message/queue-message';

import { isQuietNow } from './quiet';

const AT_ONCE = 50;

/** Reminds whoever got a plan's link and did not follow it, once. */
export async function remindWaiting(ctx: Context): Promise<void> {
  await ctx.write(async (tx) => {
    if (await isQuietNow(tx)) return;
    for (const plan of await claimWaiting(tx, tx.now, AT_ONCE)) {
      const customer = found(await customerById(tx, plan.customerId));
      await markReminded(tx, plan.id);
      if (!customer.email) continue;
      const to = { toName: customer.name, toAddress: customer.email };
      const about = { kind: 'plan-reminder', planId: plan.id, customerId: customer.id } as const;
      await queueMessage(tx, { ...about, ...to, key: `plan-reminder:${plan.id}` });
      const event = { kind: 'plan-reminded', to: customer.email } as const;
      await addToTimeline(tx, { planId: plan.id }, event, 'Dahlia');
    }
  });
}
