import type { ReceiptStyle } from '@/core/business/business';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { longDate } from '@/core/dates/date-text';
import type { PrintedCredit } from '@/core/invoice/credit';
import type { PrintedInvoice, PrintedSums, Seller } from '@/core/invoice/printed';
import { headFacts, howMuchText, sumRows, transferFacts, underLine } from '@/core/invoice/wording';
import { money } from '@/core/money/money';
import { figureText, moneyText } from '@/core/money/money-text';
import type { PrintedReceipt } from '@/core/payment/receipt';
import type { AuthorisationPaper } from '@/core/plan/authorisation-paper';
import { type GiftLetter, giftSum } from '@/core/statement/gifts';
import type { Statement } from '@/core/statement/statement';
import { type Words, wordsOf } from '@/core/words/words';
import {
  type Face,
  MARGIN,
  type Measure,
  type Page,
  type PictureSize,
  type PictureSizes,
  paperOf,
  type SetDocument,
  Setter,
} from './setter';

/** Who the document is from, with what it looks like. */
type House = { readonly seller: Seller; readonly accent?: string; readonly logo?: PictureSize | undefined };

const LOGO_HEIGHT = 42;
const LOGO_WIDTH = 220;

function letterhead(set: Setter, { seller, accent, logo }: House): void {
  if (logo) {
    const scale = Math.min(LOGO_HEIGHT / logo.height, LOGO_WIDTH / logo.width);
    const [width, height] = [logo.width * scale, logo.height * scale];
    set.put({ kind: 'picture', name: 'logo', x: MARGIN, y: set.y, width, height, says: seller.name });
    set.y += height + 7;
  }
  set.text(MARGIN, seller.name, 'serif-bold', 15, false, accent ? { colour: accent } : {});
  set.y += 21;
  const contact = [...seller.address, seller.phone, seller.email, seller.website].filter(Boolean).join(' · ');
  for (const line of set.wrapped(contact, 'sans', 8.5, set.right - MARGIN)) {
    set.text(MARGIN, line, 'sans', 8.5, true);
    set.y += 12;
  }
  set.y += 4;
  set.rule(MARGIN, set.right - MARGIN, 1.6);
  set.y += 2.6;
  set.rule(MARGIN, set.right - MARGIN, 0.6);
  set.y += 26;
}

function lines(
  set: Setter,
  x: number,
  list: readonly string[],
  face: Face,
  size: number,
  step: number,
  width: number,
): void {
  for (const line of list.flatMap((text) => set.wrapped(text, face, size, width))) {
    set.text(x, line, face, size, face === 'sans');
    set.y += step;
  }
}

function facts(set: Setter, heading: string, left: readonly string[], label: string, right: readonly string[]): void {
  const top = set.y;
  const middle = MARGIN + (set.right - MARGIN) * 0.56;
  for (const line of set.wrapped(heading, 'serif-medium', 22, middle - MARGIN - 16)) {
    set.text(MARGIN, line, 'serif-medium', 22, false, { role: 'H1' });
    set.y += 26;
  }
  set.y += 4;
  lines(set, MARGIN, left, 'sans', 9.5, 14, middle - MARGIN - 16);
  const leftEnd = set.y;
  set.y = top + 4;
  lines(set, middle, [label], 'sans', 8.5, 14, set.right - middle);
  const [name, ...rest] = right;
  lines(set, middle, name ? [name] : [], 'serif-medium', 12, 16, set.right - middle);
  lines(set, middle, rest, 'sans', 9.5, 13.5, set.right - middle);
  set.y = Math.max(leftEnd, set.y) + 22;
}

function total(set: Setter, from: number, label: string, figure: string): void {
  set.room(40);
  set.rule(from, set.right - from);
  set.y += 7;
  set.text(from, label, 'serif-bold', 13);
  set.figure(set.right, figure, 'serif-bold', 13);
  set.y += 20;
  set.rule(from, set.right - from);
  set.y += 2.4;
  set.rule(from, set.right - from);
  set.y += 24;
}

