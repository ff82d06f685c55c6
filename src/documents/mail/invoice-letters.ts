import type { PrintedInvoice } from '@/core/invoice/printed';
import type { PrintedCredit } from '@/core/refund/printed-credit';
import { howMuchText, sumRows, transferCode, transferFacts } from '@/core/words/invoice-wording';
import { wordsOf } from '@/core/words/words';
import { day, figure, type Letter, letter, lineLabel, type Row, sumText } from './letter';

/** When it is to be paid, in a sentence's end. */
function dueWords(invoice: PrintedInvoice): string {
  const words = wordsOf(invoice.locale);
  return invoice.dueOnReceipt ? words.dueOnReceiptWords : words.dueWords(day(invoice.dueOn, invoice.locale));
}

/** What an invoice's letter needs beside the invoice: what is still due, its link, the person's own words, the logo's address. */
export type InvoiceLetterWith = {
  readonly dueMinor: number;
  /** What was paid more than is owed; 0 for nothing. */
  readonly overMinor?: number;
  readonly link: string;
  readonly text?: string | undefined;
  readonly logo?: string | undefined;
};

/** What a banking app reads, as a picture that the invoice's page has. */
const codePicture = (invoice: PrintedInvoice, { dueMinor, link }: InvoiceLetterWith) =>
  transferCode(invoice, dueMinor) ? { address: `${link}/pay-code`, says: wordsOf(invoice.locale).payCode } : undefined;

function invoiceTable(invoice: PrintedInvoice): { rows: Row[]; total: Row } {
  const words = wordsOf(invoice.locale);
  const lines = invoice.lines.map((line) => ({
    label: lineLabel(line, invoice, `${line.what}, ${howMuchText(line, invoice, words)}`),
    value: figure(line.net, invoice),
  }));
  const sums = sumRows(invoice, words)
    .slice(1)
    .map(({ label, minor }) => ({ label, value: figure(minor, invoice) }));
  return { rows: [...lines, ...sums], total: { label: words.total, value: sumText(invoice.total, invoice) } };
}

/** The letter with which an invoice arrives. */
export function invoiceLetter(invoice: PrintedInvoice, given: InvoiceLetterWith, changed = false): Letter {
  const words = wordsOf(invoice.locale);
  const due = sumText(given.dueMinor, invoice);
  const isOpen = given.dueMinor > 0;
  const reference = invoice.reference ? `, “${invoice.reference}”` : '';
  const { rows, total } = invoiceTable(invoice);
  return letter({
    locale: invoice.locale,
    seller: invoice.seller,
    accent: invoice.accent,
    logo: given.logo,
    subject: isOpen
      ? words.invoiceSubject(invoice.number, invoice.seller.name, due)
      : words.nothingSubject(invoice.number, invoice.seller.name),
    lead: words.invoiceFor(invoice.number, invoice.payer.name),
    sum: isOpen ? due : '',
    under: isOpen ? `${dueWords(invoice)}${reference}` : words.nothingToPay,
    words: [
      given.text || (changed ? words.changedText : words.invoiceText),
      given.overMinor ? words.toYourCredit(sumText(given.overMinor, invoice)) : '',
      isOpen ? transferFacts(invoice, words).join('\n') : '',
    ],
    picture: codePicture(invoice, given),
    rows,
    total,
    button: { words: isOpen ? words.seeAndPay(due) : words.see, link: given.link },
    italic: invoice.note,
    last: `${words.attached} ${words.answerThis(invoice.seller.name)}`,
  });
}

/** A friendly word about what is still open. @param offset days from the due date, negative before it */
export function reminderLetter(invoice: PrintedInvoice, given: InvoiceLetterWith & { offset: number }): Letter {
  const words = wordsOf(invoice.locale);
  const due = sumText(given.dueMinor, invoice);
  const on = day(invoice.dueOn, invoice.locale);
  return letter({
    locale: invoice.locale,
    seller: invoice.seller,
    accent: invoice.accent,
    logo: given.logo,
    subject: words.reminderSubject(invoice.number, due),
    lead: words.invoiceFor(invoice.number, invoice.payer.name),
    sum: due,
    under: words.stillDue,
    words: [given.text || words.reminderText(given.offset, on), transferFacts(invoice, words).join('\n')],
    picture: codePicture(invoice, given),
    rows: [
      ...(given.dueMinor === invoice.total ? [] : [{ label: words.total, value: sumText(invoice.total, invoice) }]),
    ],
    total: { label: words.stillDue, value: due },
    button: { words: words.seeAndPay(due), link: given.link },
    last: `${words.attached} ${words.answerThis(invoice.seller.name)}`,
  });
}

