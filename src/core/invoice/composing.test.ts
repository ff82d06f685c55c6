import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { newCustomer } from '../customer/customer';
import { calendarDate } from '../dates/calendar-date';
import { completePaper, newLine, type Paper } from '../paper/paper';
import { NO_ADDRESS } from '../place/address';
import { shortages } from '../stock/available';
import type { BusinessTax } from '../tax/business-tax';
import { newTaxes, TAX_COLUMNS, taxCells, taxOfCells, taxProblems } from '../tax/tax-csv';
import { sumRows } from '../words/invoice-wording';
import { stateCounts } from './ask';
import { bulkColumns, bulkRow, ownPaper } from './bulk';
import { deliveryCheck } from './delivery-check';
import { counterKey, numberText, patternProblem } from './numbering';
import { pastedLines } from './pasted-rows';
import { anothersPaper, copiedPaper, filledText, forOthers, freshPaper } from './placeholders';
import { completePrinted, printedInvoice } from './printed';
import { type PaperSetting, readPaper } from './read-paper';
import { comingDates } from './recurring';
import { reminderDays, reminderWords } from './reminders';
import { firstPaymentMinor, sendingProblems } from './sending';
import { taxesInPart } from './tax-part';

const TODAY = calendarDate('2026-05-04');
const tax = (id: string, name: string, rate: string, more: Partial<BusinessTax> = {}): BusinessTax => ({
  id,
  name,
  rate,
  onDelivery: false,
  class: 'standard',
  country: 'US',
  retired: false,
  ...more,
});
const TAXES = [
  tax('wa', 'Sales tax', '8.25', { regions: ['US-WA'], onDelivery: true }),
  tax('fl', 'Sales tax', '6', { regions: ['US-FL'] }),
  tax('levy', 'Levy', '1.5', { country: '' }),
  tax('old', 'Old tax', '3', { retired: true }),
];
const at = (region: string) => newCustomer('A', { billing: { ...NO_ADDRESS, city: 'x', region, country: 'US' } });
const setting = (more: Partial<PaperSetting> = {}): PaperSetting => ({
  taxes: TAXES,
  currency: 'USD',
  pricesIncludeTax: false,
  home: { country: 'US', region: 'US-WA' },
  customer: null,
  ...more,
});
const line = (id: string, price: string, more = {}) => newLine(id, 'piece', { what: 'x', price, ...more });
const paper = (change: Partial<Paper> = {}) => completePaper({ customerId: 'c', lines: [line('1', '100')], ...change });

describe('the customer’s place chooses the taxes', () => {
  test('of the line’s class; without an address as at home; nothing where no rule holds', () => {
    const total = (customer: PaperSetting['customer'], change: Partial<Paper> = {}) =>
      readPaper(paper(change), setting({ customer })).tally.total;
    expect(total(null)).toBe(10_825n);
    expect(total(at('US-FL'))).toBe(10_600n);
    expect(total(at('US-NV'))).toBe(10_000n);
    expect(total(at('US-WA'), { lines: [line('1', '100', { taxClass: 'zero' })] })).toBe(10_000n);
  });
  test('a person may choose others, and a rule off the list is used by hand only', () => {
    const byHand = paper({ lines: [line('1', '100', { taxesBy: 'person', taxes: ['levy', 'old', 'gone'] })] });
    expect(readPaper(byHand, setting({ customer: at('US-FL') })).document.lines[0]?.taxes).toEqual(['levy', 'old']);
  });
  test('goods that are delivered are taxed where they go', () => {
    const customer = { ...at('US-FL'), delivery: { ...NO_ADDRESS, city: 'y', region: 'US-WA', country: 'US' } };
    const delivery = { charged: '10', postage: '', packaging: '', taxes: null };
    // 100 + 10 delivery, both at 8.25: the tax is on delivery where it says so. 110 × 0.0825 = 9.075, so 9.08.
    expect(readPaper(paper({ delivery }), setting({ customer })).tally.total).toBe(11_908n);
    expect(readPaper(paper(), setting({ customer })).tally.total).toBe(10_600n);
  });
});