function numbered(set: Setter, foot: string, words: Words): Page[] {
  return set.pages.map((marks, at) => {
    const y = set.paper.height - 46;
    const soft = { kind: 'text' as const, y, face: 'sans' as const, size: 8, soft: true };
    const page = words.pageOf(at + 1, set.pages.length);
    return [
      ...marks,
      { ...soft, x: MARGIN, text: foot },
      ...(set.pages.length > 1 ? [{ ...soft, x: set.right - set.measure(page, 'sans', 8), text: page }] : []),
    ];
  });
}

/** Text below the totals, with its heading: turned over the page line by line. */
function passage(set: Setter, heading: string, text: string, face: Face = 'sans', size = 9.5): void {
  if (!text.trim()) return;
  const list = set.wrapped(text, face, size, set.right - MARGIN);
  set.room(heading ? 44 : 15);
  set.y += 8;
  if (heading) {
    set.text(MARGIN, heading, 'serif-bold', 12, false, { role: 'H2' });
    set.y += 18;
  }
  for (const line of list) {
    set.room(size + 4.5);
    set.text(MARGIN, line, face, size);
    set.y += size + 4.5;
  }
}

const figureOf = (minor: number | bigint, of: { currency: string; locale: string }) =>
  figureText(money(BigInt(minor), of.currency), of.locale);
const sumOf = (minor: number | bigint, of: { currency: string; locale: string }) =>
  moneyText(money(BigInt(minor), of.currency), of.locale);
const dayOf = (date: string, locale: string) => longDate(date as CalendarDate, locale);
const payerLines = (payer: PrintedInvoice['payer']) => [payer.name, ...payer.address, payer.email].filter(Boolean);

/** Draws the table's lines, its heading again on every page. */
function linesTable(set: Setter, invoice: PrintedSums, words: Words): void {
  const { right } = set;
  const howAt = right - 92;
  const whatWidth = howAt - 118 - MARGIN;
  const head = () => {
    set.text(MARGIN, words.what, 'sans', 8.5, true);
    set.figure(howAt, words.howMuch, 'sans', 8.5, true);
    set.figure(right, words.amount, 'sans', 8.5, true);
    set.y += 14;
    set.rule(MARGIN, right - MARGIN);
    set.y += 7;
  };
  set.room(80);
  head();
  set.onTurn = head;
  for (const line of invoice.lines) {
    const what = set.wrapped(line.what, 'serif', 11, whatWidth);
    const under = [line.note ?? '', underLine(line, invoice, words)]
      .filter(Boolean)
      .flatMap((text) => set.wrapped(text, 'sans', 8.5, whatWidth));
    // A line stays whole on its page, unless it alone is longer than one.
    set.room(Math.min(what.length * 15 + under.length * 12 + 12, 480));
    const top = set.y;
    set.figure(howAt, howMuchText(line, invoice, words), 'serif', 11);
    set.figure(right, figureOf(line.net, invoice), 'serif', 11);
    for (const part of what) {
      set.room(15);
      set.text(MARGIN, part, 'serif', 11);
      set.y += 15;
    }
    if (set.y > top) set.y = Math.max(set.y, top + 15);
    for (const part of under) {
      set.room(12);
      set.text(MARGIN, part, 'sans', 8.5, true);
      set.y += 12;
    }
    set.y += 4;
    set.rule(MARGIN, right - MARGIN, 0.35);
    set.y += 6;
  }
  set.onTurn = () => undefined;
}

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
    pages: numbered(set, `${invoice.seller.name}, ${name}`, words),
  };
}

/** Where the column of sums begins. */
const sumsFrom = (set: Setter): number => MARGIN + (set.right - MARGIN) * 0.5;