/** One friendly word about several invoices of one customer that are still open; sums in minor units. */
export function remindersLetter(
  open: readonly { readonly printed: PrintedInvoice; readonly dueMinor: number; readonly link: string }[],
  text?: string,
): Letter {
  const [{ printed }] = open as readonly [(typeof open)[number]];
  const words = wordsOf(printed.locale);
  const isOne = open.every((one) => one.printed.currency === printed.currency);
  const sum = isOne
    ? sumText(
        open.reduce((minor, { dueMinor }) => minor + dueMinor, 0),
        printed,
      )
    : '';
  return letter({
    locale: printed.locale,
    seller: printed.seller,
    accent: printed.accent,
    subject: words.remindersSubject(open.length, printed.seller.name),
    lead: printed.payer.name,
    sum,
    under: words.stillDue,
    words: [text || words.remindersText],
    rows: open.map(({ printed: one, dueMinor, link }) => ({
      label: `${words.invoice} ${one.number}, ${dueWords(one)}`,
      value: sumText(dueMinor, one),
      link,
    })),
    ...(isOne ? { total: { label: words.stillDue, value: sum } } : {}),
    last: `${words.attachedAll} ${words.answerThis(printed.seller.name)}`,
  });
}

/** The letter that an invoice is cancelled. */
export function cancelledLetter(invoice: PrintedInvoice, given: InvoiceLetterWith): Letter {
  const words = wordsOf(invoice.locale);
  return letter({
    locale: invoice.locale,
    seller: invoice.seller,
    accent: invoice.accent,
    logo: given.logo,
    subject: words.cancelledSubject(invoice.number, invoice.seller.name),
    lead: words.invoiceFor(invoice.number, invoice.payer.name),
    sum: sumText(0, invoice),
    under: words.nothingToPay,
    words: [words.cancelledText(invoice.number), given.text ?? ''],
    rows: [],
    last: words.answerThis(invoice.seller.name),
  });
}

/** The letter with a credit note. */
export function creditLetter(credit: PrintedCredit, given: { link: string; logo?: string | undefined }): Letter {
  const { invoice } = credit;
  const words = wordsOf(invoice.locale);
  const sum = sumText(credit.amount, invoice);
  return letter({
    locale: invoice.locale,
    seller: invoice.seller,
    accent: invoice.accent,
    logo: given.logo,
    subject: words.creditSubject(credit.number, invoice.seller.name, sum),
    lead: words.creditOf(invoice.number),
    sum,
    under: credit.reason,
    words: [words.creditText(invoice.number, sum)],
    rows: credit.taxes.map((tax) => ({ label: words.ofWhich(tax.name), value: figure(tax.amount, invoice) })),
    total: { label: words.credited, value: sum },
    button: { words: words.see, link: given.link },
    last: words.attached,
  });
}

/** The letter that asks somebody by name to approve files. */
export function approvalLetter(
  invoice: PrintedInvoice,
  given: { readonly files: readonly string[]; readonly link: string; readonly logo?: string | undefined },
): Letter {
  const words = wordsOf(invoice.locale);
  return letter({
    locale: invoice.locale,
    seller: invoice.seller,
    accent: invoice.accent,
    logo: given.logo,
    subject: words.approvalSubject(invoice.number, invoice.seller.name),
    lead: words.invoiceFor(invoice.number, invoice.payer.name),
    sum: '',
    under: '',
    words: [words.approvalText(given.files.map((name) => `“${name}”`).join(', ')), words.approvalOwn],
    rows: [],
    button: { words: words.approvalSee, link: given.link },
    last: words.answerThis(invoice.seller.name),
  });
}

/** The answer to a customer's question. */
export function answerLetter(
  invoice: PrintedInvoice,
  given: { link: string; question: string; answer: string; logo?: string | undefined },
): Letter {
  const words = wordsOf(invoice.locale);
  return letter({
    locale: invoice.locale,
    seller: invoice.seller,
    accent: invoice.accent,
    logo: given.logo,
    subject: words.answerSubject(invoice.number),
    lead: words.answerSubject(invoice.number),
    sum: '',
    under: `“${given.question}”`,
    words: [given.answer],
    rows: [],
    button: { words: words.see, link: given.link },
    last: words.answerThis(invoice.seller.name),
  });
}
