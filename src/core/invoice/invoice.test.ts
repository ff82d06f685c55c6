import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { addDays, calendarDate } from '../dates/calendar-date';
import { completePaper, type Paper, type PaperLine } from '../paper/paper';
import type { BusinessTax } from '../tax/business-tax';
import { eventWords } from '../timeline/timeline';
import { howMuchText, taxText } from '../words/invoice-wording';
import { dueDate } from './due';
import { dueWords, openGroup, openSums } from './list';
import { bankFor, printedInvoice } from './printed';
import { type PaperSetting, readPaper } from './read-paper';
import { sendingProblems } from './sending';
import { type InvoiceStatus, invoiceState, sharePaid } from './state';

const TODAY = calendarDate('2026-05-04');
const TAXES: BusinessTax[] = [
  { id: 't', name: 'Sales tax', rate: '8.25', onDelivery: true, class: 'standard', country: '', retired: false },
];
const SETTING: PaperSetting = {
  taxes: TAXES,
  currency: 'USD',
  pricesIncludeTax: false,
  home: { country: 'US' },
  customer: null,
};
const line = (change: Partial<PaperLine> = {}): PaperLine => ({
  id: 'l1',
  unit: 'hour',
  what: 'Setting up',
  quantity: '3.5',
  price: '72',
  discount: '',
  taxes: ['t'],
  ...change,
});
const paper = (change: Partial<Paper> = {}): Paper => completePaper({ customerId: 'c', lines: [line()], ...change });
const read = (given: Paper) => readPaper(given, SETTING);
const problems = (given: Paper) => sendingProblems(given, read(given), TODAY);

describe('a paper while it is typed', () => {
  test('is worked out as far as it can be read, and the rest is named by its place', () => {
    const reading = read(
      paper({ lines: [line(), line({ id: 'l2', quantity: 'two' }), line({ id: 'l3', price: '9.9.9' })] }),
    );
    expect(reading.tally.subtotal).toBe(25_200n);
    expect(reading.problems.map(({ field }) => field)).toEqual(['l2.quantity', 'l3.price']);
  });

  test('a blank line is no line', () => {
    expect(read(paper({ lines: [line(), line({ id: 'l2', what: ' ', price: '', quantity: '1' })] })).problems).toEqual(
      [],
    );
  });

  test.each([
    ['10%', 22_680n],
    ['12.5 %', 22_050n],
    ['2.00', 25_000n],
    ['', 25_200n],
  ])('a line’s discount of "%s" leaves %s', (discount, left) => {
    const { tally } = read(paper({ lines: [line({ discount })] }));
    expect(tally.subtotal - tally.lineDiscounts).toBe(left);
  });

  test('a discount that is too large or no number is said, and the total is shown without it', () => {
    for (const discount of ['300', '101%', 'much']) {
      const reading = read(paper({ discount }));
      expect(reading.problems).toMatchObject([{ field: 'discount' }]);
      expect(reading.tally.documentDiscount).toBe(0n);
    }
    expect(read(paper({ lines: [line({ discount: '252.01' })] })).problems).toMatchObject([{ field: 'l1.discount' }]);
  });

  test('a tax that the business no longer has is left out', () => {
    expect(read(paper({ lines: [line({ taxes: ['gone', 't'] })] })).document.lines[0]?.taxes).toEqual(['t']);
  });

  test('nothing typed can make it throw', () => {
    const text = fc.oneof(
      fc.string({ maxLength: 12 }),
      fc.constantFrom('1e400', '9'.repeat(40), '0.0000001', '٣', '%', '100%', '-1'),
    );
    fc.assert(
      fc.property(text, text, text, text, (quantity, price, discount, whole) => {
        const given = paper({ lines: [line({ quantity, price, discount })], discount: whole });
        expect(read(given).tally.total >= 0n).toBe(true);
        problems(given);
      }),
    );
  });
});

describe('what keeps it from being sent', () => {
  test('nothing, when it is whole', () => expect(problems(paper())).toEqual([]));
  test.each<[string, Partial<Paper>, string]>([
    ['nobody pays', { customerId: null }, 'customer'],
    ['there is no line', { lines: [] }, 'lines'],
    ['a line says nothing', { lines: [line({ what: '' })] }, 'l1.what'],
    ['it comes to nothing', { lines: [line({ price: '0' })] }, 'lines'],
    ['the date is none', { due: { kind: 'date', date: '2026-02-30' } }, 'due'],
    ['the date is over', { due: { kind: 'date', date: '2026-05-03' } }, 'due'],
  ])('%s', (_, change, field) => expect(problems(paper(change)).map((problem) => problem.field)).toEqual([field]));

  test.each<[string, Partial<Paper>, RegExp]>([
    ['a price below 0', { lines: [line({ price: '-5' })] }, /discount.*credited/],
    ['a quantity below 0, with another dash', { lines: [line({ quantity: '−1' })] }, /discount.*credited/],
    ['a price in a bookkeeper’s brackets', { lines: [line({ price: '(5.00)' })] }, /discount.*credited/],
    ['all of it taken off', { discount: '100%' }, /leave the discount out/],
    ['all of each line taken off', { lines: [line({ discount: '100%' })] }, /leave the discount out/],
  ])('%s has an answer', (_, change, words) =>
    expect(
      problems(paper(change))
        .map((one) => one.words)
        .join(),
    ).toMatch(words),
  );

  test('what takes all of it is said where it is typed', () => {
    const fields = (change: Partial<Paper>) => problems(paper(change)).map(({ field }) => field);
    expect(fields({ discount: '100%' })).toEqual(['discount']);
    expect(fields({ lines: [line({ discount: '100%' })] })).toEqual(['l1.discount']);
    expect(fields({ lines: [line({ price: '0' })] })).toEqual(['lines']);
  });

  test('less than one of something, and one line that is a gift beside another, are fine', () => {
    const lines = [line({ quantity: '.25' }), line({ id: 'l2', discount: '100%' })];
    expect(problems(paper({ lines }))).toEqual([]);
  });
});

