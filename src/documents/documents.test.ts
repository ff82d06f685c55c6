import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { simpleParser } from 'mailparser';
import { describe, expect, test } from 'vitest';
import { calendarDate } from '@/core/dates/calendar-date';
import { eInvoiceOf } from '@/core/einvoice/of-invoice';
import { brokenRules } from '@/core/einvoice/rules';
import { completePrinted, type PrintedInvoice, type PrintedLine } from '@/core/invoice/printed';
import { printedReceipt } from '@/core/receipt/receipt';
import { wordsOf } from '@/core/words/words';
import { invoiceLetter } from './mail/invoice-letters';
import { paymentNotice, receiptLetter } from './mail/receipt-letters';
import { returnLetter } from './mail/return-letter';
import { invoicePdf, receiptPdf } from './pdf/draw';
import { readHybrid } from './pdf/embedded';
import { invoicePages } from './pdf/invoice-pages';
import { eInvoiceXml } from './ubl/write';
import { readInvoiceXml } from './xml/read-invoice';

const line = (what: string): PrintedLine => ({
  what,
  unit: 'hour',
  quantity: '3.5',
  unitPrice: '72.00',
  gross: 25_200,
  discount: 2_520,
  discountText: '10 %',
  net: 22_680,
  taxes: ['Sales tax'],
});
const invoice = (change: Partial<PrintedInvoice> = {}): PrintedInvoice =>
  completePrinted({
    number: '1187',
    currency: 'USD',
    locale: 'en-US',
    issuedOn: calendarDate('2026-11-03'),
    dueOn: calendarDate('2026-11-17'),
    dueOnReceipt: false,
    reference: '',
    note: '',
    seller: {
      name: 'Sallow Joinery',
      address: ['3 Mill Yard'],
      phone: '(206) 555-0101',
      email: 'b@sallow.example',
      website: '',
      taxNumber: '',
    },
    payer: { name: 'Marguerite Öystad', address: ['2 Tanner’s Steps'], email: 'm@post.example' },
    pricesIncludeTax: false,
    lines: [line('Closing the crack')],
    subtotal: 25_200,
    lineDiscounts: 2_520,
    discount: 0,
    discountText: '',
    taxes: [{ id: 't', name: 'Sales tax', rate: '8.25', base: 22_680, amount: 1_871 }],
    taxTotal: 1_871,
    total: 24_551,
    ...change,
  });
const receipt = printedReceipt(invoice(), {
  number: '2291',
  paidOn: calendarDate('2026-11-10'),
  amountMinor: 24_551,
  tipMinor: 0,
  stillDueMinor: 0,
  earlierMinor: 0,
  creditedMinor: 0,
  method: 'Corvid ·2208',
});

function textOf(pdf: Buffer): string {
  const file = join(mkdtempSync(join(tmpdir(), 'dahlia-pdf-')), 'x.pdf');
  writeFileSync(file, pdf);
  return execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' });
}

