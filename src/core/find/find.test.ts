import { describe, expect, test } from 'vitest';
import { canDo, wishesOf } from './deeds';
import { bestFound, type Found } from './found';

const one = (kind: Found['kind'], change: Partial<Found>): Found => ({
  kind,
  id: `${kind} ${change.number ?? change.name}`,
  name: '',
  number: '',
  about: '',
  state: '',
  amountMinor: null,
  currency: 'USD',
  at: new Date(0),
  ...change,
});
const idsOf = (found: readonly Found[], words: string) => bestFound(found, words, 9).map(({ id }) => id);

describe('best first', () => {
  test('a number that is typed in full stands before what begins so, and that before what only holds it', () => {
    const found = [
      one('payment', { number: '9117', name: 'Ada' }),
      one('invoice', { number: '1172', name: 'Calla Lind' }),
      one('invoice', { number: '117', name: 'Bo Marsh', state: 'paid' }),
      one('plan', { number: 'P-117', name: 'Dov' }),
    ];
    expect(idsOf(found, '117')).toEqual(['invoice 117', 'plan P-117', 'invoice 1172', 'payment 9117']);
  });

  test('a person stands before their papers; what is over stands last; of alike ones the latest first', () => {
    const of = (number: string, state: string, day: number) =>
      one('invoice', { name: 'Calla Lind', number, state, at: new Date(day) });
    const found = [
      of('1', 'cancelled', 9),
      of('2', 'open', 1),
      of('3', 'open', 5),
      one('customer', { name: 'Calla Lind' }),
    ];
    expect(idsOf(found, 'calla')).toEqual(['customer Calla Lind', 'invoice 3', 'invoice 2', 'invoice 1']);
    expect(idsOf(found, 'lind calla')[0]).toBe('customer Calla Lind');
  });

  test('what was found by another of its sides, such as a sum, comes after what answers by name', () => {
    const found = [one('payment', { name: 'Ada', amountMinor: 5000n }), one('item', { name: '50 strings' })];
    expect(idsOf(found, '50')).toEqual(['item 50 strings', 'payment Ada']);
  });
});

describe('deeds', () => {
  test.each([
    ['pause P-21', [['pause', 'p-21']]],
    ['remind 1172', [['remind', '1172']]],
    ['Remind of 1172', [['remind', '1172']]],
    ['new plan for Calla Lind', [['plan', 'calla lind']]],
    ['pause plan P-21', [['pause', 'p-21']]],
    ['  copy   link Lessons ', [['copy', 'lessons']]],
    ['remind', []],
    ['remind ', []],
    ['pauseP-21', []],
    ['Paulina', []],
  ])('“%s”', (line, wanted) => {
    expect(wishesOf(line).map(({ deed, rest }) => [deed, rest])).toEqual(wanted);
  });

  test('are offered where they can be done only', () => {
    expect(canDo('pause', { kind: 'plan', state: 'active' })).toBe(true);
    expect(canDo('pause', { kind: 'plan', state: 'paused' })).toBe(false);
    expect(canDo('remind', { kind: 'invoice', state: 'paid' })).toBe(false);
    expect(canDo('resume', { kind: 'page', state: 'paused' })).toBe(true);
    expect(canDo('statement', { kind: 'invoice', state: 'open' })).toBe(false);
  });
});
