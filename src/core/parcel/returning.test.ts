import { expect, test } from 'vitest';
import type { CalendarDate } from '../dates/calendar-date';
import { isLookedAt, returnable } from './returning';

const day = (text: string) => text as CalendarDate;
const bow = {
  line: 0,
  what: 'Bow',
  came: [
    { on: day('2026-11-01'), quantity: '2' },
    { on: day('2026-11-20'), quantity: '1.5' },
  ],
};
const at = (today: string, days = 30) => ({ days, today: day(today) });

test('what came within the days can be sent back, less what was asked back and not refused', () => {
  expect(returnable([bow], [], at('2026-12-01'))).toEqual([{ line: 0, what: 'Bow', most: '3.5' }]);
  expect(returnable([bow], [], at('2026-12-02'))).toEqual([{ line: 0, what: 'Bow', most: '1.5' }]);
  expect(returnable([bow], [], at('2026-12-21'))).toEqual([]);
  expect(returnable([bow], [], at('2026-11-20', 0))).toEqual([]);
  const before = (state: 'asked' | 'refused' | 'closed', quantity: string) => ({
    state,
    lines: [{ line: 0, quantity }],
  });
  expect(returnable([bow], [before('asked', '1'), before('refused', '2')], at('2026-12-01'))[0]?.most).toBe('2.5');
  expect(returnable([bow], [before('closed', '3.5')], at('2026-12-01'))).toEqual([]);
});

test('what came back is looked at line by line: something of it, and never more than was awaited', () => {
  const awaited = [{ line: 0, quantity: '2' }];
  const looked = (toStock: string, thrown: string, line = 0) => ({ line, toStock, thrown });
  expect(isLookedAt(awaited, [looked('1', '1')])).toBe(true);
  expect(isLookedAt(awaited, [looked('1', '0')])).toBe(true);
  expect(isLookedAt(awaited, [looked('0', '0')])).toBe(false);
  expect(isLookedAt(awaited, [looked('2', '0.5')])).toBe(false);
  expect(isLookedAt(awaited, [looked('1', '0', 3)])).toBe(false);
  expect(isLookedAt(awaited, [looked('1', '0'), looked('1', '0')])).toBe(false);
});
