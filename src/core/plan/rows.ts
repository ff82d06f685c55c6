import { isCalendarDate } from '../dates/calendar-date';
import { readTyped, typedDecimal } from '../money/typed';
import { completePaper, newLine } from '../paper/paper';
import type { Schedule } from '../schedule/schedule';
import type { PlanTerms } from './plan';

/** The headings of a table of plans, in the order in which they are told. */
export const PLAN_COLUMNS = [
  'e-mail',
  'name',
  'plan',
  'price',
  'start',
  'every',
  'unit',
  'payments',
  'deposit',
  'reference',
] as const;
type Column = (typeof PLAN_COLUMNS)[number];

/** A row as it stands in the table. */
export type PlanRowTyped = Readonly<Partial<Record<Column, string>>>;

/** A row as it was read: what the plan will be, or what is wrong with it. */
export type PlanRowRead = {
  readonly email: string;
  readonly name: string;
  readonly terms: PlanTerms | null;
  readonly reference: string;
  readonly trouble: string;
};

const UNITS: Readonly<Record<string, Schedule['unit']>> = {
  day: 'day',
  days: 'day',
  week: 'week',
  weeks: 'week',
  month: 'month',
  months: 'month',
  year: 'year',
  years: 'year',
};

/**
 * Reads one row; with a number of payments and a deposit it is a balance in parts, without a deposit as many periods.
 *
 * @param sign the decimal sign of whoever brings the file
 */
export function readPlanRow(row: PlanRowTyped, lineId: string, sign: '.' | ',' = '.'): PlanRowRead {
  const cell = (column: Column): string => (row[column] ?? '').trim();
  const base = { email: cell('e-mail'), name: cell('name'), reference: cell('reference').slice(0, 80), terms: null };
  const bad = (trouble: string): PlanRowRead => ({ ...base, trouble });
  if (!/^[^\s@<>"]+@[^\s@<>"]+\.[^\s@<>"]+$/.test(base.email)) return bad('Write a whole e-mail address.');
  if (!cell('plan')) return bad('Say what the plan is for.');
  const price = typedDecimal(cell('price'), sign);
  if (price === null || Number(price) <= 0) return bad('Write the price as a number above 0.');
  const start = cell('start');
  if (!isCalendarDate(start)) return bad('Write the first day as 2027-01-31.');
  const every = Number(cell('every') || '1');
  if (!Number.isInteger(every) || every < 1 || every > 366) return bad('“every” is a whole number from 1 to 366.');
  const unit = UNITS[(cell('unit') || 'month').toLowerCase()];
  if (!unit) return bad('“unit” is day, week, month or year.');
  const payments = cell('payments');
  const count = Number(payments);
  if (payments && (!Number.isInteger(count) || count < 1 || count > 520))
    return bad('“payments” is a whole number from 1 to 520.');
  const deposit = readTyped(cell('deposit'), sign).text;
  if (deposit && !payments) return bad('A deposit needs a number of payments.');
  const parts = deposit !== '';
  return {
    ...base,
    trouble: '',
    terms: {
      kind: parts ? 'instalments' : 'membership',
      name: cell('plan').slice(0, 120),
      paper: completePaper({
        lines: [
          newLine(lineId, 'piece', {
            what: cell('plan').slice(0, 500),
            quantity: '1',
            price,
            taxesBy: 'place',
            taxClass: 'standard',
          }),
        ],
      }),
      schedule: { unit, every, start, ends: payments ? { after: count } : 'never' },
      firstNow: false,
      setUp: '',
      freeFirst: false,
      deposit,
      leftover: 'even',
      pay: 'card',
      receipts: true,
      noticeDays: null,
    },
  };
}
