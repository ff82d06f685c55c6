import fc from 'fast-check';
import { expect, test } from 'vitest';
import { calendarDate } from '../dates/calendar-date';
import { completePrinted } from '../invoice/printed';
import { receiptRows } from '../words/receipt-wording';
import { wordsOf } from '../words/words';
import { printedReceipt } from './receipt';

const invoice = (total: number, taxes: readonly number[]) =>
  completePrinted({
    number: '7',
    currency: 'EUR',
    locale: 'en-US',
    issuedOn: calendarDate('2026-11-03'),
    dueOn: calendarDate('2026-11-17'),
    dueOnReceipt: false,
    reference: '',
    note: '',
    seller: { name: 'S', address: [], phone: '', email: '', website: '', taxNumber: '' },
    payer: { name: 'P', address: [], email: '' },
    pricesIncludeTax: false,
    lines: [],
    subtotal: total,
    lineDiscounts: 0,
    discount: 0,
    discountText: '',
    taxes: taxes.map((amount, at) => ({ id: `${at}`, name: `Tax ${at}`, rate: '10', base: 0, amount })),
    taxTotal: taxes.reduce((sum, one) => sum + one, 0),
    total,
  });

test('the receipts of all parts sum up: each by itself, and their taxes to the taxes of the whole', () => {
  const words = wordsOf('en-US');
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 1_000_000 }),
      fc.array(fc.integer({ min: 0, max: 20 }), { maxLength: 3 }),
      fc.array(fc.record({ share: fc.integer({ min: 1, max: 100 }), tip: fc.constantFrom(0, 0, 500) }), {
        maxLength: 6,
      }),
      (total, percents, parts) => {
        const taxes = percents.map((percent) => Math.round((total * percent) / 121));
        const of = invoice(total, taxes);
        let earlier = 0;
        const taxed = taxes.map(() => 0);
        for (const { share, tip } of [...parts, { share: 100, tip: 0 }]) {
          const amount = Math.ceil(((total - earlier) * share) / 100);
          if (amount === 0) continue;
          const receipt = printedReceipt(of, {
            number: '1',
            paidOn: calendarDate('2026-11-10'),
            amountMinor: amount,
            tipMinor: tip,
            stillDueMinor: total - earlier - amount,
            earlierMinor: earlier,
            creditedMinor: 0,
            method: 'cash',
          });
          const rows = receiptRows(receipt);
          const minorOf = (label: string) => rows.find((row) => row.label === label)?.minor ?? 0;
          const now = minorOf(words.paidNow) || amount;
          expect(minorOf(words.invoiceTotal('7')) + minorOf(words.paidBefore) - now).toBe(minorOf(words.stillDue));
          expect(minorOf(words.tip)).toBe(tip);
          receipt.taxes.forEach((tax, at) => {
            taxed[at] = (taxed[at] ?? 0) + tax.amount;
          });
          earlier += amount;
        }
        expect(taxed).toEqual(taxes);
      },
    ),
  );
});

test('worked by hand: 40.00 of 110.00, of which 10.00 were credited and 20.00 paid before', () => {
  const receipt = printedReceipt(invoice(11_000, [1000]), {
    number: '1',
    paidOn: calendarDate('2026-11-10'),
    amountMinor: 4000,
    tipMinor: 300,
    stillDueMinor: 4000,
    earlierMinor: 2000,
    creditedMinor: 1000,
    method: 'cash',
  });
  // 10.00 of tax in 110.00: by the difference of 5.45 in 60.00 and 1.82 in 20.00, 3.63 in 40.00.
  expect(receiptRows(receipt).map(({ label, minor }) => [label, minor])).toEqual([
    ['Invoice 7, total', 11_000],
    ['Credited', -1000],
    ['Paid before', -2000],
    ['Paid now', 4000],
    ['Of which Tax 0, 10 %', 363],
    ['Tip', 300],
    ['Still due', 4000],
  ]);
});

test('one payment of the whole needs no such words, and one kept before parts had their own stays as it was', () => {
  const whole = printedReceipt(invoice(11_000, [1000]), {
    number: '1',
    paidOn: calendarDate('2026-11-10'),
    amountMinor: 11_000,
    tipMinor: 0,
    stillDueMinor: 0,
    earlierMinor: 0,
    creditedMinor: 0,
    method: 'cash',
  });
  const labels = ['Invoice 7, total', 'Of which Tax 0, 10 %'];
  expect(receiptRows(whole).map(({ label }) => label)).toEqual(labels);
  const { earlier: _, credited: __, ...before } = { ...whole, stillDue: 500 };
  expect(receiptRows(before).map(({ label }) => label)).toEqual([...labels, 'Still due']);
});
