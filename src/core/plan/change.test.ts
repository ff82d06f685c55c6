import fc from 'fast-check';
import { expect, test } from 'vitest';
import { addDays, calendarDate } from '../dates/calendar-date';
import { longDate } from '../dates/date-text';
import { money } from '../money/money';
import { moneyText } from '../money/money-text';
import { completePaper, newLine } from '../paper/paper';
import { agreedText } from '../words/plan-wording';
import { wordsOf } from '../words/words';
import { changedTerms, changeTrouble, isRhythmChanged, needsConsent, stillToCome } from './change';
import type { PlanTerms } from './plan';

const terms = (more: Partial<PlanTerms> = {}): PlanTerms => ({
  kind: 'membership',
  name: 'Care club',
  paper: completePaper({
    lines: [newLine('a', 'piece', { what: 'Care', quantity: '1', price: '20.00', taxesBy: 'person' })],
  }),
  schedule: { unit: 'month', every: 1, start: calendarDate('2026-01-31'), ends: 'never' },
  firstNow: true,
  setUp: '5',
  freeFirst: true,
  deposit: '',
  leftover: 'even',
  pay: 'card',
  receipts: true,
  noticeDays: null,
  ...more,
});
const consent = (before: PlanTerms, after: PlanTerms, sums: [bigint, bigint] = [2000n, 2000n]) =>
  needsConsent({ terms: before, sums: { eachMinor: sums[0] } }, { terms: after, sums: { eachMinor: sums[1] } });

test('consent is asked anew where the sum rises, the days change, or it goes on for longer; never for an invoice', () => {
  const schedule = terms().schedule;
  expect(consent(terms(), terms())).toBe(false);
  expect(consent(terms(), terms({ name: 'Other words', receipts: false, noticeDays: 3 }))).toBe(false);
  expect(consent(terms(), terms(), [2000n, 2001n])).toBe(true);
  expect(consent(terms(), terms(), [2000n, 1n])).toBe(false);
  expect(consent(terms(), terms({ schedule: { ...schedule, every: 2 } }))).toBe(true);
  expect(consent(terms(), terms({ schedule: { ...schedule, ends: { after: 3 } } }))).toBe(false);
  const three = terms({ schedule: { ...schedule, ends: { after: 3 } } });
  expect(consent(three, terms({ schedule: { ...schedule, ends: { after: 4 } } }))).toBe(true);
  expect(consent(three, terms())).toBe(true);
  expect(consent(terms({ pay: 'invoice' }), terms())).toBe(true);
  expect(consent(terms(), terms({ pay: 'invoice' }), [2000n, 9000n])).toBe(false);
  // A shift that is none is the same as none at all.
  expect(isRhythmChanged(terms(), terms({ schedule: { ...schedule, shift: 'none' } }))).toBe(false);
});

test('what belongs to the beginning of a plan does not come again, and parts keep what they are parts of', () => {
  const other = { ...terms().schedule, start: calendarDate('2026-06-15') };
  expect(changedTerms(terms(), terms({ schedule: other }))).toMatchObject({
    firstNow: false,
    setUp: '',
    freeFirst: false,
  });
  expect(changedTerms(terms(), terms({ name: 'Other' }))).toMatchObject({
    firstNow: true,
    setUp: '5',
    freeFirst: true,
  });
  const parts = terms({ kind: 'instalments', schedule: { ...terms().schedule, ends: { after: 4 } } });
  const dearer = { ...parts, paper: completePaper({ lines: [] }) };
  expect(changedTerms(parts, dearer).paper).toEqual(parts.paper);
  expect(changeTrouble(terms(), terms({ schedule: other }), calendarDate('2026-06-16'))).toContain('today or later');
  expect(changeTrouble(terms(), terms({ schedule: other }), calendarDate('2026-06-15'))).toBeNull();
});

test('whatever was charged already, what is still to come adds up to what is planned, and begins after it', () => {
  const run = fc.record({
    count: fc.integer({ min: 2, max: 30 }),
    made: fc.integer({ min: 0, max: 29 }),
    every: fc.integer({ min: 1, max: 3 }),
  });
  fc.assert(
    fc.property(run, ({ count, made, every }) => {
      fc.pre(made < count);
      const start = calendarDate('2026-01-05');
      const schedule = { unit: 'week' as const, every, start, ends: { after: count } };
      const of = terms({ schedule, firstNow: false, setUp: '', freeFirst: false });
      const known = Array.from({ length: made }, (_, at) => {
        const day = addDays(start, at * 7 * every);
        return { part: 'period' as const, nominal: day, chargedOn: day, amountMinor: 2000n, state: 'charged' as const };
      });
      const progress = {
        chargedMinor: 0n,
        chargedCount: 0,
        plannedMinor: null,
        plannedCount: null,
        nextOn: null,
        refusedCount: 0,
        writtenTo: null,
      };
      const plan = { terms: of, state: 'active' as const, endsOn: null, ...progress };
      const sums = { eachMinor: 2000n, setUpMinor: 0n, depositMinor: 0n };
      const left = stillToCome(plan, known, sums, { startsOn: start, holidays: [], pauses: [] });
      expect({ count: left.count, total: left.totalMinor }).toEqual({
        count: count - made,
        total: 2000n * BigInt(count - made),
      });
      expect(left.first).toBe(addDays(start, made * 7 * every));
      // Also where the plan is longer than what is written down ahead.
      expect(left.last).toBe(addDays(start, (count - 1) * 7 * every));
    }),
  );
});

test('what goes without saying in a schedule is no change', () => {
  const { schedule } = terms();
  const written = {
    ...schedule,
    monthDays: [31],
    weekdays: undefined,
    weekend: undefined,
    shift: 'none' as const,
  };
  expect(isRhythmChanged(terms(), terms({ schedule: written }))).toBe(false);
  expect(isRhythmChanged(terms(), terms({ schedule: { ...schedule, monthDays: [15] } }))).toBe(true);
  expect(isRhythmChanged(terms(), terms({ schedule: { ...schedule, shift: 'next' } }))).toBe(true);
});

test.each(['en-US', 'de-DE', 'fr-FR', 'es-ES'])(
  'what is agreed to anew says what was refused, and calls only endless what has no end: %s',
  (locale) => {
    const day = calendarDate('2026-12-31');
    const forecast = { endless: false, charges: [], count: 13, totalMinor: 526095n, first: day, last: day };
    const more = { comingYearMinor: 0n, years: [], months: [] };
    const said = (refused: bigint, over: object) =>
      agreedText(
        { ...terms(), kind: 'instalments' },
        { eachMinor: 2000n },
        { ...forecast, ...more, ...over },
        {
          currency: 'USD',
          locale,
        },
        refused,
      );
    const { plan } = wordsOf(locale);
    const sum = moneyText(money(86000n, 'USD'), locale);
    expect(said(86000n, {})).toContain(plan.chargedAtOnce(sum));
    expect(said(0n, {})).not.toContain(sum);
    const charges = [{ part: 'period', nominal: day, chargedOn: day, amountMinor: 36675n, reasons: [] }];
    const next = [moneyText(money(36675n, 'USD'), locale), longDate(day, locale)] as const;
    expect(said(86000n, { charges })).toContain(plan.thenOn(...next));
    expect(said(0n, { charges })).toContain(plan.firstOn(...next));
    expect(said(0n, {})).toContain('2026');
    for (const last of [day, null]) expect(said(0n, { last })).not.toContain(plan.goesOn);
    expect(said(0n, { endless: true, last: null })).toContain(plan.goesOn);
  },
);
