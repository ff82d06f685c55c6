import { describe, expect, test } from 'vitest';
import { csvAmount, csvTrouble, guessedCsv, readCsvStatement } from './csv';
import { lineKeys } from './keys';
import { gapsOf } from './series';

describe('a bank’s CSV', () => {
  test('is guessed from German headings, with commas and days first', () => {
    const table = {
      headings: ['Buchungstag', 'Begünstigter/Auftraggeber', 'Verwendungszweck', 'IBAN', 'Betrag (EUR)'],
      rows: [
        ['02.11.2026', 'Odile Brackenbury', 'Rechnung  1257', 'DE17 5600', '1.234,56'],
        ['13.11.26', 'Stadtwerke', 'Strom', '', '-80,00'],
        ['', '', 'Summe', '', ''],
      ],
    };
    const mapping = guessedCsv(table, 'x 1', 'EUR');
    expect(mapping).toMatchObject({
      columns: ['day', 'name', 'text', 'otherAccount', 'amount'],
      dayOrder: 'dmy',
      decimal: ',',
    });
    expect(readCsvStatement(table, mapping)).toEqual({
      account: 'X1',
      currency: 'EUR',
      from: '2026-11-02',
      to: '2026-11-13',
      lines: [
        {
          day: '2026-11-02',
          amount: 123_456n,
          text: 'Rechnung 1257',
          name: 'Odile Brackenbury',
          otherAccount: 'DE17 5600',
        },
        { day: '2026-11-13', amount: -8_000n, text: 'Strom', name: 'Stadtwerke' },
      ],
    });
  });

  test('with money in and out in two columns, months first, brackets and signs behind', () => {
    const table = {
      headings: ['Date', 'Description', 'Debit', 'Credit'],
      rows: [
        ['11/24/2026', 'Rent', '(19.00)', ''],
        ['11/25/2026', 'Deposit', '', '$1,240.00'],
        ['11/26/2026', 'Fee', '2.50-', ''],
      ],
    };
    const mapping = guessedCsv(table, '1', 'USD');
    expect(mapping.dayOrder).toBe('mdy');
    expect(readCsvStatement(table, mapping).lines.map(({ day, amount }) => [day, amount])).toEqual([
      ['2026-11-24', -1_900n],
      ['2026-11-25', 124_000n],
      ['2026-11-26', -250n],
    ]);
  });

  test('without known headings days and sums are told by their cells; a sum read the wrong way is a fault, never a hundredfold', () => {
    const table = {
      headings: ['A', 'B', 'C'],
      rows: [
        ['24.11.2026', 'Müller', '1.192,00'],
        ['25.11.2026', '77', '-80,00 EUR'],
      ],
    };
    const mapping = guessedCsv(table, '1', 'EUR');
    expect(mapping).toMatchObject({ columns: ['day', null, 'amount'], dayOrder: 'dmy', decimal: ',' });
    expect(readCsvStatement(table, mapping).lines.map(({ amount }) => amount)).toEqual([119_200n, -8_000n]);
    expect(() => readCsvStatement(table, { ...mapping, decimal: '.' })).toThrow('row 2');
    for (const wrong of ['192,00', '1,5', '12,34,5', '1.2.3', '1,234,56'])
      expect(() => csvAmount(wrong, '.', 'EUR'), wrong).toThrow();
    expect(csvAmount('1,00,000.50', '.', 'INR')).toBe(10_000_050n);
    expect(csvAmount('1,234,567', '.', 'EUR')).toBe(123_456_700n);
  });

  test('a row that cannot be read is named; what is missing of the mapping is said', () => {
    const table = {
      headings: ['Day', 'Amount'],
      rows: [
        ['2026-11-24', '5.00'],
        ['soon', '1.00'],
      ],
    };
    const mapping = guessedCsv(table, '1', 'USD');
    expect(() => readCsvStatement(table, mapping)).toThrow('row 3');
    expect(csvTrouble({ ...mapping, columns: [null, 'amount'] })).toContain('day');
    expect(csvTrouble({ ...mapping, columns: ['day', null] })).toContain('amount');
    expect(csvTrouble({ ...mapping, account: ' ' })).toContain('number');
    expect(() => csvAmount('1.234', '.', 'USD')).toThrow();
    expect(csvAmount('1.234', '.', 'KWD')).toBe(1_234n);
    expect(csvAmount('−3,5', ',', 'EUR')).toBe(-350n);
    expect(csvAmount('', '.', 'USD')).toBeNull();
  });
});

test('a line has one key by its bank’s reference or text, and those that are alike are counted', () => {
  const day = '2026-11-24' as never;
  const alike = { day, amount: 5n, text: 'Coffee  shop' };
  const keys = lineKeys([alike, { ...alike, text: 'coffee shop' }, { ...alike, bankReference: 'B1' }]);
  expect(new Set(keys).size).toBe(3);
  expect(lineKeys([alike])[0]).toBe(keys[0]);
});

test('a key is short and can be stored, whatever is in the text', () => {
  const day = '2026-11-24' as never;
  const [key = ''] = lineKeys([{ day, amount: 5n, text: `\u0000${'𝄞'.repeat(100_000)}\ud800` }]);
  expect(key.length).toBeLessThan(220);
  expect(key.includes('\u0000')).toBe(false);
  expect(key.isWellFormed()).toBe(true);
});

test('what one ends with and the next does not begin with is a gap', () => {
  const one = (id: string, day: string, opening: bigint, closing: bigint) =>
    ({ id, from: day, to: day, opening, closing }) as Parameters<typeof gapsOf>[0][number];
  expect(gapsOf([one('a', '2026-11-02', 0n, 5n), one('b', '2026-11-03', 5n, 9n)])).toEqual([]);
  expect(gapsOf([one('a', '2026-11-02', 0n, 5n), one('b', '2026-11-06', 7n, 9n)])).toEqual([
    { after: 'a', before: 'b', from: '2026-11-03', to: '2026-11-05', minor: 2n },
  ]);
});
