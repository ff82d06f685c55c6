import type { ReceiptStyle } from '@/core/business/business';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { longDate } from '@/core/dates/date-text';
import type { PrintedInvoice, PrintedSums, Seller } from '@/core/invoice/printed';
import { money } from '@/core/money/money';
import { figureText, moneyText } from '@/core/money/money-text';
import { howMuchText, sumRows, underLine } from '@/core/words/invoice-wording';
import { type Words } from '@/core/words/words';
import { isolated } from './runs';
import { type Face, MARGIN, type Page, type PictureSize, type PictureSizes, Setter } from './setter';

/** Who the document is from, with what it looks like. */
type House = { readonly seller: Seller; readonly accent?: string; readonly logo?: PictureSize | undefined };

const LOGO_HEIGHT = 42;
const LOGO_WIDTH = 220;

export function letterhead(set: Setter, { seller, accent, logo }: House): void {
  if (logo) {
    const scale = Math.min(LOGO_HEIGHT / logo.height, LOGO_WIDTH / logo.width);
    const [width, height] = [logo.width * scale, logo.height * scale];
    set.put({ kind: 'picture', name: 'logo', x: MARGIN, y: set.y, width, height, says: seller.name });
    set.y += height + 7;
  }
  set.text(MARGIN, seller.name, 'serif-bold', 15, accent ? { colour: accent } : {});
  set.y += 21;
  const contact = [...seller.address, seller.phone, seller.email, seller.website]
    .filter(Boolean)
    .map(isolated)
    .join(' · ');
  for (const line of set.wrapped(contact, 'sans', 8.5, set.right - MARGIN)) {
    set.text(MARGIN, line, 'sans', 8.5, { soft: true });
    set.y += 12;
  }
  set.y += 4;
  set.rule(MARGIN, set.right - MARGIN, 1.6);
  set.y += 2.6;
  set.rule(MARGIN, set.right - MARGIN, 0.6);
  set.y += 26;
}

export function lines(
  set: Setter,
  x: number,
  list: readonly string[],
  { face, size, step, width }: { face: Face; size: number; step: number; width: number },
): void {
  for (const line of list.flatMap((text) => set.wrapped(text, face, size, width))) {
    set.text(x, line, face, size, { soft: face === 'sans' });
    set.y += step;
  }
}

export function facts(
  set: Setter,
  heading: string,
  left: readonly string[],
  label: string,
  right: readonly string[],
): void {
  const top = set.y;
  const middle = MARGIN + (set.right - MARGIN) * 0.56;
  for (const line of set.wrapped(heading, 'serif-medium', 22, middle - MARGIN - 16)) {
    set.text(MARGIN, line, 'serif-medium', 22, { role: 'H1' });
    set.y += 26;
  }
  set.y += 4;
  lines(set, MARGIN, left, { face: 'sans', size: 9.5, step: 14, width: middle - MARGIN - 16 });
  const leftEnd = set.y;
  set.y = top + 4;
  const width = set.right - middle;
  lines(set, middle, [label], { face: 'sans', size: 8.5, step: 14, width });
  const [name, ...rest] = right;
  lines(set, middle, name ? [name] : [], { face: 'serif-medium', size: 12, step: 16, width });
  lines(set, middle, rest, { face: 'sans', size: 9.5, step: 13.5, width });
  set.y = Math.max(leftEnd, set.y) + 22;
}

export function total(set: Setter, from: number, label: string, figure: string): void {
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

export function numbered(set: Setter, foot: string, words: Words): Page[] {
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
export function passage(set: Setter, heading: string, text: string, face: Face = 'sans', size = 9.5): void {
  if (!text.trim()) return;
  const list = set.wrapped(text, face, size, set.right - MARGIN);
  set.room(heading ? 44 : 15);
  set.y += 8;
  if (heading) {
    set.text(MARGIN, heading, 'serif-bold', 12, { role: 'H2' });
    set.y += 18;
  }
  for (const line of list) {
    set.room(size + 4.5);
    set.text(MARGIN, line, face, size);
    set.y += size + 4.5;
  }
}

export const figureOf = (minor: number | bigint, of: { currency: string; locale: string }) =>
  figureText(money(BigInt(minor), of.currency), of.locale);
export const sumOf = (minor: number | bigint, of: { currency: string; locale: string }) =>
  moneyText(money(BigInt(minor), of.currency), of.locale);
export const dayOf = (date: string, locale: string) => longDate(date as CalendarDate, locale);
export const payerLines = (payer: PrintedInvoice['payer']) =>
  [payer.name, ...payer.address, payer.email].filter(Boolean);

/** Draws the table's lines, its heading again on every page. */
export function linesTable(set: Setter, invoice: PrintedSums, words: Words): void {
  const { right } = set;
  const howAt = right - 92;
  const whatWidth = howAt - 118 - MARGIN;
  const head = () => {
    set.text(MARGIN, words.what, 'sans', 8.5, { soft: true });
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
      set.text(MARGIN, part, 'sans', 8.5, { soft: true });
      set.y += 12;
    }
    set.y += 4;
    set.rule(MARGIN, right - MARGIN, 0.35);
    set.y += 6;
  }
  set.onTurn = () => undefined;
}

/** Where the column of sums begins. */
export const sumsFrom = (set: Setter): number => MARGIN + (set.right - MARGIN) * 0.5;

/** Draws all that leads from the lines to the total. */
export function leadingSums(set: Setter, invoice: PrintedSums, words: Words): void {
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
export function wideRows(set: Setter, rows: readonly (readonly [string, string])[]): void {
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

/** Points in a millimetre. */
const MM = 72 / 25.4;

/** Who signs, with signature and seal where the business wants them; in one place, the signature lies over the seal. */
export function signed(set: Setter, style: Partial<ReceiptStyle>, pictures: PictureSizes, says: string): void {
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
