import type { CalendarDate } from '../dates/calendar-date';

/** A discount code (`calculation.md` 11): a share or an amount off, and when it counts. Amounts in minor units of `currency`. */
export type DiscountCode = {
  readonly id: string;
  readonly code: string;
  readonly percent: string | null;
  readonly amountMinor: bigint | null;
  /** Of the amount and of the least spend. */
  readonly currency: string;
  /** First and last day in the business's zone, both included; empty for no bound. */
  readonly from: string;
  readonly to: string;
  readonly leastMinor: bigint;
  readonly mostUses: number | null;
  readonly mostEach: number | null;
  /** Items under Records that it is for; empty for all. */
  readonly itemIds: readonly string[];
};

/** How often a code has been used, by all and by this payer; what is just being paid counts. */
export type CodeUses = { readonly all: number; readonly own: number };

/** Why a code does not count. */
export type CodeProblem =
  | 'code-unknown'
  | 'code-not-yet'
  | 'code-over'
  | 'code-used-up'
  | 'code-used-by-you'
  | 'code-least'
  | 'code-other-items'
  | 'code-currency';

/** A code as it is compared: capitals, no spaces. */
export const codeKey = (typed: string): string => typed.replace(/\s/g, '').toUpperCase();

/** Whether a code can be used today, by how often it was used. */
export function codeStatus(code: DiscountCode, today: CalendarDate, uses: CodeUses): CodeProblem | null {
  if (code.from && today < code.from) return 'code-not-yet';
  if (code.to && today > code.to) return 'code-over';
  if (code.mostUses !== null && uses.all >= code.mostUses) return 'code-used-up';
  if (code.mostEach !== null && uses.own >= code.mostEach) return 'code-used-by-you';
  return null;
}