describe('what stands beside the lines', () => {
  const charges = paper({
    delivery: { charged: '12.50', postage: '9', packaging: '5', taxes: [] },
    fees: [{ id: 'f', name: 'Pick-up', amount: '20', taxes: ['levy'] }],
    flatTaxes: [{ id: 't', name: 'Harbour tax', amount: '1.5' }],
  });
  test('counts into the total, and is printed row by row so that the rows sum to it', () => {
    const reading = readPaper(charges, setting());
    // 100 + 12.50 + 20 + 8.25 on the line + 0.30 on the fee + 1.50 flat
    expect(reading.tally.total).toBe(14_255n);
    const printed = printedInvoice(charges, reading, {
      number: '7',
      locale: 'en-US',
      issuedOn: TODAY,
      terms: null,
      logoId: null,
      accent: '#6B2451',
      seller: { name: 'S', address: [], phone: '', email: '', website: '', taxNumber: '' },
      payer: { name: 'P', address: [], email: '' },
      bank: { holder: '', account: '', bankCode: '', bank: '' },
    });
    expect(sumRows(printed).reduce((sum, { minor }) => sum + minor, 0)).toBe(14_255);
    expect(completePrinted(JSON.parse(JSON.stringify(printed)))).toEqual(printed);
  });
  test('what cannot be read is named and counts as nothing', () => {
    const wrong = paper({ fees: [{ id: 'f', name: '', amount: 'much', taxes: [] }], exempt: ' ', currency: 'XXX' });
    const fields = readPaper(wrong, setting()).problems.map(({ field }) => field);
    expect(fields.sort()).toEqual(['currency', 'exempt', 'f.amount', 'f.name']);
  });
  test('an exempt invoice has no tax and says why', () => {
    expect(readPaper(paper({ exempt: 'Reverse charge' }), setting()).tally.total).toBe(10_000n);
  });
  test('delivery that costs more than is charged is said', () => {
    expect(deliveryCheck(charges.delivery as NonNullable<Paper['delivery']>, 'USD')).toEqual({
      charged: 1250n,
      cost: 1400n,
      short: 150n,
    });
    expect(deliveryCheck({ charged: '5', postage: '', packaging: '', taxes: null }, 'USD')).toBeNull();
  });
});

describe('before sending', () => {
  const fields = (given: Paper) => sendingProblems(given, readPaper(given, setting()), TODAY).map(({ field }) => field);
  test.each<[string, Partial<Paper>, string]>([
    ['no way to pay', { ways: { card: false, transfer: false, parts: false, first: '', tip: null } }, 'ways'],
    [
      'a first payment above the total',
      { ways: { card: true, transfer: false, parts: true, first: '200', tip: null } },
      'first',
    ],
    ['a day of issue years ago', { issuedOn: '2020-01-01' }, 'issuedOn'],
    ['a day that does not exist', { serviceFrom: '2026-02-30' }, 'serviceFrom'],
    ['a period that ends before it begins', { serviceFrom: '2026-05-02', serviceTo: '2026-05-01' }, 'serviceTo'],
    ['a line’s day that is none', { lines: [line('1', '1', { on: '2026-13-01' })] }, '1.on'],
    [
      'a due date before the day of issue',
      { issuedOn: '2026-05-20', due: { kind: 'date', date: '2026-05-10' } },
      'due',
    ],
  ])('%s is said at its place', (_, change, field) => expect(fields(paper(change))).toContain(field));
  test('an invoice dated back may already be due', () => {
    expect(fields(paper({ issuedOn: '2026-03-01' }))).toEqual([]);
  });
  test('a first payment in percent is of the total', () => {
    expect(
      firstPaymentMinor(
        paper({ ways: { card: true, transfer: false, parts: true, first: '33.3%', tip: null } }),
        10_001n,
        'USD',
      ),
    ).toBe(3330n);
  });
});

describe('numbers', () => {
  test('a pattern with year and digits, its counter again each year', () => {
    const series = { name: 'Repairs', pattern: 'R{yy}-{n:4}' };
    expect(numberText(series, 42n, TODAY)).toBe('R26-0042');
    expect(counterKey(series, TODAY)).toBe('invoice:Repairs:2026');
    expect(counterKey({ name: '', pattern: '{n}' }, TODAY)).toBe('invoice');
    expect(counterKey({ name: '', pattern: '{year}{month}-{n}' }, TODAY)).toBe('invoice:2026-05');
  });
  test.each(['{year}', 'A{n', '{n}{x}', 'A<b>{n}', `${'x'.repeat(41)}{n}`])('%s is no pattern', (pattern) =>
    expect(patternProblem(pattern)).not.toBeNull(),
  );
});