/** Draws all that leads from the lines to the total. */
function leadingSums(set: Setter, invoice: PrintedSums, words: Words): void {
  set.y += 6;
  const rows = sumRows(invoice, words).map((row) => ({
    ...row,
    labels: set.wrapped(row.label, 'serif', 11, set.right - sumsFrom(set) - 84),
  }));
  // All that leads to the total stays together with it on one page.
  set.room(
    Math.min(
      rows.reduce((height, row) => height + row.labels.length * 15 + 2, 60),
      560,
    ),
  );
  for (const { labels, minor } of rows) {
    set.figure(set.right, figureOf(minor, invoice), 'serif', 11);
    for (const label of labels) {
      set.text(sumsFrom(set), label, 'serif', 11);
      set.y += 15;
    }
    set.y += 2;
  }
  set.y += 3;
}

/** Draws rows of a label and a figure over the whole width. */
function wideRows(set: Setter, rows: readonly (readonly [string, string])[]): void {
  for (const [label, figure] of rows) {
    const labels = set.wrapped(label, 'serif', 11.5, set.right - MARGIN - 110);
    set.room(labels.length * 16 + 2);
    set.figure(set.right, figure, 'serif', 11.5);
    for (const part of labels) {
      set.text(MARGIN, part, 'serif', 11.5);
      set.y += 16;
    }
    set.y += 2;
  }
  set.y += 6;
}

/** What was bought or given, with the answers that the business wants on the receipt. */
function orderedPart(
  set: Setter,
  receipt: PrintedReceipt,
  order: NonNullable<PrintedReceipt['order']>,
  words: Words,
): void {
  linesTable(set, order.sums, words);
  leadingSums(set, order.sums, words);
  if (receipt.tip)
    wideRows(set, [
      [words.total, figureOf(order.sums.total, receipt)],
      [words.tip, figureOf(receipt.tip, receipt)],
    ]);
  if (order.sums.exempt) passage(set, '', words.exempt(order.sums.exempt));
  for (const { label, text } of order.answers) passage(set, '', `${label}: ${text}`);
  set.y += 8;
}

/** Points in a millimetre. */
const MM = 72 / 25.4;

/** Who signs, with signature and seal where the business wants them; in one place, the signature lies over the seal. */
function signed(set: Setter, style: Partial<ReceiptStyle>, pictures: PictureSizes, says: string): void {
  const width = set.right - MARGIN;
  const placed = (['seal', 'signature'] as const).flatMap((name) => {
    const [stamp, size] = [style[name], pictures[name]];
    if (!stamp || !size) return [];
    const scale = Math.min((stamp.heightMm * MM) / size.height, width / size.width);
    return [{ name, at: stamp.at, width: size.width * scale, height: size.height * scale }];
  });
  if (placed.length > 0) {
    const height = Math.max(...placed.map((one) => one.height));
    set.y += 6;
    set.room(height + 30);
    for (const one of placed) {
      const share = { left: 0, middle: 0.5, right: 1 }[one.at];
      const x = MARGIN + (width - one.width) * share;
      set.put({ kind: 'picture', ...one, x, y: set.y + height - one.height, says: `${says}, ${one.name}` });
    }
    set.y += height + 4;
  }
  if (style.signer) passage(set, '', style.signer, 'serif', 11);
}

