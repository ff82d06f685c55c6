import type { CalendarDate } from '../../dates/calendar-date';

/** A line of a statement that is to be matched; minor units, money in is positive. */
export type MatchLine = {
  readonly id: string;
  readonly day: CalendarDate;
  readonly amount: bigint;
  readonly text: string;
  readonly name: string;
  readonly otherAccount: string;
  readonly reference: string;
  readonly endToEnd: string;
};

/** Something that a line can be about; minor units, what comes in is positive. */
export type OpenInvoice = {
  readonly id: string;
  readonly number: string;
  readonly customerId: string;
  readonly customer: string;
  readonly due: bigint;
  readonly dueOn: CalendarDate | null;
};
export type OpenPayout = { readonly id: string; readonly number: number; readonly amount: bigint };
/** A refund that went out as a transfer; its id without hyphens is the end-to-end id of the file. */
export type OpenRefund = {
  readonly id: string;
  readonly amount: bigint;
  readonly payee: string;
  readonly about: string;
};
/** A payment that was written down by hand and was not on a statement yet. */
export type OpenPayment = {
  readonly id: string;
  readonly method: 'transfer' | 'cheque' | 'cash';
  readonly amount: bigint;
  readonly customer: string;
  readonly customerId: string;
  readonly invoiceNumber: string;
  readonly reference: string;
};

/** Where money goes that is no customer's: the bank's own charge, cash that was carried to it, small sums to confirm an account, all else. */
export const ASIDES = ['charge', 'cash', 'check', 'other'] as const;
export type Aside = (typeof ASIDES)[number];

/** What somebody said once is always so: whoever pays under this name or from this account is that customer, or nobody's. */
export type MatchRule = {
  readonly id: string;
  /** Words of the name or text, as `nameWords` has them, joined by blanks; empty where the account alone counts. */
  readonly words: string;
  readonly account: string;
  readonly isIn: boolean;
  readonly customerId: string | null;
  readonly aside: Aside | null;
  readonly note: string;
};

/** Who paid an invoice before under a name, or from an account; words as `nameWords` has them, joined by blanks. */
export type PaidBefore = { readonly words: string; readonly account: string; readonly customerId: string };

/** All that lines of one currency can be matched with. */
export type OpenThings = {
  readonly invoices: readonly OpenInvoice[];
  readonly payouts: readonly OpenPayout[];
  readonly refunds: readonly OpenRefund[];
  readonly payments: readonly OpenPayment[];
  readonly rules: readonly MatchRule[];
  readonly before: readonly PaidBefore[];
  /** Accounts that are being confirmed, by the end-to-end id of each small sum, without hyphens and dots. */
  readonly checks: readonly string[];
};

/** How a fact of the line stands to the proposal. */
export type Agreement = 'equal' | 'like' | 'no';
export type Fact = {
  readonly fact: 'reference' | 'number' | 'sum' | 'payer' | 'always';
  /** What stands in the line. */
  readonly found: string;
  /** What it means. */
  readonly means: string;
  readonly agrees: Agreement;
};

export type Sureness = 'sure' | 'likely' | 'could';

export type PartKind = 'invoice' | 'payout' | 'refund' | 'payment' | 'aside';
/** A part of a line for one thing; minor units, with the line's sign. */
export type ProposedPart = {
  readonly kind: PartKind;
  readonly id: string;
  readonly label: string;
  readonly minor: bigint;
};

export type Proposal = {
  readonly key: string;
  readonly title: string;
  readonly parts: readonly ProposedPart[];
  /** What of the line is for nothing yet; below 0 where less came than is due. */
  readonly rest: bigint;
  readonly facts: readonly Fact[];
  readonly sure: Sureness;
  /** Whose it is, where it is a customer's. */
  readonly customerId: string | null;
};

/** What an aside is called where nobody said it in words. */
export const ASIDE_TITLES: Readonly<Record<Aside, string>> = {
  charge: 'The bank’s own charge',
  cash: 'Cash paid in',
  check: 'Sum to confirm the account',
  other: 'Not from a customer',
};
