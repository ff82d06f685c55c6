import type { CalendarDate } from '../dates/calendar-date';
import { type Money, money } from '../money/money';
import { type Account, type Entry, entry, type Posting } from './entry';

const minus = (amount: Money): Money => ({ ...amount, minor: -amount.minor });

/** What sending an invoice books: the customer owes the total; we earned it less the tax, which we owe on. */
export const invoiceSent = (on: CalendarDate, number: string, total: Money, taxMinor: bigint): Entry =>
  charged(on, `Invoice ${number} sent`, total, taxMinor);

/** What bringing in an invoice of elsewhere books: what is still owed on it, against the books of before (`calculation.md` 23). */
export const invoiceBroughtIn = (on: CalendarDate, number: string, owed: Money): Entry =>
  entry(on, `Invoice ${number} brought in`, [
    { account: 'receivable', amount: owed },
    { account: 'brought-in', amount: minus(owed) },
  ]);

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
export type ReceivedBy = 'transfer' | 'cash' | 'cheque' | 'other' | 'account' | 'voucher';

const HELD_IN: Readonly<Record<ReceivedBy, Account>> = {
  transfer: 'bank',
  cash: 'cash',
  cheque: 'cheques',
  other: 'other-receipts',
  // From one invoice's credit to another's debt: what goes out of the one comes in at the other.
  account: 'customer-credit',
  // What the voucher was owed is owed no longer.
  voucher: 'vouchers',
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

/** How money goes out to a payer: from the processor to the card, or another way by hand. */
export type PaidOutBy = ReceivedBy | 'card' | 'debit';

/**
 * What giving back of an invoice's payment books: the money goes out with the tip in it, the customer owes the amount again (unless a
 * credit note beside it takes that away), and partners give back their part.
 *
 * @param feeBackMinor what the processor gives back of its fee: all of it for a void, else nothing; below 0 what it takes for a debit
 *   that came back
 */
export function paymentRefunded(
  on: CalendarDate,
  words: string,
  amount: Money,
  {
    by,
    tipMinor,
    partners,
    feeBackMinor,
  }: {
    readonly by: PaidOutBy;
    readonly tipMinor: bigint;
    readonly partners: PartnersPart;
    readonly feeBackMinor: bigint;
  },
): Entry {
  const of = (minor: bigint) => money(minor, amount.currency);
  return entry(on, words, [
    { account: paidOutOf(by), amount: of(-amount.minor - tipMinor) },
    { account: 'processor-clearing', amount: of(feeBackMinor) },
    { account: 'processing-fees', amount: of(partners.feeMinor - feeBackMinor) },
    { account: 'receivable', amount },
    { account: 'tips', amount: of(tipMinor) },
    { account: 'partner-shares', amount: of(-partners.shareMinor) },
    { account: 'partners', amount: of(partners.shareMinor - partners.feeMinor) },
  ]);
}

const paidOutOf = (by: PaidOutBy): Account => (by === 'card' || by === 'debit' ? 'processor-clearing' : HELD_IN[by]);

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

/**
 * What an order that is paid books: nobody owed anything before, so it is earned, taxed and shared at once; where vouchers are bought,
 * they are owed instead.
 *
 * @param by from the card that the processor charged, or from a voucher
 */
export function orderPaid(
  { on, words, currency }: OrderBooking,
  { totalMinor, taxMinor, tipMinor }: OrderSums,
  {
    by = 'card',
    feeMinor,
    partners,
    buysVouchers = false,
  }: {
    readonly by?: 'card' | 'voucher';
    readonly feeMinor: bigint;
    readonly partners: PartnersPart;
    readonly buysVouchers?: boolean;
  },
): Entry {
  const of = (minor: bigint) => money(minor, currency);
  return entry(on, words, [
    { account: paidOutOf(by), amount: of(totalMinor + tipMinor - feeMinor) },
    { account: 'processing-fees', amount: of(feeMinor - partners.feeMinor) },
    { account: buysVouchers ? 'vouchers' : 'revenue', amount: of(taxMinor - totalMinor) },
    { account: 'tax-payable', amount: of(-taxMinor) },
    { account: 'tips', amount: of(-tipMinor) },
    ...shared(partners, currency),
  ]);
}

/**
 * What giving back of an order books: the money goes out, and what was earned, taxed, tipped and shared is taken back.
 *
 * @param back what of the total, the tax in it, and the tip is given back now
 * @param feeBackMinor what the processor gives back of its fee: all of it for a void, else nothing
 */
export function orderRefunded(
  { on, words, currency }: OrderBooking,
  back: OrderSums,
  {
    by,
    partners,
    feeBackMinor,
    buysVouchers = false,
  }: {
    readonly by: PaidOutBy;
    readonly partners: PartnersPart;
    readonly feeBackMinor: bigint;
    /** What goes back was paid for vouchers, which are worth that much less. */
    readonly buysVouchers?: boolean;
  },
): Entry {
  const of = (minor: bigint) => money(minor, currency);
  return entry(on, words, [
    { account: paidOutOf(by), amount: of(-back.totalMinor - back.tipMinor) },
    { account: 'processor-clearing', amount: of(feeBackMinor) },
    { account: 'processing-fees', amount: of(partners.feeMinor - feeBackMinor) },
    { account: 'partner-shares', amount: of(-partners.shareMinor) },
    { account: buysVouchers ? 'vouchers' : 'revenue', amount: of(back.totalMinor - back.taxMinor) },
    { account: 'tax-payable', amount: of(back.taxMinor) },
    { account: 'tips', amount: of(back.tipMinor) },
    { account: 'partners', amount: of(partners.shareMinor - partners.feeMinor) },
  ]);
}

/** To whom a payout goes: the business itself, or a partner. */
export type PaidOutTo = 'business' | 'partner';

/** What paying out books: the processor holds it no longer, the bank has not booked it yet. */
export const payoutMade = (on: CalendarDate, words: string, amount: Money): Entry =>
  entry(on, words, [
    { account: 'on-the-way', amount },
    { account: 'processor-clearing', amount: minus(amount) },
  ]);

/** What its arrival books: it is in our bank account, or the partner is owed it no longer. */
export const payoutArrived = (on: CalendarDate, words: string, amount: Money, to: PaidOutTo): Entry =>
  entry(on, words, [
    { account: to === 'business' ? 'bank' : 'partners', amount },
    { account: 'on-the-way', amount: minus(amount) },
  ]);

/** What its coming back books: the processor holds it again. */
export const payoutReturned = (on: CalendarDate, words: string, amount: Money): Entry =>
  payoutMade(on, words, minus(amount));

/** What paying a partner by hand books: they are owed it no longer, and it went from our own account. */
export const partnerPaidByHand = (on: CalendarDate, words: string, amount: Money): Entry =>
  entry(on, words, [
    { account: 'partners', amount },
    { account: 'bank', amount: minus(amount) },
  ]);

/** What a line of the bank is that is no payment, payout or refund of ours, as `core/bank` tells it apart. */
type AtBank = 'charge' | 'cash' | 'check' | 'other' | 'cheque';

const BANKED_FROM: Readonly<Record<AtBank, Account>> = {
  charge: 'bank-charges',
  cash: 'cash',
  check: 'outside',
  other: 'outside',
  cheque: 'cheques',
};

/** What a line at the bank books where nothing was booked at the bank yet. @param amount below 0 for what went out */
export const movedAtBank = (on: CalendarDate, words: string, amount: Money, what: AtBank): Entry =>
  entry(on, words, [
    { account: 'bank', amount },
    { account: BANKED_FROM[what], amount: minus(amount) },
  ]);

/** What a dispute moves: the sum that the bank takes with the tip in it, its fee, and what partners give back of their shares. */
export type DisputeSums = { readonly amountMinor: bigint; readonly feeMinor: bigint; readonly partners: PartnersPart };

/** What a dispute books when it is opened: the processor holds the sum and the fee no longer; whether it is lost is not decided yet. */
export function disputeOpened(
  { on, words, currency }: OrderBooking,
  { amountMinor, feeMinor, partners }: DisputeSums,
): Entry {
  const of = (minor: bigint) => money(minor, currency);
  return entry(on, words, [
    { account: 'processor-clearing', amount: of(-amountMinor - feeMinor) },
    { account: 'disputed', amount: of(amountMinor) },
    { account: 'dispute-fees', amount: of(feeMinor) },
    { account: 'partner-shares', amount: of(-partners.shareMinor) },
    { account: 'partners', amount: of(partners.shareMinor - partners.feeMinor) },
    { account: 'processing-fees', amount: of(partners.feeMinor) },
  ]);
}

/** What winning it books: all of that the other way round; of the fee what is given back. */
export const disputeWon = (
  booking: OrderBooking,
  { amountMinor, partners }: DisputeSums,
  feeBackMinor: bigint,
): Entry =>
  disputeOpened(booking, {
    amountMinor: -amountMinor,
    feeMinor: -feeBackMinor,
    partners: { shareMinor: -partners.shareMinor, feeMinor: -partners.feeMinor },
  });

/** What losing it books: what was undecided is lost. What was earned and taxed stays as it is, until a credit note says otherwise. */
export const disputeLost = ({ on, words, currency }: OrderBooking, amountMinor: bigint): Entry =>
  entry(on, words, [
    { account: 'dispute-losses', amount: money(amountMinor, currency) },
    { account: 'disputed', amount: money(-amountMinor, currency) },
  ]);

/** What a voucher that nobody used in time books: it is owed no longer. @param amount below 0 where it is good again */
export const voucherExpired = (on: CalendarDate, words: string, amount: Money): Entry =>
  entry(on, words, [
    { account: 'vouchers', amount },
    { account: 'expired-vouchers', amount: minus(amount) },
  ]);

/** What money put on the balance at the carrier books: it moves at the bank for no customer; its line there, set aside as such, closes it. */
export const carrierToppedUp = (on: CalendarDate, words: string, amount: Money): Entry =>
  entry(on, words, [
    { account: 'carrier-balance', amount },
    { account: 'outside', amount: minus(amount) },
  ]);

/** What a label books: it is paid from the balance at the carrier. */
export const labelBought = (on: CalendarDate, words: string, amount: Money): Entry =>
  entry(on, words, [
    { account: 'postage', amount },
    { account: 'carrier-balance', amount: minus(amount) },
  ]);

/** What a label that is given back books: all of `labelBought`, the other way round. */
export const labelVoided = (on: CalendarDate, words: string, amount: Money): Entry =>
  labelBought(on, words, minus(amount));

/** What the carrier pays for a parcel that was lost, damaged or late: onto the balance that labels are bought from. */
export const claimPaid = (on: CalendarDate, words: string, amount: Money): Entry =>
  entry(on, words, [
    { account: 'carrier-balance', amount },
    { account: 'carrier-claims', amount: minus(amount) },
  ]);
