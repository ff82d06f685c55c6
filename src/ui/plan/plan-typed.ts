import type { CalendarDate } from '@/core/dates/calendar-date';
import { completePaper, newLine, type Paper, type PaperFile, type PaperLine } from '@/core/paper/paper';
import type { PlanKind, PlanPay, PlanTerms } from '@/core/plan/plan';
import type { Schedule } from '@/core/schedule/schedule';
import { monthlyFrom, readSchedule, type TypedSchedule, typedSchedule } from '@/core/schedule/typed';

/** A plan while it is composed: everything as typed. */
export type PlanTyped = TypedSchedule & {
  readonly kind: PlanKind;
  readonly name: string;
  readonly lines: readonly PaperLine[];
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
  ...monthlyFrom(start),
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
  return {
    kind: terms.kind,
    name: terms.name,
    lines: terms.paper.lines,
    ...typedSchedule(schedule),
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

/** What is typed as a schedule, or what to do about it; parts of a balance end. */
export const scheduleTyped = (typed: PlanTyped): ReturnType<typeof readSchedule> =>
  readSchedule(typed, typed.kind === 'instalments');

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
