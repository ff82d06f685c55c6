import { addDays, type CalendarDate } from '../dates/calendar-date';
import type { RefusalReason } from '../payment/outcome';

/** What can help after a refusal: time, another card, or the customer. */
export type RefusalClass = 'later' | 'never' | 'customer';

const CLASS: Readonly<Record<RefusalReason, RefusalClass>> = {
  'not-enough-money': 'later',
  'over-limit': 'later',
  refused: 'later',
  'never-charged': 'later',
  'card-blocked': 'never',
  'card-expired': 'never',
  'wrong-security-number': 'never',
  'approval-needed': 'customer',
  'approval-declined': 'customer',
  'approval-lapsed': 'customer',
  'account-short': 'later',
  'debit-unpaid': 'later',
  'account-closed': 'never',
  // Debited again unasked it would only come back again.
  'no-mandate': 'never',
  'debit-objected': 'never',
};

export const refusalClass = (reason: RefusalReason): RefusalClass => CLASS[reason];

/** What the business reads of a class. */
export const CLASS_WORDS: Readonly<Record<RefusalClass, string>> = {
  later: 'may work later',
  never: 'never with this card',
  customer: 'the customer has to act',
};

/** What becomes of the plan when a charge stays refused. */
export const AFTERWARDS = ['pause', 'cancel', 'carry-on'] as const;
export type Afterwards = (typeof AFTERWARDS)[number];

/** What becomes of several charges of one plan whose days went by while nothing was charged. */
export const MISSED_POLICIES = ['ask', 'last', 'all'] as const;
export type MissedPolicy = (typeof MISSED_POLICIES)[number];

/** How a business charges its plans. */
export type ChargingPolicy = {
  /** `HH:MM` in the business's zone: a date becomes due then. */
  readonly hour: string;
  /** Days after the day of charge on which a refused one is tried again, ascending. */
  readonly retryDays: readonly number[];
  readonly secondCard: boolean;
  /** Whether the customer is written to when a charge is refused. */
  readonly tellCustomer: boolean;
  readonly afterwards: Afterwards;
  /** How many days before a card expires its holder is asked for a new one. */
  readonly expiryDays: number;
  /** After how many days a plan that waits for its card reminds, and after how many it lapses. */
  readonly remindDays: number;
  readonly lapseDays: number;
  /** What becomes of several charges of one plan whose days went by while nothing was charged. */
  readonly missed: MissedPolicy;
  /** Days on which nothing is charged, where a schedule minds them; from an iCalendar file or typed. */
  readonly holidays: readonly { readonly on: string; readonly name: string }[];
};

export const USUAL_POLICY: ChargingPolicy = {
  hour: '09:00',
  retryDays: [3, 5, 9],
  secondCard: true,
  tellCustomer: true,
  afterwards: 'pause',
  expiryDays: 30,
  remindDays: 5,
  lapseDays: 30,
  missed: 'ask',
  holidays: [],
};

export const MOST_RETRIES = 10;

/** What happens next with a refused charge. `days` counts from the day of charge. */
export type AfterRefusal =
  | { readonly kind: 'other-card'; readonly cardId: string }
  | { readonly kind: 'retry'; readonly days: number }
  | { readonly kind: 'give-up'; readonly afterwards: Afterwards };

/**
 * Decides what follows a refusal.
 *
 * @param round how many of the policy's days for trying again have been used
 * @param usable the customer's cards that are not known to be of no use, in their order
 * @param tried those of them that this round has tried
 */
export function afterRefusal(
  policy: Pick<ChargingPolicy, 'retryDays' | 'secondCard' | 'afterwards'>,
  round: number,
  usable: readonly string[],
  tried: readonly string[],
): AfterRefusal {
  const other = policy.secondCard ? usable.find((cardId) => !tried.includes(cardId)) : undefined;
  if (other) return { kind: 'other-card', cardId: other };
  const days = policy.retryDays[round];
  // Without a card of any use the days pass all the same: until then the customer can give another.
  if (days !== undefined) return { kind: 'retry', days };
  return { kind: 'give-up', afterwards: policy.afterwards };
}

/**
 * Which reminder of a part that was asked for by invoice is due: of the business's distances from the last day to pay, in days, the
 * latest whose day has come, and that comes after the day of asking. Null where none is.
 */
export function partReminder(
  distances: readonly number[],
  part: { readonly askedOn: CalendarDate; readonly payBy: CalendarDate },
  today: CalendarDate,
): number | null {
  const come = distances.filter((days) => {
    const on = addDays(part.payBy, days);
    return on > part.askedOn && on <= today;
  });
  return come.length > 0 ? Math.max(...come) : null;
}