/** Sets a receipt on a page. */
export function receiptPages(receipt: PrintedReceipt, measure: Measure, pictures: PictureSizes = {}): SetDocument {
  const words = wordsOf(receipt.locale);
  const paper = paperOf(receipt.locale);
  const set = new Setter(measure, paper, () => undefined);
  letterhead(set, {
    seller: receipt.seller,
    ...(receipt.accent ? { accent: receipt.accent } : {}),
    logo: pictures.logo,
  });
  const name = `${words.receipt} ${receipt.number}`;
  facts(
    set,
    name,
    [
      `${words.paidOn} ${dayOf(receipt.paidOn, receipt.locale)}`,
      words.paidWith(receipt.method),
      ...(receipt.order ? [words.offer.orderOf(receipt.order.reference)] : []),
      ...(receipt.ownReference ? [`${words.offer.ourReference}: ${receipt.ownReference}`] : []),
      ...(receipt.seller.taxNumber ? [words.taxNumber(receipt.seller.taxNumber)] : []),
      ...(receipt.style?.registration ? receipt.style.registration.split('\n') : []),
    ],
    words.from,
    payerLines(receipt.payer),
  );
  if (receipt.order) orderedPart(set, receipt, receipt.order, words);
  else
    wideRows(set, [
      [words.invoiceTotal(receipt.invoiceNumber), figureOf(receipt.invoiceTotal, receipt)],
      ...receipt.taxes.map(
        (tax) => [words.ofWhich(`${tax.name}, ${tax.rate} %`), figureOf(tax.amount, receipt)] as const,
      ),
      ...(receipt.tip ? [[words.tip, figureOf(receipt.tip, receipt)] as const] : []),
      ...(receipt.stillDue > 0 ? [[words.stillDue, figureOf(receipt.stillDue, receipt)] as const] : []),
    ]);
  total(set, MARGIN, words.paidSum, sumOf(receipt.amount + (receipt.tip ?? 0), receipt));
  set.text(MARGIN, words.thanks, 'serif-italic', 11.5);
  set.y += 20;
  if (receipt.order?.donation && receipt.style?.statement) passage(set, '', receipt.style.statement);
  if (receipt.style) signed(set, receipt.style, pictures, receipt.seller.name);
  return {
    title: `${name}, ${receipt.seller.name}`,
    language: receipt.locale,
    ...paper,
    pages: numbered(set, `${receipt.seller.name}, ${name}`, words),
  };
}

/** Sets the letter over a year's gifts on pages. */
export function giftPages(letter: GiftLetter, measure: Measure, pictures: PictureSizes = {}): SetDocument {
  const { locale, seller, style } = letter;
  const words = wordsOf(locale);
  const paper = paperOf(locale);
  const set = new Setter(measure, paper, () => undefined);
  letterhead(set, { seller, accent: letter.accent, logo: pictures.logo });
  const name = words.offer.yearLetter(String(letter.year));
  facts(
    set,
    name,
    [
      ...(seller.taxNumber ? [words.taxNumber(seller.taxNumber)] : []),
      ...(style.registration ? style.registration.split('\n') : []),
    ],
    words.from,
    payerLines(letter.payer),
  );
  wideRows(
    set,
    letter.gifts.map(
      (gift) =>
        [
          `${dayOf(gift.on, locale)}, ${gift.what}, ${words.receipt.toLowerCase()} ${gift.receipt}`,
          figureOf(gift.minor, letter),
        ] as const,
    ),
  );
  total(set, MARGIN, words.total, sumOf(giftSum(letter), letter));
  if (style.statement) passage(set, '', style.statement);
  signed(set, style, pictures, seller.name);
  return {
    title: `${name}, ${seller.name}`,
    language: locale,
    ...paper,
    pages: numbered(set, `${seller.name}, ${name}`, words),
  };
}

/** Sets an authorisation on pages: to be signed, or as it was given, with the signature where there is one. */
export function authorisationPages(
  paper: AuthorisationPaper,
  measure: Measure,
  pictures: PictureSizes = {},
): SetDocument {
  const { locale, seller } = paper;
  const words = wordsOf(locale);
  const size = paperOf(locale);
  const set = new Setter(measure, size, () => undefined);
  letterhead(set, { seller, accent: paper.accent, logo: pictures.logo });
  const name = words.plan.authorisation;
  facts(set, name, seller.taxNumber ? [words.taxNumber(seller.taxNumber)] : [], words.from, payerLines(paper.payer));
  passage(set, '', paper.text, 'serif', 12);
  set.y += 12;
  wideRows(
    set,
    paper.charges.map(({ on, minor }) => [dayOf(on, locale), figureOf(minor, paper)] as const),
  );
  if (pictures.signature) {
    const stamp = { fileId: '', heightMm: 22, at: 'left' } as const;
    signed(set, { signature: stamp }, { signature: pictures.signature }, paper.payer.name);
  }
  for (const line of paper.given) passage(set, '', line);
  if (paper.withdrawn) passage(set, '', paper.withdrawn, 'sans', 11);
  if (paper.given.length === 0) {
    set.room(90);
    set.y += 60;
    set.rule(MARGIN, (set.right - MARGIN) * 0.6);
    set.y += 6;
    set.text(MARGIN, words.plan.signHere, 'sans', 8.5, true);
  }
  return {
    title: `${name}, ${paper.payer.name}`,
    language: locale,
    ...size,
    pages: numbered(set, `${seller.name}, ${name}`, words),
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
    pages: numbered(set, `${invoice.seller.name}, ${name}`, words),
  };
}

