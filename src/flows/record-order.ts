import { randomUUID } from 'node:crypto';
import { type Customer, newCustomer } from '@/core/customer/customer';
import { type CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { orderPaid } from '@/core/ledger/movements';
import { wireMinor } from '@/core/money/money';
import { orderReceipt } from '@/core/offer/order';
import { priceIn, priceMinor } from '@/core/offer/price';
import { cardText, type SaleOutcome } from '@/core/payment/outcome';
import { isNoAddress } from '@/core/place/address';
import { type Part, split } from '@/core/share/split';
import { wordsOf } from '@/core/words/words';
import { type Business, businessById, takeNumber } from '@/db/businesses';
import { addCodeUse } from '@/db/codes';
import { customerByEmail, insertCustomer } from '@/db/customers';
import { addReceived } from '@/db/day-sums';
import { deletePromises, keepPromises } from '@/db/items';
import { insertEntry } from '@/db/ledger';
import { addToOfferSums, offerById } from '@/db/offers';
import { type Order, updateOrderPaid, updateOrderRefused } from '@/db/orders';
import { insertShare } from '@/db/partners';
import { type Payment, updatePaymentFree, updatePaymentPaid } from '@/db/payments';
import type { Tx } from '@/db/pool';
import { insertReceipt } from '@/db/receipts';
import { updateRequest } from '@/db/requests';
import { insertHappening } from '@/db/timeline';
import { found } from './access';
import { beginPlanOfOrder } from './plans/order-plan';
import { queueMessage } from './queue-message';

/** Who paid, as a customer on file: the one with this e-mail address, or a new one. */
async function customerOf(tx: Tx, business: Business, { printed, choice }: Order, now: Date): Promise<Customer> {
  const known = await customerByEmail(tx, business.id, printed.payer.email);
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
  await insertCustomer(tx, business.id, customer, now);
  return customer;
}

/** Who gets what of an order's total and the fee; without partners the business gets it all. */
export function sharesOfOrder({ offer, printed }: Pick<Order, 'offer' | 'printed'>, feeMinor: bigint): Part[] {
  const terms = offer.split;
  if (!terms || terms.partners.length === 0) return [];
  const rate = printed.rate?.rate ?? null;
  const keep = terms.keep
    ? priceMinor(
        priceIn({ [offer.currency]: terms.keep }, printed.currency, offer.currency, () => rate) ?? '0',
        printed.currency,
      )
    : null;
  return split({
    amount: BigInt(printed.total),
    fee: feeMinor,
    partners: terms.partners,
    ...(keep === null ? {} : { keep }),
    feeFrom: terms.feeFrom,
  }).partners;
}

/** Counts what came in, shares it and posts it. */
async function bookOrder(
  tx: Tx,
  businessId: string,
  order: Order,
  payment: Payment,
  feeMinor: bigint,
  today: CalendarDate,
  now: Date,
): Promise<void> {
  const { printed, offer } = order;
  await addReceived(tx, businessId, payment.currency, today, payment.amountMinor + payment.tipMinor);
  const partners = sharesOfOrder(order, feeMinor);
  for (const [position, part] of partners.entries()) {
    const partnerId = found(offer.split?.partners[position]).partnerId;
    await insertShare(tx, businessId, payment.id, {
      position,
      partnerId,
      shareMinor: part.share,
      feeMinor: part.fee,
    });
  }
  const sum = (of: (part: Part) => bigint) => partners.reduce((all, part) => all + of(part), 0n);
  const sums = {
    totalMinor: payment.amountMinor,
    taxMinor: BigInt(printed.taxTotal),
    tipMinor: payment.tipMinor,
  };
  await insertEntry(
    tx,
    businessId,
    orderPaid(today, `Card payment of order ${order.reference}`, order.currency, sums, feeMinor, {
      shareMinor: sum(({ share }) => share),
      feeMinor: sum(({ fee }) => fee),
    }),
    {
      id: randomUUID(),
      cause: `payment:${payment.id}`,
      invoiceId: null,
      orderId: order.id,
      paymentId: payment.id,
    },
    now,
  );
}

/** An order was paid: it is booked, shared, counted, taken from the stock, receipted and told. @param sale null where a code made it free */
export async function recordOrderPaid(
  tx: Tx,
  businessId: string,
  order: Order,
  payment: Payment,
  sale: Extract<SaleOutcome, { kind: 'accepted' }> | null,
  now: Date,
): Promise<void> {
  const business = await businessById(tx, businessId);
  const placed = found(await offerById(tx, businessId, order.offerId));
  const { printed, offer } = order;
  const today = dateInZone(now, business.zone);
  const customer = await customerOf(tx, business, order, now);
  if (sale) await updatePaymentPaid(tx, businessId, payment.id, sale, customer.id, now);
  else await updatePaymentFree(tx, businessId, payment.id, customer.id, now);
  await updateOrderPaid(tx, businessId, order.id, customer.id, now);
  if (sale) await bookOrder(tx, businessId, order, payment, sale.feeMinor, today, now);
  await addToOfferSums(tx, businessId, order.offerId, order.currency, payment.amountMinor);
  if (order.codeId) {
    const use = {
      currency: order.currency,
      discountMinor: BigInt(printed.discount),
      paidMinor: payment.amountMinor,
    };
    await addCodeUse(tx, businessId, order.codeId, use);
  }
  await keepPromises(tx, businessId, order.id);
  if (order.kept) await beginPlanOfOrder(tx, business, order, customer, now);
  if (order.requestId) await updateRequest(tx, businessId, order.requestId, 'paid', now);
  await receiptOfOrder(
    tx,
    business,
    order,
    payment,
    sale ? cardText(sale.card) : wordsOf(printed.locale).offer.byCode,
    today,
    now,
  );
  const about = { orderId: order.id, paymentId: payment.id, customerId: customer.id };
  for (const address of new Set([business.email, ...offer.notify].filter(Boolean))) {
    const key = `order-notice:${payment.id}:${address}`;
    await queueMessage(
      tx,
      businessId,
      {
        kind: 'order-notice',
        toName: business.name,
        toAddress: address,
        details: { subject: placed.name },
        ...about,
        key,
      },
      now,
    );
  }
}

/** Gives the payment of an order its numbered receipt; it is mailed unless the business does that by hand. */
async function receiptOfOrder(
  tx: Tx,
  business: Business,
  order: Order,
  payment: Payment,
  method: string,
  today: CalendarDate,
  now: Date,
): Promise<void> {
  const number = String(await takeNumber(tx, business.id, 'receipt'));
  const printed = orderReceipt(order.printed, {
    number,
    paidOn: today,
    method,
    reference: order.reference,
    style: business.receiptStyle,
  });
  const receipt = { id: randomUUID(), number, paymentId: payment.id, invoiceId: null, orderId: order.id, printed };
  await insertReceipt(tx, business.id, receipt, now);
  const happening = {
    kind: 'paid',
    amount: wireMinor(payment.amountMinor),
    card: method,
    receipt: number,
    ...(payment.tipMinor > 0n ? { tip: wireMinor(payment.tipMinor) } : {}),
  } as const;
  await insertHappening(tx, business.id, { orderId: order.id }, happening, printed.payer.name, now);
  if (order.offer.receipt === 'auto')
    await queueReceipt(tx, business.id, order, payment.id, `receipt:${payment.id}`, now);
}

/** Queues the receipt's mail to whoever paid, or to another address. @param key makes it one mail */
export const queueReceipt = (
  tx: Tx,
  businessId: string,
  order: Pick<Order, 'id' | 'printed' | 'customerId'>,
  paymentId: string,
  key: string,
  now: Date,
  toAddress = order.printed.payer.email,
): Promise<boolean> =>
  queueMessage(
    tx,
    businessId,
    {
      kind: 'receipt',
      toName: order.printed.payer.name,
      toAddress,
      orderId: order.id,
      paymentId,
      customerId: order.customerId,
      key,
    },
    now,
  );

/** An order's card was refused: what it held of stock, codes and places is free again. */
export async function recordOrderRefused(tx: Tx, businessId: string, order: Order, now: Date): Promise<void> {
  await updateOrderRefused(tx, businessId, order.id, now);
  await deletePromises(tx, businessId, order.id);
}
