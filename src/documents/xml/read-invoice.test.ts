import { describe, expect, test } from 'vitest';
import { brokenRules } from '@/core/einvoice/rules';
import { paperOfEInvoice, totalDiffers } from '@/core/einvoice/to-paper';
import { readPaper } from '@/core/invoice/read-paper';
import { completePaper } from '@/core/paper/paper';
import { crossIndustryXml, wholeEInvoice } from '../../../tests/support/e-invoices';
import { eInvoiceXml } from '../ubl/write';
import { readInvoiceXml } from './read-invoice';
import { NotAnInvoice } from './tree';

const WHOLE = wholeEInvoice();
const NOTHING = { vatId: '', taxNumber: '', email: '' };

describe('what is written is read back as it was', () => {
  test.each([
    ['an invoice', WHOLE],
    [
      'a credit note',
      wholeEInvoice({ kind: 'credit-note', dueOn: '', preceding: '2026/70', transfer: null, paid: 0n }),
    ],
    [
      'hardly anything',
      wholeEInvoice({ note: '', reference: '', terms: '', from: '', to: '', transfer: null, rounding: 0n }),
    ],
    [
      'outside the scope',
      wholeEInvoice({
        lines: WHOLE.lines.map((one) => ({ ...one, category: 'O' as const, rate: '' })),
        allowances: [],
        charges: [],
        groups: [{ category: 'O', rate: '', base: 12_000n, amount: 0n, reason: 'No VAT', reasonCode: 'VATEX-EU-O' }],
        seller: { ...WHOLE.seller, ...NOTHING, taxNumber: '5' },
      }),
    ],
    ['no decimals', wholeEInvoice({ currency: 'JPY' })],
  ])('%s', (_, of) => {
    expect(readInvoiceXml(eInvoiceXml(of))).toEqual(of);
  });

  test('the other syntax, with other prefixes, prices per hundred and zeros at the end', () => {
    expect(brokenRules(WHOLE)).toEqual([]);
    expect(readInvoiceXml(crossIndustryXml(WHOLE))).toEqual(WHOLE);
  });

  test('as others write: booleans and decimals in their other forms, a card before the account, taxes in two currencies', () => {
    const ubl = eInvoiceXml(WHOLE)
      .replaceAll('>true</cbc:ChargeIndicator>', '>1</cbc:ChargeIndicator>')
      .replaceAll('>false</cbc:ChargeIndicator>', '>0</cbc:ChargeIndicator>')
      .replace('>50</cbc:PriceAmount>', '>+50.</cbc:PriceAmount>')
      .replace(
        '<cac:PaymentMeans>',
        '<cac:PaymentMeans><cbc:PaymentMeansCode>48</cbc:PaymentMeansCode></cac:PaymentMeans><cac:PaymentMeans>',
      );
    expect(ubl).toContain('>+50.<');
    expect(readInvoiceXml(ubl)).toEqual(WHOLE);
    const inBooks = '<r:TaxTotalAmount currencyID="PLN">99.99</r:TaxTotalAmount>';
    const cross = crossIndustryXml(WHOLE)
      .replaceAll('>true</u:Indicator>', '>1</u:Indicator>')
      .replace('<r:TaxTotalAmount', `${inBooks}<r:TaxTotalAmount`);
    expect(cross).toContain('>1</u:Indicator>');
    expect(readInvoiceXml(cross)).toEqual(WHOLE);
  });
});

test.each([
  ['no XML', 'hello', /well-formed/],
  ['another document', '<a/>', /no invoice/],
  ['definitions of its own', '<!DOCTYPE a [<!ENTITY b "c">]><Invoice/>', /definitions/],
  ['no lines', '<Invoice><DocumentCurrencyCode>EUR</DocumentCurrencyCode></Invoice>', /no lines/],
  ['no currency', '<Invoice><InvoiceLine/></Invoice>', /currency/],
  ['a sum that is none', eInvoiceXml(WHOLE).replace('>138.18<', '>138,18<'), /TaxInclusiveAmount/],
  [
    'a category of a special regime',
    eInvoiceXml(WHOLE).replaceAll('<cbc:ID>S</cbc:ID>', '<cbc:ID>L</cbc:ID>'),
    /special/,
  ],
])('a file with %s says so', (_, xml, words) => {
  expect(() => readInvoiceXml(xml)).toThrow(NotAnInvoice);
  expect(() => readInvoiceXml(xml)).toThrow(words);
});

