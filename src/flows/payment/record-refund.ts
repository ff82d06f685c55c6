import { randomUUID } from 'node:crypto';
import type { Business } from '@/core/business/business';
import { dateInZone } from '@/core/dates/zone';
import { orderRefunded, type PartnersPart, paymentRefunded } from '@/core/ledger/movements';
import { jsonMinor, leastOf, money } from '@/core/money/money';
import { isAtProcessor } from '@/core/payment/methods';
import { stepOf } from '@/core/refund/printed-document';
import { refundableLeft, refundTakes, taxOf } from '@/core/refund/refund';
import type { TimelineEvent } from '@/core/timeline/timeline';
import { businessById } from '@/db/businesses';
import { chargesByIds } from '@/db/charges';
import { type Invoice, updateInvoiceRefunded } from '@/db/invoices';
import { insertEntry } from '@/db/ledger';
import { addRefundedToOffer } from '@/db/offers';
import { type Order, ordersBehindInvoices } from '@/db/orders';
import { updateReversed } from '@/db/partners';
import { updateRefunded } from '@/db/payments';
import { type Refund, updateRefundCredit } from '@/db/refunds';
import { reviveReminders } from '@/db/reminders';
import { addToTimeline } from '@/db/timeline';
import type { Writing } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { creditNow } from '@/flows/invoice/credit-invoice';
import { queueMessage } from '@/flows/message/queue-message';
import { dropGivenBack } from '@/flows/parcel/hand-over-sales';
import { cancelPlanNow } from '@/flows/plan/change-plan';
import { bringBack } from '@/flows/stock/move-stock';
import { putBackOnVoucher } from '@/flows/voucher/spend-voucher';
import { creditingOfSubject, payerOf, type RefundSubject } from './refund-subject';

/**
 * Money went back: partners give back their part, the ledger is posted, what was paid for is credited or owed again, goods go back to
 * the stock, the plan ends where that is wanted, and the payer is told. Called once, within the transaction that writes the refund down.
 */
export async function recordRefund(tx: Writing, subject: RefundSubject, refund: Refund): Promise<void> {
  const { payment, invoice, order, shares, paid } = subject;
  const business = await businessById(tx);
  const isVoid = refund.kind === 'void';
  const amountMinor = refund.amountMinor - refund.tipMinor;
  // A debit that came back may take more than is left, where some of it went back another way before.
  const takes = refundTakes(paid, leastOf(amountMinor, refundableLeft(paid).amountMinor), isVoid);
  for (const [at, share] of shares.entries())
    await updateReversed(tx, payment.id, share.position, {
      moreMinor: takes.partners[at] ?? 0n,
      feeBackMinor: isVoid ? share.feeMinor : 0n,
    });
  if (refund.method === 'voucher')
    await putBackOnVoucher(tx, found(payment.voucherId), {
      minor: refund.amountMinor,
      today: dateInZone(tx.now, business.zone),
      paymentId: payment.id,
      refundId: refund.id,
      byName: refund.byName,
    });
  await updateRefunded(tx, payment.id, refund.amountMinor, { isVoid, cameBack: refund.kind === 'return' });
  const partners: PartnersPart = {
    shareMinor: takes.partners.reduce((sum, minor) => sum + minor, 0n),
    feeMinor: takes.partnersFeeMinor,
  };
  const took = { partners, feeBackMinor: takes.feeBackMinor - refund.feeMinor };
  const credit = invoice ? await refundOfInvoice(tx, business, invoice, { refund, subject, took }) : null;
  if (order) await refundOfOrder(tx, business, order, { refund, subject, took });
  const of = { invoiceId: invoice?.id ?? null, orderId: order?.id ?? null };
  await bringBack(tx, goodsOf(subject, refund), { why: refund.reason, ...of }, 'given-back');
  await dropGivenBack(tx, payment.invoiceId ?? found(payment.orderId), givenBackOf(subject, refund));
  if (refund.wish.endPlan && payment.chargeId) {
    const [charge] = await chargesByIds(tx, [payment.chargeId], false);
    if (charge) await cancelPlanNow(tx, charge.planId, { afterPeriod: false, keepOwed: false });
  }
  const event = eventOf(subject, refund, credit?.number);
  await addToTimeline(tx, invoice ? invoice.id : { orderId: found(order).id }, event, refund.byName);
  await tellPayer(tx, subject, refund, credit?.id ?? null);
}

function eventOf({ payment }: RefundSubject, refund: Refund, credit: string | undefined): TimelineEvent {
  const amount = jsonMinor(refund.amountMinor);
  if (refund.kind === 'return')
    return { kind: 'debit-returned', amount, reason: refund.wish.why ?? 'debit-unpaid', code: refund.reference };
  return {
    kind: 'given-back',
    amount,
    reason: refund.reason,
    voided: refund.kind === 'void',
    ...(refund.method === payment.method ? {} : { how: refund.method }),
    ...(credit ? { credit } : {}),
  };
}

