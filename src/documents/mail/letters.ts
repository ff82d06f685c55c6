import type { CalendarDate } from '@/core/dates/calendar-date';
import { longDate } from '@/core/dates/date-text';
import type { PrintedCredit } from '@/core/invoice/credit';
import type { PrintedInvoice, PrintedLine, Seller } from '@/core/invoice/printed';
import { money } from '@/core/money/money';
import { figureText, moneyText } from '@/core/money/money-text';
import type { PrintedReceipt } from '@/core/receipt/receipt';
import { type GiftLetter, giftSum } from '@/core/statement/gifts';
import type { Statement } from '@/core/statement/statement';
import { howMuchText, sumRows, transferFacts } from '@/core/words/invoice-wording';
import { laterText } from '@/core/words/plan-wording';
import { receiptRows } from '@/core/words/receipt-wording';
import { wordsOf } from '@/core/words/words';
import { html, joined, type Raw } from '../html';
import { mailPage, styleOf } from './layout';

/** What a letter says, in both parts. */
export type Letter = { readonly subject: string; readonly text: string; readonly html: string };

type Written = { readonly currency: string; readonly locale: string };

const sumText = (minor: number | bigint, of: Written): string =>
  moneyText(money(BigInt(minor), of.currency), of.locale);
const figure = (minor: number, of: Written): string => figureText(money(BigInt(minor), of.currency), of.locale);

const houseFoot = (seller: Seller): string =>
  [seller.name, ...seller.address, seller.phone, seller.website].filter(Boolean).join(' · ');

/** A row of a letter's table; `link` is where its label leads. */
export type Row = { readonly label: string; readonly value: string; readonly link?: string };

/** One letter in our one form: who it is from, a line, a leading sum, words, a table, a button, a last line. */
export function letter(of: {
  readonly locale: string;
  readonly seller: Seller;
  readonly accent: string;
  readonly logo?: string | undefined;
  readonly subject: string;
  readonly lead: string;
  readonly sum: string;
  readonly under: string;
  readonly words: readonly string[];
  readonly rows: readonly Row[];
  readonly total?: Row;
  readonly button?: { readonly words: string; readonly link: string };
  readonly italic?: string;
  readonly last: string;
  readonly foot?: string;
}): Letter {
  const style = styleOf(of.accent);
  const paragraphs = of.words.flatMap((text) => text.split(/\n{2,}/)).filter((text) => text.trim());
  const row = ({ label, value, link }: Row): Raw =>
    html`<tr><td style="${style.cell}">${link ? html`<a href="${link}" style="color:#241A26">${label}</a>` : label}</td><td style="${style.number}">${value}</td></tr>`;
  const total = of.total
    ? html`<tr><td style="${style.total}">${of.total.label}</td><td style="${style.total};text-align:right;white-space:nowrap">${of.total.value}</td></tr>`
    : '';
  const table =
    of.rows.length > 0 || of.total
      ? html`<table role="presentation" width="100%" cellpadding="0" cellspacing="0" style="margin:20px 0 24px;border-top:1px solid #241A26">${joined(of.rows.map(row))}${total}</table>`
      : '';
  const body = html`
<p style="${style.soft}">${of.lead}</p>
<p style="${style.sum}">${of.sum}</p>
<p style="${style.soft}">${of.under}</p>
${joined(paragraphs.map((text) => html`<p style="${style.text};margin-top:16px;white-space:pre-line">${text}</p>`))}
${table}
${of.button ? html`<p style="margin:14px 0 20px"><a href="${of.button.link}" style="${style.button}">${of.button.words}</a></p>` : ''}
${of.italic ? html`<p style="${style.text};font-style:italic;white-space:pre-line">${of.italic}</p>` : ''}
<p style="${style.soft}">${of.last}</p>`;
  const text = [
    of.lead,
    [of.sum, of.under].filter(Boolean).join(', '),
    '',
    ...paragraphs.flatMap((words) => [words, '']),
    ...[...of.rows, ...(of.total ? [of.total] : [])].flatMap(({ label, value, link }) => [
      `${label}: ${value}`,
      ...(link ? [link] : []),
    ]),
    ...(of.button ? ['', `${of.button.words}:`, of.button.link] : []),
    ...(of.italic ? ['', of.italic] : []),
    '',
    of.last,
    of.foot ?? houseFoot(of.seller),
  ].join('\n');
  const preview = [of.sum, of.under].filter(Boolean).join(', ');
  return {
    subject: of.subject,
    text,
    html: mailPage({
      language: of.locale.slice(0, 2),
      title: of.subject,
      preview,
      house: of.seller.name,
      logo: of.logo,
      accent: of.accent,
      body,
      foot: of.foot ?? houseFoot(of.seller),
    }),
  };
}

