import fc from 'fast-check';
import { expect, test } from 'vitest';
import { addDays, type CalendarDate, calendarDate } from '../dates/calendar-date';
import { completePaper } from '../paper/paper';
import { lookAhead } from './ahead';
import { chargesBeyond } from './beyond';
import { type PlanTerms, plannedCharges } from './plan';

const start = calendarDate('2026-01-31');
const terms = (schedule: Partial<PlanTerms['schedule']>, freeFirst: boolean): PlanTerms => ({
  kind: 'membership',
  name: 'Care club',
  paper: completePaper({}),
  schedule: { unit: 'month', every: 1, start, ends: 'never', ...schedule },
  firstNow: false,
  setUp: '',
  freeFirst,
  deposit: '',
  leftover: 'even',
  pay: 'card',
  receipts: true,
  noticeDays: null,
});
const sums = { eachMinor: 2200n, depositMinor: 0n, setUpMinor: 0n };
const NOTHING = {
  chargedMinor: 0n,
  chargedCount: 0,
  plannedMinor: null,
  plannedCount: null,
  nextOn: null,
  refusedCount: 0,
  writtenTo: null,
};

test('what is written down and what lies beyond it are together all of a span, each date once', () => {
  const span = fc.tuple(fc.nat(2500), fc.nat(900));
  const unit = fc.constantFrom('day', 'week', 'month', 'year');
  const shift = fc.constantFrom('none', 'next', 'previous', 'skip');
  const ends = fc.constantFrom<PlanTerms['schedule']['ends']>(
    'never',
    { after: 40 },
    { on: calendarDate('2027-07-01') },
  );
  fc.assert(
    fc.property(span, unit, fc.integer({ min: 1, max: 3 }), shift, ends, fc.boolean(), ([wait, length], ...of) => {
      const [units, every, shifted, until, freeFirst] = of;
      const plan = terms({ unit: units, every, shift: shifted, ends: until }, freeFirst);
      const context = {
        startsOn: start,
        holidays: [calendarDate('2026-12-25'), calendarDate('2027-01-01')],
        pauses: [{ from: calendarDate('2026-09-01'), to: calendarDate('2026-10-15') }],
      };
      const from = addDays(start, wait);
      const to = addDays(from, length);
      const { fresh, progress } = lookAhead(
        { terms: plan, state: 'active', endsOn: null, ...NOTHING },
        [],
        sums,
        context,
      );
      const writtenTo =
        fresh
          .map(({ nominal }) => nominal)
          .sort()
          .at(-1) ?? null;
      const within = ({ chargedOn }: { chargedOn: CalendarDate }) => chargedOn >= from && chargedOn <= to;
      const all: string[] = [];
      for (const charge of plannedCharges(plan, sums, context)) {
        if (charge.nominal > addDays(to, 40)) break;
        if (within(charge) && charge.amountMinor > 0n) all.push(charge.nominal);
      }
      const known = fresh.filter((charge) => within(charge) && charge.amountMinor > 0n);
      const beyond = chargesBeyond(plan, sums, context, writtenTo, { from, to });
      // Nothing lies beyond a plan that says so.
      const whole = chargesBeyond(plan, sums, context, writtenTo, {
        from: start,
        to: addDays(start, units === 'year' ? 60_000 : 9000),
      });
      expect(progress.writtenTo).toBe(whole.length > 0 ? writtenTo : null);
      expect([...known, ...beyond].map(({ nominal }) => nominal).sort()).toEqual(all.sort());
    }),
    { numRuns: 200 },
  );
});
