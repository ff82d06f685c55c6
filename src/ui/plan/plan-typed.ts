import { type CalendarDate, isCalendarDate } from '@/core/dates/calendar-date';
import { completePaper, newLine, type Paper, type PaperFile, type PaperLine } from '@/core/paper/paper';
import type { PlanKind, PlanPay, PlanTerms } from '@/core/plan/plan';
import type { Schedule } from '@/core/schedule/schedule';

/** A plan while it is composed: everything as typed. */
export type PlanTyped = {
  readonly kind: PlanKind;
  readonly name: string;
  readonly lines: readonly PaperLine[];
  readonly unit: Schedule['unit'];
  readonly every: string;
  readonly start: string;
  /** Days of the month as typed, such as `1, 15` or `last`; empty for the start's own. */
  readonly monthDays: string;
  readonly weekdays: readonly number[];
  readonly ends: 'never' | 'on' | 'after';
  readonly endsOn: string;
  readonly count: string;
  readonly shift: NonNullable<Schedule['shift']>;
  readonly firstNow: boolean;
  readonly setUp: string;
  readonly freeFirst: boolean;
  readonly deposit: string;
  readonly leftover: 'even' | 'last';
  readonly pay: PlanPay;
  /** Days to pay, where it is asked for by invoice. */
  readonly dueDays: string;
  readonly receipts: boolean;
  readonly noticeDays: string;
  readonly files: readonly PaperFile[];
  readonly memo: string;
  readonly reference: string;
  /** What the composer does not ask for stays as it is kept: the currency and tax mode of a plan that began at a checkout. */
  readonly paper: Paper;
};

export const newTyped = (start: CalendarDate, lineId: string): PlanTyped => ({
  kind: 'membership',
  name: '',
  lines: [newLine(lineId, 'piece', { quantity: '1', taxesBy: 'place', taxClass: 'standard' })],
  unit: 'month',
  every: '1',
  start,
  monthDays: '',
  weekdays: [],
  ends: 'never',
  endsOn: '',
  count: '12',
  shift: 'none',
  firstNow: false,
  setUp: '',
  freeFirst: false,
  deposit: '',
  leftover: 'even',
  pay: 'card',
  dueDays: '14',
  receipts: true,
  noticeDays: '',
  files: [],
  memo: '',
  reference: '',
  paper: completePaper({}),
});

/** Kept terms as they are typed. */
export function typedOf(terms: PlanTerms, memo: string, reference: string): PlanTyped {
  const { schedule } = terms;
  const { ends } = schedule;
  return {
    kind: terms.kind,
    name: terms.name,
    lines: terms.paper.lines,
    unit: schedule.unit,
    every: String(schedule.every),
    start: schedule.start,
    monthDays: schedule.monthDays?.join(', ') ?? '',
    weekdays: schedule.weekdays ?? [],
    ends: ends === 'never' ? 'never' : 'on' in ends ? 'on' : 'after',
    endsOn: ends !== 'never' && 'on' in ends ? ends.on : '',
    count: ends !== 'never' && 'after' in ends ? String(ends.after) : '12',
    shift: schedule.shift ?? 'none',
    firstNow: terms.firstNow,
    setUp: terms.setUp,
    freeFirst: terms.freeFirst,
    deposit: terms.deposit,
    leftover: terms.leftover,
    pay: terms.pay,
    dueDays: terms.paper.due.kind === 'days' ? String(terms.paper.due.days) : '14',
    receipts: terms.receipts,
    noticeDays: terms.noticeDays === null ? '' : String(terms.noticeDays),
    files: terms.paper.files,
    memo,
    reference,
    paper: terms.paper,
  };
}

/** Days of the month as typed; null where one is none. */
function daysTyped(text: string): (number | 'last')[] | null {
  const days = text.split(/[\s,;]+/).filter(Boolean);
  const read = days.map((one) => (/^last$/i.test(one) ? ('last' as const) : Number(one)));
  return read.every((one) => one === 'last' || (Number.isInteger(one) && one >= 1 && one <= 31)) ? read : null;
}

/** What is typed as a schedule, or what to do about it; `field` names the place. */
export function scheduleTyped(typed: PlanTyped): { schedule: Schedule } | { field: string; trouble: string } {
  const every = Number(typed.every);
  if (!Number.isInteger(every) || every < 1 || every > 366)
    return { field: 'every', trouble: 'Write how often as a whole number.' };
  if (!isCalendarDate(typed.start)) return { field: 'start', trouble: 'Choose the first day.' };
  const days = typed.unit === 'month' ? daysTyped(typed.monthDays) : [];
  if (days === null) return { field: 'monthDays', trouble: 'Write days from 1 to 31, or “last”.' };
  const ends = typed.kind === 'instalments' && typed.ends === 'never' ? 'after' : typed.ends;
  const after = Number(typed.count);
  if (ends === 'on' && !isCalendarDate(typed.endsOn)) return { field: 'endsOn', trouble: 'Choose the last day.' };
  if (ends === 'after' && (!Number.isInteger(after) || after < 1 || after > 1000))
    return { field: 'count', trouble: 'Write how many, from 1 to 1,000.' };
  return {
    schedule: {
      unit: typed.unit,
      every,
      start: typed.start,
      ...(days.length > 0 ? { monthDays: days } : {}),
      ...(typed.unit === 'week' && typed.weekdays.length > 0 ? { weekdays: typed.weekdays } : {}),
      ends: ends === 'never' ? 'never' : ends === 'on' ? { on: typed.endsOn as CalendarDate } : { after },
      shift: typed.shift,
    },
  };
}

/** The terms as far as they are typed, with this schedule. */
export const termsTyped = (typed: PlanTyped, customerId: string | null, schedule: Schedule): PlanTerms => ({
  kind: typed.kind,
  name: typed.name,
  paper: {
    ...typed.paper,
    customerId,
    lines: typed.lines,
    files: typed.files,
    due: { kind: 'days', days: /^\d{1,3}$/.test(typed.dueDays.trim()) ? Number(typed.dueDays) : 14 },
  },
  schedule,
  firstNow: typed.firstNow,
  setUp: typed.kind === 'membership' ? typed.setUp : '',
  freeFirst: typed.kind === 'membership' && typed.freeFirst,
  deposit: typed.kind === 'instalments' ? typed.deposit : '',
  leftover: typed.leftover,
  pay: typed.pay,
  receipts: typed.receipts,
  noticeDays:
    typed.pay === 'card' && /^\d{1,2}$/.test(typed.noticeDays.trim()) && Number(typed.noticeDays) > 0
      ? Number(typed.noticeDays)
      : null,
});

const UNITS: Readonly<Record<Schedule['unit'], readonly [string, string]>> = {
  day: ['daily', 'days'],
  week: ['weekly', 'weeks'],
  month: ['monthly', 'months'],
  year: ['yearly', 'years'],
};

/** `monthly`, `every 3 weeks`. */
export const rhythmWords = ({ unit, every }: { unit: Schedule['unit']; every: string }): string =>
  every.trim() === '1' ? UNITS[unit][0] : `every ${every || '…'} ${UNITS[unit][1]}`;
