import { randomUUID } from 'node:crypto';
import type { Business } from '@/core/business/business';
import type { Customer } from '@/core/customer/customer';
import { filledPaper, freshPaper } from '@/core/invoice/placeholders';
import { sendBy } from '@/core/invoice/send-with';
import { money } from '@/core/money/money';
import type { SaleOutcome } from '@/core/payment/outcome';
import { chargedPaper } from '@/core/plan/sums';
import { businessById } from '@/db/businesses';
import { type CardOnFile, cardsOf } from '@/db/cards';
import { type Charge, chargeById, chargesOfPlan, claimCharges, updateCharge } from '@/db/charges';
import { customerById } from '@/db/customers';
import { type Invoice, invoiceById, lockedInvoice } from '@/db/invoices';
import { announce, enqueueJob } from '@/db/jobs';
import { heldByPending, insertPayment, type Payment, paymentById } from '@/db/payments';
import { type Actor, personById } from '@/db/people';
import { type Plan, planById, plansOfCustomer } from '@/db/plans';
import type { Tx } from '@/db/pool';
import { insertHappening } from '@/db/timeline';
import { inBusiness, inBusinessInTurn, inSavepoint } from '@/db/transaction';
import { services } from '@/outside/services';
import { found, requireRight } from '../access';
import { writeDraft } from '../draft';
import { localeOf } from '../paper-setting';
import { queueMessage } from '../queue-message';
import { recordOutcome } from '../record-outcome';
import { Refusal } from '../refusal';
import { sendInTurn } from '../send-invoice';
import { ASK_AFTER_SECONDS, noteChecking, saleKey } from '../take-payment';
import { refreshCard } from './cards-on-file';
import { chargedOtherwise, isUsable, refuseCharge } from './charge-outcome';
import { planAhead } from './plan-ahead';
import { isPausedByRefusal, resumed } from './plan-state';

const AT_ONCE = 20;
/** One run of the job ends after so long and asks for another, so that a long queue of one business does not hold a worker. */
const RUN_MS = 45_000;

/** A sale that is written down and has not been sent yet. */
type Sale = { readonly payment: Payment; readonly card: CardOnFile; readonly reference: string };

/**
 * Charges what is due, in order of date. Each charge is claimed, and its attempt written down with a job that will ask about
 * it, in one transaction before the processor hears of it; so it is made once, whatever is killed and whoever else charges.
 *
 * @param until stops at this real time, milliseconds since the epoch; what is left is left to the next run
 * @returns how many were dealt with, and whether there may be more
 */
export async function chargeDue(
  businessId: string,
  until = Date.now() + RUN_MS,
): Promise<{ done: number; more: boolean }> {
  let done = 0;
  for (;;) {
    const now = await services().clock.now();
    const batch = await inBusinessInTurn(businessId, (tx) => claimBatch(tx, businessId, now));
    if (batch.claimed === 0) return { done, more: false };
    await Promise.all(batch.sales.map((sale) => makeSale(businessId, sale)));
    done += batch.claimed;
    if (Date.now() > until) return { done, more: true };
  }
}

/** The worker's part: charges for a while, and asks for another run where there is more. */
export async function chargeDueJob(businessId: string): Promise<void> {
  const { more } = await chargeDue(businessId);
  if (more) await inBusiness(businessId, (tx) => askToCharge(tx, businessId));
}

/** Lets the worker charge what is due of a business; asked twice it is done once. */
export const askToCharge = (tx: Tx, businessId: string): Promise<void> =>
  enqueueJob(tx, 'charge-due', `charge-due:${businessId}`, { businessId });

async function claimBatch(tx: Tx, businessId: string, now: Date): Promise<{ claimed: number; sales: Sale[] }> {
  const claimed = await claimCharges(tx, businessId, now, AT_ONCE);
  if (claimed.length === 0) return { claimed: 0, sales: [] };
  const business = await businessById(tx, businessId);
  const sales: Sale[] = [];
  for (const charge of claimed) {
    const sale = await prepare(tx, business, charge, now);
    if (sale) sales.push(sale);
  }
  await announce(tx, businessId);
  return { claimed: claimed.length, sales };
}

