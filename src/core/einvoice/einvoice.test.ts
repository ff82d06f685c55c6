import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { calendarDate } from '../dates/calendar-date';
import { type PrintedInvoice, printedInvoice } from '../invoice/printed';
import { readPaper } from '../invoice/read-paper';
import type { ExemptAs } from '../paper/exempt';
import { completePaper, newLine } from '../paper/paper';
import type { BusinessTax } from '../tax/business-tax';
import type { Category, Change, EInvoice, EInvoiceLine, TaxGroup } from './einvoice';
import { eCreditOf } from './of-credit';
import { eInvoiceOf } from './of-invoice';
import { brokenRules, eInvoiceProblems, RULES } from './rules';

const tax = (id: string, rate: string): BusinessTax => ({
  id,
  name: id,
  rate,
  onDelivery: true,
  class: 'standard',
  country: '',
  retired: false,
});
const TAXES = [tax('a', '19'), tax('b', '7'), tax('c', '1.5'), tax('z', '0')];
const AT = { lines: ['3 Mill Yard'], city: 'Weilheim', region: 'DE-BY', postalCode: '82362', country: 'DE' };

function printed(
  lines: readonly { quantity: string; price: string; discount: string; taxes: readonly string[] }[],
  change: {
    discount?: string;
    inside?: boolean;
    exempt?: string | null;
    exemptAs?: ExemptAs;
    delivery?: string;
    fee?: { amount: string; taxes: readonly string[] };
    taxNumber?: string;
    payerNumber?: string;
  } = {},
): PrintedInvoice {
  const paper = completePaper({
    customerId: 'c',
    lines: lines.map((line, at) => newLine(String(at), 'piece', { what: `Line ${at}`, taxesBy: 'person', ...line })),
    discount: change.discount ?? '',
    exempt: change.exempt ?? null,
    exemptAs: change.exemptAs ?? 'exempt',
    fees: change.fee ? [{ id: 'f', name: 'Collection', ...change.fee }] : [],
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
    seller: {
      name: 'S',
      address: [],
      phone: '',
      email: 's@post.example',
      website: '',
      taxNumber: change.taxNumber ?? 'DE 123 456 789',
      country: 'DE',
      place: AT,
    },
    payer: { name: 'P', address: [], email: '', taxNumber: change.payerNumber ?? '', place: AT },
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
    taxes: fc.constantFrom(['a'], ['b'], [], ['a', 'c'], ['z']),
  }),
  { minLength: 1, maxLength: 12 },
);

const setting = fc.record({
  discount: fc.constantFrom('', '5%', '0.37', '100%'),
  inside: fc.boolean(),
  delivery: fc.constantFrom('', '12.34'),
  fee: fc.constantFrom(undefined, { amount: '7.77', taxes: [] }, { amount: '0.99', taxes: ['a'] }),
  exempt: fc.constantFrom(null, null, 'For a reason'),
  exemptAs: fc.constantFrom<ExemptAs>('exempt', 'reverse-charge', 'export', 'outside'),
  payerNumber: fc.constantFrom('FR 12345678901', '12-345'),
});

test('every invoice keeps all rules of the standard, and asks for what the customer pays; so does each credit of it', () => {
  fc.assert(
    fc.property(
      lines,
      setting,
      fc.integer({ min: 0, max: 100 }),
      fc.integer({ min: 1, max: 100 }),
      (list, change, paid, credited) => {
        const { fee, ...rest } = change;
        const invoice = printed(list, { ...rest, ...(fee ? { fee } : {}) });
        const paidMinor = (BigInt(invoice.total) * BigInt(paid)) / 100n;
        const of = eInvoiceOf(invoice, paidMinor);
        expect(brokenRules(of)).toEqual([]);
        expect(of.withTax + of.rounding).toBe(BigInt(invoice.total));
        expect(of.due).toBe(BigInt(invoice.total) - paidMinor);
        const amount = Math.ceil((invoice.total * credited) / 100);
        if (amount === 0) return;
        const credit = { number: 'C 1', invoice, issuedOn: '2026-06-01', reason: 'Returned', amount, taxes: [] };
        const note = eCreditOf(credit, invoice);
        // A unit alone that is less than its tax can leave no line; nothing else may be missing.
        if (note.lines.length === 0) return;
        expect(brokenRules(note)).toEqual([]);
        expect(note.due).toBe(BigInt(amount));
      },
    ),
    { numRuns: 400 },
  );
});

