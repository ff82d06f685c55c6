import { randomUUID } from 'node:crypto';
import { agreedFeeOf } from '@/core/business/tariff';
import { type Customer, newCustomer } from '@/core/customer/customer';
import { type CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { orderPaid } from '@/core/ledger/movements';
import { jsonMinor } from '@/core/money/money';
import { orderReceipt } from '@/core/offer/order';
import { sharesOfPayment } from '@/core/offer/shares';
import { cardText, type SaleOutcome } from '@/core/payment/outcome';
import { isNoAddress } from '@/core/place/address';
import { wordsOf } from '@/core/words/words';
import { type Business, businessById, takeNumber } from '@/db/businesses';
import { addCodeUse } from '@/db/codes';
import { customerByEmail, insertCustomer } from '@/db/customers';
import { deletePromises, keepPromises } from '@/db/items';
import { insertEntry } from '@/db/ledger';
import { addToOfferSums, offerById } from '@/db/offers';
import { type Order, updateOrderPaid, updateOrderRefused } from '@/db/orders';
import { insertShares } from '@/db/partners';
import { type Payment, updatePaymentFree, updatePaymentsPaid } from '@/db/payments';
import type { Tx } from '@/db/pool';
import { insertReceipts } from '@/db/receipts';
import { updateRequest } from '@/db/requests';
import { addToTimeline } from '@/db/timeline';
import { found } from '@/flows/door/rights';
import { queueMessage } from '@/flows/message/queue-message';
import { beginPlanOfOrder } from '@/flows/plan/order-plan';
import { sharesToKeep } from './repeated';

/** Who paid, as a customer on file: the one with this e-mail address, or a new one. */
async function customerOf(tx: Tx, business: Business, { printed, choice }: Order): Promise<Customer> {
  const known = await customerByEmail(tx, printed.payer.email);
  if (known) return known;
  const language = printed.locale.slice(0, 2);
  const customer: Customer = {
    id: randomUUID(),
    ...newCustomer(printed.payer.name, {
      email: printed.payer.email,
      phone: printed.phone,
      ...(business.locale.startsWith(language) ? {} : { language }),
      ...(choice.billing && !isNoAddress(choice.billing) ? { billing: choice.billing } : {}),
      ...(choice.delivery && !isNoAddress(choice.delivery)
        ? choice.billing && !isNoAddress(choice.billing)
          ? { delivery: choice.delivery }
          : { billing: choice.delivery }
        : {}),
    }),
  };
  await insertCustomer(tx, customer);
  return customer;
}

/** Counts what came in, shares it and posts it. */
async function bookOrder(tx: Tx, order: Order, payment: Payment, feeMinor: bigint, today: CalendarDate): Promise<void> {
  const { printed } = order;
  const shares = sharesOfPayment(order, { paidMinor: payment.amountMinor, feeMinor });
  await insertShares(tx, sharesToKeep(order, payment.id, shares));
  const sums = {
    totalMinor: payment.amountMinor,
    taxMinor: BigInt(printed.taxTotal),
    tipMinor: payment.tipMinor,
  };
  await insertEntry(
    tx,
    orderPaid(
      { on: today, words: `Card payment of order ${order.reference}`, currency: order.currency },
      sums,
      feeMinor,
      shares.all,
    ),
    {
      id: randomUUID(),
      cause: `payment:${payment.id}`,
      invoiceId: null,
      orderId: order.id,
      paymentId: payment.id,
    },
  );
}

/** An order was paid: it is booked, shared, counted, taken from the stock, receipted and told. @param sale null where a code made it free */
export async function recordOrderPaid(
  tx: Tx,
  order: Order,
  payment: Payment,
  sale: Extract<SaleOutcome, { kind: 'accepted' }> | null,
): Promise<void> {
  const business = await businessById(tx);
  const placed = found(await offerById(tx, order.offerId));
  const { printed, offer } = order;
  const today = dateInZone(tx.now, business.zone);
  const customer = await customerOf(tx, business, order);
  if (sale)
    await updatePaymentsPaid(tx, [
      {
        ...sale,
        id: payment.id,
        customerId: customer.id,
        agreedFeeMinor: agreedFeeOf(business, payment, sale.card),
      },
    ]);
  else await updatePaymentFree(tx, payment.id, customer.id);
  await updateOrderPaid(tx, order.id, customer.id);
  if (sale) await bookOrder(tx, order, payment, sale.feeMinor, today);
  await addToOfferSums(tx, order.offerId, order.currency, payment.amountMinor);
  if (order.codeId) {
    const use = {
      currency: order.currency,
      discountMinor: BigInt(printed.discount),
      paidMinor: payment.amountMinor,
    };
    await addCodeUse(tx, order.codeId, use);
  }
  await keepPromises(tx, [order.id]);
  if (order.kept) await beginPlanOfOrder(tx, business, order, customer);
  if (order.requestId) await updateRequest(tx, order.requestId, 'paid');
  await receiptOfOrder(tx, order, payment, sale ? cardText(sale.card) : wordsOf(printed.locale).offer.byCode);
  const about = { orderId: order.id, paymentId: payment.id, customerId: customer.id };
  for (const address of new Set([business.email, ...offer.notify].filter(Boolean))) {
    const key = `order-notice:${payment.id}:${address}`;
    await queueMessage(tx, {
      kind: 'order-notice',
      toName: business.name,
      toAddress: address,
      details: { subject: placed.name },
      ...about,
      key,
    });
  }
}

/** Gives the payment of an order its numbered receipt; it is mailed unless the business does that by hand. */
async function receiptOfOrder(tx: Tx, order: Order, payment: Payment, method: string): Promise<void> {
  const business = await businessById(tx);
  const number = String(await takeNumber(tx, 'receipt'));
  const printed = orderReceipt(order.printed, {
    number,
    paidOn: dateInZone(tx.now, business.zone),
    method,
    reference: order.reference,
    style: business.receiptStyle,
  });
  const receipt = { id: randomUUID(), number, paymentId: payment.id, invoiceId: null, orderId: order.id, printed };
  await insertReceipts(tx, [receipt]);
  const event = {
    kind: 'paid',
    amount: jsonMinor(payment.amountMinor),
    card: method,
    receipt: number,
    ...(payment.tipMinor > 0n ? { tip: jsonMinor(payment.tipMinor) } : {}),
  } as const;
  await addToTimeline(tx, { orderId: order.id }, event, printed.payer.name);
  if (order.offer.receipt === 'auto') await queueReceipt(tx, order, payment.id, { key: `receipt:${payment.id}` });
}

/** Queues the receipt's mail to whoever paid, or to another address. @param key makes it one mail */
export const queueReceipt = (
  tx: Tx,
  order: Pick<Order, 'id' | 'printed' | 'customerId'>,
  paymentId: string,
  { key, toAddress = order.printed.payer.email }: { readonly key: string; readonly toAddress?: string },
): Promise<boolean> =>
  queueMessage(tx, {
    kind: 'receipt',
    toName: order.printed.payer.name,
    toAddress,
    orderId: order.id,
    paymentId,
    customerId: order.customerId,
    key,
  });

/** An order's card was refused: what it held of stock, codes and places is free again. */
export async function recordOrderRefused(tx: Tx, order: Order): Promise<void> {
  await updateOrderRefused(tx, order.id);
  await deletePromises(tx, [order.id]);
}
