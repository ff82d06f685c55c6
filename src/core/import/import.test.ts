import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { CalendarDate } from '../dates/calendar-date';
import { importedInvoice, OPEN_INVOICE_FIELDS, USUAL_INVOICE_HEADINGS } from '../invoice/import-rows';
import { ITEM_FIELDS, importedItem, USUAL_ITEM_HEADINGS } from '../item/import-rows';
import { guessedColumns } from './columns';

const ITEMS = { currency: 'EUR', sign: ',' as const, classes: ['standard', 'reduced'] };
const INVOICES = { currency: 'EUR', sign: ',' as const, locale: 'de-DE', today: '2026-11-28' as CalendarDate };

test('columns are known by what other programs call them, each once; our own names always', () => {
  expect(
    guessedColumns(['Artikelnummer', 'Bezeichnung', 'Verkaufspreis', 'Lagerbestand', 'Farbe'], USUAL_ITEM_HEADINGS),
  ).toEqual(['code', 'name', 'price', 'onHand', null]);
  expect(guessedColumns(['SKU', 'Product', 'Unit price', 'Name'], USUAL_ITEM_HEADINGS)).toEqual([
    'code',
    'name',
    'price',
    null,
  ]);
  expect(
    guessedColumns(
      ['Rechnungsnummer', 'Kunde', 'E-Mail', 'Rechnungsdatum', 'Fällig am', 'Brutto', 'Bezahlt'],
      USUAL_INVOICE_HEADINGS,
    ),
  ).toEqual(['number', 'customer', 'email', 'issuedOn', 'dueOn', 'total', 'paid']);
  expect(guessedColumns(Object.values(ITEM_FIELDS), USUAL_ITEM_HEADINGS)).toEqual(Object.keys(ITEM_FIELDS));
  const plain = Object.values(OPEN_INVOICE_FIELDS).map((heading) => heading.replace('’', "'"));
  expect(guessedColumns(plain, USUAL_INVOICE_HEADINGS)).toEqual(Object.keys(OPEN_INVOICE_FIELDS));
});

test('an item is read as its file writes it, and what cannot be is said', () => {
  const mapping = ['name', 'price', 'onHand', 'unit', 'taxClass', 'kind'] as const;
  expect(importedItem(['Wachs', '1.234,50 €', '-2', 'pieces', 'reduced', 'Ware'], mapping, ITEMS)).toMatchObject({
    ok: true,
    value: {
      name: 'Wachs',
      prices: { EUR: '1234.50' },
      onHand: '-2',
      unit: 'piece',
      taxClass: 'reduced',
      kind: 'goods',
    },
  });
  const wrong = importedItem(['', 'viel', '', 'furlong', 'luxury', 'thing'], mapping, ITEMS);
  expect(wrong).toEqual({
    ok: false,
    reasons: [
      'No name',
      'Price: not a number: viel',
      'Kind: goods, digital or service, not thing',
      'Unknown unit: furlong',
      'No tax rule has the class luxury',
    ],
  });
});

test('an open invoice is read with its days and sums as written; a settled one does not come in', () => {
  const mapping = ['number', 'customer', 'issuedOn', 'dueOn', 'total', 'paid'] as const;
  expect(importedInvoice(['R-7', 'Ängström', '3.2.2026', '', '1.200,00', '200'], mapping, INVOICES)).toMatchObject({
    ok: true,
    value: {
      number: 'R-7',
      issuedOn: '2026-02-03',
      dueOn: '2026-02-17',
      totalMinor: 120_000n,
      paidMinor: 20_000n,
      currency: 'EUR',
    },
  });
  const reasonsOf = (...cells: string[]) => {
    const read = importedInvoice(cells, mapping, INVOICES);
    return read.ok ? [] : read.reasons;
  };
  expect(reasonsOf('R-8', 'A', '3.2.2026', '', '100', '100')).toEqual(['Nothing of it is open']);
  expect(reasonsOf('R-9', '', '31.2.2026', '1.1.2026', '-5', '')).toEqual([
    'Nobody to whom it was sent',
    'Issued on: no day: 31.2.2026',
    'Total, with tax: not a sum: -5',
  ]);
  expect(reasonsOf('', 'A', '2027-01-01', '', '', '')).toEqual([
    'No number',
    'Issued on: a day to come, or long ago',
    'No total',
  ]);
});

test('whatever stands in a row, it is read or refused with reasons', () => {
  const cells = fc.array(fc.string({ maxLength: 30 }), { maxLength: 10 });
  const fieldsOf = (fields: object) => Object.keys(fields) as never[];
  fc.assert(
    fc.property(cells, (row) => {
      for (const read of [
        importedItem(row, fieldsOf(ITEM_FIELDS), ITEMS),
        importedInvoice(row, fieldsOf(OPEN_INVOICE_FIELDS), INVOICES),
      ])
        if (!read.ok) expect(read.reasons.length).toBeGreaterThan(0);
    }),
  );
});
