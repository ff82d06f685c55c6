import { describe, expect, test } from 'vitest';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { completePaper, newLine } from '@/core/paper/paper';
import type { PlanTerms } from '@/core/plan/plan';
import { scheduleTyped, termsTyped, typedOf } from './plan-typed';

const terms: PlanTerms = {
  kind: 'membership',
  name: 'Care club',
  // As `order-plan` makes it: the currency and the tax mode that the payer agreed to at the checkout.
  paper: completePaper({
    customerId: 'c',
    currency: 'EUR',
    pricesIncludeTax: true,
    lines: [newLine('a', 'piece', { what: 'Care club', price: '19.00' })],
    note: 'As agreed at the counter',
    exempt: null,
  }),
  schedule: {
    unit: 'month',
    every: 3,
    start: '2026-03-31' as CalendarDate,
    monthDays: [15, 'last'],
    ends: { after: 8 },
    shift: 'next',
  },
  firstNow: true,
  setUp: '5.00',
  freeFirst: false,
  deposit: '',
  leftover: 'even',
  pay: 'card',
  receipts: true,
  noticeDays: 3,
};

describe('a plan that is opened and kept again without a change', () => {
  test('is the same plan, also in what the composer does not ask for', () => {
    const typed = typedOf(terms, '', '');
    const read = scheduleTyped(typed);
    if (!('schedule' in read)) throw new Error(read.trouble);
    expect(termsTyped(typed, 'c', read.schedule)).toEqual(terms);
  });

  test('keeps its currency and tax mode for another customer', () => {
    expect(termsTyped(typedOf(terms, '', ''), 'other', terms.schedule).paper).toMatchObject({
      customerId: 'other',
      currency: 'EUR',
      pricesIncludeTax: true,
    });
  });
});