test('when it is due', () => {
  expect(dueDate({ kind: 'receipt' }, TODAY)).toBe(TODAY);
  expect(dueDate({ kind: 'days', days: 30 }, TODAY)).toBe('2026-06-03');
  expect(dueDate({ kind: 'date', date: '2026-02-30' }, TODAY)).toBeNull();
});

test('the printed invoice carries each figure of the tally', () => {
  const reading = read(paper({ discount: '10%', reference: ' viola ' }));
  const seller = { name: 'S', address: [], phone: '', email: '', website: '', taxNumber: '' };
  const heading = {
    number: '7',
    locale: 'en-US',
    issuedOn: TODAY,
    seller,
    payer: { name: 'P', address: [], email: '' },
    terms: null,
    bank: { holder: '', account: '', bankCode: '', bank: '' },
    logoId: null,
    accent: '#6B2451',
  };
  const printed = printedInvoice(paper({ discount: '10%', reference: ' viola ' }), reading, heading);
  // 252.00 − 25.20 = 226.80; tax 18.711 → 18.71; total 245.51
  expect(printed).toMatchObject({
    dueOn: '2026-05-18',
    reference: 'viola',
    discount: 2520,
    discountText: '10 %',
    taxTotal: 1871,
    total: 24_551,
  });
  expect(howMuchText(printed.lines[0] as (typeof printed.lines)[0], printed)).toBe('3.5 h × 72.00');
  expect(taxText(printed.taxes[0] as (typeof printed.taxes)[0], { pricesIncludeTax: true, locale: 'en-US' })).toBe(
    'Of which Sales tax, 8.25 %',
  );
});

test('transfers of a currency with an account of its own go there, all others to the usual one', () => {
  const usual = { holder: 'S', account: '560000408914', bankCode: '', bank: 'Alder' };
  const euro = { holder: 'S', account: 'DE89370400440532013000', bankCode: '', bank: 'Rhein' };
  const bank = {
    ...usual,
    others: [
      { ...euro, currency: 'EUR' },
      { ...euro, account: '', currency: 'GBP' },
    ],
  };
  expect(bankFor(bank, 'EUR')).toEqual(euro);
  for (const currency of ['USD', 'GBP']) expect(bankFor(bank, currency)).toEqual(usual);
});

describe('states', () => {
  const status = (change: Partial<InvoiceStatus>): InvoiceStatus => ({
    stage: 'sent',
    seen: false,
    totalMinor: 100n,
    dueMinor: 100n,
    dueOn: TODAY,
    ...change,
  });
  test.each<[Partial<InvoiceStatus>, string]>([
    [{ stage: 'draft' }, 'Draft'],
    [{}, 'Sent'],
    [{ seen: true }, 'Seen'],
    [{ dueMinor: 40n, seen: true }, 'Part-paid'],
    [{ dueMinor: 0n }, 'Paid'],
    [{ dueOn: addDays(TODAY, -1) }, 'Overdue'],
    [{ dueOn: addDays(TODAY, -1), dueMinor: 40n }, 'Overdue'],
    [{ dueOn: addDays(TODAY, -1), dueMinor: 0n }, 'Paid'],
    [{ stage: 'cancelled' }, 'Cancelled'],
  ])('%o is %s', (change, state) => expect(invoiceState(status(change), TODAY)).toBe(state));
  test('the share is between 0 and 1', () => {
    expect(sharePaid(status({ dueMinor: 25n }))).toBe(0.75);
    expect(sharePaid(status({ totalMinor: 0n, dueMinor: 0n }))).toBe(0);
  });
});

test('the list’s groups and sums meet at the same days', () => {
  const days = [-30, -1, 0, 14, 15, 400].map((step) => ({ on: addDays(TODAY, step), minor: 10n }));
  expect(days.map(({ on }) => openGroup(on, TODAY))).toEqual([
    'Late',
    'Late',
    'Next two weeks',
    'Next two weeks',
    'Later',
    'Later',
  ]);
  expect(openSums(days, TODAY)).toEqual({ late: 20n, soon: 20n, later: 20n, all: 60n });
  expect(days.map(({ on }) => dueWords(on, TODAY, 'en-US'))).toEqual([
    '30 days late',
    '1 day late',
    'today',
    'Mon 18 May',
    'Tue 19 May',
    '8 Jun 2027',
  ]);
});

test('a timeline says who, what and how much', () => {
  const words = (event: Parameters<typeof eventWords>[0]) =>
    Object.values(eventWords(event, 'Ada', { currency: 'USD', locale: 'en-US', zone: 'America/Los_Angeles' })).join(
      ' | ',
    );
  expect(words({ kind: 'sent', number: '12', way: 'link' })).toBe('Sent | by Ada | As number 12, link to be passed on');
  expect(words({ kind: 'paid', amount: 4000, card: 'Corvid ·2208', receipt: '9' })).toBe(
    'Paid $40.00 | by Ada | Corvid ·2208, receipt 9',
  );
  expect(words({ kind: 'refused', amount: 4000, reason: 'card-blocked', card: '' })).toBe(
    'Card refused, $40.00 |  | the card is blocked',
  );
});
