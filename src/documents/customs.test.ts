/** Customs forms read back as an officer would: text out of the PDF, the code off the rendered page, whatever is written into them. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { beforeAll, expect, test } from 'vitest';
import { prepareZXingModule, readBarcodes } from 'zxing-wasm/reader';
import type { CustomsPaper } from '@/core/customs/form';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { customsPdf } from './pdf/draw';

const line = {
  ...{ what: 'Violin strings, steel', quantity: '10', kilograms: '0.380', value: '1280.00 USD' },
  ...{ hsCode: '9209940000', origin: 'DK' },
};
const paper = (more: Partial<CustomsPaper> = {}): CustomsPaper => ({
  ...{ form: 'cn23', number: 'TW440000001US', from: ['Sallow Joinery', '9 Weir Street'], fromPhone: '+1 206 555 0101' },
  ...{
    reference: 'EORI 77',
    to: ['はな Marsh', '北浜 2-4-6', '541-0041 大阪市'],
    toPhone: '',
    toEmail: 'h@post.example',
  },
  ...{ importer: '', nature: 'sale', explanation: '', comments: '', licence: '', certificate: '', invoice: '1172' },
  ...{ lines: [line], netKilograms: '0.380', grossKilograms: '0.420', value: '1280.00 USD', postage: '27.90 USD' },
  ...{ mailOn: '2026-11-30' as CalendarDate, signedBy: 'Ada Thistlewood' },
  ...more,
});
const textOf = (pdf: Buffer): string =>
  execFileSync('pdftotext', ['-layout', '-', '-'], { input: pdf, encoding: 'utf8', maxBuffer: 1e8 }).normalize('NFKC');
const infoOf = (pdf: Buffer) => {
  const text = execFileSync('pdfinfo', ['-'], { input: pdf, encoding: 'utf8' });
  return { pages: Number(/Pages:\s+(\d+)/.exec(text)?.[1]), size: /Page size:\s+([\d.]+ x [\d.]+)/.exec(text)?.[1] };
};

beforeAll(() => {
  const wasm = createRequire(import.meta.url).resolve('zxing-wasm/reader/zxing_reader.wasm');
  prepareZXingModule({ overrides: { wasmBinary: readFileSync(wasm).buffer as ArrayBuffer }, fireImmediately: false });
});

test.each([
  ['cn22', '297.638 x 419.528'],
  ['cn23', '595.276 x 419.528'],
] as const)('%s says all that it has, on its own size', async (form, size) => {
  const pdf = await customsPdf([paper({ form })]);
  expect(infoOf(pdf)).toEqual({ pages: 1, size });
  const text = textOf(pdf).replace(/\s+/g, ' ');
  const both = ['Customs declaration', 'Déclaration en douane', '[X] Sale of goods', 'Violin strings, steel', '0.380'];
  const whole = ['Sallow Joinery', '大阪市', 'h@post.example', '27.90 USD', '1172', '0.420'];
  for (const part of [...both, '1280.00 USD', '9209940000', 'DK', 'EORI 77', '2026-11-30', 'Ada Thistlewood'])
    expect(text).toContain(part);
  if (form === 'cn23') for (const part of whole) expect(text).toContain(part);
});

test('the code on the whole form is read back from the rendered page', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'dahlia-customs-'));
  writeFileSync(join(folder, 'in.pdf'), await customsPdf([paper()]));
  execFileSync('pdftoppm', ['-r', '203', '-gray', '-png', join(folder, 'in.pdf'), join(folder, 'page')]);
  const [page = ''] = readdirSync(folder).filter((name) => name.endsWith('.png'));
  const found = await readBarcodes(new Uint8Array(readFileSync(join(folder, page))), {
    formats: ['Code128'],
    tryHarder: true,
  });
  expect(found.map(({ text }) => text)).toEqual(['TW440000001US']);
});

test('forty kinds of goods go onto further sheets, each once and in their order', async () => {
  const lines = Array.from({ length: 40 }, (_, at) => ({
    ...line,
    what: `Thing ${at}, of ebony`,
    quantity: String(at + 1),
  }));
  for (const form of ['cn22', 'cn23'] as const) {
    const pdf = await customsPdf([paper({ form, lines })]);
    expect(infoOf(pdf).pages).toBeGreaterThan(1);
    const named = [...textOf(pdf).matchAll(/Thing (\d+), of/g)].map(([, at]) => Number(at));
    expect(named).toEqual(lines.map((_, at) => at));
  }
});

test('whatever is written into it, it is a form with its number, and nothing runs off its pages', async () => {
  const nasty = fc.oneof(
    fc.string({ maxLength: 60 }),
    fc.string({ unit: 'grapheme', maxLength: 60 }),
    fc.constantFrom(
      '',
      'ab\u0000c\u0007',
      'مرحبا بالعالم',
      '👩‍👩‍👧 ß',
      'x'.repeat(400),
      '\u202Eevil',
      'Ἂδωνις ᾯ',
      'मिठाई',
      '^XA^FD~',
    ),
  );
  await fc.assert(
    fc.asyncProperty(
      fc.constantFrom('cn22' as const, 'cn23' as const),
      fc.array(nasty, { minLength: 9, maxLength: 9 }),
      async (form, [a = '', b = '', c = '', d = '', e = '', f = '', g = '', h = '', i = '']) => {
        const of = paper({
          ...{ form, from: [a, b], to: [c, d], comments: e, explanation: f, importer: g, licence: h, signedBy: i },
          lines: [
            { ...line, what: a },
            { ...line, what: b },
          ],
        });
        const pdf = await customsPdf([of]);
        expect(infoOf(pdf).pages).toBe(1);
        expect(textOf(pdf).replace(/\s/g, '')).toContain('TW440000001US');
      },
    ),
    { numRuns: 25 },
  );
}, 120_000);
