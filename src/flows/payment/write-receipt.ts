import { randomUUID } from 'node:crypto';
import type { Business } from '@/core/business/business';
import { dateInZone } from '@/core/dates/zone';
import type { PrintedInvoice } from '@/core/invoice/printed';
import { jsonMinor } from '@/core/money/money';
import { printedReceipt } from '@/core/receipt/receipt';
import { takeNumbers } from '@/db/businesses';
import type { Order } from '@/db/orders';
import type { Payment } from '@/db/payments';
import { receiptsWanted } from '@/db/plans';
import type { Tx } from '@/db/pool';
import { insertReceipts } from '@/db/receipts';
import { addLines, type TimelineSubject } from '@/db/timeline';
import { found } from '@/flows/door/rights';
import { type Outgoing, queueMessages } from '@/flows/message/queue-message';

/** Whose timeline tells of a payment. */
export const paidSubject = ({ invoiceId, orderId }: Pick<Payment, 'invoiceId' | 'orderId'>): TimelineSubject =>
  invoiceId ? { invoiceId } : { orderId: found(orderId) };

/**
 * A payment of an invoice that is to have its receipt: how it was paid, in the customer's words, what had been paid and credited
 * before, and what is left to pay; minor units.
 */
export type ToReceipt = {
  readonly printed: PrintedInvoice;
  readonly payment: Payment;
  readonly method: string;
  readonly beforeMinor: bigint;
  readonly creditedMinor: bigint;
  readonly leftMinor: bigint;
};

/**
 * Gives payments their numbered receipts, tells the timelines, and queues the mails to the customers and the business.
 *
 * @param orders by invoice, where it is a later payment of what was ordered once: its receipt says the same as the first
 */
export async function writeReceipts(
  tx: Tx,
  business: Business,
  wanted: readonly ToReceipt[],
  orders: ReadonlyMap<string, Order>,
): Promise<void> {
  if (wanted.length === 0) return;
  const first = await takeNumbers(tx, 'receipt', wanted.length);
  const numbered = wanted.map((one, at) => ({ ...one, number: String(first + BigInt(at)) }));
  await insertReceipts(
    tx,
    numbered.map(({ printed, payment, method, beforeMinor, creditedMinor, leftMinor, number }) => ({
      id: randomUUID(),
      number,
      paymentId: payment.id,
      invoiceId: payment.invoiceId,
      orderId: null,
      printed: printedReceipt(
        printed,
        {
          number,
          paidOn: dateInZone(payment.settledAt ?? tx.now, business.zone),
          amountMinor: jsonMinor(payment.amountMinor),
          tipMinor: jsonMinor(payment.tipMinor),
          stillDueMinor: jsonMinor(leftMinor),
          earlierMinor: jsonMinor(beforeMinor),
          creditedMinor: jsonMinor(creditedMinor),
          method,
        },
        againOf(business, orders.get(payment.invoiceId ?? '')),
      ),
    })),
  );
  await addLines(
    tx,
    numbered.map(({ printed, payment, method, number }) => ({
      of: paidSubject(payment),
      event: {
        kind: 'paid',
        amount: jsonMinor(payment.amountMinor),
        card: method,
        receipt: number,
        ...(payment.tipMinor > 0n ? { tip: jsonMinor(payment.tipMinor) } : {}),
      },
      byName: printed.payer.name,
    })),
  );
  const byPlan = await receiptsWanted(
    tx,
    wanted.flatMap(({ payment }) => payment.chargeId ?? []),
  );
  await queueMessages(
    tx,
    numbered.flatMap(({ printed, payment }) => receiptMails(business, printed, payment, byPlan)),
  );
}

/** What a later receipt takes over from the first payment's order. */
const againOf = (business: Business, order: Order | undefined) =>
  order && { order: order.printed, reference: order.reference, style: business.receiptStyle };

/** @param byPlan whether the plan of a charge wants receipts mailed */
function receiptMails(
  business: Business,
  printed: PrintedInvoice,
  payment: Payment,
  byPlan: ReadonlyMap<string, boolean>,
): Outgoing[] {
  const wanted = payment.chargeId ? byPlan.get(payment.chargeId) : undefined;
  // A plan charges again and again: the business reads of it on its list, its customer as the plan says.
  if (wanted === false) return [];
  const about = { invoiceId: payment.invoiceId, paymentId: payment.id };
  const mails = [
    { kind: 'receipt', toName: printed.payer.name, toAddress: printed.payer.email },
    ...(wanted ? [] : [{ kind: 'payment-notice', toName: business.name, toAddress: business.email } as const]),
  ] as const;
  return mails
    .filter(({ toAddress }) => toAddress)
    .map((mail) => ({ ...mail, ...about, key: `${mail.kind}:${payment.id}` }));
}