describe('the PDF, read back', () => {
  test('holds every figure and every letter, also those of other alphabets that the faces have', async () => {
    const text = textOf(
      await invoicePdf(
        invoice({ lines: [line('Žvýkačka, Łódź, ¾ size, Ñandú, Ωμέγα, Струна')], note: 'Bis Samstag – schön.' }),
      ),
    );
    for (const words of [
      'Invoice 1187',
      'Marguerite Öystad',
      'Žvýkačka, Łódź',
      'Ñandú',
      'Ωμέγα',
      'Струна',
      '3.5 h × 72.00',
      '226.80',
      '18.71',
      '$245.51',
      'schön',
    ]) {
      expect(text).toContain(words);
    }
  });

  test('names in any script are printed with their own letters, from right to left where they are written so', async () => {
    const names = [
      'محمد بن عبد الله',
      'شركة النور',
      'משה כהן',
      'Ελένη Παπαδοπούλου',
      'Наталія Ґрунтова',
      '王小明',
      'यशवंत श्रीवास्तव',
      'Zoë 🎻 Ødegård',
      'สมชาย',
      '김민수',
      'さくら',
      'Տիգրան',
      'ნინო',
    ];
    const seller = { ...invoice().seller, name: names[0] ?? '' };
    const payer = { ...invoice().payer, name: names[2] ?? '', address: names };
    const papers = [
      await invoicePdf(invoice({ seller, payer, lines: names.map((name) => line(name)) })),
      await receiptPdf({ ...receipt, seller, payer }),
    ];
    for (const paper of papers) {
      // Compatibility forms, and marks of direction around what is written from right to left, are the reader's.
      const text = textOf(paper)
        .normalize('NFKC')
        .replace(/[\u200e\u200f\u202a-\u202e]/g, '');
      for (const name of names) expect(text).toContain(name.normalize('NFKC'));
    }
  });

  test('marks that the library cannot place keep no paper from being drawn', async () => {
    for (const name of ['Ἂδωνις ᾯ', 'Ą̊́', 'x̣̂̄', 'กิ้่', 'क़्षि']) {
      const text = textOf(await invoicePdf(invoice({ lines: [line(`Bow for ${name}, new`)] })));
      expect(text).toContain('Bow for');
      expect(text).toContain('new');
    }
  });

  test('one drawn again, and after another, is the same to the letter', async () => {
    const again = () => invoicePdf(invoice({ lines: [line('Kerning: AVATAR To Ty 1,110.11')] }));
    const first = textOf(await again());
    await invoicePdf(invoice({ lines: [line('Other words, in the same faces')] }));
    expect(textOf(await again())).toBe(first);
    expect(first).toContain('AVATAR To Ty');
  });

  test('a receipt says what was paid, with which card', async () => {
    const text = textOf(await receiptPdf(receipt));
    for (const words of ['Receipt 2291', 'Corvid ·2208', '$245.51', 'Invoice 1187']) expect(text).toContain(words);
  });
});

describe('setting', () => {
  const wide = (text: string, _face: string, size: number) => text.length * size * 0.5;

  test('two hundred lines turn pages: nothing leaves the paper, and the total follows the last line', () => {
    const set = invoicePages(
      invoice({ lines: Array.from({ length: 200 }, (_, at) => line(`Line ${at} ${'long '.repeat(at % 30)}`)) }),
      wide,
    );
    expect(set.pages.length).toBeGreaterThan(5);
    for (const mark of set.pages.flat()) {
      expect(mark.y).toBeLessThan(set.height);
      expect(mark.x).toBeGreaterThanOrEqual(0);
      if (mark.kind === 'text')
        expect(mark.x + wide(mark.text, mark.face, mark.size)).toBeLessThanOrEqual(set.width - 40);
    }
    const words = set.pages.flat().flatMap((mark) => (mark.kind === 'text' ? [mark.text] : []));
    expect(words.filter((text) => text === 'What').length).toBe(
      set.pages.length - (set.pages.at(-1)?.some((m) => m.kind === 'text' && m.text === 'What') ? 0 : 1),
    );
    expect(words.indexOf('$245.51')).toBeGreaterThan(words.findLastIndex((text) => text.startsWith('Line 199')));
  });

  test('whatever the number of lines, the sums stand on one page with the total, and no page of lines lacks its headings', () => {
    for (let count = 1; count <= 90; count++) {
      const set = invoicePages(
        invoice({
          lines: Array.from({ length: count }, (_, at) => line(`Line ${at}`)),
          lineDiscounts: 2_520,
          discount: 1_000,
          discountText: '4 %',
        }),
        wide,
      );
      const pages = set.pages.map((marks) => marks.flatMap((mark) => (mark.kind === 'text' ? [mark.text] : [])));
      const last = pages.filter((words) => words.includes('$245.51'));
      expect(last, `${count} lines`).toHaveLength(1);
      for (const words of [wordsOf('en-US').sumOfLines, '18.71', wordsOf('en-US').total])
        expect(last[0], `${count} lines`).toContain(words);
      for (const words of pages)
        if (words.some((text) => text.startsWith('Line '))) expect(words, `${count} lines`).toContain('What');
    }
  });

  test('a word longer than the line is broken, not cut', () => {
    const word = 'x'.repeat(300);
    const set = invoicePages(invoice({ lines: [line(word)] }), wide);
    const parts = set.pages
      .flat()
      .flatMap((mark) => (mark.kind === 'text' && /^x+$/.test(mark.text) ? [mark.text] : []));
    expect(parts.join('')).toBe(word);
  });
});

