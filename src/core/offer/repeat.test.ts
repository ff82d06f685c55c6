import { expect, test } from 'vitest';
import { begunRecurring, chosenRhythm, type OfferRepeat, rhythmKey } from './repeat';

const repeat: OfferRepeat = {
  rhythms: [
    { unit: 'month', every: 1 },
    { unit: 'month', every: 3 },
    { unit: 'year', every: 1 },
  ],
  once: false,
  count: null,
};

test('each rhythm is chosen by a key of its own', () => {
  const keys = repeat.rhythms.map(rhythmKey);
  expect(new Set(keys).size).toBe(keys.length);
  for (const rhythm of repeat.rhythms) expect(chosenRhythm({ repeat }, { repeat: rhythmKey(rhythm) })).toEqual(rhythm);
});

test('what the offer does not have cannot be chosen, and is paid once', () => {
  expect(chosenRhythm({ repeat }, { repeat: 'week:1' })).toBeNull();
  expect(chosenRhythm({ repeat }, { repeat: '' })).toBeNull();
  expect(chosenRhythm({ repeat: null }, { repeat: 'month:1' })).toBeNull();
});

test('it begins with once where that is possible, else with the first rhythm', () => {
  expect(begunRecurring({ repeat })).toBe('month:1');
  expect(begunRecurring({ repeat: { ...repeat, once: true } })).toBe('');
  expect(begunRecurring({ repeat: null })).toBe('');
  expect(begunRecurring({ repeat: { ...repeat, rhythms: [] } })).toBe('');
});