const day = (date: string, locale: string): string => longDate(date as CalendarDate, locale);

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

/** A line with what is off it, so that its figure is understood. */
function lineLabel(line: PrintedLine, of: Written, label: string): string {
  const words = wordsOf(of.locale);
  const off = line.discount > 0 ? words.less(line.discountText || words.aDiscount, figure(line.discount, of)) : '';
  return [label, off].filter(Boolean).join(', ');
}

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

/** The letter with which a receipt arrives. */
export function receiptLetter(receipt: PrintedReceipt, link: string): Letter {
  const words = wordsOf(receipt.locale);
  const paid = sumText(receipt.amount + (receipt.tip ?? 0), receipt);
  const orderEnd = [
    { label: words.tip, minor: receipt.tip ?? 0 },
    { label: words.stillDue, minor: receipt.stillDue },
  ].filter(({ minor }) => minor > 0);
  return letter({
    locale: receipt.locale,
    seller: receipt.seller,
    accent: receipt.accent ?? '#6B2451',
    subject: words.receiptSubject(receipt.number, receipt.seller.name, paid),
    lead: words.receiptFor(receipt.number, receipt.payer.name),
    sum: paid,
    under: words.paidWithThanks,
    words: receipt.order?.later ? [laterText(receipt.order.later, receipt)] : [],
    rows: [
      { label: words.paidOn, value: day(receipt.paidOn, receipt.locale) },
      { label: words.with, value: receipt.method },
      ...(receipt.order ? [{ label: words.offer.order, value: receipt.order.reference }] : []),
      ...(receipt.order && receipt.invoiceNumber ? [{ label: words.invoice, value: receipt.invoiceNumber }] : []),
      ...(receipt.ownReference ? [{ label: words.offer.ourReference, value: receipt.ownReference }] : []),
      ...(receipt.order?.sums.lines ?? []).map((line) => ({
        label: lineLabel(line, receipt, line.quantity === '1' ? line.what : `${line.quantity} × ${line.what}`),
        value: figure(line.net, receipt),
      })),
      ...(receipt.order ? sumRows(receipt.order.sums, words).slice(1) : [])
        .filter(({ minor }) => minor !== 0)
        .map(({ label, minor }) => ({ label, value: figure(minor, receipt) })),
      ...(receipt.order?.answers ?? []).map(({ label, text }) => ({ label, value: text })),
      ...(receipt.order ? orderEnd : receiptRows(receipt, words)).map(({ label, minor }) => ({
        label,
        value: figure(minor, receipt),
      })),
    ],
    total: { label: words.paidSum, value: paid },
    button: { words: receipt.invoiceNumber ? words.see : words.offer.order, link },
    last: words.attached,
  });
}

/** The letter that a receipt does not count: the payment was written down by mistake. */
export function takenBackLetter(receipt: PrintedReceipt, reason: string, dueMinor: number, link: string): Letter {
  const words = wordsOf(receipt.locale);
  const paid = sumText(receipt.amount, receipt);
  const due = sumText(dueMinor, receipt);
  return letter({
    locale: receipt.locale,
    seller: receipt.seller,
    accent: receipt.accent ?? '#6B2451',
    subject: words.takenBackSubject(receipt.number, receipt.seller.name),
    lead: words.receiptFor(receipt.number, receipt.payer.name),
    sum: '',
    under: '',
    words: [words.takenBackText(paid, day(receipt.paidOn, receipt.locale), receipt.invoiceNumber), reason],
    rows: [],
    total: { label: words.stillDue, value: due },
    button: { words: words.seeAndPay(due), link },
    last: words.answerThis(receipt.seller.name),
  });
}

/** The letter with which money that is given back is told. @param card as the payer knows it */
export function refundLetter(receipt: PrintedReceipt, refundedMinor: number, card: string, link: string): Letter {
  const words = wordsOf(receipt.locale);
  const sum = sumText(refundedMinor, receipt);
  return letter({
    locale: receipt.locale,
    seller: receipt.seller,
    accent: receipt.accent ?? '#6B2451',
    subject: words.offer.refundSubject(receipt.seller.name, sum),
    lead: words.receiptFor(receipt.number, receipt.payer.name),
    sum,
    under: '',
    words: [words.offer.refundText(sum, card)],
    rows: [],
    button: { words: words.offer.order, link },
    last: words.answerThis(receipt.seller.name),
  });
}