test('pasted rows are told from text; heading left out; of the numbers the last is the price', () => {
  expect(pastedLines('just a line, 5', 9)).toBeNull();
  expect(pastedLines('What\tHow much\tPrice\nPegs\t4\t12.00\nBridge\t\t85', 9)).toEqual([
    { what: 'Pegs', quantity: '4', price: '12.00' },
    { what: 'Bridge', quantity: '1', price: '85' },
  ]);
  expect(pastedLines('Pegs\nBridge', 9)).toHaveLength(2);
  expect(pastedLines('a\tb\n'.repeat(600), 500)).toHaveLength(500);
});

test('placeholders speak of the month, the next and the year in the customer’s language', () => {
  expect(filledText('Rent for {month} {year}, then {next month}', calendarDate('2026-12-31'), 'en-US')).toBe(
    'Rent for December 2026, then January',
  );
  expect(filledText('Miete {month}, nach {last month}', calendarDate('2026-03-31'), 'de-DE')).toBe(
    'Miete März, nach Februar',
  );
  expect(filledText('{unknown} {month', TODAY, 'en')).toBe('{unknown} {month');
});

describe('what a paper takes along', () => {
  const file = { id: 'f', name: 'plan.pdf', type: 'application/pdf', size: 9, approve: true };
  const written = paper({
    number: '7',
    issuedOn: '2026-05-01',
    due: { kind: 'date', date: '2026-05-09' },
    serviceFrom: '2026-04-01',
    serviceTo: '2026-04-30',
    lines: [line('1', '100', { on: '2026-04-03' })],
    reference: 'PO 4711',
    memo: 'pays late, ask first',
    files: [{ ...file, approvers: [{ id: 'a', name: 'Pia', email: 'pia@vane.example' }] }],
  });
  const moment = { issuedOn: '2026-05-01', due: written.due, serviceFrom: '2026-04-01', serviceTo: '2026-04-30' };
  const theirs = { reference: 'PO 4711', memo: 'pays late, ask first' };

  test('to another moment: lines of its own, and none of the days of the one before', () => {
    const fresh = freshPaper(written, () => 'n1', true);
    expect(fresh).toMatchObject({
      ...theirs,
      number: '',
      issuedOn: '',
      serviceFrom: '',
      serviceTo: '',
      due: { kind: 'days', days: 14 },
      files: written.files,
    });
    expect(fresh.lines).toMatchObject([{ id: 'n1' }]);
    expect(fresh.lines[0]?.on).toBeUndefined();
  });

  test('to another customer: neither their reference, the private note, nor their people who approve; the file asks whoever has the link', () => {
    const another = anothersPaper(written, () => 'n1', true);
    expect(another).toMatchObject({ reference: '', memo: '', issuedOn: '', files: [file] });
    expect(JSON.stringify(another)).not.toContain('pia@vane.example');
    expect(anothersPaper(written, () => 'n1').files).toEqual([]);
  });

  test('to many at once: the days are theirs too', () => {
    const many = forOthers(copiedPaper(written, () => 'n1', true));
    expect(many).toMatchObject({
      ...moment,
      number: '',
      reference: '',
      memo: '',
      lines: [{ id: 'n1', on: '2026-04-03' }],
    });
    expect(JSON.stringify(many)).not.toContain('pia@vane.example');
  });
});

test('reminders fall after the day of sending, each day once', () => {
  expect(reminderDays([14, -3, 4, 4, -30], calendarDate('2026-05-10'), TODAY)).toEqual([
    { offset: -3, on: '2026-05-07' },
    { offset: 4, on: '2026-05-14' },
    { offset: 14, on: '2026-05-24' },
  ]);
  expect([-1, 0, 10].map(reminderWords)).toEqual(['1 day before', 'on the due date', '10 days after']);
});

test('a date left out is not made, and the next one follows it', () => {
  const schedule = { unit: 'month', every: 1, start: calendarDate('2026-01-31'), ends: 'never' } as const;
  const skipped = [{ from: calendarDate('2026-02-28'), to: calendarDate('2026-02-28') }];
  expect(comingDates(schedule, skipped, calendarDate('2026-01-31'), 2).map(({ nominal }) => nominal)).toEqual([
    '2026-03-31',
    '2026-04-30',
  ]);
});

