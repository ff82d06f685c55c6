import type { CalendarDate } from '../dates/calendar-date';
import type { InvoiceState } from './state';

/** A state that the list can be narrowed to. */
export const ASKED_STATES = ['draft', 'sent', 'seen', 'part', 'overdue', 'paid', 'cancelled'] as const;
export type AskedState = (typeof ASKED_STATES)[number];

export const STATE_WORDS: Readonly<Record<AskedState, InvoiceState>> = {
  draft: 'Draft',
  sent: 'Sent',
  seen: 'Seen',
  part: 'Part-paid',
  overdue: 'Overdue',
  paid: 'Paid',
  cancelled: 'Cancelled',
};

/** In which order: by due date, day of issue or total; drafts always by their latest change. */
export const SORTS = ['due', 'issued', 'total'] as const;
export type Sort = (typeof SORTS)[number];

/** What is asked of the list; what is empty asks nothing. Sums in minor units. */
export type InvoiceAsk = {
  readonly words: string;
  readonly state: AskedState | '';
  readonly group: string;
  readonly customerId: string;
  readonly tradingNameId: string;
  readonly currency: string;
  /** Days of issue, both included. */
  readonly from: string;
  readonly to: string;
  readonly least: string;
  readonly most: string;
  readonly sort: Sort;
  readonly descending: boolean;
};

export const EVERYTHING: InvoiceAsk = {
  words: '',
  state: '',
  group: '',
  customerId: '',
  tradingNameId: '',
  currency: '',
  from: '',
  to: '',
  least: '',
  most: '',
  sort: 'due',
  descending: true,
};

/** Whether anything is asked that narrows the list. */
export const isNarrowed = ({ sort: _sort, descending: _order, ...ask }: InvoiceAsk): boolean =>
  Object.values(ask).some((value) => value.trim() !== '');

/** How many there are in a state, and what is open (or, where nothing can be, what they come to), by currency in minor units. */
export type StateCount = {
  readonly state: AskedState;
  readonly count: number;
  readonly sums: Readonly<Record<string, bigint>>;
};

/** What the sums' rows are. */
type Row = {
  readonly status: 'sent' | 'seen' | 'part' | 'paid' | 'cancelled';
  readonly currency: string;
  readonly on: CalendarDate | null;
  readonly count: number;
  readonly totalMinor: bigint;
  readonly dueMinor: bigint;
};

/** Counts and sums for every state; what is open and past its date counts as overdue only. */
export function stateCounts(
  rows: readonly Row[],
  drafts: readonly { readonly currency: string; readonly count: number; readonly totalMinor: bigint }[],
  today: CalendarDate,
): StateCount[] {
  const counts = new Map<AskedState, { count: number; sums: Record<string, bigint> }>(
    ASKED_STATES.map((state) => [state, { count: 0, sums: {} }]),
  );
  const add = (state: AskedState, currency: string, count: number, minor: bigint) => {
    const into = counts.get(state);
    if (!into) return;
    into.count += count;
    into.sums[currency] = (into.sums[currency] ?? 0n) + minor;
  };
  for (const { currency, count, totalMinor } of drafts) add('draft', currency, count, totalMinor);
  for (const { status, currency, on, count, totalMinor, dueMinor } of rows) {
    const open = status !== 'paid' && status !== 'cancelled';
    const state = open && on !== null && on < today ? 'overdue' : status;
    add(state, currency, count, open ? dueMinor : totalMinor);
  }
  return ASKED_STATES.map((state) => ({ state, ...(counts.get(state) ?? { count: 0, sums: {} }) }));
}

/** How many invoices can be dealt with together. */
export const MOST_AT_ONCE = 500;
