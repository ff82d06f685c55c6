import { leastOf } from '@/core/money/money';
import { canReturn, debitReason, type ToldReturn } from '@/core/payment/debit';
import { REFUSAL_BRIEF } from '@/core/payment/outcome';
import { refundableLeft } from '@/core/refund/refund';
import { businessById } from '@/db/businesses';
import { chargesByIds } from '@/db/charges';
import { invoiceById } from '@/db/invoices';
import { insertRefund, refundById, updateRefund } from '@/db/refunds';
import type { Writing } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { queueMessage } from '@/flows/message/queue-message';
import { followTakenBack } from '@/flows/plan/follow-money';
import { refuseCharges } from '@/flows/plan/refuse-charges';
import { recordRefund } from './record-refund';
import { lockedSubject, payerOf } from './refund-subject';

/**
 * A debit that was paid came back: what it paid for is owed again, partners give back their parts, the bank's fee is booked, and the
 * plan treats it as a refusal. Written down once, however often it is told; called within a transaction in turn.
 *
 * While a refund of the payment is being asked about it waits: the next look finds it again.
 */
export async function recordReturn(tx: Writing, told: ToldReturn): Promise<void> {
  const subject = await lockedSubject(tx, told.paymentId);
  const { payment, invoice, order, paid, refunds } = subject;
  if (payment.state !== 'paid' || !canReturn(told, payment)) return;
  if (refunds.some(({ state }) => state === 'pending') || (await refundById(tx, told.id))) return;
  const left = refundableLeft(paid);
  const reason = debitReason(told.code);
  // Of the amount first, then of the tip; what went back another way before is owed as well, for the bank took it all.
  const tipMinor = leastOf(
    told.amountMinor > left.amountMinor ? told.amountMinor - left.amountMinor : 0n,
    left.tipMinor,
  );
  await insertRefund(tx, {
    id: told.id,
    paymentId: payment.id,
    kind: 'return',
    method: 'debit',
    reference: told.code,
    amountMinor: told.amountMinor,
    tipMinor,
    feeMinor: told.feeMinor,
    step: null,
    wish: { why: reason, tell: false },
    reason: `${told.code}: ${REFUSAL_BRIEF[reason]}`,
    requestKey: told.id,
    byName: 'Dahlia',
  });
  await updateRefund(tx, told.id, 'done');
  await recordRefund(tx, subject, found(await refundById(tx, told.id)));
  if (!invoice) return;
  const business = await businessById(tx);
  const [charge] = payment.chargeId ? await chargesByIds(tx, [payment.chargeId], true) : [];
  if (charge?.state === 'charged') {
    const { cardScheme: scheme, cardLast4: last4 } = payment;
    return refuseCharges(tx, business, [{ charge, reason, card: scheme && last4 ? { scheme, last4 } : null }]);
  }
  await followTakenBack(tx, business, found(await invoiceById(tx, invoice.id)), payment.id);
  const payer = payerOf({ invoice, order });
  if (payer.email)
    await queueMessage(tx, {
      kind: 'debit-returned',
      key: `debit-returned:${told.id}`,
      toName: payer.name,
      toAddress: payer.email,
      invoiceId: invoice.id,
      paymentId: payment.id,
      customerId: payment.customerId,
      details: { minor: Number(told.amountMinor), text: reason },
    });
}
