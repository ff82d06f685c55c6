import { leastOf } from '@/core/money/money';
import { refundableLeft } from '@/core/refund/refund';
import { invoicesWithCredit, lockedInvoice } from '@/db/invoices';
import { paidPayments, paymentByAttempt } from '@/db/payments';
import { insertRefund, refundById, updateRefund } from '@/db/refunds';
import { idFor } from '@/flows/door/id-for';
import { desk, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { sent } from '@/flows/invoice/sent-invoice';
import { receiveNow } from './receive-payment';
import { recordRefund } from './record-refund';
import { lockedSubject } from './refund-subject';

/**
 * Pays an invoice from what its customer has to their credit on others, the oldest first, as far as either reaches: what is taken off the
 * one account comes in at the other. The same press twice uses it once. Returns how much was used, minor units.
 *
 * @throws Refusal `already-paid`, `no-credit`, `payment-under-way`
 */
export const payFromCredit = desk('take').turn(async (tx, invoiceId: string, requestKey: string): Promise<bigint> => {
  const invoice = sent(found(await lockedInvoice(tx, invoiceId)));
  if (await paymentByAttempt(tx, invoiceId, idFor(`${requestKey} first`))) return 0n;
  if (invoice.dueMinor === 0n) throw new Refusal('already-paid');
  let left = invoice.dueMinor;
  let used = 0n;
  for (const other of await invoicesWithCredit(tx, found(invoice.customerId), invoice.currency)) {
    if (left === 0n) break;
    const taken = await takeCredit(tx, other, leastOf(left, other.creditMinor), `${requestKey} ${other.id}`);
    if (taken === 0n) continue;
    await receiveNow(tx, invoiceId, {
      amountMinor: taken,
      method: 'account',
      reference: other.number,
      receivedOn: '',
      requestKey: idFor(`${requestKey} ${used === 0n ? 'first' : other.id}`),
    });
    left -= taken;
    used += taken;
  }
  if (used === 0n) throw new Refusal('no-credit');
  return used;
});

/** Takes a customer's credit off an invoice, payment by payment. Returns what could be taken. */
async function takeCredit(
  tx: Writing,
  { id: invoiceId }: { readonly id: string },
  wanted: bigint,
  key: string,
): Promise<bigint> {
  let taken = 0n;
  for (const { id: paymentId } of await paidPayments(tx, invoiceId)) {
    const subject = await lockedSubject(tx, paymentId);
    const amountMinor = leastOf(wanted - taken, refundableLeft(subject.paid).amountMinor);
    if (amountMinor <= 0n || subject.refunds.some(({ state }) => state === 'pending')) continue;
    const id = idFor(`${key} ${paymentId}`);
    await insertRefund(tx, {
      id,
      paymentId,
      kind: 'refund',
      method: 'account',
      reference: '',
      amountMinor,
      tipMinor: 0n,
      step: null,
      wish: { tell: false },
      reason: 'Used for another invoice',
      requestKey: idFor(`${id} request`),
      byName: tx.name,
    });
    await updateRefund(tx, id, 'done');
    await recordRefund(tx, subject, found(await refundById(tx, id)));
    taken += amountMinor;
  }
  return taken;
}
