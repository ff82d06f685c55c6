import { dateInZone } from '@/core/dates/zone';
import type { Business } from '@/db/businesses';
import type { RegisterRow } from '@/db/register';
import { csvText, momentCell, sumCell } from '@/documents/csv/write';

/** What a row of the register says in a file; sums are plain decimals, below 0 what went out, moments by the business's clock. */
function cellsOf(row: RegisterRow, { zone }: Business) {
  const sign = row.kind === 'refund' ? -1n : 1n;
  return {
    day: dateInZone(row.at, zone),
    at: momentCell(row.at, zone),
    kind: row.kind,
    state: row.state,
    channel: row.channel,
    way: row.method,
    customer: row.customer,
    for: row.subject,
    order: row.orderReference ?? '',
    card: [row.cardScheme, row.cardLast4].filter(Boolean).join(' '),
    reference: row.reference,
    currency: row.currency,
    amount: sumCell(sign * row.amountMinor, row.currency),
    tip: sumCell(sign * row.tipMinor, row.currency),
    fee: sumCell(row.feeMinor, row.currency),
    agreedFee: row.agreedFeeMinor === null || row.kind === 'refund' ? '' : sumCell(row.agreedFeeMinor, row.currency),
    refunded: sumCell(row.kind === 'payment' ? row.refundedMinor : 0n, row.currency),
    dispute: row.kind === 'payment' ? (row.dispute ?? '') : '',
    receipt: row.receiptNumber ?? '',
    creditNote: row.creditNumber ?? '',
    reason: row.why || (row.reason ?? ''),
    payment: row.paymentId,
    id: row.id,
  };
}

const HEADINGS = [
  'day',
  'at',
  'kind',
  'state',
  'channel',
  'way',
  'customer',
  'for',
  'order',
  'card',
  'reference',
  'currency',
  'amount',
  'tip',
  'fee',
  'agreed fee',
  'refunded',
  'dispute',
  'receipt',
  'credit note',
  'reason',
  'payment',
  'id',
];

export const registerCsvHead = (): string => csvText(HEADINGS, []);

/** Rows as lines of CSV, each with its end. */
export function registerCsvRows(rows: readonly RegisterRow[], business: Business): string {
  const [first, ...rest] = rows.map((row) => Object.values(cellsOf(row, business)));
  return first ? csvText(first, rest) : '';
}

export const registerJsonRow = (row: RegisterRow, business: Business): string => JSON.stringify(cellsOf(row, business));
