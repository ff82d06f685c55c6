import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { calendarDate } from '../dates/calendar-date';
import { money } from '../money/money';
import type { Account, Entry } from './entry';
import { entry } from './entry';
import {
  cardPaymentTaken,
  credited,
  invoiceCancelled,
  invoiceChanged,
  invoiceSent,
  moneyReceived,
  orderPaid,
  orderRefunded,
  voucherExpired,
} from './movements';

const ON = calendarDate('2026-11-27');
const CURRENCY = 'USD';
const of = (minor: bigint) => money(minor, CURRENCY);
const sum = fc.bigInt({ min: 0n, max: 10n ** 12n });
/** A total and the tax in it. */
const taxed = fc.tuple(sum, sum).map(([net, tax]) => ({ total: net + tax, tax }));

/** Where the books stand after these entries; accounts at zero are left out. */
function balances(...entries: Entry[]): Partial<Record<Account, bigint>> {
  const kept = new Map<Account, bigint>();
  for (const { postings } of entries)
    for (const { account, amount } of postings) kept.set(account, (kept.get(account) ?? 0n) + amount.minor);
  return Object.fromEntries([...kept].filter(([, minor]) => minor !== 0n));
}

describe('an invoice', () => {
  test('what is changed comes to what would have been sent at once', () => {
    fc.assert(
      fc.property(taxed, taxed, (first, later) => {
        const sent = invoiceSent(ON, '1', of(first.total), first.tax);
        const changed = invoiceChanged(ON, '1', of(later.total - first.total), later.tax - first.tax);
        expect(balances(sent, changed)).toEqual(balances(invoiceSent(ON, '1', of(later.total), later.tax)));
      }),
    );
  });

  test('credited in any two parts and cancelled for the rest, nothing is left of it', () => {
    fc.assert(
      fc.property(taxed, taxed, taxed, (one, two, rest) => {
        const total = one.total + two.total + rest.total;
        const tax = one.tax + two.tax + rest.tax;
        const left = balances(
          invoiceSent(ON, '1', of(total), tax),
          credited(ON, 'C1', of(one.total), one.tax),
          credited(ON, 'C2', of(two.total), two.tax),
          invoiceCancelled(ON, '1', of(rest.total), rest.tax),
        );
        expect(left).toEqual({});
      }),
    );
  });

  test('paid in full by a card with a tip, nobody owes anything; the processor holds all but its fee', () => {
    fc.assert(
      fc.property(taxed, sum, sum, ({ total, tax }, fee, tip) => {
        const books = balances(
          invoiceSent(ON, '1', of(total), tax),
          cardPaymentTaken(ON, 'paid', of(total), { feeMinor: fee, tipMinor: tip }),
        );
        expect(books.receivable ?? 0n).toBe(0n);
        expect(books['processor-clearing'] ?? 0n).toBe(total + tip - fee);
        expect(books.tips ?? 0n).toBe(-tip);
      }),
    );
  });

  test.each([
    ['transfer', 'bank'],
    ['cash', 'cash'],
    ['cheque', 'cheques'],
    ['other', 'other-receipts'],
  ] as const)('money by %s is held in %s', (by, account) => {
    expect(balances(moneyReceived(ON, 'received', of(500n), by))).toEqual({ [account]: 500n, receivable: -500n });
  });
});

describe('an order', () => {
  const booking = { on: ON, words: 'order', currency: CURRENCY };
  const partners = fc.record({ shareMinor: sum, feeMinor: sum });

  test('owes the partner the share less the fee that it bears, and earns the rest', () => {
    fc.assert(
      fc.property(taxed, sum, sum, partners, ({ total, tax }, tip, fee, part) => {
        const sums = { totalMinor: total, taxMinor: tax, tipMinor: tip };
        const books = balances(orderPaid(booking, sums, { feeMinor: fee, partners: part }));
        expect(books.partners ?? 0n).toBe(part.feeMinor - part.shareMinor);
        expect(books['processor-clearing'] ?? 0n).toBe(total + tip - fee);
        expect(books.revenue ?? 0n).toBe(tax - total);
      }),
    );
  });

  test('voided, it has never been; given back, the processor’s fee is all that is lost', () => {
    fc.assert(
      fc.property(taxed, sum, sum, partners, ({ total, tax }, tip, fee, part) => {
        const sums = { totalMinor: total, taxMinor: tax, tipMinor: tip };
        const paid = orderPaid(booking, sums, { feeMinor: fee, partners: part });
        expect(balances(paid, orderRefunded(booking, sums, { by: 'card', partners: part, feeBackMinor: fee }))).toEqual(
          {},
        );
        const back = balances(paid, orderRefunded(booking, sums, { by: 'card', partners: part, feeBackMinor: 0n }));
        expect(back).toEqual(fee === 0n ? {} : { 'processor-clearing': -fee, 'processing-fees': fee });
      }),
    );
  });
});

test('a voucher that is sold is owed, used it is earned, and over it is owed to nobody', () => {
  const booking = { on: ON, words: 'order', currency: CURRENCY };
  const nobody = { shareMinor: 0n, feeMinor: 0n };
  fc.assert(
    fc.property(taxed, sum, ({ total, tax }, left) => {
      const sold = { totalMinor: total + left, taxMinor: 0n, tipMinor: 0n };
      const sale = orderPaid(booking, sold, { feeMinor: 0n, partners: nobody, buysVouchers: true });
      const bought = { totalMinor: total, taxMinor: tax, tipMinor: 0n };
      const used = orderPaid(booking, bought, { by: 'voucher', feeMinor: 0n, partners: nobody });
      const books = balances(sale, used);
      expect([books.vouchers ?? 0n, books.revenue ?? 0n, books['tax-payable'] ?? 0n]).toEqual([
        -left,
        tax - total,
        -tax,
      ]);
      expect(books['processor-clearing'] ?? 0n).toBe(total + left);
      const over = balances(sale, used, voucherExpired(ON, 'over', money(left, CURRENCY)));
      expect([over.vouchers ?? 0n, over['expired-vouchers'] ?? 0n]).toEqual([0n, -left]);
      const back = orderRefunded(booking, bought, { by: 'voucher', partners: nobody, feeBackMinor: 0n });
      expect(balances(sale, used, back)).toEqual(balances(sale));
    }),
  );
});

test('an entry that does not balance in one of its currencies is never made', () => {
  const postings = [
    { account: 'bank', amount: money(5n, 'USD') },
    { account: 'revenue', amount: money(-5n, 'EUR') },
  ] as const;
  expect(() => entry(ON, 'mixed', postings)).toThrow('does not balance');
});
