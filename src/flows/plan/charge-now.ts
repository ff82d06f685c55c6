import { cardText } from '@/core/payment/outcome';
import { after } from '@/core/plan/charge';
import { businessById } from '@/db/businesses';
import type { CardOnFile } from '@/db/cards';
import { chargesOfPlan, updateCharges } from '@/db/charges';
import { enqueueJobs } from '@/db/jobs';
import { plansOfCustomer } from '@/db/plans';
import type { Tx } from '@/db/pool';
import { addToTimeline } from '@/db/timeline';
import { planAhead } from './plan-ahead';
import { isPausedByRefusal, resumed } from './plan-state';

/** Lets the worker charge what is due of the business; asked twice it is done once. */
export const askToCharge = (tx: Tx): Promise<void> =>
  enqueueJobs(tx, [
    {
      task: 'due-work',
      key: `due:charges:${tx.businessId}`,
      payload: { businessId: tx.businessId, concern: 'charges' },
    },
  ]);

/** A customer gave another card: refused charges are tried with it, and plans that were paused because of them go on. */
export async function retryWithNewCard(tx: Tx, customerId: string, card: CardOnFile): Promise<void> {
  const business = await businessById(tx);
  for (const plan of await plansOfCustomer(tx, customerId)) {
    const paused = isPausedByRefusal(plan);
    if (plan.terms.pay !== 'card' || (plan.state !== 'active' && !paused)) continue;
    const refused = (await chargesOfPlan(tx, plan.id)).filter(({ state }) => state === 'refused');
    await updateCharges(
      tx,
      refused.map((charge) => after(charge, { kind: 'retried', at: tx.now })),
    );
    await planAhead(tx, business, paused ? resumed(business, plan, tx.now) : plan);
    await addToTimeline(tx, { planId: plan.id }, { kind: 'new-card', card: cardText(card) }, 'Customer');
  }
  await askToCharge(tx);
}
