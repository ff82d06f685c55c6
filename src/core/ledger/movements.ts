import type { CalendarDate } from '../dates/calendar-date';
import { type Money, money } from '../money/money';
import { type Account, type Entry, entry, type Posting } from './entry';

const minus = (amount: Money): Money => ({ ...amount, minor: -amount.minor });

/** What sending an invoice books: the customer owes the total; we earned it less the tax, which we owe on. */
export const invoiceSent = (on: CalendarDate, number: string, total: Money, taxMinor: bigint): Entry =>
  charged(on, `Invoice ${number} sent`, total, taxMinor);

/** What changing a sent invoice books: the difference, which may be negative. */
export const invoiceChanged = (on: CalendarDate, number: string, more: Money, moreTaxMinor: bigint): Entry =>
  charged(on, `Invoice ${number} changed`, more, moreTaxMinor);

/** What a credit note books: the customer owes that much less, we earned and owe the less. */
export const credited = (on: CalendarDate, number: string, amount: Money, taxMinor: bigint): Entry =>
  charged(on, `Credit note ${number}`, minus(amount), -taxMinor);

/** What cancelling books: all that was charged and not credited yet is taken back. */
export const invoiceCancelled = (on: CalendarDate, number: string, left: Money, leftTaxMinor: bigint): Entry =>
  charged(on, `Invoice ${number} cancelled`, minus(left), -leftTaxMinor);

function charged(on: CalendarDate, words: string, total: Money, taxMinor: bigint): Entry {
  return entry(on, words, [
    { account: 'receivable', amount: total },
    { account: 'revenue', amount: money(taxMinor - total.minor, total.currency) },
    { account: 'tax-payable', amount: money(-taxMinor, total.currency) },
  ]);
}

/**
 * What a card payment books: the processor holds it with the tip and less its fee, and the customer owes the amount less.
 *
 * @param more.tipMinor on top of the amount; never part of what was owed @param more.partners what partners get of the amount
 */
export function cardPaymentTaken(
  on: CalendarDate,
  words: string,
  amount: Money,
  {
    feeMinor,
    tipMinor = 0n,
    partners = NO_PARTNERS,
  }: { readonly feeMinor: bigint; readonly tipMinor?: bigint; readonly partners?: PartnersPart },
): Entry {
  const { currency } = amount;
  return entry(on, words, [
    { account: 'processor-clearing', amount: money(amount.minor + tipMinor - feeMinor, currency) },
    { account: 'processing-fees', amount: money(feeMinor - partners.feeMinor, currency) },
    { account: 'receivable', amount: minus(amount) },
    { account: 'tips', amount: money(-tipMinor, currency) },
    ...shared(partners, currency),
  ]);
}

/** How money can come in beside a card. */
export type ReceivedBy = 'transfer' | 'cash' | 'cheque' | 'other';

const HELD_IN: Readonly<Record<ReceivedBy, Account>> = {
  transfer: 'bank',
  cash: 'cash',
  cheque: 'cheques',
  other: 'other-receipts',
};

/** What money received by hand or at the bank books. @param partners what partners get of it */
export const moneyReceived = (
  on: CalendarDate,
  words: string,
  amount: Money,
  by: ReceivedBy,
  partners: PartnersPart = NO_PARTNERS,
): Entry =>
  entry(on, words, [
    { account: HELD_IN[by], amount },
    { account: 'receivable', amount: minus(amount) },
    ...shared(partners, amount.currency),
  ]);

/** What taking back money that was written down by mistake books: all of `moneyReceived`, the other way round. */
export const receivedTakenBack = (
  on: CalendarDate,
  words: string,
  amount: Money,
  by: ReceivedBy,
  partners: PartnersPart = NO_PARTNERS,
): Entry =>
  moneyReceived(on, words, minus(amount), by, { shareMinor: -partners.shareMinor, feeMinor: -partners.feeMinor });

/** What an order came to, in minor units: its total with the tax in it, the tip on top. */
export type OrderSums = { readonly totalMinor: bigint; readonly taxMinor: bigint; readonly tipMinor: bigint };

/** What partners get of a payment (or what a refund takes back): their shares, and the fee that they bear. */
export type PartnersPart = { readonly shareMinor: bigint; readonly feeMinor: bigint };

const NO_PARTNERS: PartnersPart = { shareMinor: 0n, feeMinor: 0n };

/** What partners get is a cost, and owed to them less the fee that they bear. */
const shared = ({ shareMinor, feeMinor }: PartnersPart, currency: string): Posting[] => [
  { account: 'partner-shares', amount: money(shareMinor, currency) },
  { account: 'partners', amount: money(feeMinor - shareMinor, currency) },
];

/** When an order is booked, with which words, in which currency. */
export type OrderBooking = { readonly on: CalendarDate; readonly words: string; readonly currency: string };

/** What an order paid by card books: nobody owed anything before, so it is earned, taxed and shared at once. */
export function orderPaid(
  { on, words, currency }: OrderBooking,
  { totalMinor, taxMinor, tipMinor }: OrderSums,
  feeMinor: bigint,
  partners: PartnersPart,
): Entry {
  const of = (minor: bigint) => money(minor, currency);
  return entry(on, words, [
    { account: 'processor-clearing', amount: of(totalMinor + tipMinor - feeMinor) },
    { account: 'processing-fees', amount: of(feeMinor - partners.feeMinor) },
    { account: 'revenue', amount: of(taxMinor - totalMinor) },
    { account: 'tax-payable', amount: of(-taxMinor) },
    { account: 'tips', amount: of(-tipMinor) },
    ...shared(partners, currency),
  ]);
}

/**
 * What giving back of an order books: the processor pays out, and what was earned, taxed, tipped and shared is taken back.
 *
 * @param back what of the total, the tax in it, and the tip is given back now
 * @param feeBackMinor what the processor gives back of its fee: all of it for a void, else nothing
 */
export function orderRefunded(
  { on, words, currency }: OrderBooking,
  back: OrderSums,
  partners: PartnersPart,
  feeBackMinor: bigint,
): Entry {
  const of = (minor: bigint) => money(minor, currency);
  return entry(on, words, [
    { account: 'processor-clearing', amount: of(feeBackMinor - back.totalMinor - back.tipMinor) },
    { account: 'processing-fees', amount: of(partners.feeMinor - feeBackMinor) },
    { account: 'partner-shares', amount: of(-partners.shareMinor) },
    { account: 'revenue', amount: of(back.totalMinor - back.taxMinor) },
    { account: 'tax-payable', amount: of(back.taxMinor) },
    { account: 'tips', amount: of(back.tipMinor) },
    { account: 'partners', amount: of(partners.shareMinor - partners.feeMinor) },
  ]);
}
