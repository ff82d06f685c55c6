import type { CalendarDate } from '../dates/calendar-date';
import type { Seller } from '../invoice/printed';

/** What a payment's file is made of, in the order in which somebody at a bank reads it. */
export const FILE_PARTS = [
  'payment',
  'sold',
  'receipt',
  'terms',
  'approvals',
  'consent',
  'messages',
  'visits',
  'delivery',
  'earlier',
  'refunds',
  'added',
] as const;
export type FilePartKey = (typeof FILE_PARTS)[number];

/** A paper that belongs to a part, as the zip names it. */
export type Paper = { readonly name: string };

/** One part of the file: what is known by it, in rows of what and which, texts in full, and papers. */
export type FilePart = {
  readonly key: FilePartKey;
  readonly rows: readonly (readonly [what: string, text: string])[];
  readonly texts: readonly string[];
  readonly papers: readonly Paper[];
};

export const PART_TITLES: Readonly<Record<FilePartKey, string>> = {
  payment: 'The payment',
  sold: 'What was sold',
  receipt: 'Receipt',
  terms: 'Terms that were accepted',
  approvals: 'Files that were approved',
  consent: 'Consent to be charged',
  messages: 'Messages, and when they were opened',
  visits: 'Visits of the payer’s page',
  delivery: 'Delivery',
  earlier: 'Earlier payments with this card',
  refunds: 'What was given back',
  added: 'Further papers',
};

/** What the screen says of a part of which nothing is known. */
export const NOTHING_OF: Readonly<Record<FilePartKey, string>> = {
  payment: '',
  sold: '',
  receipt: 'No receipt was written.',
  terms: 'No terms were asked for.',
  approvals: 'No file was to be approved.',
  consent: 'The card was typed in by the payer: there is no authorisation.',
  messages: 'No message went out.',
  visits: 'Nobody was seen on the page.',
  delivery: 'No delivery address: add proof of handing over, if there was any.',
  earlier: 'This card paid nothing here before.',
  refunds: 'Nothing was given back.',
  added: '',
};

/** Parts that stand in every file: without them it is none. */
export const ALWAYS_IN: readonly FilePartKey[] = ['payment', 'sold'];

/** Whether anything is known by a part. */
export const holdsSomething = ({ rows, texts, papers }: FilePart): boolean =>
  rows.length + texts.length + papers.length > 0;

/** What goes into the file: parts that hold something and were not left out, in their order. */
export const includedParts = (parts: readonly FilePart[], leftOut: readonly string[]): FilePart[] =>
  FILE_PARTS.flatMap((key) => {
    const part = parts.find((one) => one.key === key);
    const isIn = part && holdsSomething(part) && (ALWAYS_IN.includes(key) || !leftOut.includes(key));
    return isIn ? [part] : [];
  });

/** The file as it is set on paper, without the papers that go along. */
export type PaymentFilePaper = {
  readonly seller: Seller;
  readonly accent: string;
  readonly locale: string;
  readonly title: string;
  readonly facts: readonly string[];
  /** Who paid. */
  readonly payer: readonly string[];
  /** What the business says itself. */
  readonly words: string;
  readonly parts: readonly FilePart[];
  readonly madeOn: CalendarDate;
};
