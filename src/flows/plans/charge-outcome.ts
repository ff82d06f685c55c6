import type { Business } from '@/core/business/business';
import { addDays } from '@/core/dates/calendar-date';
import { shortDate } from '@/core/dates/date-text';
import { wireMinor } from '@/core/money/money';
import { type CardSeen, cardText, type RefusalReason } from '@/core/payment/outcome';
import { afterRefusal, refusalClass } from '@/core/plan/dunning';
import { businessById } from '@/db/businesses';
import { type CardOnFile, cardById, cardsOf, updateCard } from '@/db/cards';
import { type Charge, chargeById, chargesOfPlan, openChargesOfInvoice, updateCharge } from '@/db/charges';
import { customerById } from '@/db/customers';
import { type Invoice, invoiceById } from '@/db/invoices';
import type { Payment } from '@/db/payments';
import { type Plan, planById } from '@/db/plans';
import type { Tx } from '@/db/pool';
import { insertHappening } from '@/db/timeline';
import { found } from '../access';
import { queueMessage } from '../queue-message';
import { planAhead } from './plan-ahead';
import { chargeInstant, todayOf } from './plan-setting';
import { endPlan, pausePlanNow } from './plan-state';

/** Soon again after a charge that never reached the processor. */
const SOON_MS = 60_000;

/** Whether a card may be tried: not taken away, and not one that the bank said never works. */
export const isUsable = ({ state }: Pick<CardOnFile, 'state'>): boolean => state === 'good';

/**
 * Follows a payment's outcome into the plan that made it, and money that came another way into the charges of its invoice.
 * Called within the transaction that writes the outcome down.
 */
export async function followIntoPlan(
  tx: Tx,
  businessId: string,
  payment: Payment,
  outcome: { kind: 'accepted'; card: CardSeen } | { kind: 'refused'; reason: RefusalReason; card: CardSeen | null },
  now: Date,
): Promise<void> {
  if (outcome.kind === 'accepted' && payment.invoiceId)
    return followMoney(tx, businessId, payment.invoiceId, payment, cardText(outcome.card), now);
  if (outcome.kind !== 'refused' || !payment.chargeId) return;
  const charge = found(await chargeById(tx, businessId, payment.chargeId, true));
  if (charge.state !== 'charging') return;
  const business = await businessById(tx, businessId);
  const plan = found(await planById(tx, businessId, charge.planId, true));
  await refuseCharge(tx, business, plan, charge, outcome, now);
}

/**
 * Money came in for an invoice, by whatever way: its own charge is made, and what is over pays further open charges in their
 * order, as far as it covers them whole.
 *
 * @param payment the payment, where it was made by a charge; else null
 */
export async function followMoney(
  tx: Tx,
  businessId: string,
  invoiceId: string,
  payment: Pick<Payment, 'id' | 'chargeId'> | null,
  how: string,
  now: Date,
): Promise<void> {
  const open = await openChargesOfInvoice(tx, businessId, invoiceId);
  const first = open[0];
  if (!first) return;
  const business = await businessById(tx, businessId);
  const plan = found(await planById(tx, businessId, first.planId, true));
  const own = payment?.chargeId ? open.find(({ id }) => id === payment.chargeId) : undefined;
  if (own) await settle(tx, business, plan, own, how, payment?.id ?? null, now);
  const invoice = found(await invoiceById(tx, businessId, invoiceId));
  const rest = open.filter((one) => one !== own);
  let over = await notYetCounted(tx, businessId, plan, invoice);
  let settled = own !== undefined;
  for (const charge of rest) {
    // With nothing due any more there is nothing left to charge, whatever the parts were.
    if (charge.state === 'charging' || (charge.amountMinor > over && invoice.dueMinor > 0n)) continue;
    over -= charge.amountMinor;
    await settle(
      tx,
      business,
      plan,
      { ...charge, words: charge.state === 'billed' ? '' : `paid otherwise, ${how}` },
      how,
      payment?.id ?? null,
      now,
    );
    settled = true;
  }
  if (settled) await planAhead(tx, business, found(await planById(tx, businessId, plan.id, true)), now);
}

/** What was paid on the invoice beyond the charges that are counted as made. */
async function notYetCounted(tx: Tx, businessId: string, plan: Plan, invoice: Invoice): Promise<bigint> {
  const counted = (await chargesOfPlan(tx, businessId, plan.id))
    .filter((one) => one.invoiceId === invoice.id && one.state === 'charged')
    .reduce((sum, one) => sum + one.amountMinor, 0n);
  return invoice.paidMinor - invoice.refundedMinor - counted;
}

async function settle(
  tx: Tx,
  business: Business,
  plan: Plan,
  charge: Charge,
  how: string,
  paymentId: string | null,
  now: Date,
): Promise<void> {
  await updateCharge(tx, business.id, { ...charge, state: 'charged', actAt: null, settledAt: now, paymentId });
  const happening = {
    kind: 'charged',
    on: shortDate(charge.chargedOn, business.locale),
    amount: wireMinor(charge.amountMinor),
    card: how,
  } as const;
  await insertHappening(tx, business.id, { planId: plan.id }, happening, 'Dahlia', now);
}

