import { randomUUID } from 'node:crypto';
import { isCalendarDate } from '@/core/dates/calendar-date';
import { dateInZone, instantInZone } from '@/core/dates/zone';
import { moneyReceived, type ReceivedBy } from '@/core/ledger/movements';
import { money } from '@/core/money/money';
import { evened, payable } from '@/core/payment/part-payment';
import { wordsOf } from '@/core/words/words';
import { businessById } from '@/db/businesses';
import { addOverpaid, invoiceById, lockedInvoice, updatePaid } from '@/db/invoices';
import { insertEntry } from '@/db/ledger';
import { heldByPending, insertReceived, paymentByAttempt, paymentById } from '@/db/payments';
import { desk, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { sent } from '@/flows/invoice/sent-invoice';
import { settle } from '@/flows/invoice/settled';
import { partnersOf, recordRepeated } from '@/flows/order/repeated';
import { followMoney } from '@/flows/plan/follow-money';
import { writeReceipts } from './write-receipt';

/** Money that came another way than by card. `receivedOn` is a day of the business's zone. */
export type Received = {
  readonly amountMinor: bigint;
  readonly method: ReceivedBy;
  readonly reference: string;
  readonly receivedOn: string;
  readonly requestKey: string;
  /** The customer paid more than was due: the rest stays to their credit. */
  readonly more?: boolean;
  /** Of a voucher's: which one; and where it was typed, the desk where nothing is said. */
  readonly voucherId?: string;
  readonly channel?: 'invoice' | 'desk';
};

/**
 * Writes down money received: the invoice owes less, the ledger is posted, the customer gets a receipt. The same press twice
 * is one payment.
 *
 * @throws Refusal `payment-too-large`, `already-paid`, `already-cancelled`, `payment-under-way`
 */
export const recordReceived = desk('take').turn(receiveNow);

/** The work of writing money down, within a transaction that does more. */
export async function receiveNow(tx: Writing, id: string, received: Received): Promise<void> {
  const invoice = sent(found(await lockedInvoice(tx, id)));
  if (await paymentByAttempt(tx, id, received.requestKey)) return;
  const business = await businessById(tx);
  if (invoice.dueMinor === 0n && !received.more) throw new Refusal('already-paid');
  if ((await heldByPending(tx, id)) > 0n) throw new Refusal('payment-under-way');
  const { due } = payable({
    ...evened({ total: invoice.totalMinor, paid: invoice.paidMinor, refunded: invoice.refundedMinor }),
    credited: invoice.creditedMinor,
    parts: true,
    smallest: 1n,
  });
  const over = received.amountMinor - due;
  if (received.amountMinor <= 0n || (over > 0n && !received.more)) throw new Refusal('payment-too-large');
  const today = dateInZone(tx.now, business.zone);
  const on = isCalendarDate(received.receivedOn) && received.receivedOn <= today ? received.receivedOn : today;
  const receivedAt = on === today ? tx.now : instantInZone(on, '12:00', business.zone);
  const paymentId = randomUUID();
  const { currency, customerId } = invoice;
  await insertReceived(tx, {
    id: paymentId,
    invoiceId: id,
    customerId: found(customerId),
    currency,
    amountMinor: received.amountMinor,
    method: received.method,
    reference: received.reference,
    attemptKey: received.requestKey,
    receivedAt,
    ...(received.channel ? { channel: received.channel } : {}),
    ...(received.voucherId ? { voucherId: received.voucherId } : {}),
  });
  if (over > 0n) await addOverpaid(tx, id, over);
  await updatePaid(tx, [{ id, amountMinor: received.amountMinor, at: receivedAt }]);
  const printed = found(invoice.printed);
  const came = { id: paymentId, invoiceId: id, currency, amountMinor: received.amountMinor };
  const beforeMinor = invoice.paidMinor - invoice.refundedMinor;
  const repeated = await recordRepeated(tx, [{ payment: came, feeMinor: 0n, beforeMinor, sums: printed }]);
  const { partners } = partnersOf(repeated, paymentId);
  await insertEntry(
    tx,
    moneyReceived(
      on,
      `Payment of invoice ${printed.number}`,
      money(received.amountMinor, currency),
      received.method,
      partners,
    ),
    { id: randomUUID(), cause: `payment:${paymentId}`, invoiceId: id, paymentId },
  );
  const left = over > 0n ? 0n : -over;
  const words = wordsOf(printed.locale).methods[received.method];
  const method = [words, received.reference].filter(Boolean).join(', ');
  const payment = found(await paymentById(tx, paymentId));
  await writeReceipts(
    tx,
    business,
    [{ printed, payment, method, beforeMinor, creditedMinor: invoice.creditedMinor, leftMinor: left }],
    repeated.orders,
  );
  if (left === 0n) await settle(tx, [id]);
  const how = { by: received.method, reference: received.reference } as const;
  await followMoney(tx, business, found(await invoiceById(tx, id)), how);
}
