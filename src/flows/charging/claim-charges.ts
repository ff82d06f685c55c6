import { randomUUID } from 'node:crypto';
import type { Business } from '@/core/business/business';
import type { Customer } from '@/core/customer/customer';
import { asFront } from '@/core/front/front';
import { methodOf } from '@/core/payment/outcome';
import { cardsTried } from '@/core/plan/cards';
import type { Charge } from '@/core/plan/charge';
import { type Decided, decideCharge } from '@/core/plan/due-charge';
import { businessById } from '@/db/businesses';
import { type CardOnFile, cardsOfCustomers } from '@/db/cards';
import { claimCharges, updateCharges } from '@/db/charges';
import { customersByIds } from '@/db/customers';
import { invoicesByIds } from '@/db/invoices';
import { heldOfInvoices, insertPayments, type NewPayment } from '@/db/payments';
import { peopleByIds } from '@/db/people';
import { type Plan, plansByIds } from '@/db/plans';
import type { Tx } from '@/db/pool';
import { addLines } from '@/db/timeline';
import type { Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { issueInvoices } from '@/flows/invoice/issue-invoices';
import { queueMessages } from '@/flows/message/queue-message';
import { askAboutLater } from '@/flows/payment/ask-later';
import { invoiceOfCharge } from '@/flows/plan/bill-charge';
import { planAllAhead } from '@/flows/plan/plan-ahead';
import { isUsable, refuseCharges } from '@/flows/plan/refuse-charges';
import { withoutMissed } from './missed-charges';

/** A sale that is written down and has not been sent yet. */
export type Sale = {
  readonly payment: Pick<NewPayment, 'id' | 'invoiceId' | 'orderId' | 'currency' | 'amountMinor'>;
  readonly card: CardOnFile;
  readonly reference: string;
};

/** A due charge with all that its decision needs. */
type Due = { readonly charge: Charge; readonly plan: Plan; readonly customer: Customer };

const byId = <One extends { readonly id: string }>(all: readonly One[]): Map<string, One> =>
  new Map(all.map((one) => [one.id, one]));

/**
 * Takes up to `limit` due charges, in order of date, and writes down in a handful of statements what is to happen with each: its
 * invoice, its attempt with a job that will ask about it, or why it is not made. So each is charged once, whatever is killed and
 * whoever else charges. What cannot be billed falls out and is told; the others go on.
 *
 * @returns how many were taken, and the sales that are to be sent now
 */
export async function claimDue(tx: Writing, limit: number): Promise<{ claimed: number; sales: Sale[] }> {
  const timely = await claimCharges(tx, limit);
  if (timely.length === 0) return { claimed: 0, sales: [] };
  const business = await businessById(tx);
  const claimed = await withoutMissed(tx, business, timely);
  const due = await loaded(tx, claimed);
  const cards = await cardsOfCustomers(tx, [...new Set(due.map(({ customer }) => customer.id))]);
  const tried = cards.map((card) => ({ ...card, usable: isUsable(card) }));
  const invoices = await invoicesOf(tx, business, due);
  const decided = due.map((one): Due & { decision: Decided } => {
    const { charge, plan, customer } = one;
    const invoice = invoices.get(charge.id) ?? { problem: '' };
    const usable = cardsTried(plan, tried);
    const choosable = cardsTried({ customerId: customer.id, cardIds: [] }, tried);
    const { state, terms } = plan;
    const facts = { plan: { state, pay: terms.pay, kind: terms.kind }, invoice, usable, choosable };
    const decision = decideCharge(charge, { ...facts, paymentId: randomUUID(), now: tx.now });
    // What one takes of an invoice is no longer left for the next.
    if (decision.kind === 'attempt' && 'id' in invoice) invoice.leftMinor -= decision.charge.amountMinor;
    return { ...one, decision };
  });
  const sales = await writeAttempts(tx, business, decided, byId(cards));
  await updateCharges(
    tx,
    decided.map(({ decision }) => decision.charge),
  );
  await askForParts(tx, decided);
  await refuseCharges(
    tx,
    business,
    decided
      .filter(({ decision }) => decision.kind === 'without-card')
      .map(({ decision: { charge } }) => ({ charge, reason: charge.lastReason ?? 'card-blocked', card: null })),
  );
  const changed = decided.filter(
    ({ decision: { kind } }) => kind !== 'attempt' && kind !== 'held' && kind !== 'without-card',
  );
  await planAllAhead(tx, business, [...new Set(changed.map(({ plan }) => plan))]);
  return { claimed: timely.length, sales };
}

async function loaded(tx: Tx, claimed: readonly Charge[]): Promise<Due[]> {
  const plans = byId(await plansByIds(tx, [...new Set(claimed.map(({ planId }) => planId))], true));
  const customers = byId(
    await customersByIds(tx, [...new Set([...plans.values()].map((plan) => plan.customerId))], true),
  );
  return claimed.map((charge) => {
    const plan = found(plans.get(charge.planId));
    return { charge, plan, customer: found(customers.get(plan.customerId)) };
  });
}

type InvoiceFacts = { id: string; totalMinor: bigint; leftMinor: bigint } | { problem: string };

/** The invoices that charges are paid into, by charge: the plan's over the whole balance, or one of its own that is issued now. */
async function invoicesOf(tx: Writing, business: Business, due: readonly Due[]): Promise<Map<string, InvoiceFacts>> {
  const running = due.filter(({ plan }) => plan.state === 'active');
  const knownId = ({ charge, plan }: Due) => charge.invoiceId ?? plan.invoiceId;
  const ids = [...new Set(running.flatMap((one) => knownId(one) ?? []))];
  const known = ids.length > 0 ? await invoicesByIds(tx, ids, true) : [];
  const held = known.length > 0 ? await heldOfInvoices(tx, ids) : new Map<string, bigint>();
  const facts = new Map<string, InvoiceFacts>(
    known.map(({ id, stage, totalMinor, dueMinor }) => {
      const leftMinor = stage === 'sent' ? dueMinor - (held.get(id) ?? 0n) : 0n;
      return [id, { id, totalMinor, leftMinor }];
    }),
  );
  const fresh = running.filter((one) => !knownId(one));
  const people = byId(await peopleByIds(tx, [...new Set(fresh.flatMap(({ plan }) => plan.byId ?? []))]));
  const issued = await issueInvoices(
    tx,
    business,
    fresh.map((one) => invoiceOfCharge(business, one, people.get(one.plan.byId ?? '')?.name ?? 'Dahlia')),
  );
  const own = new Map<string, InvoiceFacts>(
    fresh.map(({ charge }, at) => {
      const invoice = issued[at];
      if (!invoice || invoice instanceof Refusal)
        return [charge.id, { problem: invoice?.fields[0]?.words ?? invoice?.words ?? '' }];
      return [charge.id, { id: invoice.id, totalMinor: invoice.totalMinor, leftMinor: invoice.totalMinor }];
    }),
  );
  for (const one of running) {
    const shared = facts.get(knownId(one) ?? '');
    if (shared) own.set(one.charge.id, shared);
  }
  return own;
}

/** Writes attempts down, with one job that will ask about them all, before the processor hears of any. */
async function writeAttempts(
  tx: Tx,
  business: Business,
  decided: readonly (Due & { readonly decision: Decided })[],
  cards: ReadonlyMap<string, CardOnFile>,
): Promise<Sale[]> {
  const sales = decided.flatMap(({ plan, decision }) => {
    if (decision.kind !== 'attempt') return [];
    const { id, invoiceId, paymentId, customerId, currency, amountMinor, attempts } = decision.charge;
    const card = found(cards.get(decision.cardId));
    const payment: NewPayment = {
      id: found(paymentId),
      invoiceId: found(invoiceId),
      orderId: null,
      chargeId: id,
      customerId,
      channel: 'plan',
      currency,
      amountMinor,
      tipMinor: 0n,
      exclusive: false,
      method: methodOf(card),
      attemptKey: `charge:${id}:${attempts}`,
    };
    return [{ payment, card, reference: `${asFront(business, plan.terms.paper).name}, ${plan.terms.name}` }];
  });
  if (sales.length === 0) return [];
  await insertPayments(
    tx,
    sales.map(({ payment }) => payment),
  );
  await askAboutLater(
    tx,
    sales.map(({ payment }) => payment.id),
  );
  return sales;
}

/** Asks for parts of balances, whose invoices the customers have a link to. */
async function askForParts(tx: Tx, decided: readonly (Due & { readonly decision: Decided })[]): Promise<void> {
  const parts = decided.filter(({ plan, decision }) => decision.kind === 'asked-for' && plan.invoiceId !== null);
  await addLines(
    tx,
    parts.map(({ plan, customer }) => ({
      of: { planId: plan.id },
      event: { kind: 'part-asked', to: customer.email },
      byName: 'Dahlia',
    })),
  );
  await queueMessages(
    tx,
    parts
      .filter(({ customer }) => customer.email)
      .map(({ charge, plan, customer }) => ({
        kind: 'part-due',
        key: `part-due:${charge.id}`,
        planId: plan.id,
        customerId: customer.id,
        toName: customer.name,
        toAddress: customer.email,
        details: { chargeId: charge.id },
      })),
  );
}
