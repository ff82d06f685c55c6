import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { calendarDate } from '../dates/calendar-date';
import { type PrintedInvoice, printedInvoice } from '../invoice/printed';
import { readPaper } from '../invoice/read-paper';
import { completePaper, newLine } from '../paper/paper';
import type { BusinessTax } from '../tax/business-tax';
import { brokenRules, eInvoiceOf, SUM_RULES } from './einvoice';

const tax = (id: string, rate: string): BusinessTax => ({
  id,
  name: id,
  rate,
  onDelivery: true,
  class: 'standard',
  country: '',
  retired: false,
});
const TAXES = [tax('a', '19'), tax('b', '7'), tax('c', '1.5')];

function printed(
  lines: readonly { quantity: string; price: string; discount: string; taxes: readonly string[] }[],
  change: { discount?: string; inside?: boolean; exempt?: string | null; delivery?: string } = {},
): PrintedInvoice {
  const paper = completePaper({
    customerId: 'c',
    lines: lines.map((line, at) => newLine(String(at), 'piece', { what: `Line ${at}`, taxesBy: 'person', ...line })),
    discount: change.discount ?? '',
    exempt: change.exempt ?? null,
    delivery: change.delivery ? { charged: change.delivery, postage: '', packaging: '', taxes: null } : null,
  });
  const reading = readPaper(paper, {
    taxes: TAXES,
    currency: 'EUR',
    pricesIncludeTax: change.inside ?? false,
    home: { country: 'DE' },
    customer: null,
  });
  return printedInvoice(paper, reading, {
    number: '7',
    locale: 'de-DE',
    issuedOn: calendarDate('2026-05-04'),
    terms: null,
    logoId: null,
    accent: '#6B2451',
    seller: { name: 'S', address: [], phone: '', email: '', website: '', taxNumber: '' },
    payer: { name: 'P', address: [], email: '' },
    bank: { holder: '', account: '', bankCode: '', bank: '' },
  });
}

const cents = fc
  .integer({ min: 1, max: 500_000 })
  .map((value) => String(value).padStart(3, '0').replace(/(..)$/, '.$1'));
const lines = fc.array(
  fc.record({
    quantity: fc.constantFrom('1', '3', '0.25', '2.5'),
    price: cents,
    discount: fc.constantFrom('', '10%', '0.01'),
    taxes: fc.constantFrom(['a'], ['b'], [], ['a', 'c']),
  }),
  { minLength: 1, maxLength: 12 },
);

test('every invoice’s figures keep all rules of the standard, and come to what the customer pays', () => {
  fc.assert(
    fc.property(
      lines,
      fc.constantFrom('', '5%', '0.37'),
      fc.boolean(),
      fc.constantFrom('', '12.34'),
      (list, discount, inside, delivery) => {
        const invoice = printed(list, { discount, inside, delivery });
        const figures = eInvoiceOf(invoice);
        expect(brokenRules(figures)).toEqual([]);
        expect(figures.withTax).toBe(BigInt(invoice.total));
      },
    ),
  );
});

test('worked by hand: 100.00 at 19 and 50.00 at 7, 10 percent off the whole', () => {
  const figures = eInvoiceOf(
    printed(
      [
        { quantity: '1', price: '100', discount: '', taxes: ['a'] },
        { quantity: '1', price: '50', discount: '', taxes: ['b'] },
      ],
      { discount: '10%' },
    ),
  );
  // Bases 90.00 and 45.00; tax 17.10 and 3.15; together 135.00 + 20.25.
  expect(figures.groups.map(({ rate, base, amount }) => [rate, base, amount])).toEqual([
    ['19', 9000n, 1710n],
    ['7', 4500n, 315n],
  ]);
  expect(figures).toMatchObject({
    sumOfLines: 15_000n,
    allowanceTotal: 1500n,
    withoutTax: 13_500n,
    taxTotal: 2025n,
    withTax: 15_525n,
  });
});

test('an exempt invoice has one category that says why', () => {
  const figures = eInvoiceOf(
    printed([{ quantity: '1', price: '9', discount: '', taxes: ['a'] }], { exempt: 'Reverse charge' }),
  );
  expect(figures.groups).toEqual([{ category: 'E', rate: '0', base: 900n, amount: 0n, reason: 'Reverse charge' }]);
});

describe('each rule finds what breaks it', () => {
  const good = eInvoiceOf(
    printed([{ quantity: '1', price: '100', discount: '', taxes: ['a'] }], { discount: '10%', delivery: '5' }),
    500n,
  );
  const [group] = good.groups;
  test.each<[keyof typeof SUM_RULES & string, object]>([
    ['BR-CO-10', { sumOfLines: good.sumOfLines + 1n }],
    ['BR-CO-11', { allowanceTotal: good.allowanceTotal + 1n }],
    ['BR-CO-12', { chargeTotal: good.chargeTotal + 1n }],
    ['BR-CO-13', { withoutTax: good.withoutTax + 1n }],
    ['BR-CO-14', { taxTotal: good.taxTotal + 1n }],
    ['BR-CO-15', { withTax: good.withTax + 1n }],
    ['BR-CO-16', { due: good.due + 1n }],
    ['BR-CO-17', { groups: [{ ...group, amount: (group?.amount ?? 0n) + 1n }] }],
    ['BR-CO-18', { groups: [] }],
    ['BR-S-08', { groups: [{ ...group, base: (group?.base ?? 0n) + 100n }] }],
  ])('%s', (rule, change) => {
    expect(brokenRules(good)).toEqual([]);
    expect(brokenRules({ ...good, ...change }).map((broken) => broken.rule)).toContain(rule);
  });
});
