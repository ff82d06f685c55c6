/** Labels and packing papers read back as their receiver would: the codes from the rendered page, the text out of the PDF. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { beforeAll, describe, expect, test } from 'vitest';
import { prepareZXingModule, readBarcodes } from 'zxing-wasm/reader';
import { labelPlaces, type PrintedLabel, routingText } from '@/core/parcel/label';
import { checkFigure } from '@/core/parcel/number';
import { LABEL_SHEETS } from '@/core/parcel/profile';
import type { PackingSlip } from '@/core/parcel/slip';
import { labelsPdf, pickingPdf, slipsPdf } from './pdf/draw';

const OWN = { widthMm: 100, heightMm: 150 };
const PER_MM = 203 / 25.4;

beforeAll(() => {
  const wasm = createRequire(import.meta.url).resolve('zxing-wasm/reader/zxing_reader.wasm');
  prepareZXingModule({ overrides: { wasmBinary: readFileSync(wasm).buffer as ArrayBuffer }, fireImmediately: false });
});

const label = (
  nth: number,
  to: readonly string[] = ['Ida Marsh', '18 Pan Lane', 'Gull Point, OR 97201'],
): PrintedLabel => {
  const figures = String(44_000_000 + nth).padStart(8, '0');
  return {
    number: `TW${figures}${checkFigure(figures)}US`,
    serviceName: 'Steady',
    from: ['Sallow Joinery', '9 Weir Street, Tern Harbor'],
    to,
    weight: '12 oz',
    signature: nth % 2 === 0,
    reference: '1001, 1002',
    mailOn: '2026-11-28',
    country: 'US',
    postalCode: '97201',
  };
};

/** The pages of a PDF as pictures, in as many dots to the inch as a label printer has. */
function pictures(pdf: Buffer): Buffer[] {
  const folder = mkdtempSync(join(tmpdir(), 'dahlia-labels-'));
  writeFileSync(join(folder, 'in.pdf'), pdf);
  execFileSync('pdftoppm', ['-r', '203', '-gray', '-png', join(folder, 'in.pdf'), join(folder, 'page')]);
  return readdirSync(folder)
    .filter((name) => name.endsWith('.png'))
    .sort()
    .map((name) => readFileSync(join(folder, name)));
}

const textOf = (pdf: Buffer): string =>
  execFileSync('pdftotext', ['-layout', '-', '-'], { input: pdf }).toString('utf8');

/** What a reader finds on a page, with where (in millimetres). */
const found = async (png: Buffer) =>
  (
    await readBarcodes(new Uint8Array(png), {
      formats: ['Code128', 'DataMatrix'],
      tryHarder: true,
      maxNumberOfSymbols: 20,
    })
  ).map(({ format, text, position }) => ({
    format,
    text,
    x: position.topLeft.x / PER_MM,
    y: position.topLeft.y / PER_MM,
  }));

describe('labels', () => {
  test.each(LABEL_SHEETS)('on %s every code is read back from the rendered page, in its own place', async (sheet) => {
    const { places } = labelPlaces(sheet, OWN);
    const labels = Array.from({ length: places.length + 1 }, (_, at) => label(at * 7919));
    const pages = pictures(await labelsPdf(labels, { sheet, own: OWN, begin: 0 }));
    expect(pages).toHaveLength(2);
    const read = await Promise.all(pages.map(found));
    for (const [at, one] of labels.entries()) {
      const page = read[Math.floor(at / places.length)] ?? [];
      const place = places[at % places.length];
      const isThere = ({ x, y }: { x: number; y: number }) =>
        place !== undefined &&
        x >= place.x &&
        x <= place.x + place.width &&
        y >= place.y &&
        y <= place.y + place.height;
      expect(page.filter(({ text }) => text === one.number)).toMatchObject([{ format: 'Code128' }]);
      expect(page.filter(({ text }) => text === routingText(one))).toMatchObject([{ format: 'DataMatrix' }]);
      expect(page.filter(({ text }) => text === one.number || text === routingText(one)).every(isThere)).toBe(true);
    }
  });

  test('a sheet used in part is left as it is: the first label lies on the next free place', async () => {
    const [page] = pictures(await labelsPdf([label(1)], { sheet: 'a4-4', own: OWN, begin: 3 }));
    const read = page ? await found(page) : [];
    expect(read).toHaveLength(2);
    for (const { x, y } of read) expect([x > 105, y > 148]).toEqual([true, true]);
  });

  test.each([
    ['Αλεξάνδρα Παπαδοπούλου', 'Οδός Ερμού 18'],
    ['田中 さくら', '東京都千代田区1-1'],
    ['ليلى حداد', 'شارع النخيل ١٤'],
    [
      'Bartholomew Featheringstone-Oduya and his Daughters of Upper and Lower Wending',
      'Flat 14, The Old Ropewalk behind the Chandlery',
    ],
  ])('whom it is for can be read: %s', async (name, street) => {
    const text = textOf(
      await labelsPdf([label(1, [name, street, 'Gull Point, OR 97201'])], { sheet: 'a6', own: OWN, begin: 0 }),
    );
    // Written from the right, a reader of text may give signs in another order.
    for (const word of `${name} ${street}`.split(' ').filter((part) => /^[\p{L}]{3,}$/u.test(part)))
      expect(
        [...word].every((sign) => text.includes(sign)),
        word,
      ).toBe(true);
    const [page] = pictures(
      await labelsPdf([label(1, [name, street])], { sheet: 'own', own: { widthMm: 60, heightMm: 100 }, begin: 0 }),
    );
    expect((page ? await found(page) : []).map(({ text: read }) => read)).toContain(label(1).number);
  });
});

test('a packing slip says in its reader’s language what is in it, that the rest follows, and no sums', async () => {
  const slip: PackingSlip = {
    locale: 'fr-FR',
    seller: { name: 'Sallow Joinery', address: ['9 Weir Street'], phone: '', email: '', website: '', taxNumber: '' },
    accent: '#6B2451',
    logoId: null,
    to: ['Mireille Castagnard', '8 rue des Ormes', '35990 Saint-Aubry'],
    sales: [{ kind: 'invoice', number: '1001' }],
    lines: Array.from({ length: 60 }, (_, at) => ({ what: `Colophane, numéro ${at + 1}`, quantity: '2' })),
    restFollows: true,
    number: label(1).number,
  };
  const text = textOf(await slipsPdf([slip, { ...slip, locale: 'en-US', restFollows: false }]));
  for (const words of [
    'Bordereau de colisage',
    'Facture 1001',
    'Mireille Castagnard',
    'Colophane, numéro 60',
    'Le reste suit',
    'Packing slip',
  ])
    expect(text).toContain(words);
  expect(text).not.toMatch(/\d+[.,]\d\d/);
});

test('a picking list names each shelf once, in the order in which it is walked', async () => {
  const rows = ['A 2', 'A 2', 'A 10', ''].map((shelf, at) => ({
    shelf,
    what: `Thing ${at + 1}`,
    quantity: '2',
    parcels: [
      { name: 'Ida Marsh', quantity: '1' },
      { name: 'Otto Reed', quantity: '1' },
    ],
  }));
  const text = textOf(
    await pickingPdf({ house: 'Sallow Joinery', title: 'Picking list, 28 Nov 2026', locale: 'en-US', rows }),
  );
  expect(text.match(/A ?\d+/g)?.map((shelf) => shelf.replace(' ', ''))).toEqual(['A2', 'A10']);
  expect(text.indexOf('Thing 1')).toBeLessThan(text.indexOf('Thing 4'));
  expect(text).toContain('Ida Marsh 1, Otto Reed 1');
});
