import type { PrintedInvoice } from '@/core/invoice/printed';
import { type PrintedCredit, sumsOfCredit } from '@/core/refund/printed-credit';
import { headFacts, transferCode, transferFacts } from '@/core/words/invoice-wording';
import { wordsOf } from '@/core/words/words';
import {
  dayOf,
  facts,
  figureOf,
  leadingSums,
  letterhead,
  linesTable,
  numbered,
  passage,
  payerLines,
  sumOf,
  sumsFrom,
  total,
  wideRows,
} from './parts';
import { isolated } from './runs';
import { MARGIN, type Measure, type PictureSizes, paperOf, type SetDocument, Setter } from './setter';

/** Sets an invoice on pages. Pure: the same invoice and measure give the same marks. */
export function invoicePages(invoice: PrintedInvoice, measure: Measure, pictures: PictureSizes = {}): SetDocument {
  const words = wordsOf(invoice.locale);
  const paper = paperOf(invoice.locale);
  const set = new Setter(measure, paper, () => undefined);
  letterhead(set, { seller: invoice.seller, accent: invoice.accent, logo: pictures.logo });
  const name = `${words.invoice} ${invoice.number}`;
  facts(
    set,
    name,
    [...(invoice.title ? [invoice.title] : []), ...headFacts(invoice, words)],
    words.for,
    payerLines(invoice.payer),
  );
  linesTable(set, invoice, words);
  leadingSums(set, invoice, words);
  total(set, sumsFrom(set), words.total, sumOf(invoice.total, invoice));
  if (invoice.exempt) passage(set, '', words.exempt(invoice.exempt));
  passage(set, '', invoice.note, 'serif-italic', 11);
  const transfer = transferFacts(invoice, words);
  if (transfer.length > 0) transferPart(set, invoice, transfer);
  if (invoice.terms) passage(set, words.terms, invoice.terms.text, 'sans', 8.5);
  return {
    title: `${name}, ${invoice.seller.name}`,
    language: invoice.locale,
    ...paper,
    pages: numbered(set, `${isolated(invoice.seller.name)}, ${name}`, words),
  };
}

const CODE_WIDTH = 88;

/** Where to transfer to, and beside it what a banking app reads. */
function transferPart(set: Setter, invoice: PrintedInvoice, facts: readonly string[]): void {
  const words = wordsOf(invoice.locale);
  const code = transferCode(invoice, invoice.total);
  if (code) set.room(CODE_WIDTH + 40);
  const top = set.y;
  passage(set, words.transferTitle, facts.join('\n'));
  if (!code) return;
  const x = set.right - CODE_WIDTH;
  set.put({ kind: 'code', text: code, x, y: top + 12, width: CODE_WIDTH, says: words.payCode });
  set.y = Math.max(set.y, top + CODE_WIDTH + 16);
  set.figure(set.right, words.payCode, 'sans', 8, true);
  set.y += 14;
}

/** Sets a credit note on a page. */
export function creditPages(credit: PrintedCredit, measure: Measure, pictures: PictureSizes = {}): SetDocument {
  const { invoice } = credit;
  const words = wordsOf(invoice.locale);
  const paper = paperOf(invoice.locale);
  const set = new Setter(measure, paper, () => undefined);
  letterhead(set, { seller: invoice.seller, accent: invoice.accent, logo: pictures.logo });
  const name = `${words.creditNote} ${credit.number}`;
  facts(
    set,
    name,
    [
      words.issued(dayOf(credit.issuedOn, invoice.locale)),
      words.forInvoice(invoice.number),
      `${words.reason}: ${credit.reason}`,
      ...(invoice.seller.taxNumber ? [words.taxNumber(invoice.seller.taxNumber)] : []),
    ],
    words.for,
    payerLines(invoice.payer),
  );
  const lines = sumsOfCredit(credit);
  if (lines) {
    linesTable(set, lines, words);
    leadingSums(set, lines, words);
    total(set, sumsFrom(set), words.credited, sumOf(credit.amount, invoice));
    return creditDocument(set, credit);
  }
  wideRows(set, [
    [words.invoiceTotal(invoice.number), figureOf(invoice.total, invoice)],
    ...credit.taxes.map(
      (tax) =>
        [
          words.ofWhich([tax.name, tax.rate ? `${tax.rate} %` : ''].filter(Boolean).join(', ')),
          figureOf(tax.amount, invoice),
        ] as const,
    ),
  ]);
  total(set, MARGIN, words.credited, sumOf(credit.amount, invoice));
  return creditDocument(set, credit);
}

function creditDocument(set: Setter, { number, invoice }: PrintedCredit): SetDocument {
  const words = wordsOf(invoice.locale);
  const name = `${words.creditNote} ${number}`;
  return {
    title: `${name}, ${invoice.seller.name}`,
    language: invoice.locale,
    ...paperOf(invoice.locale),
    pages: numbered(set, `${isolated(invoice.seller.name)}, ${name}`, words),
  };
}
