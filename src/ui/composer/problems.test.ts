import { expect, test } from 'vitest';
import { calendarDate } from '@/core/dates/calendar-date';
import { readPaper } from '@/core/invoice/read-paper';
import { completePaper } from '@/core/paper/paper';
import { shownProblems } from './problems';

const line = (id: string, change: object) => ({
  id,
  unit: 'piece' as const,
  what: 'x',
  quantity: '1',
  price: '2',
  discount: '',
  taxes: [],
  ...change,
});
const paper = completePaper({
  due: { kind: 'receipt' },
  lines: [line('a-1', { what: '' }), line('b-2', { price: '' }), line('c-3', { price: 'two' })],
  discount: 'much',
});
const SETTING = { taxes: [], currency: 'USD', pricesIncludeTax: false, home: { country: 'US' }, customer: null };
const shown = (tried: boolean) => shownProblems(paper, readPaper(paper, SETTING), calendarDate('2026-05-04'), tried);

test('what is typed wrong is said at once, what is not written yet only after trying to send', () => {
  expect([...shown(false).byLine.keys()]).toEqual(['c-3']);
  expect(shown(false).of('customer')).toBeUndefined();
  expect(shown(false).of('discount')).toContain('10%');
  const all = shown(true);
  expect([...all.byLine].map(([id, parts]) => [id, Object.keys(parts)]).sort()).toEqual([
    ['a-1', ['what']],
    ['b-2', ['price']],
    ['c-3', ['price']],
  ]);
  expect(all.of('customer')).toBe('Choose who pays.');
});
