import type { Business } from '@/core/business/business';
import { jsonMinor } from '@/core/money/money';
import { type CardSeen, cardText, type RefusalReason } from '@/core/payment/outcome';
import { cardsTried } from '@/core/plan/cards';
import { after, type Charge, type NextTry } from '@/core/plan/charge';
import { todayOf } from '@/core/plan/days';
import { refusalClass } from '@/core/plan/dunning';
import { nextTry } from '@/core/plan/next-try';
import { RUNNING_STATES } from '@/core/plan/state';
import type { NextTold } from '@/core/timeline/timeline';
import { type CardOnFile, cardsOfCustomers, updateCard } from '@/db/cards';
import { updateCharges } from '@/db/charges';
import { customersByIds } from '@/db/customers';
import { type Plan, plansByIds } from '@/db/plans';
import type { Tx } from '@/db/pool';
import { addLines } from '@/db/timeline';
import { type Outgoing, queueMessages } from '@/flows/message/queue-message';
import { planAllAhead } from './plan-ahead';
import { endPlan, pausePlanNow } from './plan-state';

/** A charge that was refused: why, and with which card; null where there was none of any use. */
export type RefusedCharge = {
  readonly charge: Charge;
  readonly reason: RefusalReason;
  readonly card: CardSeen | null;
};

/** Whether a card may be tried: not taken away, and not one that the bank said never works. */
export const isUsable = ({ state }: Pick<CardOnFile, 'state'>): boolean => state === 'good';

const told = (business: Business, next: NextTry): NextTold =>
  next.kind === 'retry' ? { kind: 'retry', on: todayOf(business, next.at) } : next;

/** Writes refusals down, and what follows them by the business's policy; a charge that is made is one whose debit came back. */
export async function refuseCharges(tx: Tx, business: Business, refused: readonly RefusedCharge[]): Promise<void> {
  if (refused.length === 0) return;
  const usable = await usableCards(tx, refused);
  const decided = refused.map((one) => {
    const { charge, reason } = one;
    // The days for trying again count anew from the day on which a debit came back.
    const from = charge.state === 'charged' ? { ...charge, chargedOn: todayOf(business, tx.now), round: 0 } : charge;
    const next = nextTry(from, reason, business, { usable: usable(charge.planId), now: tx.now });
    const kind = charge.state === 'charged' ? ('came-back' as const) : ('refused' as const);
    return { ...one, next, changed: after(charge, { kind, reason, next }) };
  });
  await updateCharges(
    tx,
    decided.map(({ changed }) => changed),
  );
  await addLines(
    tx,
    decided.map(({ charge, reason, card, next }) => ({
      of: { planId: charge.planId },
      event: {
        kind: 'charge-not-made',
        on: charge.chargedOn,
        amount: jsonMinor(charge.amountMinor),
        reason,
        card: card ? cardText(card) : '',
        next: told(business, next),
      },
      byName: 'Dahlia',
    })),
  );
  if (business.charging.tellCustomer) await tellCustomers(tx, decided);
  await followUp(tx, business, decided);
}

/** The cards that may still be tried, by plan, once those that never work any more are marked. */
async function usableCards(tx: Tx, refused: readonly RefusedCharge[]): Promise<(planId: string) => string[]> {
  const cards = await cardsOfCustomers(tx, [...new Set(refused.map(({ charge }) => charge.customerId))]);
  const plans = await plansByIds(tx, [...new Set(refused.map(({ charge }) => charge.planId))]);
  const useless = new Map<string, RefusalReason>();
  for (const { charge, reason, card } of refused)
    if (charge.cardId && card && refusalClass(reason) === 'never') useless.set(charge.cardId, reason);
  for (const card of cards) {
    const trouble = useless.get(card.id);
    if (trouble) await updateCard(tx, { ...card, state: 'refusing', trouble });
  }
  const tried = cards.map((card) => ({ ...card, usable: isUsable(card) && !useless.has(card.id) }));
  const byPlan = new Map(plans.map((plan) => [plan.id, cardsTried(plan, tried)]));
  return (planId) => byPlan.get(planId) ?? [];
}

type Decided = RefusedCharge & { readonly next: NextTry };

/** Writes to whoever has to know: where another card or the next minute may do, nobody. */
async function tellCustomers(tx: Tx, decided: readonly Decided[]): Promise<void> {
  const telling = decided.filter(({ next }) => next.kind !== 'other-card' && next.kind !== 'soon');
  if (telling.length === 0) return;
  const ids = [...new Set(telling.map(({ charge }) => charge.customerId))];
  const customers = new Map((await customersByIds(tx, ids)).map((customer) => [customer.id, customer]));
  await queueMessages(
    tx,
    telling.flatMap(({ charge, next }): Outgoing[] => {
      const customer = customers.get(charge.customerId);
      if (!customer?.email) return [];
      const which = next.kind === 'give-up' ? 'last' : 'first';
      return [
        {
          kind: 'charge-refused',
          key: `charge-refused:${charge.id}:${which}${charge.state === 'charged' ? `:${charge.paymentId}` : ''}`,
          planId: charge.planId,
          customerId: customer.id,
          toName: customer.name,
          toAddress: customer.email,
          details: { chargeId: charge.id, subject: which },
        },
      ];
    }),
  );
}

/** What becomes of the plans: they go on, pause, or end where a charge is given up. */
async function followUp(tx: Tx, business: Business, decided: readonly Decided[]): Promise<void> {
  const given = new Map<string, NextTry>();
  for (const { charge, next } of decided) if (next.kind === 'give-up') given.set(charge.planId, next);
  const ids = [...new Set(decided.map(({ charge }) => charge.planId))];
  const goOn: Plan[] = [];
  for (const plan of await plansByIds(tx, ids, true)) {
    const next = given.get(plan.id);
    // A debit is told days later, or weeks: the plan may have ended meanwhile.
    if (!RUNNING_STATES.some((state) => state === plan.state)) continue;
    const afterwards = next?.kind === 'give-up' ? next.afterwards : 'carry-on';
    if (afterwards === 'cancel') await endPlan(tx, plan, 'cancelled', { why: 'refused', byName: 'Dahlia' });
    else if (afterwards === 'pause') goOn.push(await pausePlanNow(tx, plan, { why: 'refused', byName: 'Dahlia' }));
    else goOn.push(plan);
  }
  await planAllAhead(tx, business, goOn);
}
