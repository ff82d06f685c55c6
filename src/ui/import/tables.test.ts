import fc from 'fast-check';
import Papa from 'papaparse';
import { describe, expect, test } from 'vitest';
import { csvTable } from '@/core/file/csv-table';
import { decoded } from '@/core/file/decoded';
import { vcardTable } from './vcard-table';

const wide = (text: string, order: 'le' | 'be', mark: boolean): Uint8Array => {
  const bytes = Buffer.from(`${mark ? '\uFEFF' : ''}${text}`, 'utf16le');
  return order === 'le' ? bytes : bytes.swap16();
};

describe('character sets', () => {
  const TEXT = 'Name;Straße\r\nJosé Müller;Łódzka 3\r\nΑθηνά;北京路 5\r\n';
  test.each<[string, Uint8Array, string]>([
    ['UTF-8', Buffer.from(TEXT), 'utf-8'],
    ['UTF-8 with a mark', Buffer.from(`\uFEFF${TEXT}`), 'utf-8'],
    ['UTF-16, little end first, with a mark', wide(TEXT, 'le', true), 'utf-16le'],
    ['UTF-16, big end first, with a mark', wide(TEXT, 'be', true), 'utf-16be'],
    ['UTF-16, little end first', wide('Name;City\r\nAda;Oslo\r\n', 'le', false), 'utf-16le'],
    ['UTF-16, big end first', wide('Name;City\r\nAda;Oslo\r\n', 'be', false), 'utf-16be'],
  ])('%s', (_, bytes, charset) => {
    const read = decoded(bytes);
    expect(read.charset).toBe(charset);
    expect(csvTable(read.text).rows[0]?.[0]).toMatch(/^(José Müller|Ada)$/);
    expect(csvTable(read.text).headings[0]).toBe('Name');
  });

  test('Windows-1252, also where it could nearly be UTF-8', () => {
    // "Müller", "€" and a dash as Windows writes them.
    const bytes = Buffer.from([0x4d, 0xfc, 0x6c, 0x6c, 0x65, 0x72, 0x20, 0x80, 0x20, 0x96]);
    expect(decoded(bytes)).toEqual({ text: 'Müller € –', charset: 'windows-1252' });
  });

  test('whatever text there is, it comes through in each of them', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 40 }), (text) => {
        fc.pre(!/[\ufeff\0]/.test(text));
        expect(decoded(Buffer.from(`\uFEFF${text}`)).text).toBe(text);
        expect(decoded(wide(text, 'le', true)).text).toBe(text);
      }),
    );
  });
});

describe('CSV', () => {
  test('a quote that is not closed is a bad row with its line; nothing after it is swallowed', () => {
    const table = csvTable('Name,Note\nAda,"fine, ""really"""\nBo,"open\nCy,here\nDi,"two\nlines"\nEd,x\n');
    expect(table.rows).toEqual([
      ['Ada', 'fine, "really"'],
      ['Cy', 'here'],
      ['Di', 'two\nlines'],
      ['Ed', 'x'],
    ]);
    expect(table.lines).toEqual([2, 4, 5, 7]);
    expect(table.broken).toMatchObject([{ line: 3, raw: 'Bo,"open' }]);
  });

  test('a quote inside a cell, a row with too many cells, semicolons, empty rows, other line ends, a named sign', () => {
    expect(csvTable('Name;City\r\n"Ada" B;Oslo\r\n\r\nBo;Rome;more\r\nCy;Bern\r\n')).toMatchObject({
      rows: [['Cy', 'Bern']],
      lines: [5],
      broken: [{ line: 2 }, { line: 4, words: 'This row has 3 cells, and there are 2 headings.' }],
    });
    expect(csvTable('sep=|\nName|City\nAda|Oslo')).toMatchObject({ headings: ['Name', 'City'], lines: [3] });
    expect(csvTable('Name\tCity\rAda\tOslo\r')).toMatchObject({ rows: [['Ada', 'Oslo']] });
    // Headings that are broken are headings still: the first row of data is not taken for them.
    expect(csvTable('Name,"City\nAda,Oslo\n')).toMatchObject({
      headings: ['Name', 'City'],
      rows: [['Ada', 'Oslo']],
      broken: [],
    });
    expect(csvTable('')).toEqual({ headings: [], rows: [], lines: [], broken: [] });
  });

  test('what a spreadsheet writes is read back, and with broken rows in between each good one is still there', () => {
    const cell = fc.string({ unit: fc.constantFrom('a', 'é', '"', ',', ' ', '\n', '1'), maxLength: 6 });
    const row = fc.tuple(fc.constantFrom('x', 'y'), cell);
    fc.assert(
      fc.property(fc.array(row, { maxLength: 8 }), (rows) => {
        const text = Papa.unparse([['A', 'B'], ...rows], { newline: '\n' });
        expect(csvTable(text).rows).toEqual(rows);
        expect(csvTable(text).broken).toEqual([]);
      }),
    );
    const plain = fc.array(fc.constantFrom('good', 'bad'), { maxLength: 12 });
    fc.assert(
      fc.property(plain, (kinds) => {
        const text = ['A,B', ...kinds.map((kind, at) => (kind === 'good' ? `g${at},"ok"` : `b${at},"o"k`))].join('\n');
        const table = csvTable(text);
        expect(table.rows.map(([first]) => first)).toEqual(
          kinds.flatMap((kind, at) => (kind === 'good' ? [`g${at}`] : [])),
        );
        expect(table.broken.map(({ line }) => line)).toEqual(
          kinds.flatMap((kind, at) => (kind === 'bad' ? [at + 2] : [])),
        );
      }),
    );
  });
});

