import fc from 'fast-check';
import { expect, test } from 'vitest';
import { addDays, type CalendarDate } from '../dates/calendar-date';
import { edgesOf, eraseOn, keepingProblems, keepingRule, keptUntil, lawYears, papersKeptFrom } from './keeping';
import { OF_BUSINESS, OF_CUSTOMER, openThings } from './open-things';

const day = fc
  .date({ min: new Date('2001-01-01'), max: new Date('2090-12-31'), noInvalidDate: true })
  .map((at) => at.toISOString().slice(0, 10) as CalendarDate);

test('a paper is kept to the end of its last year and forgotten on the day after, whatever day it is of', () => {
  fc.assert(
    fc.property(day, fc.integer({ min: 1, max: 30 }), (of, paperYears) => {
      const last = keptUntil(of, { paperYears });
      expect(papersKeptFrom(last, { paperYears }) <= of).toBe(true);
      expect(papersKeptFrom(addDays(last, 1), { paperYears }) > of).toBe(true);
      expect(eraseOn(of, { paperYears })).toBe(addDays(last, 1));
    }),
  );
  expect(keptUntil('2026-01-01' as CalendarDate, { paperYears: 8 })).toBe('2034-12-31');
  expect(keptUntil('2026-12-31' as CalendarDate, { paperYears: 8 })).toBe('2034-12-31');
});

test('the law is the least: what was decided holds above it, also in another country', () => {
  expect(keepingRule({}, 'DE').paperYears).toBe(8);
  expect(keepingRule({}, 'ZZ').paperYears).toBe(10);
  expect(keepingRule({ paperYears: 12 }, 'DE').paperYears).toBe(12);
  expect(keepingRule({ paperYears: 8 }, 'FR').paperYears).toBe(10);
  expect(keepingRule({ mailMonths: 3 }, 'DE')).toMatchObject({ mailMonths: 3, checkoutDays: 30 });
  fc.assert(
    fc.property(fc.constantFrom('DE', 'US', 'FR', 'ZZ'), fc.integer({ min: -5, max: 60 }), (country, paperYears) => {
      const wrong = keepingProblems({ ...keepingRule({}, country), paperYears }, country);
      expect(wrong.length === 0).toBe(paperYears >= lawYears(country) && paperYears <= 30);
    }),
  );
});

test('what is no whole number in its bounds is said at its place', () => {
  const rule = { paperYears: 10, checkoutDays: 0, mailMonths: 1.5, programDays: Number.NaN };
  expect(keepingProblems(rule, 'US').map(({ field }) => field)).toEqual(['checkoutDays', 'mailMonths', 'programDays']);
});

test('each kind is forgotten by its own time', () => {
  const now = new Date('2026-07-31T12:00:00Z');
  const edges = edgesOf(now, { paperYears: 10, checkoutDays: 1, mailMonths: 2, programDays: 7 });
  expect(edges.checkouts.toISOString()).toBe('2026-07-30T12:00:00.000Z');
  expect(edges.mails.toISOString()).toBe('2026-06-01T12:00:00.000Z');
  expect(edges.programs.toISOString()).toBe('2026-07-24T12:00:00.000Z');
  expect(edges.pictures.toISOString()).toBe('2026-07-01T12:00:00.000Z');
});

test('what is open is told with its number; vouchers owed hold up the business and not who bought them', () => {
  const none = {
    invoices: 0,
    plans: 0,
    recurring: 0,
    underWay: 0,
    disputes: 0,
    parcels: 0,
    credit: 0,
    vouchersToSend: 0,
    vouchersOwed: 0,
    notPaidOut: 0,
  };
  expect(openThings(none, OF_BUSINESS)).toEqual([]);
  const some = { ...none, invoices: 1, plans: 3, vouchersOwed: 2, notPaidOut: 1 };
  expect(openThings(some, OF_CUSTOMER).map(({ words }) => words)).toEqual([
    '1 invoice is not settled',
    '3 plans are not ended',
  ]);
  expect(openThings(some, OF_BUSINESS).map(({ kind }) => kind)).toEqual([
    'invoices',
    'plans',
    'vouchersOwed',
    'notPaidOut',
  ]);
});
