import { momentCell, sumCell } from './write';

/** A card payment, or what was given back of one, as a row of a day; minor units, below 0 what went back. */
export type DayRow = {
  readonly day: string;
  readonly at: Date;
  readonly kind: string;
  readonly amountMinor: bigint;
  readonly feeMinor: bigint;
  readonly payment: {
    readonly customer: string;
    readonly subject: string;
    readonly channel: string;
    readonly cardScheme: string | null;
    readonly cardLast4: string | null;
    readonly currency: string;
    readonly receiptNumber: string | null;
    readonly reference: string;
  };
};

export const DAY_HEADINGS = [
  'day',
  'at',
  'kind',
  'customer',
  'for',
  'channel',
  'card',
  'amount',
  'fee',
  'net',
  'currency',
  'receipt',
  'reference',
] as const;

/** Its cells. @param zone the business's */
export const dayCells = ({ day, at, kind, amountMinor, feeMinor, payment }: DayRow, zone: string): string[] => [
  day,
  momentCell(at, zone),
  kind,
  payment.customer,
  payment.subject,
  payment.channel,
  `${payment.cardScheme ?? ''} ${payment.cardLast4 ?? ''}`.trim(),
  sumCell(amountMinor, payment.currency),
  sumCell(feeMinor, payment.currency),
  sumCell(amountMinor - feeMinor, payment.currency),
  payment.currency,
  payment.receiptNumber ?? '',
  payment.reference,
];
