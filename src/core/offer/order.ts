import type { CalendarDate } from '../dates/calendar-date';
import { deliveryTaxes, type PrintedInvoice, type PrintedSums, type PrintedTerms, soldBy } from '../invoice/printed';
import { jsonMinor } from '../money/money';
import type { LaterCharges } from '../receipt/later';
import { answersOnReceipt, type PrintedReceipt } from '../receipt/receipt';
import { type ChosenGift, isForOther } from '../voucher/gift';
import { voucherEnd, voucherKey } from '../voucher/voucher';
import type { Choice } from './choice';
import { laterCharges } from './later';
import type { Offer } from './offer';
import type { OfferQuote } from './quote';

/** States of an order that takes up what there is: stock, uses of a code, places of an offer. */
export const TAKEN_STATES = ['pending', 'paid'] as const;

/** An answer as it was given; a file's text is its name. */
export type PrintedAnswer = {
  readonly label: string;
  readonly text: string;
  readonly onReceipt: boolean;
  readonly fileId?: string;
};

/** What somebody ordered through an offer, as it was when they paid. Plain JSON; amounts in minor units. */
export type PrintedOrder = PrintedSums & {
  readonly title: string;
  readonly kind: Offer['kind'];
  readonly orderedOn: CalendarDate;
  readonly seller: PrintedInvoice['seller'];
  readonly payer: PrintedInvoice['payer'];
  readonly phone: string;
  readonly deliveryTo: readonly string[];
  readonly message: string;
  readonly answers: readonly PrintedAnswer[];
  readonly purpose: string;
  readonly code: string;
  /** The end of a gift voucher's code that paid some of it, and how much. */
  readonly voucher?: { readonly end: string; readonly minor: number };
  /** For whom vouchers were bought; absent for the payer. */
  readonly gift?: ChosenGift;
  readonly tip: number;
  readonly terms: PrintedTerms | null;
  readonly logoId: string | null;
  readonly accent: string;
  /** Campaign, order number and the like, passed through from where the payer came from. */
  readonly passed: Readonly<Record<string, string>>;
  /** The rate a price was converted at, where one was. */
  readonly rate: { readonly rate: string; readonly on: CalendarDate; readonly source: string } | null;
  /** What is charged later, as it was said before paying; absent for what is paid once. */
  readonly later?: LaterCharges;
};

/** Sets a worked-out quote as what was ordered. @param exempt why no tax applies, in the payer's language */
export function printedOrder(
  offer: Offer,
  choice: Choice,
  quote: OfferQuote,
  heading: Pick<
    PrintedOrder,
    | 'locale'
    | 'orderedOn'
    | 'seller'
    | 'payer'
    | 'deliveryTo'
    | 'answers'
    | 'terms'
    | 'logoId'
    | 'accent'
    | 'passed'
    | 'rate'
  >,
  exempt: string,
): PrintedOrder {
  const { document, tally } = quote;
  const names = new Map(document.taxes.map((tax) => [tax.id, tax.name]));
  const { discount } = document;
  const later = laterCharges(quote, heading.orderedOn);
  return {
    ...heading,
    ...(later ? { later } : {}),
    title: offer.title.trim(),
    kind: offer.kind,
    phone: choice.phone.trim(),
    message: choice.message.trim(),
    purpose: choice.purpose,
    code: discount ? choice.code.trim().toUpperCase() : '',
    ...(quote.voucherMinor > 0n
      ? { voucher: { end: voucherEnd(voucherKey(choice.voucher ?? '')), minor: jsonMinor(quote.voucherMinor) } }
      : {}),
    ...(offer.voucher && choice.gift && isForOther(choice.gift) ? { gift: choice.gift } : {}),
    tip: jsonMinor(quote.tipMinor),
    currency: quote.currency,
    pricesIncludeTax: document.pricesIncludeTax,
    lines: quote.lines.map((line, at) => {
      const worked = tally.lines[at];
      const taxIds = document.exempt === undefined ? (document.lines[at]?.taxes ?? []) : [];
      return {
        what: line.what,
        unit: 'piece',
        quantity: line.quantity,
        unitPrice: line.unitPrice,
        gross: jsonMinor(worked?.gross ?? 0n),
        discount: 0,
        discountText: '',
        net: jsonMinor(worked?.net ?? 0n),
        taxes: taxIds.map((id) => names.get(id) ?? ''),
        taxIds,
        ...(line.note ? { note: line.note } : {}),
        ...soldBy(line),
      };
    }),
    subtotal: jsonMinor(tally.subtotal),
    lineDiscounts: jsonMinor(tally.lineDiscounts),
    discount: jsonMinor(tally.documentDiscount),
    discountText: discount && 'percent' in discount ? `${discount.percent} %` : '',
    ...(discount?.lines ? { discountLines: discount.lines } : {}),
    taxes: tally.taxes.map((tax) => ({
      id: tax.id,
      name: names.get(tax.id) ?? '',
      rate: document.taxes.find(({ id }) => id === tax.id)?.rate ?? '0',
      base: jsonMinor(tax.base),
      amount: jsonMinor(tax.amount),
    })),
    taxTotal: jsonMinor(tally.taxTotal),
    total: jsonMinor(tally.total),
    delivery: document.delivery
      ? { amount: jsonMinor(document.delivery.amount), taxIds: deliveryTaxes(document) }
      : null,
    fees: [],
    flatTaxes: [],
    exempt: document.exempt === undefined ? '' : exempt,
  };
}

/** The receipt of an order: what was bought, and those answers that the business wants on it. */
export const orderReceipt = (
  order: PrintedOrder,
  receipt: {
    number: string;
    paidOn: CalendarDate;
    method: string;
    reference: string;
    style: NonNullable<PrintedReceipt['style']>;
  },
): PrintedReceipt => ({
  number: receipt.number,
  currency: order.currency,
  locale: order.locale,
  paidOn: receipt.paidOn,
  seller: order.seller,
  payer: order.payer,
  invoiceNumber: '',
  invoiceTotal: order.total,
  taxes: order.taxes,
  amount: order.total,
  stillDue: 0,
  method: receipt.method,
  ...(order.tip > 0 ? { tip: order.tip } : {}),
  accent: order.accent,
  logoId: order.logoId,
  style: receipt.style,
  order: {
    title: order.title,
    reference: receipt.reference,
    donation: order.kind === 'donation',
    sums: order,
    ...(order.later ? { later: order.later } : {}),
    answers: answersOnReceipt(order),
  },
});
