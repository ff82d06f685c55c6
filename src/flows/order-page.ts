import { createHmac } from 'node:crypto';
import type { PrintedOrder } from '@/core/offer/order';
import { cardText } from '@/core/payment/outcome';
import { businessById } from '@/db/businesses';
import { offerById } from '@/db/offers';
import { type OrderState, orderById, orderHolder } from '@/db/orders';
import { orderPayments } from '@/db/payments';
import { receiptOfPayment } from '@/db/receipts';
import { outsideBusiness, readBusiness } from '@/db/transaction';
import { found } from './access';
import { type File, keptReceiptPdf } from './files';
import { servedPath } from './served-file';
import { askAbout } from './settle-payment';

/** What the payer's own page of an order shows. */
export type OrderView = {
  readonly reference: string;
  readonly state: OrderState;
  readonly printed: PrintedOrder;
  readonly thanks: string;
  /** Where the business leads the payer to, with the order's reference, signed; null for nowhere. */
  readonly onTo: string | null;
  readonly receipt: { readonly number: string; readonly mailed: boolean } | null;
  readonly refundedMinor: bigint;
  readonly card: string;
  /** The name under which its checkout is opened. */
  readonly called: string;
};

/**
 * An address of the business's own with what came of an order: `reference`, `amount` in minor units, `currency`, `passed` values, and
 * `signature`, the HMAC-SHA256 in hexadecimal over `REFERENCE.AMOUNT.CURRENCY` under the business's secret.
 */
export function signedRedirect(
  address: string,
  of: { reference: string; amountMinor: bigint; currency: string; passed: Readonly<Record<string, string>> },
  secret: string,
): string {
  const url = new URL(address);
  for (const [name, value] of Object.entries(of.passed)) url.searchParams.set(name, value);
  url.searchParams.set('reference', of.reference);
  url.searchParams.set('amount', String(of.amountMinor));
  url.searchParams.set('currency', of.currency);
  const text = `${of.reference}.${of.amountMinor}.${of.currency}`;
  url.searchParams.set('signature', createHmac('sha256', secret).update(text).digest('hex'));
  return url.toString();
}

/** The order that a token opens; null for one that opens nothing. */
export async function orderPage(token: string): Promise<OrderView | null> {
  const holder = await outsideBusiness((db) => orderHolder(db, token));
  if (!holder) return null;
  const { businessId, orderId } = holder;
  return readBusiness(businessId, async (db) => {
    const order = found(await orderById(db, businessId, orderId));
    const business = await businessById(db, businessId);
    const payments = await orderPayments(db, businessId, orderId);
    const payment = payments.find(({ state }) => state === 'paid' || state === 'voided');
    const receipt = payment ? await receiptOfPayment(db, businessId, payment.id) : null;
    const { publicId, address } = found(await offerById(db, businessId, order.offerId));
    const { offer, printed, reference } = order;
    return {
      reference,
      state: order.state,
      printed,
      thanks: offer.thanks,
      onTo:
        offer.redirect && payment
          ? signedRedirect(
              offer.redirect,
              {
                reference,
                amountMinor: payment.amountMinor + payment.tipMinor,
                currency: order.currency,
                passed: printed.passed,
              },
              business.signingSecret,
            )
          : null,
      receipt: receipt && { number: receipt.number, mailed: offer.receipt === 'auto' },
      refundedMinor: payment?.refundedMinor ?? 0n,
      card: payment?.cardScheme ? cardText({ scheme: payment.cardScheme, last4: payment.cardLast4 ?? '' }) : '',
      called: address || publicId,
    };
  });
}

/** The payer comes back from the bank: what it said is found out before the page is shown. */
export async function orderBackFromBank(token: string): Promise<void> {
  const { businessId, orderId } = found(await outsideBusiness((db) => orderHolder(db, token)));
  const payments = await readBusiness(businessId, (db) => orderPayments(db, businessId, orderId));
  const open = payments.find(({ state }) => state === 'pending');
  if (open) await askAbout(businessId, open);
}

/** The receipt of an order as a PDF, for whoever holds its token. */
export async function orderReceiptPdf(token: string): Promise<File> {
  const { businessId, orderId } = found(await outsideBusiness((db) => orderHolder(db, token)));
  const receipt = await readBusiness(businessId, async (db) => {
    const payments = await orderPayments(db, businessId, orderId);
    const paid = payments.find(({ state }) => state === 'paid' || state === 'voided');
    return paid ? receiptOfPayment(db, businessId, paid.id) : null;
  });
  return keptReceiptPdf(businessId, found(receipt));
}

/** Where the picture that stands for the business on an order's page is fetched. */
export async function orderLogoPath(token: string): Promise<string> {
  const { businessId, orderId } = found(await outsideBusiness((db) => orderHolder(db, token)));
  const order = found(await readBusiness(businessId, (db) => orderById(db, businessId, orderId)));
  return servedPath(businessId, found(order.printed.logoId));
}