const named = (text: string) => {
  const { headings, rows, lines, broken } = vcardTable(text);
  return {
    rows: rows.map((row) => Object.fromEntries(row.flatMap((cell, at) => (cell ? [[headings[at], cell]] : [])))),
    lines,
    broken,
  };
};

describe('vCard', () => {
  test('version 2.1, as old telephones wrote it: quoted-printable in its character set, soft line ends, a picture', () => {
    const { rows } = named(
      [
        'BEGIN:VCARD',
        'VERSION:2.1',
        'N;CHARSET=UTF-8;ENCODING=QUOTED-PRINTABLE:M=C3=BCller;J=C3=BCrgen;;;',
        'FN;CHARSET=UTF-8;ENCODING=QUOTED-PRINTABLE:J=C3=BCrgen M=C3=BC=',
        'ller',
        'TEL;CELL;VOICE:+49 170 5550101',
        'EMAIL;INTERNET:jm@post.example',
        'ADR;HOME;CHARSET=ISO-8859-1;QUOTED-PRINTABLE:;;Am Br=FChl 3, Hof;K=F6ln;;50667;Germany',
        'PHOTO;ENCODING=BASE64;JPEG:/9j/4AAQSkZJRg',
        ' ABQAAAQ',
        '',
        'NOTE;ENCODING=QUOTED-PRINTABLE:one=0D=0Atwo',
        'END:VCARD',
      ].join('\r\n'),
    );
    expect(rows).toEqual([
      {
        Name: 'Jürgen Müller',
        'E-mail address': 'jm@post.example',
        Phone: '+49 170 5550101',
        'Street and number': 'Am Brühl 3, Hof',
        City: 'Köln',
        'Postal code': '50667',
        Country: 'Germany',
        'Private note': 'one\ntwo',
      },
    ]);
  });

  test('versions 3.0 and 4.0, with grouped properties, folded lines and a language', () => {
    const { rows } = named(
      [
        'BEGIN:VCARD',
        'VERSION:3.0',
        'N:Okafor;Ada;;;',
        'FN:Ada Okafor',
        'item1.EMAIL;type=INTERNET;type=pref:ada@okafor.example',
        'item1.X-ABLabel:Work',
        'TEL;TYPE=CELL:+1 206 555 0101',
        'NOTE:A long note that is fol',
        ' ded',
        'END:VCARD',
        'BEGIN:VCARD',
        'VERSION:3.0',
        'N:Brandt;Jo;;;',
        'FN:Jo Brandt',
        'ORG:Brandt Orgelbau;Werkstatt',
        'END:VCARD',
        'BEGIN:VCARD',
        'VERSION:4.0',
        'KIND:org',
        'FN:Orchester am Wehr',
        'ORG:Orchester am Wehr',
        'LANG;PREF=1:de-CH',
        'ADR:;;Am Wehr 4;Weilheim;;82362;Deutschland',
        'END:VCARD',
      ].join('\n'),
    );
    expect(rows).toEqual([
      {
        Name: 'Ada Okafor',
        'E-mail address': 'ada@okafor.example',
        Phone: '+1 206 555 0101',
        'Private note': 'A long note that is folded',
      },
      { Name: 'Jo Brandt', Company: 'Brandt Orgelbau Werkstatt' },
      expect.objectContaining({ Company: 'Orchester am Wehr', Language: 'de-CH', City: 'Weilheim' }),
    ]);
  });

  test('a card without an end, text between cards, and a broken card are bad rows with their lines; the others are read', () => {
    const card = (name: string) => `BEGIN:VCARD\nVERSION:3.0\nN:${name};;;;\nFN:${name}\nEND:VCARD\n`;
    const { rows, lines, broken } = named(
      `${card('One')}BEGIN:VCARD\nVERSION:3.0\nFN:Lost\n${card('Two')}hello\nBEGIN:VCARD\nVERSION:4.0\nno colon here\nEND:VCARD\n${card('Three')}BEGIN:VCARD\nFN:Last`,
    );
    expect(rows.map(({ Name }) => Name)).toEqual(['One', 'Two', 'Three']);
    expect(lines).toEqual([1, 9, 19]);
    expect(broken.map(({ line }) => line)).toEqual([6, 14, 15, 24]);
  });
});