describe('bulk invoices', () => {
  test('columns and rows of its file', () => {
    const columns = bulkColumns(['Customer', 'Quantity 2', 'price', 'Note', 'Shoe size']);
    expect(bulkRow(['Ada', '0,333', '1.500', 'Hi', ''], columns, ',').own.lines).toEqual({
      1: { quantity: '0.333' },
      0: { price: '1500' },
    });
    expect(bulkRow(['Ada', '3', '9.50', 'Hi', '41'], columns)).toEqual({
      customer: 'Ada',
      own: { lines: { 1: { quantity: '3' }, 0: { price: '9.50' } }, note: 'Hi' },
    });
  });
  test('one’s own quantities; a quantity of nothing leaves the line out', () => {
    const given = paper({ lines: [line('1', '10'), line('2', '20')] });
    const own = ownPaper(given, 'x', { lines: { 0: { quantity: '0' }, 1: { quantity: '5' } } });
    expect(own).toMatchObject({ customerId: 'x', lines: [{ id: '2', quantity: '5' }] });
  });
});

test('the taxes of several credits sum to the invoice’s taxes once all is credited', () => {
  const invoice = {
    total: 10_825,
    taxes: [{ id: 'a', name: 'A', rate: '8.25', base: 10_000, amount: 825 }],
    flatTaxes: [{ name: 'F', amount: 7 }],
  };
  fc.assert(
    fc.property(fc.array(fc.bigInt({ min: 1n, max: 4000n }), { minLength: 1, maxLength: 8 }), (parts) => {
      let before = 0n;
      const sums = [0n, 0n];
      const take = (amount: bigint) => {
        for (const [place, part] of taxesInPart(invoice, before, amount).entries())
          sums[place] = (sums[place] ?? 0n) + part.amount;
        before += amount;
      };
      for (const part of parts) if (before + part <= 10_825n) take(part);
      if (before < 10_825n) take(10_825n - before);
      expect(sums).toEqual([825n, 7n]);
    }),
  );
});

test('stock is short where several lines together ask for more than there is', () => {
  const stock = new Map([['a', '3.5']]);
  const wish = (id: string, key: string, quantity: string) => ({ line: id, key, quantity });
  expect(shortages([wish('1', 'a', '2'), wish('2', 'a', '1.5'), wish('3', 'b', '99')], stock).size).toBe(0);
  expect([...shortages([wish('1', 'a', '2'), wish('2', 'a', '1.6'), wish('3', 'a', 'two')], stock)]).toEqual([
    ['1', '3.5'],
    ['2', '3.5'],
    ['3', '3.5'],
  ]);
});

test('tax rules survive their file, and what is wrong with one is said', () => {
  const headings = [...TAX_COLUMNS].reverse();
  const given = tax('x', 'County', '1.5', {
    regions: ['US-FL'],
    postalCodes: ['32055', '32024-32056'],
    additional: true,
  });
  const read = taxOfCells(headings, taxCells(given).reverse(), 'x');
  expect(read).toEqual(given);
  for (const rate of ['8,125', '8.125', '8.125%', '8,125 %'])
    expect(taxOfCells(['Rate'], [rate], 'x').rate).toBe('8.125');
  // Brought in again, and twice in one file, it is no new rule.
  expect(newTaxes([given], [{ ...read, id: 'y' }])).toEqual([]);
  expect(newTaxes([], [read, { ...read, id: 'y' }, { ...read, rate: '2' }]).map(({ rate }) => rate)).toEqual([
    read.rate,
    '2',
  ]);
  const wrong = tax('x', '', '101', { country: 'USA', regions: ['FL'], postalCodes: ['3 2'], class: '' });
  expect(new Set(taxProblems(wrong).map(({ field }) => field))).toEqual(
    new Set(['name', 'rate', 'country', 'regions', 'postalCodes', 'class']),
  );
});

test('every invoice is in one state of the list; what is late counts as overdue only', () => {
  const row = (status: 'sent' | 'seen' | 'paid', on: string | null, dueMinor: bigint) => ({
    status,
    currency: 'USD',
    on: on === null ? null : calendarDate(on),
    count: 2,
    totalMinor: 50n,
    dueMinor,
  });
  const counts = stateCounts(
    [
      row('sent', '2026-05-03', 20n),
      row('sent', '2026-05-04', 30n),
      row('seen', '2026-04-01', 5n),
      row('paid', null, 0n),
    ],
    [{ currency: 'USD', count: 1, totalMinor: 9n }],
    TODAY,
  );
  expect(Object.fromEntries(counts.map(({ state, count, sums }) => [state, [count, sums.USD ?? 0n]]))).toEqual({
    draft: [1, 9n],
    sent: [2, 30n],
    seen: [0, 0n],
    part: [0, 0n],
    overdue: [4, 25n],
    paid: [2, 50n],
    cancelled: [0, 0n],
  });
});