/** A request to pay what an offer asks for, with some of it filled in already. */
export function requestLetter(of: {
  readonly locale: string;
  readonly seller: Seller;
  readonly accent: string;
  readonly title: string;
  readonly toName: string;
  readonly sum: string;
  readonly text: string;
  readonly link: string;
}): Letter {
  const words = wordsOf(of.locale);
  return letter({
    locale: of.locale,
    seller: of.seller,
    accent: of.accent,
    subject: words.offer.requestSubject(of.seller.name, of.title),
    lead: words.offer.filledFor(of.toName),
    sum: of.sum || of.title,
    under: of.sum ? of.title : '',
    words: [of.text || words.offer.requestText],
    rows: [],
    button: { words: words.offer.seeAndPay, link: of.link },
    last: words.answerThis(of.seller.name),
  });
}

/** The note with which the business learns that an order was paid. @param link the offer's sheet */
export function orderNotice(receipt: PrintedReceipt, offer: string, link: string): Letter {
  const house = { currency: receipt.currency, locale: 'en-US' };
  const paid = sumText(receipt.amount + (receipt.tip ?? 0), house);
  const reference = receipt.order?.reference ?? '';
  return notice({
    seller: receipt.seller,
    subject: `${receipt.payer.name} paid ${paid}, ${offer}`,
    lead: `${offer}, order ${reference}, ${receipt.payer.name}`,
    sum: `${paid} came in`,
    words: [
      ...(receipt.order?.sums.lines ?? []).map((line) => `${line.quantity} × ${line.what}`),
      `With ${receipt.method}, receipt ${receipt.number}.`,
    ].join('\n'),
    link,
    open: 'Open it',
    foot: 'Sent to you by Dahlia, because somebody paid.',
  });
}

/** A customer's statement of account. */
export function statementLetter(statement: Statement, text: string): Letter {
  const words = wordsOf(statement.locale);
  const sum = sumText(statement.closingMinor, statement);
  return letter({
    locale: statement.locale,
    seller: statement.seller,
    accent: statement.accent,
    subject: words.statementSubject(statement.seller.name),
    lead: `${words.statement}, ${words.period(day(statement.from, statement.locale), day(statement.to, statement.locale))}`,
    sum,
    under: words.closingBalance,
    words: [text || words.statementText],
    rows: [],
    last: words.answerThis(statement.seller.name),
  });
}

/** The letter with which a donor gets all gifts of a year. */
export function giftMail(gifts: GiftLetter): Letter {
  const words = wordsOf(gifts.locale);
  const name = words.offer.yearLetter(String(gifts.year));
  return letter({
    locale: gifts.locale,
    seller: gifts.seller,
    accent: gifts.accent,
    subject: `${name}, ${gifts.seller.name}`,
    lead: name,
    sum: sumText(giftSum(gifts), gifts),
    under: gifts.payer.name,
    words: [words.offer.yearLetterText],
    rows: [],
    last: words.answerThis(gifts.seller.name),
  });
}

/** The note with which the business learns that an invoice was paid. @param link the invoice's sheet */
export function paymentNotice(receipt: PrintedReceipt, link: string): Letter {
  const house = { currency: receipt.currency, locale: 'en-US' };
  const paid = sumText(receipt.amount, house);
  const still = receipt.stillDue > 0 ? `${sumText(receipt.stillDue, house)} is still due.` : 'Nothing is due any more.';
  const tip = receipt.tip ? ` The tip is ${sumText(receipt.tip, house)}.` : '';
  return notice({
    seller: receipt.seller,
    subject: `${receipt.payer.name} paid ${paid}, invoice ${receipt.invoiceNumber}`,
    lead: `Invoice ${receipt.invoiceNumber}, ${receipt.payer.name}`,
    sum: `${paid} came in`,
    words: `With ${receipt.method}, receipt ${receipt.number}. ${still}${tip}`,
    link,
    foot: 'Sent to you by Dahlia, because your customer paid.',
  });
}

/** A note to the business about something its customer did. */
export function notice(of: {
  seller: Seller;
  subject: string;
  lead: string;
  sum: string;
  words: string;
  link: string;
  /** What the button says. */
  open?: string;
  foot: string;
}): Letter {
  return letter({
    locale: 'en',
    seller: of.seller,
    accent: '#6B2451',
    subject: of.subject,
    lead: of.lead,
    sum: of.sum,
    under: '',
    words: [of.words],
    rows: [],
    button: { words: of.open ?? 'Open the invoice', link: of.link },
    last: '',
    foot: of.foot,
  });
}
