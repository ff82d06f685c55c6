import fc from 'fast-check';
import { expect, test } from 'vitest';
import { calendarDate } from '../dates/calendar-date';
import { entry } from '../ledger/entry';
import { cardPaymentTaken, invoiceSent } from '../ledger/movements';
import { money } from '../money/money';
import { isByHand, METHOD_WORDS, type PaymentMethod } from './methods';
import { askedNow, isAllowed, isInGap, mostPart, payable } from './part-payment';

const ON = calendarDate('2026-05-04');
const usd = (minor: bigint) => money(minor, 'USD');
const balance = (postings: readonly { amount: { minor: bigint } }[]) =>
  postings.reduce((sum, { amount }) => sum + amount.minor, 0n);

test('whatever may be paid can be followed until nothing is due, in steps that are each allowed', () => {
  fc.assert(
    fc.property(
      fc.bigInt(1n, 50_000n),
      fc.bigInt(0n, 900n),
      fc.option(fc.integer({ min: 0, max: 100 }), { nil: undefined }),
      fc.array(fc.integer({ min: 0, max: 100 }), { maxLength: 40 }),
      (total, smallest, percent, wishes) => {
        let paid = 0n;
        const terms = () =>
          payable({
            total,
            paid,
            parts: true,
            smallest,
            ...(percent === undefined ? {} : { firstPayment: { percent: String(percent) } }),
          });
        for (const wish of wishes) {
          const now = terms();
          if (now.due === 0n) break;
          // The least and the whole are always allowed: nobody is ever stuck.
          expect(isAllowed(now.least, now)).toBe(true);
          expect(isAllowed(now.greatest, now)).toBe(true);
          const payment = (now.greatest * BigInt(wish)) / 100n;
          if (isAllowed(payment, now)) paid += payment;
          expect(paid <= total).toBe(true);
        }
        const last = terms();
        expect(last.due).toBe(total - paid);
      },
    ),
  );
});

test('what is refused between the least and the whole lies in the gap, which is what would be left and is too small', () => {
  fc.assert(
    fc.property(fc.bigInt(1n, 10_000n), fc.bigInt(1n, 500n), fc.bigInt(1n, 10_000n), (total, smallest, payment) => {
      const may = payable({ total, parts: true, smallest });
      const inside = payment >= may.least && payment <= may.greatest;
      expect(isInGap(payment, may)).toBe(inside && !isAllowed(payment, may));
      if (may.least < may.greatest) expect(isAllowed(mostPart(may), may)).toBe(true);
    }),
  );
});

test('more than is due is never allowed', () => {
  fc.assert(
    fc.property(fc.bigInt(1n, 10_000n), fc.bigInt(1n, 10_000n), fc.boolean(), (total, over, parts) => {
      const terms = payable({ total, parts, smallest: 50n });
      expect(isAllowed(terms.greatest + over, terms)).toBe(false);
    }),
  );
});

test('sending and paying leave the customer owing nothing and the books at zero', () => {
  fc.assert(
    fc.property(fc.bigInt(1n, 10n ** 9n), fc.nat(100), fc.nat(100), (total, taxShare, feeShare) => {
      const sent = invoiceSent(ON, '1', usd(total), (total * BigInt(taxShare)) / 100n);
      const taken = cardPaymentTaken(ON, 'paid', usd(total), { feeMinor: (total * BigInt(feeShare)) / 100n });
      const all = [...sent.postings, ...taken.postings];
      expect(balance(all)).toBe(0n);
      expect(balance(all.filter(({ account }) => account === 'receivable'))).toBe(0n);
      expect(all.every(({ amount }) => amount.minor !== 0n)).toBe(true);
    }),
  );
});

test('an entry that does not balance in one of its currencies cannot be made', () => {
  expect(() =>
    entry(ON, 'x', [
      { account: 'revenue', amount: usd(5n) },
      { account: 'revenue', amount: money(-5n, 'EUR') },
    ]),
  ).toThrow('does not balance');
});

test('the part of a plan that is asked for is a payment that may be made, and with it everything asked for is covered', () => {
  const part = fc.bigInt(100n, 5_000n);
  fc.assert(
    fc.property(fc.array(part, { minLength: 2, maxLength: 8 }), fc.nat(8), fc.nat(8), part, (parts, a, b, extra) => {
      const total = parts.reduce((sum, one) => sum + one, 0n);
      const sumOf = (from: number, to: number) => parts.slice(from, to).reduce((sum, one) => sum + one, 0n);
      const counted = sumOf(0, a);
      const asked = sumOf(a, a + b);
      // Part of the next may have been paid as well, but never more than is asked for.
      const over = extra < asked ? extra : 0n;
      const may = payable({ total, paid: counted + over, parts: true, smallest: 50n });
      const now = askedNow({ asked, counted, paid: counted + over }, may);
      if (now === null) return;
      expect(isAllowed(now, may)).toBe(true);
      expect(now).toBeLessThan(may.due);
      expect(counted + over + now).toBe(counted + asked);
    }),
  );
  const may = payable({ total: 90_000n, paid: 30_000n, parts: true, smallest: 100n });
  expect(askedNow({ asked: 30_000n, counted: 30_000n, paid: 30_000n }, may)).toBe(30_000n);
  expect(askedNow({ asked: 0n, counted: 30_000n, paid: 30_000n }, may)).toBeNull();
});

test('only what somebody wrote down can have been written down by mistake', () => {
  const methods = Object.keys(METHOD_WORDS) as PaymentMethod[];
  expect(methods.filter(isByHand).sort()).toEqual(['cash', 'cheque', 'other', 'transfer']);
});
