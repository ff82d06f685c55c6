import { bankingDays } from '@/core/dates/banking-days';
import { addDays, type CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { payoutDates, payoutStep } from '@/core/payout/payouts';
import { type PayoutPolicy, smallestOf } from '@/core/payout/policy';
import type { BankAccount } from '@/db/bank-accounts';
import type { Business } from '@/db/businesses';
import { closedTo } from '@/db/day-batches';
import { partnerRows } from '@/db/partners';
import { openDays, type PayoutDayRow, payoutSettings, payoutState, waitingDays } from '@/db/payouts';
import type { Db } from '@/db/pool';
import { daysOffOf } from './pay-out-due';

/** So far ahead the next payout date is looked for. */
const AHEAD = 70;

/** What gathers for the next payout of somebody in a currency, as far as days are closed; minor units. */
export type Gathering = {
  readonly partnerId: string | null;
  readonly partner: string;
  readonly currency: string;
  /** What it comes to on that date; below the smallest sum, or below 0, it is carried on. */
  readonly minor: bigint;
  readonly days: readonly PayoutDayRow[];
  readonly released: readonly PayoutDayRow[];
  /** Held back of these days, and released by the date. */
  readonly step: { readonly reserved: bigint; readonly released: bigint };
  /** The date of the next payout; null where that is by hand. */
  readonly on: CalendarDate | null;
  /** Whether it is less than is paid out. */
  readonly tooLittle: boolean;
  readonly hasAccount: boolean;
};

/** The next date of a schedule after a day. */
function nextPayoutDate(business: Business, policy: PayoutPolicy, after: CalendarDate): CalendarDate | null {
  if (policy.when.kind === 'by-hand') return null;
  const dates = payoutDates(
    { schedule: policy.when, ...daysOffOf(business) },
    addDays(after, 1),
    addDays(after, AHEAD),
  );
  return dates[0] ?? null;
}

/** What gathers for the next payouts: the business's own first, its own currency before others. */
export async function gatheringOf(db: Db, business: Business, accounts: readonly BankAccount[]): Promise<Gathering[]> {
  const { policy, terms, madeTo } = await payoutSettings(db);
  const today = dateInZone(db.now, business.zone);
  const on = nextPayoutDate(business, policy, madeTo ?? addDays(today, -1));
  const banking = bankingDays(daysOffOf(business));
  const open = await openDays(db, (await closedTo(db)) ?? addDays(today, -1));
  const names = new Map((await partnerRows(db)).map(({ id, name }) => [id, name]));
  const checked = accounts
    .filter(({ state }) => state === 'checked')
    .map(({ partnerId, currency }) => `${partnerId ?? business.id} ${currency}`);
  const list: Gathering[] = [];
  for (const key of new Set([...open.map(({ payee, currency }) => `${payee} ${currency}`), ...checked])) {
    const [payee = '', currency = ''] = key.split(' ');
    const partnerId = payee === business.id ? null : payee;
    const ready = open.filter(
      (one) => one.payee === payee && one.currency === currency && (!on || banking.after(one.day, terms.lag) <= on),
    );
    const state = await payoutState(db, payee, currency);
    const reserve = !partnerId && terms.reserve ? { reserve: terms.reserve } : {};
    const step = payoutStep(state, ready, { minimum: smallestOf(policy, currency), ...reserve }, on ?? today);
    const minor = step.payout?.amount ?? step.state.carried;
    if (minor === 0n && state.days.length + ready.length === 0) continue;
    const waiting = await waitingDays(db, payee, currency);
    const released = new Set<string>(step.released.map(({ day }) => day));
    list.push({
      partnerId,
      partner: partnerId ? (names.get(payee) ?? 'A partner') : '',
      currency,
      minor,
      days: [
        ...waiting.filter(({ isPaid }) => !isPaid),
        ...ready.map(({ day, net }) => {
          const held = step.reserved.find((one) => one.day === day);
          return { day, netMinor: net, heldMinor: held?.minor ?? 0n, heldUntil: held?.until ?? null };
        }),
      ],
      released: waiting.filter(({ day, isReleased }) => isReleased || released.has(day)),
      step: step.payout ?? step.state,
      on,
      tooLittle: step.payout === null,
      hasAccount: checked.includes(key),
    });
  }
  const rank = ({ partnerId, partner, currency }: Gathering): string =>
    `${partnerId ? 1 : 0}${currency === business.currency ? 0 : 1}${currency}${partner}`;
  return list.sort((a, b) => (rank(a) < rank(b) ? -1 : 1));
}
