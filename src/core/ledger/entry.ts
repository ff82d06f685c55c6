import type { CalendarDate } from '../dates/calendar-date';
import type { Money } from '../money/money';

/**
 * The books’ accounts: what customers owe, what we earned, tax owed on, money at the card processor, its fees, tips, money held,
 * what partners' shares cost us, what we owe the partners, what was paid out and has not arrived, what the
 * bank charges, what moved at the bank that is no customer's, of disputes what is undecided, lost, and their fees, what vouchers are still
 * worth, what of them nobody used in time, what was owed already when invoices of elsewhere were brought in, what the carrier holds of
 * ours, and what labels cost.
 */
export type Account =
  | 'receivable'
  | 'revenue'
  | 'tax-payable'
  | 'processor-clearing'
  | 'processing-fees'
  | 'tips'
  | 'partner-shares'
  | 'partners'
  | 'bank'
  | 'cash'
  | 'cheques'
  | 'other-receipts'
  | 'customer-credit'
  | 'on-the-way'
  | 'bank-charges'
  | 'outside'
  | 'disputed'
  | 'dispute-losses'
  | 'dispute-fees'
  | 'vouchers'
  | 'expired-vouchers'
  | 'brought-in'
  | 'carrier-balance'
  | 'postage'
  | 'carrier-claims';

/** One side of a movement; a debit is positive, a credit negative. */
export type Posting = { readonly account: Account; readonly amount: Money };

/** A balanced movement: in each currency the postings sum to zero. */
export type Entry = { readonly on: CalendarDate; readonly words: string; readonly postings: readonly Posting[] };

/** Drops postings of zero. @throws Error unless each currency sums to zero: an unbalanced entry is a bug, not an input */
export function entry(on: CalendarDate, words: string, postings: readonly Posting[]): Entry {
  const sums = new Map<string, bigint>();
  for (const { amount } of postings) sums.set(amount.currency, (sums.get(amount.currency) ?? 0n) + amount.minor);
  for (const [currency, sum] of sums) {
    if (sum !== 0n) throw new Error(`Entry "${words}" does not balance: ${sum} ${currency}`);
  }
  return { on, words, postings: postings.filter(({ amount }) => amount.minor !== 0n) };
}