type Booked = {
  readonly refund: Refund;
  readonly subject: RefundSubject;
  readonly took: { readonly partners: PartnersPart; readonly feeBackMinor: bigint };
};

const WORDS: Readonly<Record<Refund['kind'], string>> = {
  refund: 'Refund',
  void: 'Void',
  return: 'Debit that came back',
};

/** Of an invoice: its credit note, or it is owed again. Returns the note. */
async function refundOfInvoice(
  tx: Writing,
  business: Business,
  invoice: Invoice,
  { refund, subject: { payment }, took }: Booked,
): Promise<{ id: string; number: string } | null> {
  const amountMinor = refund.amountMinor - refund.tipMinor;
  const credit = refund.step
    ? await creditNow(tx, invoice, {
        step: stepOf(refund.step),
        reason: refund.reason,
        tell: false,
        requestKey: `refund:${refund.id}`,
      })
    : null;
  if (credit) await updateRefundCredit(tx, refund.id, credit.id);
  const today = dateInZone(tx.now, business.zone);
  await updateInvoiceRefunded(tx, invoice.id, amountMinor);
  if (!credit && invoice.dueMinor + amountMinor > 0n) await reviveReminders(tx, invoice.id, today);
  const behind = (await ordersBehindInvoices(tx, [invoice.id])).get(invoice.id);
  if (behind) await addRefundedToOffer(tx, behind.offerId, payment.currency, amountMinor);
  await insertEntry(
    tx,
    paymentRefunded(today, `${WORDS[refund.kind]} of invoice ${invoice.number}`, money(amountMinor, payment.currency), {
      by: refund.method,
      tipMinor: refund.tipMinor,
      ...took,
    }),
    { id: randomUUID(), cause: `refund:${refund.id}`, invoiceId: invoice.id, paymentId: payment.id },
  );
  return credit;
}

async function refundOfOrder(
  tx: Writing,
  business: Business,
  order: Order,
  { refund, subject, took }: Booked,
): Promise<void> {
  const { payment } = subject;
  const totalMinor = refund.amountMinor - refund.tipMinor;
  const credited = refund.step ? creditingOfSubject(subject).credit(stepOf(refund.step)).credited : null;
  await addRefundedToOffer(tx, order.offerId, payment.currency, totalMinor);
  await insertEntry(
    tx,
    orderRefunded(
      {
        on: dateInZone(tx.now, business.zone),
        words: `${WORDS[refund.kind]} of order ${order.reference}`,
        currency: payment.currency,
      },
      { totalMinor, taxMinor: taxOf(credited), tipMinor: refund.tipMinor },
      { by: refund.method, ...took, buysVouchers: order.offer.voucher },
    ),
    { id: randomUUID(), cause: `refund:${refund.id}`, invoiceId: null, orderId: order.id, paymentId: payment.id },
  );
}

/** The goods that are to go back to the stock, as far as their lines say what they are. */
const goodsOf = ({ printed }: RefundSubject, { wish }: Refund) =>
  (wish.toStock ?? []).flatMap(({ index, quantity }) => {
    const { itemId, optionId = null } = printed.lines[index] ?? {};
    return itemId ? [{ itemId, optionId, quantity }] : [];
  });

/** What of the sale is not delivered any more: lines that are credited, or all of it where nothing paid is left. */
function givenBackOf({ paid }: RefundSubject, { kind, step, amountMinor, tipMinor }: Refund) {
  if (kind === 'void' || (step && 'all' in step) || refundableLeft(paid).amountMinor <= amountMinor - tipMinor)
    return 'all';
  return step && 'lines' in step ? step.lines : [];
}

async function tellPayer(
  tx: Writing,
  { payment, invoice, order }: RefundSubject,
  refund: Refund,
  creditId: string | null,
): Promise<void> {
  const payer = payerOf({ invoice, order });
  if (refund.wish.tell === false || !payer.email) return;
  await queueMessage(tx, {
    kind: 'refund',
    key: `refund:${refund.id}`,
    toName: payer.name,
    toAddress: payer.email,
    ...(invoice ? { invoiceId: invoice.id } : { orderId: order?.id ?? '' }),
    paymentId: payment.id,
    customerId: payment.customerId,
    details: {
      minor: jsonMinor(refund.amountMinor),
      text: refund.reason,
      ...(creditId ? { creditId } : {}),
      ...(isAtProcessor(refund.method) ? {} : { byHand: refund.method }),
    },
  });
}
