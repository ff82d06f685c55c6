import { randomUUID } from 'node:crypto';
import { agreedFeeOf } from '@/core/business/tariff';
import { type Customer, newCustomer } from '@/core/customer/customer';
import { type CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { orderPaid } from '@/core/ledger/movements';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { orderReceipt } from '@/core/offer/order';
import { sharesOfPayment } from '@/core/offer/shares';
import { cardText, type SaleOutcome } from '@/core/payment/outcome';
import { isNoAddress } from '@/core/place/address';
import { taxInPart } from '@/core/voucher/voucher';
import { wordsOf } from '@/core/words/words';
import { type Business, businessById, takeNumber } from '@/db/businesses';
import { addCodeUse } from '@/db/codes';
import { customerByEmail, insertCustomer } from '@/db/customers';
import { insertEntry } from '@/db/ledger';
import { addToOfferSums, offerById } from '@/db/offers';
import { type Order, updateOrderPaid, updateOrderRefused } from '@/db/orders';
import { insertShares } from '@/db/partners';
import {
  besidePayments,
  type Payment,
  updateBesideRefused,
  updatePaymentFree,
  updatePaymentsPaid,
  updateVoucherPaid,
} from '@/db/payments';
import type { Tx } from '@/db/pool';
import { insertReceipts } from '@/db/receipts';
import { updateRequest } from '@/db/requests';
import { addToTimeline } from '@/db/timeline';
import type { Writing } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { queueMessage } from '@/flows/message/queue-message';
import { handOverOrder } from '@/flows/parcel/hand-over-sales';
import { beginPlanOfOrder } from '@/flows/plan/order-plan';
import { freePromised, sellPromised } from '@/flows/stock/move-stock';
import { issueVouchers } from '@/flows/voucher/issue-vouchers';
import { spendVoucher } from '@/flows/voucher/spend-voucher';
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
      ...(business.paperLocale.startsWith(language) ? {} : { language }),
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

/** One of the payments that pay an order together: from a voucher, or from the card with the processor's fee. */
type OrderPart = { readonly payment: Payment; readonly feeMinor: bigint };

/** Shares what came in and posts it, part by part: they are shared and taxed as if one payment had paid the whole. */
async function bookOrder(tx: Tx, order: Order, parts: readonly OrderPart[], today: CalendarDate): Promise<void> {
  const { printed } = order;
  const totalMinor = parts.reduce((sum, { payment }) => sum + payment.amountMinor, 0n);
  let beforeMinor = 0n;
  let leftTaxMinor = BigInt(printed.taxTotal);
  for (const [at, { payment, feeMinor }] of parts.entries()) {
    const shares = sharesOfPayment(order, { paidMinor: payment.amountMinor, beforeMinor, feeMinor });
    await insertShares(tx, sharesToKeep(order, payment.id, shares));
    const isLast = at === parts.length - 1;
    const taxMinor = isLast ? leftTaxMinor : taxInPart(BigInt(printed.taxTotal), totalMinor, payment.amountMinor);
    const by = payment.method === 'voucher' ? 'voucher' : 'card';
    const words = `${by === 'voucher' ? 'Gift voucher' : 'Card payment'} of order ${order.reference}`;
    await insertEntry(
      tx,
      orderPaid(
        { on: today, words, currency: order.currency },
        { totalMinor: payment.amountMinor, taxMinor, tipMinor: payment.tipMinor },
        { by, feeMinor, partners: shares.all, buysVouchers: order.offer.voucher },
      ),
      { id: randomUUID(), cause: `payment:${payment.id}`, invoiceId: null, orderId: order.id, paymentId: payment.id },
    );
    beforeMinor += payment.amountMinor;
    leftTaxMinor -= taxMinor;
  }
}

/** What vouchers pay of an order goes through, with the card or without one. */
async function spendVouchers(tx: Tx, payments: readonly Payment[], customerId: string, byName: string): Promise<void> {
  if (payments.length === 0) return;
  await updateVoucherPaid(
    tx,
    payments.map(({ id }) => id),
    customerId,
  );
  for (const { id, voucherId, amountMinor, tipMinor } of payments)
    await spendVoucher(tx, found(voucherId), { minor: amountMinor + tipMinor, paymentId: id, byName });
}

/**
 * An order was paid: it is booked, shared, counted, taken from the stock, receipted and told, and the vouchers that it bought are made.
 *
 * @param sale null where a code made it free, or a voucher pays all of it
 */
export async function recordOrderPaid(
  tx: Writing,
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
  const byVoucher = payment.method === 'voucher' ? [payment] : await besidePayments(tx, payment.id);
  await spendVouchers(tx, byVoucher, customer.id, printed.payer.name);
  if (!sale && byVoucher.length === 0) await updatePaymentFree(tx, payment.id, customer.id);
  await updateOrderPaid(tx, order.id, customer.id);
  const parts = [
    ...byVoucher.map((one) => ({ payment: one, feeMinor: 0n })),
    ...(sale ? [{ payment, feeMinor: sale.feeMinor }] : []),
  ];
  await bookOrder(tx, order, parts, today);
  if (offer.voucher && sale) await issueVouchers(tx, business, order, payment);
  const paidMinor = parts.reduce((sum, one) => sum + one.payment.amountMinor, 0n);
  await addToOfferSums(tx, order.offerId, order.currency, paidMinor);
  if (order.codeId) {
    const use = {
      currency: order.currency,
      discountMinor: BigInt(printed.discount),
      paidMinor,
    };
    await addCodeUse(tx, order.codeId, use);
  }
  await sellPromised(tx, [order.id]);
  await handOverOrder(tx, business, order, customer);
  if (order.kept) await beginPlanOfOrder(tx, business, order, customer);
  if (order.requestId) await updateRequest(tx, order.requestId, 'paid');
  const words = wordsOf(printed.locale);
  const ways = [
    ...byVoucher.map(({ reference, amountMinor, tipMinor }) =>
      sale
        ? `${words.voucher.title} ${reference} (${moneyText(money(amountMinor + tipMinor, order.currency), printed.locale)})`
        : `${words.voucher.title} ${reference}`,
    ),
    ...(sale ? [cardText(sale.card)] : []),
  ];
  await receiptOfOrder(tx, order, payment, ways.join(', ') || words.offer.byCode);
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
    amount: order.printed.total,
    card: method,
    receipt: number,
    ...(order.printed.tip > 0 ? { tip: order.printed.tip } : {}),
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

/** An order's card was refused: what it held of stock, codes, vouchers and places is free again. */
export async function recordOrderRefused(tx: Writing, order: Order, paymentId: string): Promise<void> {
  await updateBesideRefused(tx, paymentId);
  await updateOrderRefused(tx, order.id);
  await freePromised(tx, [order.id]);
}
