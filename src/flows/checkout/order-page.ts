import { createHmac } from 'node:crypto';
import type { PrintedOrder } from '@/core/offer/order';
import { cardText, type RefusalReason } from '@/core/payment/outcome';
import { wordsOf } from '@/core/words/words';
import { businessById } from '@/db/businesses';
import { offerById } from '@/db/offers';
import { type Order, type OrderState, orderById } from '@/db/orders';
import { besidePayments, orderPayments, type Payment } from '@/db/payments';
import { receiptOfPayment } from '@/db/receipts';
import { ORDER_LINK } from '@/flows/door/links';
import { byLink, orNull } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { type File, keptReceiptPdf } from '@/flows/file/kept-files';
import { servedPath } from '@/flows/file/served-file';
import { requestSign } from '@/flows/offer/requests';
import { askAbout } from '@/flows/payment/settle-payment';

/** What the payer's own page of an order shows. */
export type OrderView = {
  readonly reference: string;
  readonly state: OrderState;
  readonly printed: PrintedOrder;
  readonly thanks: string;
  /** Whether gift vouchers were bought. */
  readonly sells: boolean;
  /** Where the business leads the payer to, with the order's reference, signed; null for nowhere. */
  readonly onTo: string | null;
  readonly receipt: { readonly number: string; readonly mailed: boolean } | null;
  readonly refundedMinor: bigint;
  readonly card: string;
  /** How the business is called on the card’s statement; empty where no card paid. */
  readonly statement: string;
  /** Where it was ordered and can be tried again: with the request, language, currency and what was passed through. */
  readonly checkout: string;
  /** Why the last card was refused; null where it was not. */
  readonly refused: RefusalReason | null;
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

/** How an order was paid, in the payer's words: the card, a voucher, or both. */
function howPaid({ cardScheme, cardLast4 }: Payment, { printed }: Order): string {
  const { voucher, locale } = printed;
  return [
    ...(voucher ? [`${wordsOf(locale).voucher.title} ${voucher.end}`] : []),
    ...(cardScheme ? [cardText({ scheme: cardScheme, last4: cardLast4 ?? '' })] : []),
  ].join(', ');
}

/** The checkout as the payer came to it. */
function checkoutOf(called: string, { requestId, printed, currency }: Order): string {
  const passed = Object.entries(printed.passed).map(([name, value]) => [`pass_${name}`, value]);
  const request = requestId ? [['for', requestSign(requestId)]] : [];
  const asked = [...request, ['lang', printed.locale.slice(0, 2)], ['currency', currency], ...passed];
  return `/c/${called}?${new URLSearchParams(asked).toString()}`;
}

/** The order that a token opens; null for one that opens nothing. */
export const orderPage = orNull(
  byLink(ORDER_LINK).read(async (db, orderId): Promise<OrderView> => {
    const order = found(await orderById(db, orderId));
    const business = await businessById(db);
    const payments = await orderPayments(db, orderId);
    const payment = payments.find(({ state }) => state === 'paid' || state === 'voided');
    const beside = payment ? await besidePayments(db, payment.id) : [];
    const receipt = payment ? await receiptOfPayment(db, payment.id) : null;
    const { publicId, address } = found(await offerById(db, order.offerId));
    const { offer, printed, reference } = order;
    return {
      reference,
      state: order.state,
      printed,
      thanks: offer.thanks,
      sells: offer.voucher,
      onTo:
        offer.redirect && payment
          ? signedRedirect(
              offer.redirect,
              {
                reference,
                amountMinor: BigInt(printed.total + printed.tip),
                currency: order.currency,
                passed: printed.passed,
              },
              business.signingSecret,
            )
          : null,
      receipt: receipt && { number: receipt.number, mailed: offer.receipt === 'auto' },
      refundedMinor: beside.reduce((sum, one) => sum + one.refundedMinor, payment?.refundedMinor ?? 0n),
      card: payment ? howPaid(payment, order) : '',
      statement: payment?.method === 'card' ? business.statementName : '',
      checkout: checkoutOf(address || publicId, order),
      refused: order.state === 'refused' ? (payments[0]?.reason ?? null) : null,
    };
  }),
);

/** The payer comes back from the bank: what it said is found out before the page is shown. */
export const orderBackFromBank = byLink(ORDER_LINK).run(async (ctx, orderId: string): Promise<void> => {
  const payments = await ctx.read((db) => orderPayments(db, orderId));
  const open = payments.find(({ state }) => state === 'pending');
  if (open) await askAbout(ctx, open);
});

/** The receipt of an order as a PDF, for whoever holds its token. */
export const orderReceiptPdf = byLink(ORDER_LINK).run(async (ctx, orderId: string): Promise<File> => {
  const receipt = await ctx.read(async (db) => {
    const payments = await orderPayments(db, orderId);
    const paid = payments.find(({ state }) => state === 'paid' || state === 'voided');
    return paid ? receiptOfPayment(db, paid.id) : null;
  });
  return keptReceiptPdf(ctx, found(receipt));
});

/** Where the picture that stands for the business on an order's page is fetched. */
export const orderLogoPath = byLink(ORDER_LINK).run(async (ctx, orderId: string): Promise<string> => {
  const order = found(await ctx.read((db) => orderById(db, orderId)));
  return servedPath(ctx, found(order.printed.logoId));
});
