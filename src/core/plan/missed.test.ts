import fc from 'fast-check';
import { expect, test } from 'vitest';
import { addDays, calendarDate } from '../dates/calendar-date';
import { missedFates } from './missed';

const today = calendarDate('2026-11-27');
const due = fc
  .uniqueArray(fc.integer({ min: 0, max: 90 }), { maxLength: 8 })
  .map((ago) => ago.map((days, at) => ({ id: String(at), chargedOn: addDays(today, -days), note: null, attempts: 0 })));
const context = { startsOn: calendarDate('2026-01-01'), today };

test('of several missed charges all wait, or the last one alone is charged; one alone is charged as ever', () => {
  fc.assert(
    fc.property(due, (charges) => {
      const fates = (policy: 'ask' | 'last' | 'all') => [...missedFates(charges, policy, context).values()].sort();
      expect(fates('all')).toEqual([]);
      const several = charges.length > 1;
      expect(fates('ask')).toEqual(several ? charges.map(() => 'wait') : []);
      expect(fates('last')).toEqual(several ? ['charge', ...charges.slice(1).map(() => 'leave-out')].sort() : []);
      const last = [...charges].sort((a, b) => (a.chargedOn < b.chargedOn ? 1 : -1))[0];
      if (several && last) expect(missedFates(charges, 'last', context).get(last.id)).toBe('charge');
    }),
  );
});

test('what was past when the plan began, what somebody was asked about, and what was tried before is charged', () => {
  const one = { note: null, attempts: 0 };
  const before = [
    { ...one, id: 'a', chargedOn: calendarDate('2026-10-01') },
    { ...one, id: 'b', chargedOn: calendarDate('2026-11-01') },
  ];
  expect(missedFates(before, 'ask', { startsOn: calendarDate('2026-11-20'), today })).toEqual(new Map());
  const asked = before.map((charge) => ({ ...charge, note: { code: 'missed' } as const }));
  expect(missedFates(asked, 'ask', context)).toEqual(new Map());
  expect(
    missedFates(
      before.map((charge) => ({ ...charge, attempts: 1 })),
      'ask',
      context,
    ),
  ).toEqual(new Map());
  // Days that are still to come were hurried by a person.
  const early = before.map((charge) => ({ ...charge, chargedOn: addDays(charge.chargedOn, 60) }));
  expect(missedFates(early, 'ask', context)).toEqual(new Map());
});