/** Takes a charge as made because nothing is left to charge. */
export async function chargedOtherwise(
  tx: Tx,
  business: Business,
  plan: Plan,
  charge: Charge,
  words: string,
  now: Date,
): Promise<void> {
  await updateCharge(tx, business.id, { ...charge, state: 'skipped', words, actAt: null, settledAt: now });
  await planAhead(tx, business, plan, now);
}

/** Writes a refusal down, and decides by the business's policy what follows. */
export async function refuseCharge(
  tx: Tx,
  business: Business,
  plan: Plan,
  charge: Charge,
  { reason, card }: { reason: RefusalReason; card: CardSeen | null },
  now: Date,
): Promise<void> {
  const kind = refusalClass(reason);
  const used = charge.cardId ? await cardById(tx, business.id, charge.cardId) : null;
  if (used && kind === 'never' && card)
    await updateCard(tx, business.id, { ...used, state: 'refusing', trouble: reason });
  const usable = (await cardsOf(tx, business.id, plan.customerId)).filter(isUsable).map(({ id }) => id);
  const base: Charge = { ...charge, state: 'refused', lastReason: reason, cardId: null };
  const { refused, next } = followUp(business, base, usable, now);
  const give = next.kind === 'give-up';
  const words = nextWords(business, refused, next);
  await updateCharge(tx, business.id, refused);
  const happening = {
    kind: 'charge-refused',
    on: shortDate(charge.chargedOn, business.locale),
    amount: wireMinor(charge.amountMinor),
    reason,
    card: card ? cardText(card) : '',
    next: words,
  } as const;
  await insertHappening(tx, business.id, { planId: plan.id }, happening, 'Dahlia', now);
  if (business.charging.tellCustomer && next.kind !== 'other-card' && next.kind !== 'soon')
    await tellCustomer(tx, business, plan, charge, give ? 'last' : 'first', now);
  const current = found(await planById(tx, business.id, plan.id, true));
  if (next.kind === 'give-up' && next.afterwards === 'cancel')
    return endPlan(tx, business, current, 'cancelled', 'A charge stayed refused', 'Dahlia', now);
  const standing =
    next.kind === 'give-up' && next.afterwards === 'pause'
      ? await pausePlanNow(tx, business, current, 'A charge stayed refused', 'Dahlia', now, true)
      : current;
  await planAhead(tx, business, standing, now);
}

type Next = ReturnType<typeof afterRefusal> | { readonly kind: 'soon' };

function followUp(
  business: Business,
  charge: Charge,
  usable: readonly string[],
  now: Date,
): { refused: Charge; next: Next } {
  if (charge.lastReason === 'never-charged')
    return {
      refused: { ...charge, tried: charge.tried.slice(0, -1), actAt: new Date(now.getTime() + SOON_MS) },
      next: { kind: 'soon' },
    };
  const next = afterRefusal(business.charging, charge.round, usable, charge.tried);
  if (next.kind === 'other-card') return { refused: { ...charge, cardId: next.cardId, actAt: now }, next };
  if (next.kind === 'give-up') return { refused: { ...charge, actAt: null }, next };
  const planned = chargeInstant(business, addDays(charge.chargedOn, next.days));
  const tomorrow = chargeInstant(business, addDays(todayOf(business, now), 1));
  const overdue = planned <= now;
  const actAt = overdue ? tomorrow : planned;
  return { refused: { ...charge, round: charge.round + 1, tried: [], actAt }, next };
}

function nextWords(business: Business, charge: Charge, next: Next): string {
  if (next.kind === 'other-card') return 'the next card is tried';
  if (next.kind === 'soon') return 'tried again in a minute';
  if (next.kind === 'retry' && charge.actAt)
    return `tried again on ${shortDate(todayOf(business, charge.actAt), business.locale)}`;
  const after = { pause: 'the plan is paused', cancel: 'the plan is cancelled', 'carry-on': 'the plan goes on' };
  return `not tried again; ${after[business.charging.afterwards]}`;
}

async function tellCustomer(
  tx: Tx,
  business: Business,
  plan: Plan,
  charge: Charge,
  which: 'first' | 'last',
  now: Date,
): Promise<void> {
  const customer = found(await customerById(tx, business.id, plan.customerId));
  if (!customer.email) return;
  await queueMessage(
    tx,
    business.id,
    {
      kind: 'charge-refused',
      key: `charge-refused:${charge.id}:${which}`,
      planId: plan.id,
      customerId: customer.id,
      invoiceId: null,
      toName: customer.name,
      toAddress: customer.email,
      details: { chargeId: charge.id, subject: which },
    },
    now,
  );
}