/** Writes down what is to happen with a due charge. Returns the sale to be made, or null where nothing is to be charged. */
async function prepare(tx: Tx, business: Business, charge: Charge, now: Date): Promise<Sale | null> {
  const plan = found(await planById(tx, business.id, charge.planId, true));
  if (plan.state !== 'active') {
    await updateCharge(tx, business.id, { ...charge, actAt: null });
    return null;
  }
  const customer = found(await customerById(tx, business.id, plan.customerId));
  const billed = await invoiceOf(tx, business, plan, customer, charge, now);
  if ('trouble' in billed) {
    await updateCharge(tx, business.id, { ...charge, state: 'refused', words: billed.trouble, actAt: null });
    await planAhead(tx, business, plan, now);
    return null;
  }
  const { invoice } = billed;
  // What an invoice comes to counts: taxes may be others than when the date was planned.
  const wanted = plan.terms.kind === 'membership' && !charge.invoiceId ? invoice.totalMinor : charge.amountMinor;
  const asked: Charge = { ...charge, amountMinor: wanted, invoiceId: invoice.id };
  const left = invoice.stage === 'sent' ? invoice.dueMinor - (await heldByPending(tx, business.id, invoice.id)) : 0n;
  const amountMinor = left < wanted ? left : wanted;
  if (amountMinor <= 0n) {
    await chargedOtherwise(tx, business, plan, asked, 'nothing was due any more', now);
    return null;
  }
  if (plan.terms.pay === 'invoice') {
    await updateCharge(tx, business.id, { ...asked, amountMinor, state: 'billed', actAt: null });
    if (plan.invoiceId) await askForPart(tx, business.id, plan, customer, charge.id, now);
    await planAhead(tx, business, plan, now);
    return null;
  }
  const cards = (await cardsOf(tx, business.id, plan.customerId)).filter(isUsable);
  const card = cards.find(({ id }) => id === charge.cardId) ?? cards.find(({ id }) => !charge.tried.includes(id));
  if (!card) {
    await refuseCharge(tx, business, plan, asked, { reason: asked.lastReason ?? 'card-blocked', card: null }, now);
    return null;
  }
  return { ...(await writeAttempt(tx, business, plan, { ...asked, amountMinor }, card, now)), card };
}

/** Asks for a part of the balance, whose invoice the customer has a link to. */
async function askForPart(
  tx: Tx,
  businessId: string,
  plan: Plan,
  customer: Customer,
  chargeId: string,
  now: Date,
): Promise<void> {
  const lead = { kind: 'plan-deed', lead: 'Part asked for', note: customer.email } as const;
  await insertHappening(tx, businessId, { planId: plan.id }, lead, 'Dahlia', now);
  if (!customer.email) return;
  const about = { kind: 'part-due', planId: plan.id, customerId: customer.id, details: { chargeId } } as const;
  const to = { toName: customer.name, toAddress: customer.email, key: `part-due:${chargeId}` };
  await queueMessage(tx, businessId, { ...about, ...to }, now);
}

async function writeAttempt(
  tx: Tx,
  business: Business,
  plan: Plan,
  charge: Charge,
  card: CardOnFile,
  now: Date,
): Promise<Omit<Sale, 'card'>> {
  const id = randomUUID();
  await insertPayment(
    tx,
    business.id,
    {
      id,
      invoiceId: found(charge.invoiceId),
      orderId: null,
      chargeId: charge.id,
      customerId: plan.customerId,
      channel: 'plan',
      currency: charge.currency,
      amountMinor: charge.amountMinor,
      tipMinor: 0n,
      exclusive: false,
      attemptKey: `charge:${charge.id}:${charge.attempts + 1}`,
    },
    now,
  );
  await enqueueJob(tx, 'settle-payment', `settle:${id}`, { businessId: business.id, paymentId: id }, ASK_AFTER_SECONDS);
  await updateCharge(tx, business.id, {
    ...charge,
    state: 'charging',
    actAt: null,
    attempts: charge.attempts + 1,
    tried: [...charge.tried, card.id],
    cardId: card.id,
    paymentId: id,
  });
  return {
    payment: found(await paymentById(tx, business.id, id)),
    reference: `${business.name}, ${plan.terms.name}`,
  };
}

/** The invoice that a charge is paid into: the plan's over the whole balance, or one of its own. */
async function invoiceOf(
  tx: Tx,
  business: Business,
  plan: Plan,
  customer: Customer,
  charge: Charge,
  now: Date,
): Promise<{ invoice: Invoice } | { trouble: string }> {
  const known = charge.invoiceId ?? plan.invoiceId;
  if (known) return { invoice: found(await lockedInvoice(tx, business.id, known)) };
  const has = (kind: string) => charge.reasons.some((reason) => reason.kind === kind);
  const paper = chargedPaper(plan.terms, { setUp: has('set-up'), free: has('free') });
  const mails = plan.terms.pay === 'invoice';
  const trouble = await inSavepoint(tx, async () => {
    const filled = freshPaper(filledPaper(paper, charge.nominal, localeOf(business, customer)), randomUUID);
    const id = await writeDraft(
      tx,
      business,
      {
        ...filled,
        customerId: customer.id,
        title: filled.title || plan.terms.name,
        reference: plan.reference || filled.reference,
        ...(mails ? {} : { due: { kind: 'receipt' as const }, reminders: [] }),
        // Whoever pays a refused charge by its link may pay what is asked there.
        ways: { ...filled.ways, card: true, parts: true, first: '' },
      },
      1,
      'plan',
      now,
    );
    await insertHappening(tx, business.id, id, { kind: 'made', by: 'plan' }, plan.terms.name, now);
    const person = plan.byId ? await personById(tx, business.id, plan.byId) : null;
    const draft = found(await invoiceById(tx, business.id, id));
    const actor = { businessId: business.id, name: person?.name ?? 'Dahlia' };
    await sendInTurn(tx, actor, business, draft, sendBy(mails && customer.email ? 'mail' : 'plan'), now);
    return { invoice: found(await invoiceById(tx, business.id, id)) };
  }).catch((error: unknown) => {
    if (error instanceof Refusal) return { trouble: error.fields[0]?.words ?? error.words };
    throw error;
  });
  return trouble;
}

