import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { addDays, calendarDate } from '../dates/calendar-date';
import { accountLines, agesOf, type Movement } from './statement';

const BEGIN = calendarDate('2026-03-01');
const END = addDays(BEGIN, 30);

const movements = fc.array(
  fc
    .record({
      day: fc.integer({ min: -40, max: 60 }),
      kind: fc.constantFrom('invoice' as const, 'credit-note' as const, 'payment' as const),
      number: fc.integer({ min: 1, max: 200 }),
      minor: fc.bigInt({ min: 1n, max: 10_000_000n }),
    })
    .map(
      ({ day, kind, number, minor }): Movement => ({
        on: addDays(BEGIN, day),
        kind,
        number: String(number),
        how: '',
        chargedMinor: kind === 'invoice' ? minor : 0n,
        receivedMinor: kind === 'invoice' ? 0n : minor,
      }),
    ),
  { maxLength: 40 },
);
const sumOf = (list: readonly Movement[]) =>
  list.reduce((sum, { chargedMinor, receivedMinor }) => sum + chargedMinor - receivedMinor, 0n);

describe('an account over a period', () => {
  test('opens with all before it, closes with all up to its end, and each balance follows from the one above', () => {
    fc.assert(
      fc.property(movements, (all) => {
        const { openingMinor, lines, closingMinor } = accountLines(all, BEGIN, END);
        expect(BigInt(openingMinor)).toBe(sumOf(all.filter(({ on }) => on < BEGIN)));
        expect(BigInt(closingMinor)).toBe(sumOf(all.filter(({ on }) => on <= END)));
        expect(lines).toHaveLength(all.filter(({ on }) => on >= BEGIN && on <= END).length);
        let balance = BigInt(openingMinor);
        for (const line of lines) {
          balance += line.chargedMinor - line.receivedMinor;
          expect(line.balanceMinor).toBe(balance);
        }
        expect(balance).toBe(BigInt(closingMinor));
      }),
    );
  });

  test('two periods one after the other are one account, whatever the order they were read in', () => {
    fc.assert(
      fc.property(movements, fc.integer({ min: 0, max: 29 }), (all, days) => {
        const middle = addDays(BEGIN, days);
        const first = accountLines(all, BEGIN, middle);
        const second = accountLines([...all].reverse(), addDays(middle, 1), END);
        expect(second.openingMinor).toBe(first.closingMinor);
        expect(second.closingMinor).toBe(accountLines(all, BEGIN, END).closingMinor);
      }),
    );
  });

  test('on one day what was charged comes first, and numbers are counted, not spelt', () => {
    const one = (kind: Movement['kind'], number: string): Movement => ({
      on: BEGIN,
      kind,
      number,
      how: '',
      chargedMinor: 1n,
      receivedMinor: 0n,
    });
    const mixed = [one('payment', '3'), one('invoice', '10'), one('credit-note', 'C1'), one('invoice', '9')];
    expect(accountLines(mixed, BEGIN, END).lines.map(({ number }) => number)).toEqual(['9', '10', 'C1', '3']);
  });

  test('every open sum is in one of the ages', () => {
    const due = fc.record({ late: fc.integer({ min: -60, max: 200 }), dueMinor: fc.bigInt({ min: 1n, max: 99_999n }) });
    fc.assert(
      fc.property(fc.array(due), (open) => {
        const ages = agesOf(
          open.map(({ late, dueMinor }) => ({
            number: '1',
            issuedOn: BEGIN,
            dueOn: addDays(END, -late),
            totalMinor: dueMinor,
            dueMinor,
          })),
          END,
        );
        expect(Object.values(ages).reduce((sum, minor) => sum + BigInt(minor), 0n)).toBe(
          open.reduce((sum, { dueMinor }) => sum + dueMinor, 0n),
        );
      }),
    );
  });
});
