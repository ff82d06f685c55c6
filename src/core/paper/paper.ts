import { isCalendarDate } from '../dates/calendar-date';
import type { Handed, Unit } from '../item/item';
import type { ExemptAs } from './exempt';

/** When an invoice is to be paid, as the business chooses it. */
export type DueChoice =
  | { readonly kind: 'receipt' }
  | { readonly kind: 'days'; readonly days: number }
  | { readonly kind: 'month-end' }
  | { readonly kind: 'date'; readonly date: string };

/** A line as typed; `quantity`, `price` and `discount` (`10%` or `5.00`) are the person's own characters. */
export type PaperLine = {
  readonly id: string;
  readonly unit: Unit;
  readonly what: string;
  readonly quantity: string;
  readonly price: string;
  readonly discount: string;
  /** The taxes a person chose; where `taxesBy` is `place`, the customer's place chooses by `taxClass`. */
  readonly taxes: readonly string[];
  readonly taxesBy?: 'place' | 'person';
  readonly taxClass?: string;
  readonly itemId?: string | null;
  readonly optionId?: string | null;
  /** Words to the customer below the line. */
  readonly note?: string;
  /** The business's own code of the item, as typed. */
  readonly code?: string;
  /** How it comes to the customer; none where it was not said. */
  readonly handed?: Handed | undefined;
  /** The day on which this was done or delivered, as typed; empty for none. */
  readonly on?: string;
};

/** A further fee; `amount` as typed, its taxes named like a line's. */
export type PaperFee = {
  readonly id: string;
  readonly name: string;
  readonly amount: string;
  readonly taxes: readonly string[];
};

/** A tax of a fixed amount, once on the document. */
export type PaperFlatTax = { readonly id: string; readonly name: string; readonly amount: string };

/** Delivery: what the customer is charged, and what it costs; `taxes` null where the lines' own taxes decide. */
export type PaperDelivery = {
  readonly charged: string;
  readonly postage: string;
  readonly packaging: string;
  readonly taxes: readonly string[] | null;
};

/** Somebody who is asked by name to approve a file. */
export type Approver = { readonly id: string; readonly name: string; readonly email: string };

/** A file that goes with the document; one to be approved asks before paying: named approvers, or whoever has the link. */
export type PaperFile = {
  readonly id: string;
  readonly name: string;
  readonly type: string;
  readonly size: number;
  readonly approve: boolean;
  readonly approvers?: readonly Approver[];
};

/** How the customer may pay this one. `first` is the least first payment (`30%` or `100.00`, empty for any). */
export type PaperWays = {
  readonly card: boolean;
  /** From the customer's bank account, by the processor. */
  readonly debit?: boolean;
  readonly transfer: boolean;
  readonly parts: boolean;
  readonly first: string;
  /** Suggested tips in percent; null where no tip is asked for. */
  readonly tip: readonly string[] | null;
};

/** An invoice while it is composed: everything as typed, so that nothing is lost that is not yet right. */
export type Paper = {
  readonly customerId: string | null;
  readonly reference: string;
  readonly due: DueChoice;
  readonly lines: readonly PaperLine[];
  readonly discount: string;
  readonly note: string;
  readonly title: string;
  /** The number as a person wants it; empty for the next one of the business's pattern. */
  readonly number: string;
  /** Under which trading name, and from which location; null for the business's own. */
  readonly tradingNameId: string | null;
  readonly locationId: string | null;
  /** The series that numbers it, by name; empty for its trading name's, or the business's first. */
  readonly series: string;
  /** Day of issue; empty for the day of sending. */
  readonly issuedOn: string;
  /** Day or period of the service; empty for none. */
  readonly serviceFrom: string;
  readonly serviceTo: string;
  /** ISO 4217; empty for the customer's or the business's own. */
  readonly currency: string;
  /** Null for the business's usual way. */
  readonly pricesIncludeTax: boolean | null;
  readonly delivery: PaperDelivery | null;
  readonly fees: readonly PaperFee[];
  readonly flatTaxes: readonly PaperFlatTax[];
  /** The reason where no tax applies to the document; null where taxes apply. */
  readonly exempt: string | null;
  /** As what it is without tax, where it is. */
  readonly exemptAs: ExemptAs;
  readonly termsId: string | null;
  readonly memo: string;
  readonly files: readonly PaperFile[];
  readonly ways: PaperWays;
  /** Days from the due date, negative before it; null for the business's usual reminders. */
  readonly reminders: readonly number[] | null;
  /** An invoice made elsewhere: its own PDF is the document, and this is what it asks for. */
  readonly elsewhere: { readonly fileId: string; readonly name: string } | null;
  /** Whether sample lines stand beside it on the desk: they are no part of it, are not counted and never sent. */
  readonly sample: boolean;
  /** Whether what it sells leaves before it is paid; null or none for as its customer, or the business, usually does. */
  readonly shipsFirst?: boolean | null;
};

export const MOST_LINES = 500;
export const MOST_FILES = 5;
/** How many people can be asked by name to approve a file. */
export const MOST_APPROVERS = 8;

export const USUAL_WAYS: PaperWays = { card: true, transfer: false, parts: false, first: '', tip: null };

const EMPTY: Paper = {
  customerId: null,
  reference: '',
  due: { kind: 'days', days: 14 },
  lines: [],
  discount: '',
  note: '',
  title: '',
  number: '',
  tradingNameId: null,
  locationId: null,
  series: '',
  issuedOn: '',
  serviceFrom: '',
  serviceTo: '',
  currency: '',
  pricesIncludeTax: null,
  delivery: null,
  fees: [],
  flatTaxes: [],
  exempt: null,
  exemptAs: 'exempt',
  termsId: null,
  memo: '',
  files: [],
  ways: USUAL_WAYS,
  reminders: null,
  elsewhere: null,
  sample: false,
};

/** A paper whole: what was kept before a field existed, or was never written, is as on an empty one. */
export const completePaper = (kept: Partial<Paper>): Paper => ({ ...EMPTY, ...kept });

/** A line on which nothing is written; its taxes follow the customer's place. @param id unique on the paper */
export const newLine = (id: string, unit: Unit = 'piece', more: Partial<PaperLine> = {}): PaperLine => ({
  id,
  unit,
  what: '',
  quantity: '1',
  price: '',
  discount: '',
  taxes: [],
  taxesBy: 'place',
  ...more,
});

/** A line on which nothing has been typed yet. */
export const isBlank = (line: PaperLine): boolean => !line.what.trim() && !line.price.trim() && !line.discount.trim();

/** Whether a date field holds nothing or a day of the calendar. */
export const isDayOrNone = (typed: string): boolean => typed === '' || isCalendarDate(typed);
