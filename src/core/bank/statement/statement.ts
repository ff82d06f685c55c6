import type { CalendarDate } from '../../dates/calendar-date';

/** What is known of where a sum came from or went to; what the file does not say is absent. */
export type LineFacts = {
  readonly reference?: string;
  readonly endToEnd?: string;
  /** One line, without needless blanks; empty where the file says nothing. */
  readonly text: string;
  readonly name?: string;
  readonly otherAccount?: string;
  /** The bank's own key of the line: the same line read twice has it again. */
  readonly bankReference?: string;
};

/** One of several transactions that a bank booked as one line; its sum is absent where it is in another currency. Minor units. */
export type LinePart = LineFacts & { readonly amount?: bigint };

/** A line of a statement; money in is positive. Minor units. */
export type StatementLine = LineFacts & {
  readonly day: CalendarDate;
  readonly valueDay?: CalendarDate;
  readonly amount: bigint;
  /** It takes back an earlier line. */
  readonly reversal?: true;
  readonly parts?: readonly LinePart[];
};

/** A statement of one account in one currency; minor units. */
export type BankStatement = {
  readonly account: string;
  readonly currency: string;
  readonly id?: string;
  readonly from?: CalendarDate;
  readonly to?: CalendarDate;
  readonly opening?: bigint;
  readonly closing?: bigint;
  readonly lines: readonly StatementLine[];
};

/** Whether opening + lines = closing; unknown where one of the two is absent. */
export function balancesOf({ opening, closing, lines }: BankStatement): 'agree' | 'differ' | 'unknown' {
  if (opening === undefined || closing === undefined) return 'unknown';
  return lines.reduce((sum, { amount }) => sum + amount, opening) === closing ? 'agree' : 'differ';
}
