import type { PrintedCredit } from '@/core/invoice/credit';
import type { PrintedInvoice } from '@/core/invoice/printed';
import { headFacts, transferFacts } from '@/core/words/invoice-wording';
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
  if (transfer.length > 0) passage(set, words.transferTitle, transfer.join('\n'));
  if (invoice.terms) passage(set, words.terms, invoice.terms.text, 'sans', 8.5);
  return {
    title: `${name}, ${invoice.seller.name}`,
    language: invoice.locale,
    ...paper,
    pages: numbered(set, `${isolated(invoice.seller.name)}, ${name}`, words),
  };
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
  return {
    title: `${name}, ${invoice.seller.name}`,
    language: invoice.locale,
    ...paper,
    pages: numbered(set, `${isolated(invoice.seller.name)}, ${name}`, words),
  };
}