/** Sets a customer's statement of account on pages. */
export function statementPages(statement: Statement, measure: Measure, pictures: PictureSizes = {}): SetDocument {
  const { locale } = statement;
  const words = wordsOf(locale);
  const paper = paperOf(locale);
  const set = new Setter(measure, paper, () => undefined);
  letterhead(set, { seller: statement.seller, accent: statement.accent, logo: pictures.logo });
  facts(
    set,
    words.statement,
    [words.period(dayOf(statement.from, locale), dayOf(statement.to, locale)), statement.currency],
    words.for,
    payerLines(statement.payer),
  );
  const columns = [set.right - 170, set.right - 85, set.right] as const;
  const head = () => {
    set.text(MARGIN, words.date, 'sans', 8.5, true);
    set.text(MARGIN + 110, words.what, 'sans', 8.5, true);
    set.figure(columns[0], words.charged, 'sans', 8.5, true);
    set.figure(columns[1], words.received, 'sans', 8.5, true);
    set.figure(columns[2], words.balance, 'sans', 8.5, true);
    set.y += 14;
    set.rule(MARGIN, set.right - MARGIN);
    set.y += 7;
  };
  head();
  set.onTurn = head;
  set.text(MARGIN + 110, words.openingBalance, 'serif-italic', 10.5);
  set.figure(columns[2], figureOf(statement.openingMinor, statement), 'serif', 10.5);
  set.y += 17;
  const kinds = { invoice: words.invoice, 'credit-note': words.creditNote, payment: words.payment } as const;
  for (const line of statement.lines) {
    set.room(17);
    set.text(MARGIN, dayOf(line.on, locale), 'serif', 10.5);
    const what = [`${kinds[line.kind]} ${line.number}`, line.how].filter(Boolean).join(', ');
    set.text(MARGIN + 110, set.wrapped(what, 'serif', 10.5, columns[0] - MARGIN - 190)[0] ?? '', 'serif', 10.5);
    if (line.chargedMinor !== 0n) set.figure(columns[0], figureOf(line.chargedMinor, statement), 'serif', 10.5);
    if (line.receivedMinor !== 0n) set.figure(columns[1], figureOf(line.receivedMinor, statement), 'serif', 10.5);
    set.figure(columns[2], figureOf(line.balanceMinor, statement), 'serif', 10.5);
    set.y += 17;
  }
  set.onTurn = () => undefined;
  set.y += 8;
  total(set, MARGIN + (set.right - MARGIN) * 0.5, words.closingBalance, sumOf(statement.closingMinor, statement));
  const ages = Object.entries(statement.ages).filter(([, minor]) => minor > 0n);
  set.room(ages.length * 18 + 20);
  wideRows(
    set,
    ages.map(([age, minor]) => [words.ageing[age as keyof typeof words.ageing], figureOf(minor, statement)] as const),
  );
  return {
    title: `${words.statement}, ${statement.payer.name}, ${statement.seller.name}`,
    language: locale,
    ...paper,
    pages: numbered(set, `${statement.seller.name}, ${words.statement}`, words),
  };
}