describe('brought in', () => {
  const tax = (id: string, rate: string) => ({
    id,
    name: id,
    rate,
    onDelivery: true,
    class: 'standard',
    country: '',
    retired: false,
  });
  const house = {
    name: 'Warsztat Skrzypcowy',
    taxNumber: 'PL 526 000 12 46',
    locale: 'en-US',
    taxes: [tax('high', '23'), tax('low', '8.00')],
    bank: { holder: '', account: 'PL61 1090 1014 0000 0712 1981 2874', bankCode: '', bank: '' },
    numberTaken: false,
    newId: () => crypto.randomUUID(),
  };
  const totalOf = (paper: Parameters<typeof completePaper>[0]) =>
    readPaper(completePaper({ customerId: 'c', ...paper }), {
      taxes: house.taxes,
      currency: 'EUR',
      pricesIncludeTax: false,
      home: { country: 'PL' },
      customer: null,
    }).tally.total;
  const plain = wholeEInvoice({ paid: 0n, rounding: 0n, due: 13_818n, terms: '', allowances: [], allowanceTotal: 0n });

  test('number, dates, codes, days, taxes, discounts and fees are kept, and its own file leaves nothing out', () => {
    const { paper, notKept } = paperOfEInvoice(plain, house);
    expect(paper).toMatchObject({
      number: '2026/77',
      issuedOn: '2026-05-04',
      due: { kind: 'date', date: '2026-05-18' },
      serviceFrom: '2026-05-01',
      serviceTo: '2026-05-04',
      reference: 'PO 4711',
      currency: 'EUR',
      exempt: null,
      lines: [
        { quantity: '2', price: '50', discount: '10', code: 'BOW-7', on: '2026-05-03', taxes: ['high'], unit: 'piece' },
        { quantity: '3', price: '10', taxes: ['low'] },
      ],
      fees: [{ name: 'Delivery', amount: '5', taxes: ['high'] }],
    });
    expect(notKept).toEqual([]);
    // 90.00 + 5.00 at 23 percent, 30.00 at 8: 95.00 + 21.85 + 30.00 + 2.40.
    expect(totalOf(paper)).toBe(14_925n);
  });

  test('each thing that has no place is said once, with what to do', () => {
    const { notKept } = paperOfEInvoice(
      wholeEInvoice({
        number: 'A#1',
        preceding: '2026/70',
        lines: [
          ...WHOLE.lines.map((one) => ({ ...one, rate: '5', unit: 'XQQ' })),
          {
            ...WHOLE.lines[0],
            name: 'Returned',
            quantity: '-1',
            net: -5000n,
            allowance: 0n,
          } as (typeof WHOLE.lines)[0],
        ],
        allowances: [{ amount: 900n, category: 'S', rate: '23', reason: 'Loyalty' }],
        seller: { ...WHOLE.seller, vatId: 'DE1' },
        transfer: { account: 'XX1', holder: '', bankCode: '' },
      }),
      house,
    );
    const words = notKept.join('\n');
    for (const one of [
      'A tax of 5 % is not among yours',
      'counted in “XQQ”',
      '“Returned”) takes €50.00 off',
      '€9.00 are taken off for “Loyalty”',
      '“A#1” cannot be a number here',
      'Its terms of payment: “14 days”',
      'It follows invoice 2026/70',
      '€10.00 were paid before',
      'rounded by −€0.01',
      'a transfer to XX1',
      'not from you',
    ])
      expect(words).toContain(one);
    expect(new Set(notKept).size).toBe(notKept.length);
  });

  test.each([
    ['E', 'exempt'],
    ['AE', 'reverse-charge'],
    ['G', 'export'],
    ['O', 'outside'],
  ] as const)('category %s is without tax as %s, with its reason', (category, exemptAs) => {
    const rate = category === 'O' ? '' : '0';
    const { paper } = paperOfEInvoice(
      { ...plain, groups: [{ category, rate, base: 12_500n, amount: 0n, reason: 'Why so', reasonCode: '' }] },
      house,
    );
    expect(paper).toMatchObject({ exempt: 'Why so', exemptAs });
  });

  test('a number that is taken, and a total that differs, are said', () => {
    expect(paperOfEInvoice(plain, { ...house, numberTaken: true }).notKept.join()).toContain('already');
    expect(totalDiffers(plain, 1n, 'en-US').join()).toContain('€138.18');
    expect(totalDiffers(plain, 13_818n, 'en-US')).toEqual([]);
  });
});
