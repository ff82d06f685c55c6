import { addDays } from '@/core/dates/calendar-date';
import { todayOf } from '@/core/plan/days';
import { businessById } from '@/db/businesses';
import { cardsToAskFor, markAsked } from '@/db/cards';
import { customerById } from '@/db/customers';
import { type Context } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { queueMessage } from '@/flows/message/queue-message';
import { refreshCard } from './cards-on-file';
import { lookTomorrow } from './daily-look';
import { isQuietNow } from './quiet';

const AT_ONCE = 50;

/** Asks holders for a new card in good time; the processor is asked first, since schemes replace cards silently. */
export async function askForCards(ctx: Context): Promise<void> {
  const looked = await ctx.write(async (tx) => {
    if (await isQuietNow(tx)) return null;
    const business = await businessById(tx);
    const month = addDays(todayOf(business, ctx.now), business.charging.expiryDays).slice(0, 7);
    return { month, due: await cardsToAskFor(tx, month, AT_ONCE) };
  });
  if (!looked) return;
  const { month, due } = looked;
  for (const { id } of due) await refreshCard(ctx, id);
  await ctx.write(async (tx) => {
    // Those that are over all the same.
    for (const card of await cardsToAskFor(tx, month, AT_ONCE)) {
      const customer = found(await customerById(tx, card.customerId));
      await markAsked(tx, card.id);
      if (!customer.email) continue;
      const to = { toName: customer.name, toAddress: customer.email };
      const details = { subject: `${card.scheme} ·${card.last4}`, to: card.expires };
      const about = { kind: 'card-asked', customerId: customer.id, details } as const;
      await queueMessage(tx, { ...about, ...to, key: `card-asked:${card.id}:${card.expires}` });
    }
  });
  // More than go at once are dealt with in the next minute.
  if (due.length < AT_ONCE) await lookTomorrow(ctx, 'cards');
}
