import { weekdayName } from '../dates/date-text';
import type { DisputeRule } from '../dispute/dispute';
import type { PayoutSchedule } from './payouts';

/** When a business is paid out: by a schedule, or when somebody says so. */
export type PayoutWhen = PayoutSchedule | { readonly kind: 'by-hand' };

/** How a business wants to be paid out; the smallest sums by currency, in minor units as text. */
export type PayoutPolicy = {
  readonly when: PayoutWhen;
  readonly smallest: Readonly<Record<string, string>>;
  /** Who bears what is disputed; partners their parts where nothing is said. */
  readonly disputes?: DisputeRule;
};

export const disputeRuleOf = ({ disputes }: PayoutPolicy): DisputeRule => disputes ?? 'partners';

export const DISPUTE_RULE_WORDS: Readonly<Record<DisputeRule, string>> = {
  partners: 'Partners give back their parts',
  business: 'The business bears all of it',
};

/** What the processor agrees with a business: from which banking day a day is ready, and what of it is held back for how long. */
export type ProcessorTerms = {
  readonly lag: number;
  readonly reserve: { readonly percent: string; readonly days: number } | null;
};

/** The smallest sum that is paid out in a currency, in minor units. */
export const smallestOf = ({ smallest }: PayoutPolicy, currency: string): bigint => BigInt(smallest[currency] ?? '1');

/** When payouts are, in words: "Every Monday". */
export function whenWords(when: PayoutWhen, locale: string): string {
  if (when.kind === 'daily') return 'Each banking day';
  if (when.kind === 'weekly') return `Every ${weekdayName(when.weekday, locale)}`;
  return when.kind === 'monthly' ? `On day ${when.day} of each month` : 'By hand';
}
