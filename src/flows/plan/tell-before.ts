import { todayOf } from '@/core/plan/days';
import { businessById } from '@/db/businesses';
import { claimNotices, markNoticed } from '@/db/charges';
import { customerById } from '@/db/customers';
import { type Context } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { queueMessage } from '@/flows/message/queue-message';

import { isQuietNow } from './quiet';

const AT_ONCE = 50;

/** Tells customers of charges as many days before as their plans say. */
export async function tellBefore(ctx: Context): Promise<void> {
  for (;;) {
    const told = await ctx.write(async (tx) => {
      if (await isQuietNow(tx)) return 0;
      const business = await businessById(tx);
      const due = await claimNotices(tx, todayOf(business, ctx.now), AT_ONCE);
      for (const { id, planId, customerId } of due) {
        const customer = found(await customerById(tx, customerId));
        await markNoticed(tx, id);
        if (!customer.email) continue;
        const to = { toName: customer.name, toAddress: customer.email };
        const about = { kind: 'charge-notice', planId, customerId, details: { chargeId: id } } as const;
        await queueMessage(tx, { ...about, ...to, key: `charge-notice:${id}` });
      }
      return due.length;
    });
    if (told < AT_ONCE) return;
  }
}
