import { paymentCode } from '../bank/payment-code';
import { printedReference } from '../bank/reference';
import { type CalendarDate, isCalendarDate } from '../dates/calendar-date';
import { longDate } from '../dates/date-text';
import type { PrintedInvoice, PrintedLine, PrintedSums } from '../invoice/printed';
import { minorDigits } from '../money/currency';
import { money } from '../money/money';
import { figureText } from '../money/money-text';
import { numbersLike } from '../writing/writing';
import { type Words, wordsOf } from './words';

type Paper = { readonly currency: string; readonly locale: string };

const grouped = (decimal: string, least: number, locale: string): string =>
  new Intl.NumberFormat(numbersLike(locale), { minimumFractionDigits: least, maximumFractionDigits: 6 }).format(
    decimal as `${number}`,
  );

/** A unit price with at least the currency's digits: `72.00`, `0.035`. */
export const priceText = (price: string, { currency, locale }: Paper): string =>
  grouped(price, minorDigits(currency), locale);

/** How much of a line at which price: `3.5 h × 72.00`, `2 × 58.50`. */
export function howMuchText(
  line: Pick<PrintedLine, 'unit' | 'quantity' | 'unitPrice'>,
  paper: Paper,
  words: Words = wordsOf(paper.locale),
): string {
  const quantity = grouped(line.quantity, 0, paper.locale);
  const unit = words.units[line.unit];
  return `${quantity}${unit ? ` ${unit}` : ''} × ${priceText(line.unitPrice, paper)}`;
}

const rateText = (rate: string, locale: string): string => `${grouped(rate, 0, locale)} %`;

/** A tax's line among the totals: on top, or held in the prices. */
export function taxText(
  tax: PrintedInvoice['taxes'][number],
  invoice: Pick<PrintedInvoice, 'pricesIncludeTax' | 'locale'>,
  words: Words = wordsOf(invoice.locale),
): string {
  const text = `${tax.name}, ${rateText(tax.rate, invoice.locale)}`;
  return invoice.pricesIncludeTax ? words.ofWhich(text) : text;
}

/** What stands below a line in small type: its code, its day, its discount, its taxes. */
export function underLine(
  line: PrintedLine,
  invoice: Pick<PrintedInvoice, 'currency' | 'locale'>,
  words: Words = wordsOf(invoice.locale),
): string {
  const figure = (minor: number) => figureText(money(BigInt(minor), invoice.currency), invoice.locale);
  return [
    line.code ? words.itemCode(line.code) : '',
    line.on && isCalendarDate(line.on) ? longDate(line.on, invoice.locale) : '',
    line.discount > 0 ? words.less(line.discountText || words.aDiscount, figure(line.discount)) : '',
    line.handed && line.handed !== 'service' ? words.handed[line.handed] : '',
    line.taxes.join(', '),
  ]
    .filter(Boolean)
    .join(' · ');
}

/** One row between the lines and the total: what it is, and its signed amount in minor units. */
export type SumRow = { readonly label: string; readonly minor: number };

/** All that leads from the lines to the total, in order; nothing where the lines are the total. */
export function sumRows(invoice: PrintedSums, words: Words = wordsOf(invoice.locale)): SumRow[] {
  const rows: SumRow[] = [];
  if (invoice.discount > 0)
    rows.push({ label: [words.discount, invoice.discountText].filter(Boolean).join(', '), minor: -invoice.discount });
  if (invoice.delivery) rows.push({ label: words.delivery, minor: invoice.delivery.amount });
  for (const fee of invoice.fees) rows.push({ label: fee.name, minor: fee.amount });
  for (const tax of invoice.taxes) rows.push({ label: taxText(tax, invoice, words), minor: tax.amount });
  for (const tax of invoice.flatTaxes) rows.push({ label: tax.name, minor: tax.amount });
  if (rows.length === 0) return [];
  return [{ label: words.sumOfLines, minor: invoice.subtotal - invoice.lineDiscounts }, ...rows];
}

/** The facts at an invoice's head: dates, service, references, tax numbers. */
export function headFacts(invoice: PrintedInvoice, words: Words = wordsOf(invoice.locale)): string[] {
  const day = (date: string): string => longDate(date as CalendarDate, invoice.locale);
  const { serviceFrom, serviceTo } = invoice;
  return [
    words.issued(day(invoice.issuedOn)),
    invoice.dueOnReceipt ? words.dueOnReceipt : words.due(day(invoice.dueOn)),
    ...(serviceFrom
      ? [words.service(serviceTo ? words.until(day(serviceFrom), day(serviceTo)) : day(serviceFrom))]
      : []),
    ...(invoice.reference ? [words.yourReference(invoice.reference)] : []),
    ...(invoice.seller.taxNumber ? [words.taxNumber(invoice.seller.taxNumber)] : []),
    ...(invoice.payer.taxNumber ? [words.theirTaxNumber(invoice.payer.taxNumber)] : []),
    ...(invoice.version > 1 && invoice.changedOn ? [words.version(invoice.version, day(invoice.changedOn))] : []),
  ];
}

/** What a banking app reads to pay what is due of an invoice; null where no code is possible, or no transfer is offered. */
export function transferCode(invoice: PrintedInvoice, dueMinor: number): string | null {
  const { transfer } = invoice.ways;
  if (!transfer) return null;
  const { currency, number, seller } = invoice;
  return paymentCode({
    ...transfer,
    holder: transfer.holder || seller.name,
    currency,
    amountMinor: BigInt(dueMinor),
    number,
  });
}

/** Where and how to transfer: account details and the reference to give; nothing where no transfer is offered. */
export function transferFacts(invoice: PrintedInvoice, words: Words = wordsOf(invoice.locale)): string[] {
  const { transfer } = invoice.ways;
  if (!transfer) return [];
  return [
    `${words.holder}: ${transfer.holder || invoice.seller.name}`,
    `${words.account}: ${transfer.account}`,
    ...(transfer.bankCode ? [`${words.bankCode}: ${transfer.bankCode}`] : []),
    ...(transfer.bank ? [`${words.bank}: ${transfer.bank}`] : []),
    words.transfer(printedReference(invoice.number)),
  ];
}