async function makeSale(businessId: string, { payment, card, reference }: Sale): Promise<void> {
  const { cards, clock, publicUrl } = services();
  const outcome: SaleOutcome = await cards.sale({
    key: saleKey(businessId, payment.id),
    amount: money(payment.amountMinor, payment.currency),
    token: { cardId: card.keptId },
    reference,
    returnUrl: publicUrl,
  });
  const now = await clock.now();
  if (outcome.kind === 'unknown') return noteChecking(businessId, payment, now);
  await recordOutcome(businessId, payment, outcome, now);
  // The scheme has given the card another number.
  if (outcome.kind === 'accepted' && outcome.card.last4 !== card.last4) await refreshCard(businessId, card.id);
}

/** Charges one charge again at once, with a chosen card or the next of the customer's. @throws Refusal `charge-settled` */
export async function chargeAgain(
  actor: { readonly businessId: string; readonly name: string },
  chargeId: string,
  cardId: string | null,
): Promise<void> {
  const now = await services().clock.now();
  await inBusinessInTurn(actor.businessId, async (tx) => {
    const charge = found(await chargeById(tx, actor.businessId, chargeId, true));
    if (charge.state !== 'refused' && charge.state !== 'upcoming') throw new Refusal('charge-settled');
    await updateCharge(tx, actor.businessId, { ...charge, cardId, tried: [], actAt: now });
    await insertHappening(
      tx,
      actor.businessId,
      { planId: charge.planId },
      { kind: 'plan-deed', lead: 'Charged again', note: charge.chargedOn },
      actor.name,
      now,
    );
    await askToCharge(tx, actor.businessId);
    await announce(tx, actor.businessId);
  });
}

/** Makes the invoice of a charge that is not made yet, so that it can be paid another way. Returns the invoice's id. */
export async function billCharge(businessId: string, chargeId: string): Promise<string> {
  const now = await services().clock.now();
  return inBusinessInTurn(businessId, async (tx) => {
    const charge = found(await chargeById(tx, businessId, chargeId, true));
    if (charge.invoiceId) return charge.invoiceId;
    const business = await businessById(tx, businessId);
    const plan = found(await planById(tx, businessId, charge.planId, true));
    const customer = found(await customerById(tx, businessId, plan.customerId));
    const billed = await invoiceOf(tx, business, plan, customer, charge, now);
    if ('trouble' in billed) throw new Refusal('plan-not-ready', [{ field: 'lines', words: billed.trouble }]);
    await updateCharge(tx, businessId, {
      ...charge,
      invoiceId: billed.invoice.id,
      amountMinor: billed.invoice.totalMinor,
    });
    return billed.invoice.id;
  });
}

/** Charges several refused ones again; those that are dealt with meanwhile are left. Returns how many. */
export async function chargeManyAgain(actor: Actor, ids: readonly string[]): Promise<number> {
  requireRight(actor, 'ask');
  let charged = 0;
  for (const id of ids) {
    try {
      await chargeAgain(actor, id, null);
      charged += 1;
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
    }
  }
  return charged;
}

/** A customer gave another card: refused charges are tried with it, and plans that were paused because of them go on. */
export async function retryAfterNewCard(businessId: string, customerId: string, card: string): Promise<void> {
  const now = await services().clock.now();
  await inBusinessInTurn(businessId, async (tx) => {
    const business = await businessById(tx, businessId);
    for (const plan of await plansOfCustomer(tx, businessId, customerId)) {
      const paused = isPausedByRefusal(plan);
      if (plan.terms.pay !== 'card' || (plan.state !== 'active' && !paused)) continue;
      for (const charge of await chargesOfPlan(tx, businessId, plan.id)) {
        if (charge.state !== 'refused') continue;
        await updateCharge(tx, businessId, { ...charge, round: 0, tried: [], cardId: null, actAt: now });
      }
      await planAhead(tx, business, paused ? resumed(business, plan, now) : plan, now);
      const happening = { kind: 'plan-deed', lead: 'New card', note: card } as const;
      await insertHappening(tx, businessId, { planId: plan.id }, happening, 'Customer', now);
    }
    await askToCharge(tx, businessId);
    await announce(tx, businessId);
  });
}