describe('letters', () => {
  const hostile = '<script>alert(1)</script>" onload="x';

  test('what a business or customer writes stays text', () => {
    const letter = invoiceLetter(
      invoice({
        note: hostile,
        reference: hostile,
        lines: [line(hostile)],
        payer: { name: hostile, address: [], email: '' },
      }),
      { dueMinor: 24_551, link: 'http://x/i/y' },
    );
    expect(letter.html).not.toContain('<script');
    expect(letter.html).not.toContain('" onload');
    expect(letter.text).toContain(hostile);
  });

  test('both parts say what is due, until when, and where', async () => {
    const letter = invoiceLetter(invoice(), { dueMinor: 24_551, link: 'http://localhost/i/abc' });
    for (const part of [letter.text, letter.html]) {
      for (const words of ['$245.51', 'November 17, 2026', 'http://localhost/i/abc', '3.5 h × 72.00'])
        expect(part).toContain(words);
    }
    // Read as a mail program reads it.
    const parsed = await simpleParser(`Content-Type: text/html; charset=utf-8\n\n${letter.html}`);
    expect(parsed.text).toContain('See and pay $245.51');
  });

  test('receipt and notice name the receipt and the card', () => {
    expect(receiptLetter(receipt, 'http://x').text).toContain('Corvid ·2208');
    expect(paymentNotice(receipt, 'http://x').subject).toBe('Marguerite Öystad paid $245.51, invoice 1187');
  });
});

test.each([
  ['en-US', true, true, 'See it, and the label:', 'Strings: 1'],
  ['en-US', true, false, 'See it:', 'Strings: 1'],
  ['de-DE', false, false, 'Ansehen:', 'Strings: 1'],
  ['fr-FR', false, false, 'Le voir\u00a0:', 'Strings\u00a0: 1'],
])(
  'a letter about a return (%s, allowed %s) names a label only where there is one',
  (locale, allowed, hasLabel, see, row) => {
    const { text } = returnLetter({
      ...{ locale, allowed, hasLabel, accent: '', answer: '', link: 'https://pay.example/i/abc' },
      seller: invoice().seller,
      lines: [{ what: 'Strings', quantity: '1' }],
    });
    expect(text.split('\n')).toEqual(expect.arrayContaining([see, row]));
  },
);

describe('a hybrid invoice', () => {
  const place = { lines: ['Оружейный 3'], city: '大阪', region: '', postalCode: '540-0002', country: 'DE' };
  const whole = invoice({
    currency: 'EUR',
    seller: { ...invoice().seller, taxNumber: 'DE 812 345 678', country: 'DE', place },
    payer: { ...invoice().payer, name: 'مؤسسة الكمان', place },
  });

  test('is PDF/A-3 with the e-invoice inside, which another program takes out and reads as what was put in', async () => {
    const of = eInvoiceOf(whole);
    expect(brokenRules(of)).toEqual([]);
    const pdf = await invoicePdf(whole, {}, Buffer.from(eInvoiceXml(of)));
    const folder = mkdtempSync(join(tmpdir(), 'dahlia-'));
    const file = join(folder, 'hybrid.pdf');
    writeFileSync(file, pdf);
    const facts = execFileSync('pdfinfo', ['-meta', file], { encoding: 'utf8' });
    expect(facts).toContain('<pdfaid:part>3</pdfaid:part>');
    expect(facts).toContain('<pdfaid:conformance>B</pdfaid:conformance>');
    execFileSync('pdfdetach', ['-saveall', '-o', folder, file]);
    expect(readInvoiceXml(readFileSync(join(folder, 'invoice.xml'), 'utf8'))).toEqual(of);
    expect(await readHybrid(pdf)).toEqual(of);
    // What PDF/A-3 wants of an attached file: its relation to the document, and the list of such files in the catalogue.
    const text = pdf.toString('latin1');
    for (const wanted of ['/AFRelationship /Alternative', '/AF [', '/Subtype /application#2Fxml', '/GTS_PDFA1'])
      expect(text).toContain(wanted);
    expect(await readHybrid(await invoicePdf(whole))).toBeNull();
    expect(await readHybrid(Buffer.from('%PDF-1.7 broken'))).toBeNull();
  });
});
