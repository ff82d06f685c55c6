import { expect, test } from 'vitest';
import { addDays, calendarDate } from '../dates/calendar-date';
import { DAYS_AHEAD, DAYS_BACK, horizon } from './horizon';

const TODAY = calendarDate('2026-11-12'); // a Thursday
const on = (step: number, minor: bigint) => ({ on: addDays(TODAY, step), count: 1, minor });

test('what came in lies behind, what is due ahead; what is late is counted apart', () => {
  const view = horizon(
    TODAY,
    [on(-3, 40n), on(0, 5n)],
    [on(-9, 7n), on(0, 20n), on(30, 100n), on(DAYS_AHEAD + 1, 1000n)],
  );
  expect(view.days.length).toBe(DAYS_BACK + 1 + DAYS_AHEAD);
  expect(view.expected).toBe(120n);
  expect(view.late).toBe(7n);
  expect(view.days[DAYS_BACK]).toMatchObject({ on: TODAY, cameIn: 5n, due: 20n });
  expect(view.days.slice(0, DAYS_BACK).every(({ due }) => due === 0n)).toBe(true);
});

test('weeks begin on Mondays and at today, and hold every day once', () => {
  const view = horizon(TODAY, [on(-3, 40n)], [on(30, 100n)]);
  expect(view.weeks.some(({ from }) => from === TODAY)).toBe(true);
  view.weeks.slice(1).forEach((week, at) => expect(week.from).toBe(addDays(view.weeks[at]?.to ?? TODAY, 1)));
  expect(view.weeks.reduce((sum, week) => sum + week.due, 0n)).toBe(100n);
  expect(view.weeks.reduce((sum, week) => sum + week.cameIn, 0n)).toBe(40n);
});
