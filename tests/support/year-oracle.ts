/**
 * What three hundred plans must come to in a year, worked out another way: every day is looked at, and asked of every plan in
 * turn. Nothing of the application's own calculation is used here.
 */
export type Rule = {
  readonly unit: 'day' | 'week' | 'month' | 'year';
  readonly every: number;
  readonly start: string;
  readonly monthDays?: readonly (number | 'last')[];
  readonly weekdays?: readonly number[];
  readonly ends: 'never' | { readonly on: string } | { readonly after: number };
  readonly shift: 'none' | 'next' | 'previous' | 'skip';
};

export type Case = {
  readonly rule: Rule;
  readonly kind: 'membership' | 'instalments';
  /** With tax, in cents: each time, or in all. */
  readonly total: number;
  readonly deposit: number;
  readonly leftover: 'even' | 'last';
  readonly cards: readonly string[];
};

/** One time that the processor was asked: when, for how much, and what it said. */
export type Asked = { readonly on: string; readonly amount: number; readonly state: 'paid' | 'refused' };

const DAY = 86_400_000;
const at = (on: string): number => Date.parse(`${on}T00:00:00Z`);
const text = (time: number): string => new Date(time).toISOString().slice(0, 10);
const lastOf = (time: number): number => {
  const day = new Date(time);
  return new Date(Date.UTC(day.getUTCFullYear(), day.getUTCMonth() + 1, 0)).getUTCDate();
};
/** Monday 1 to Sunday 7. */
const weekdayOf = (time: number): number => new Date(time).getUTCDay() || 7;
const monthsOf = (time: number): number => new Date(time).getUTCFullYear() * 12 + new Date(time).getUTCMonth();

function falls(rule: Rule, time: number): boolean {
  const start = at(rule.start);
  const days = Math.round((time - start) / DAY);
  if (days < 0) return false;
  if (rule.unit === 'day') return days % rule.every === 0;
  if (rule.unit === 'week') {
    if (!rule.weekdays) return days % (7 * rule.every) === 0;
    const monday = start - (weekdayOf(start) - 1) * DAY;
    const weeks = Math.floor((time - monday) / (7 * DAY));
    return weeks % rule.every === 0 && rule.weekdays.includes(weekdayOf(time));
  }
  const months = monthsOf(time) - monthsOf(start);
  if (months % (rule.unit === 'year' ? 12 * rule.every : rule.every) !== 0) return false;
  const wanted = rule.monthDays ?? [Number(rule.start.slice(8))];
  const day = new Date(time).getUTCDate();
  return wanted.some((one) => (one === 'last' ? lastOf(time) : Math.min(one, lastOf(time))) === day);
}

/** The days on which a plan is charged up to the last one looked at. */
function chargeDays({ rule }: Case, holidays: readonly string[], until: string): string[] {
  const isOff = (time: number) => weekdayOf(time) >= 6 || holidays.includes(text(time));
  const days: string[] = [];
  // A little further than the end: what falls after it may be moved to before it.
  for (let time = at(rule.start); time <= at(until) + 20 * DAY; time += DAY) {
    if (!falls(rule, time)) continue;
    if (rule.ends !== 'never' && 'on' in rule.ends && text(time) > rule.ends.on) break;
    if (rule.ends !== 'never' && 'after' in rule.ends && days.length >= rule.ends.after) break;
    let moved = time;
    if (rule.shift !== 'none' && isOff(time)) {
      if (rule.shift === 'skip') continue;
      while (isOff(moved)) moved += rule.shift === 'next' ? DAY : -DAY;
    }
    days.push(text(moved));
  }
  return days;
}

function amounts({ kind, total, deposit, leftover }: Case, count: number): number[] {
  if (kind === 'membership') return Array.from({ length: count }, () => total);
  const rest = total - deposit;
  const each = Math.floor(rest / count);
  const left = rest - each * count;
  return Array.from({ length: count }, (_, index) =>
    leftover === 'last' ? each + (index === count - 1 ? left : 0) : each + (index < left ? 1 : 0),
  );
}

/** What a kept card says when it is charged the nth time, counted from 0, on a day. */
function says(card: string, nth: number, on: string, keptOn: string): 'yes' | 'later' | 'never' {
  if (card === 'corvid-poor' || card === 'corvid-silent' || card === 'lumen-approval') return 'later';
  if (card === 'corvid-blocked') return 'never';
  if (card === 'corvid-second') return nth % 2 === 0 ? 'later' : 'yes';
  if (card === 'lumen-ending') return on.slice(0, 7) > keptOn.slice(0, 7) ? 'never' : 'yes';
  return 'yes';
}

/**
 * Every time that the processor must have been asked for one plan, day by day, and whether the plan is paused in the end.
 *
 * @param keptOn the day on which plan and cards begin
 * @param retryDays days after the day of charge on which a refused one is tried again; then the plan pauses
 */
export function yearOf(
  one: Case,
  keptOn: string,
  until: string,
  holidays: readonly string[],
  retryDays: readonly number[],
): { asked: Asked[]; paused: boolean } {
  const { ends } = one.rule;
  const count = one.kind === 'instalments' && ends !== 'never' && 'after' in ends ? ends.after : 0;
  const days = chargeDays(one, holidays, until);
  const sums = amounts(one, count || days.length);
  type Open = { on: string; due: string; amount: number; round: number };
  const open: Open[] = days.map((on, index) => ({ on, due: on, amount: sums[index] ?? 0, round: 0 }));
  if (one.deposit > 0) open.unshift({ on: keptOn, due: keptOn, amount: one.deposit, round: 0 });
  const asked: Asked[] = [];
  const charged = new Map<string, number>();
  const useless = new Set<string>();
  let paused = false;
  for (let time = at(keptOn); time <= at(until) && !paused; time += DAY) {
    const today = text(time);
    for (const charge of open.filter(({ due }) => due <= today).sort((a, b) => (a.due < b.due ? -1 : 1))) {
      if (paused) break;
      let paid = false;
      for (const card of one.cards) {
        if (useless.has(card)) continue;
        const nth = charged.get(card) ?? 0;
        charged.set(card, nth + 1);
        const said = says(card, nth, today, keptOn);
        asked.push({ on: today, amount: charge.amount, state: said === 'yes' ? 'paid' : 'refused' });
        if (said === 'never') useless.add(card);
        if (said === 'yes') {
          paid = true;
          break;
        }
      }
      if (paid) {
        charge.due = '9999-12-31';
        continue;
      }
      const wait = retryDays[charge.round];
      if (wait === undefined) {
        charge.due = '9999-12-31';
        paused = true;
      } else {
        const wanted = text(at(charge.on) + wait * DAY);
        charge.due = wanted > today ? wanted : text(time + DAY);
        charge.round += 1;
      }
    }
  }
  return { asked, paused };
}
