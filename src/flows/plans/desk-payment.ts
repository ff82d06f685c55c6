import { randomUUID } from 'node:crypto';
import { newLine, type Paper, wholePaper } from '@/core/invoice/paper';
import { sendBy } from '@/core/invoice/send-with';
import { money, wireMinor } from '@/core/money/money';
import { businessById } from '@/db/businesses';
import { cardById } from '@/db/cards';
import { customerById } from '@/db/customers';
import { invoiceById } from '@/db/invoices';
import { announce, enqueueJob } from '@/db/jobs';
import { insertPayment, type Payment, paymentByDeskKey, paymentById } from '@/db/payments';
import type { Actor } from '@/db/people';
import type { Tx } from '@/db/pool';
import { insertHappening } from '@/db/timeline';
import { inBusinessInTurn, readBusiness } from '@/db/transaction';
import { services } from '@/outside/services';
import { found, requireRight } from '../access';
import { writeDraft } from '../draft';
import { readingOf } from '../paper-setting';
import { recordOutcome } from '../record-outcome';
import { Refusal } from '../refusal';
import { sendInTurn } from '../send-invoice';
import { ASK_AFTER_SECONDS, noteChecking, type PaymentStanding, saleKey, standingOf } from '../take-payment';

/** One payment taken at the desk: the customer is there, or on the telephone. */
export type DeskPayment = {
  readonly customerId: string;
  readonly what: string;
  /** As typed, before tax where prices are without. */
  readonly price: string;
  /** Made by the screen for one press. */
  readonly attemptKey: string;
  readonly cardId?: string | undefined;
  readonly cardToken?: string | undefined;
};

/**
 * Takes a single card payment at the desk, with an invoice and a receipt. The same press twice is one payment.
 *
 * @throws Refusal `paper-not-ready`, `no-card`
 */
export async function payAtDesk(actor: Actor, asked: DeskPayment): Promise<PaymentStanding & { invoiceId: string }> {
  requireRight(actor, 'ask');
  const { businessId } = actor;
  const { cards, clock, publicUrl } = services();
  const card = asked.cardId
    ? await readBusiness(businessId, (db) => cardById(db, businessId, asked.cardId ?? ''))
    : null;
  const token = card && card.customerId === asked.customerId ? { cardId: card.keptId } : asked.cardToken;
  if (!token) throw new Refusal('no-card');
  const now = await clock.now();
  const claim = await inBusinessInTurn(businessId, (tx) => claimAtDesk(tx, actor, asked, now));
  const answer = async (payment: Payment) => ({
    ...(await standingOf(businessId, payment)),
    invoiceId: found(payment.invoiceId),
  });
  if (!claim.mine) return answer(claim.payment);
  const { payment } = claim;
  const outcome = await cards.sale({
    key: saleKey(businessId, payment.id),
    amount: money(payment.amountMinor, payment.currency),
    token,
    reference: asked.what,
    returnUrl: `${publicUrl}/ask/invoices/${payment.invoiceId}`,
  });
  const later = await clock.now();
  if (outcome.kind === 'unknown') await noteChecking(businessId, payment, later);
  return answer(await recordOutcome(businessId, payment, outcome, later));
}

function deskPaper({ customerId, what, price }: Pick<DeskPayment, 'customerId' | 'what' | 'price'>): Paper {
  const line = newLine(randomUUID(), 'piece', { what, quantity: '1', price, taxesBy: 'place', taxClass: 'standard' });
  return wholePaper({ customerId, lines: [line], due: { kind: 'receipt' }, reminders: [] });
}

/** What a payment at the desk would come to with its tax, in minor units; null for what is no price. */
export async function deskQuote(
  actor: Actor,
  asked: Pick<DeskPayment, 'customerId' | 'price'>,
): Promise<{ currency: string; totalMinor: number; taxMinor: number } | null> {
  requireRight(actor, 'ask');
  return readBusiness(actor.businessId, async (db) => {
    const business = await businessById(db, actor.businessId);
    const customer = found(await customerById(db, actor.businessId, asked.customerId));
    const { document, tally } = await readingOf(db, business, customer, deskPaper({ ...asked, what: '…' }));
    if (tally.total <= 0n) return null;
    return { currency: document.currency, totalMinor: wireMinor(tally.total), taxMinor: wireMinor(tally.taxTotal) };
  });
}

async function claimAtDesk(
  tx: Tx,
  actor: Actor,
  asked: DeskPayment,
  now: Date,
): Promise<{ mine: boolean; payment: Payment }> {
  const { businessId } = actor;
  const before = await paymentByDeskKey(tx, businessId, asked.attemptKey);
  if (before) return { mine: false, payment: before };
  const business = await businessById(tx, businessId);
  const id = await writeDraft(tx, business, deskPaper(asked), 1, 'desk', now);
  await insertHappening(tx, businessId, id, { kind: 'made' }, actor.name, now);
  await sendInTurn(tx, actor, business, found(await invoiceById(tx, businessId, id)), sendBy('hand'), now);
  const invoice = found(await invoiceById(tx, businessId, id));
  const paymentId = randomUUID();
  await insertPayment(
    tx,
    businessId,
    {
      id: paymentId,
      invoiceId: id,
      orderId: null,
      customerId: asked.customerId,
      channel: 'desk',
      currency: invoice.currency,
      amountMinor: invoice.totalMinor,
      tipMinor: 0n,
      exclusive: true,
      attemptKey: asked.attemptKey,
    },
    now,
  );
  await enqueueJob(tx, 'settle-payment', `settle:${paymentId}`, { businessId, paymentId }, ASK_AFTER_SECONDS);
  await announce(tx, businessId);
  return { mine: true, payment: found(await paymentById(tx, businessId, paymentId)) };
}
