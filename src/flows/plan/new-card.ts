import { randomUUID } from 'node:crypto';
import { withFirst } from '@/core/plan/cards';
import { RUNNING_STATES } from '@/core/plan/state';
import { customerById } from '@/db/customers';
import { countAttempt } from '@/db/limits';
import { type Plan, plansByIds, plansOfCustomer, updatePlan } from '@/db/plans';
import type { Context } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { writeAuthorisation } from './authorise';
import { orderCards, putOnFile } from './cards-on-file';
import { retryWithNewCard } from './charge-now';
import { withKeptCard } from './claim-card';

/** A card that a customer gives instead of another, agreed to with their name. */
export type NewCard = {
  readonly cardToken?: string | undefined;
  readonly key?: string | undefined;
  readonly name?: string | undefined;
  readonly agrees?: boolean | undefined;
};

/** Whether a card is charged for a plan, now or once it goes on. */
export const isCharged = ({ state, terms }: Pick<Plan, 'state' | 'terms'>): boolean =>
  terms.pay === 'card' && RUNNING_STATES.some((one) => one === state);

/** How many cards one customer may give in an hour: a page of one's own is no place to try out cards. */
const NEW_CARDS = { name: 'own-page-cards', attempts: 8, seconds: 3600 };

/**
 * A new card comes first from now on; what was refused is charged to it at once.
 *
 * @throws Refusal `authorise-first`, `too-many-attempts`, `card-not-kept`
 */
export async function takeNewCard(ctx: Context, customerId: string, asked: NewCard, address: string): Promise<void> {
  if (!asked.agrees || !asked.name?.trim()) throw new Refusal('authorise-first');
  if ((await countAttempt(NEW_CARDS, customerId)) > 0) throw new Refusal('too-many-attempts');
  const byName = asked.name.trim();
  const sent = { token: asked.cardToken ?? '', key: asked.key ?? randomUUID() };
  const card = await withKeptCard(ctx, sent, async (tx, kept) => {
    const customer = found(await customerById(tx, customerId));
    const onFile = await putOnFile(tx, customerId, kept, byName);
    const given = {
      how: 'ticked',
      givenBy: byName,
      takenBy: 'Customer',
      from: address,
      fileId: null,
    } as const;
    const running = (await plansOfCustomer(tx, customerId)).filter(isCharged);
    const plans = await plansByIds(
      tx,
      running.map(({ id }) => id),
      true,
    );
    for (const plan of plans) {
      await writeAuthorisation(tx, customer, { card: onFile, plan }, given);
      if (plan.cardIds.length > 0) await updatePlan(tx, { ...plan, cardIds: withFirst(plan.cardIds, onFile.id) });
    }
    if (plans.length === 0) await writeAuthorisation(tx, customer, { card: onFile, plan: null }, given);
    return onFile;
  });
  await orderCards(ctx, customerId, [card.id]);
  await ctx.turn((tx) => retryWithNewCard(tx, customerId, card));
}