test('one untaxed fee beside taxed lines is exempt, not outside the scope; nothing taxed at all is outside, without VAT numbers', () => {
  const line = { quantity: '1', price: '100', discount: '', taxes: ['a'] };
  const beside = eInvoiceOf(printed([line], { fee: { amount: '5', taxes: [] } }));
  expect(beside.groups.map(({ category, base, amount }) => [category, base, amount])).toEqual([
    ['S', 10_000n, 1900n],
    ['E', 500n, 0n],
  ]);
  const none = eInvoiceOf(printed([{ ...line, taxes: [] }], { fee: { amount: '5', taxes: [] } }));
  expect(none.groups).toMatchObject([{ category: 'O', rate: '', base: 10_500n, amount: 0n }]);
  expect(none.seller).toMatchObject({ vatId: '', taxNumber: 'DE123456789' });
});

test('what is missing is said in words that say where to write it', () => {
  const bare = printed([{ quantity: '1', price: '9', discount: '', taxes: ['a'] }], { taxNumber: '' });
  const nowhere = {
    ...bare,
    payer: { name: 'P', address: [], email: '' },
    seller: { ...bare.seller, place: undefined },
  };
  const { place: _, ...seller } = nowhere.seller;
  expect(eInvoiceProblems(eInvoiceOf({ ...nowhere, seller }))).toEqual([
    'Write your address in the profile.',
    'Write the customer’s billing address.',
    'Write your tax number in the profile, so that the buyer’s program knows you.',
    'What is taxed needs your tax number: write it in the profile.',
  ]);
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

test.each<[ExemptAs, Category]>([
  ['exempt', 'E'],
  ['reverse-charge', 'AE'],
  ['export', 'G'],
  ['outside', 'O'],
])('an invoice that is without tax as %s has one category that says why', (exemptAs, category) => {
  const invoice = printed([{ quantity: '1', price: '9', discount: '', taxes: ['a'] }], { exempt: 'Because', exemptAs });
  expect(eInvoiceOf(invoice).groups).toMatchObject([{ category, base: 900n, amount: 0n, reason: 'Because' }]);
});

describe('each rule finds what breaks it', () => {
  const good = eInvoiceOf(
    printed([{ quantity: '1', price: '100', discount: '', taxes: ['a'] }], { discount: '10%', delivery: '5' }),
    500n,
  );
  const [group] = good.groups as [TaxGroup];
  const [line] = good.lines as [EInvoiceLine];
  const nowhere = { lines: [], city: '', postalCode: '' };
  const other = { category: 'S', rate: '19', reason: 'x', amount: 1n } as const;
  const cases: Record<string, Partial<EInvoice>> = {
    'BR-02': { number: ' ' },
    'BR-03': { issuedOn: '2026-02-30' },
    'BR-05': { currency: 'XQX' },
    'BR-06': { seller: { ...good.seller, name: '' } },
    'BR-07': { buyer: { ...good.buyer, name: '' } },
    'BR-08': { seller: { ...good.seller, ...nowhere } },
    'BR-09': { seller: { ...good.seller, country: 'XX' } },
    'BR-10': { buyer: { ...good.buyer, ...nowhere } },
    'BR-11': { buyer: { ...good.buyer, country: '' } },
    'BR-16': { lines: [] },
    'BR-22': { lines: [{ ...line, quantity: '' }] },
    'BR-23': { lines: [{ ...line, unit: '' }] },
    'BR-25': { lines: [{ ...line, name: '' }] },
    'BR-26': { lines: [{ ...line, price: '' }] },
    'BR-27': { lines: [{ ...line, price: '-1' }] },
    'BR-29': { from: '2026-05-02', to: '2026-05-01' },
    'BR-33': { allowances: good.allowances.map((one) => ({ ...one, reason: '' })) },
    'BR-38': { charges: good.charges.map((one) => ({ ...one, reason: '' })) },
    'BR-48': { groups: [{ ...group, rate: '' }] },
    'BR-50': { transfer: { account: '', holder: 'S', bankCode: '' } },
    'BR-55': { kind: 'credit-note' },
    'BR-CO-04': { lines: [{ ...line, category: '' as Category }] },
    'BR-CO-09': { seller: { ...good.seller, vatId: '123' } },
    'BR-CO-10': { sumOfLines: good.sumOfLines + 1n },
    'BR-CO-11': { allowanceTotal: good.allowanceTotal + 1n },
    'BR-CO-12': { chargeTotal: good.chargeTotal + 1n },
    'BR-CO-13': { withoutTax: good.withoutTax + 1n },
    'BR-CO-14': { taxTotal: good.taxTotal + 1n },
    'BR-CO-15': { withTax: good.withTax + 1n },
    'BR-CO-16': { due: good.due + 1n },
    'BR-CO-17': { groups: [{ ...group, amount: group.amount + 1n }] },
    'BR-CO-18': { groups: [] },
    'BR-CO-19': { from: '', to: ' ' },
    'BR-CO-25': { dueOn: '', terms: '' },
    'BR-CO-26': { seller: { ...good.seller, vatId: '' } },
  };
  for (const number of ['01', '05', '09', '10', '11', '12', '13', '14', '16', '17', '18', '19', '20', '23', '24', '27'])
    cases[`BR-DEC-${number}`] = { currency: 'KWD' };

  const named: Record<Category, string> = { S: 'S', Z: 'Z', E: 'E', AE: 'AE', G: 'G', O: 'O', K: 'IC' };
  /** An e-invoice of one category throughout: a line, an allowance, a charge. */
  const of = (category: Category): EInvoice => {
    const rate = { S: '19', O: '' }[category as 'S' | 'O'] ?? '0';
    const taxed = { category, rate };
    const isTaxed = category === 'S';
    const why = isTaxed || category === 'Z' ? { reason: '', reasonCode: '' } : { reason: 'Why', reasonCode: '' };
    const number = category === 'O' ? { vatId: '', taxNumber: '1' } : { vatId: 'DE1', taxNumber: '' };
    const tax = isTaxed ? group.amount : 0n;
    const change = (one: Change) => ({ ...one, ...taxed });
    return {
      ...good,
      seller: { ...good.seller, ...number },
      buyer: { ...good.buyer, ...number },
      lines: [{ ...line, ...taxed }],
      allowances: good.allowances.map(change),
      charges: good.charges.map(change),
      groups: [{ ...taxed, base: group.base, amount: tax, ...why }],
      taxTotal: tax,
      withTax: good.withoutTax + tax,
      due: good.withoutTax + tax - good.paid,
    };
  };
  const categoryCases = (Object.keys(named) as Category[]).flatMap(
    (category): [string, EInvoice, Partial<EInvoice>][] => {
      const base = of(category);
      const rule = (number: string) => `BR-${named[category]}-${number}`;
      const [own] = base.groups as [TaxGroup];
      const wrongRate = category === 'S' ? '0' : '5';
      const wrongNumber = { ...base.seller, vatId: category === 'O' ? 'DE1' : '', taxNumber: '' };
      const isWhy = own.reason !== '';
      const numbers: [string, EInvoice, Partial<EInvoice>][] = ['02', '03', '04'].map((number) => [
        rule(number),
        base,
        { seller: wrongNumber },
      ]);
      return [
        [rule('01'), base, { groups: [] }],
        ...numbers,
        [rule('05'), base, { lines: base.lines.map((one) => ({ ...one, rate: wrongRate })) }],
        [rule('06'), base, { allowances: base.allowances.map((one) => ({ ...one, rate: wrongRate })) }],
        [rule('07'), base, { charges: base.charges.map((one) => ({ ...one, rate: wrongRate })) }],
        [rule('08'), base, { groups: [{ ...own, base: own.base + 100n }] }],
        [rule('09'), base, { groups: [{ ...own, amount: own.amount + 1n }] }],
        [rule('10'), base, { groups: [{ ...own, reason: isWhy ? '' : 'Why' }] }],
      ];
    },
  );
  const outside = of('O');
  const alone: [string, EInvoice, Partial<EInvoice>][] = [
    ['BR-O-11', outside, { groups: [...outside.groups, group] }],
    ['BR-O-12', outside, { lines: [...outside.lines, line] }],
    ['BR-O-13', outside, { allowances: [...outside.allowances, other] }],
    ['BR-O-14', outside, { charges: [...outside.charges, other] }],
  ];
  const all = [
    ...Object.entries(cases).map(([rule, change]): [string, EInvoice, Partial<EInvoice>] => [rule, good, change]),
    ...categoryCases,
    ...alone,
  ];
  test.each(all)('%s', (rule, base, change) => {
    expect(brokenRules(base)).toEqual([]);
    expect(brokenRules({ ...base, ...change }).map((broken) => broken.rule)).toContain(rule);
  });
  test('none is without its case', () => {
    expect(all.map(([rule]) => rule).sort()).toEqual(Object.keys(RULES).sort());
  });
  test.each(['AE', 'K', 'O'] as const)('the buyer’s number under %s', (category) => {
    const base = of(category);
    const buyer = { ...base.buyer, vatId: category === 'O' ? 'DE1' : '', taxNumber: '' };
    expect(brokenRules({ ...base, buyer }).map(({ rule }) => rule)).toContain(`BR-${named[category]}-02`);
  });
});
