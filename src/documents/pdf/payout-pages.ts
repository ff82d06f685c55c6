import type { PayoutPaper } from '@/core/payout/paper';
import { wordsOf } from '@/core/words/words';
import { facts, figureOf, letterhead, numbered, passage, sumOf, total } from './parts';
import { MARGIN, type Measure, type PictureSizes, paperOf, type SetDocument, Setter } from './setter';

const ROW = 16;
/** Room for the words of the first column. */
const FIRST = 74;

/** Days by channels, the heads again on every page; the last row is the sum. */
function table(set: Setter, { heads, rows }: NonNullable<PayoutPaper['table']>, paper: PayoutPaper): void {
  const step = (set.right - MARGIN - FIRST) / (heads.length - 1);
  const columnAt = (at: number): number => MARGIN + FIRST + step * at;
  const head = () => {
    for (const [at, words] of heads.entries())
      if (at === 0) set.text(MARGIN, words, 'sans', 8.5, { soft: true });
      else set.figure(columnAt(at), words, 'sans', 8.5, true);
    set.y += 13;
    set.rule(MARGIN, set.right - MARGIN);
    set.y += 6;
  };
  head();
  set.onTurn = head;
  for (const [index, [day, ...minors]] of rows.entries()) {
    const last = index === rows.length - 1;
    set.room(ROW + 6);
    if (last) {
      set.rule(MARGIN, set.right - MARGIN);
      set.y += 5;
    }
    const face = last ? 'serif-bold' : 'serif';
    set.text(MARGIN, day, last ? 'serif-bold' : 'sans', 9);
    for (const [at, minor] of minors.entries())
      set.figure(
        columnAt(at + 1),
        minor === 0n && !last ? '·' : figureOf(minor, paper),
        face,
        9.5,
        minor === 0n && !last,
      );
    set.y += ROW;
  }
  set.onTurn = () => undefined;
  set.y += 14;
}

/** Sets a payout, or a partner's month, on pages. */
export function payoutPages(paper: PayoutPaper, measure: Measure, pictures: PictureSizes = {}): SetDocument {
  const words = wordsOf(paper.locale);
  const size = paperOf(paper.locale);
  const set = new Setter(measure, size, () => undefined);
  letterhead(set, { seller: paper.seller, accent: paper.accent, logo: pictures.logo });
  facts(set, paper.title, [...paper.facts, paper.currency], 'To', paper.to);
  if (paper.table) table(set, paper.table, paper);
  for (const { label, about, minor, isSum } of paper.lines) {
    set.room(20);
    if (isSum) {
      set.rule(MARGIN, set.right - MARGIN);
      set.y += 5;
    }
    const face = isSum ? 'serif-bold' : 'serif';
    const called = set.wrapped(label, face, 11, set.right - MARGIN - 200)[0] ?? '';
    set.text(MARGIN, called, face, 11);
    if (about) set.text(MARGIN + set.measure(called, face, 11) + 8, about, 'sans', 8.5, { soft: true });
    set.figure(set.right, figureOf(minor, paper), face, 11);
    set.y += 18;
  }
  set.y += 6;
  total(set, MARGIN, paper.total.label, sumOf(paper.total.minor, paper));
  for (const text of paper.words) passage(set, '', text);
  return {
    title: `${paper.title}, ${paper.to[0] ?? ''}, ${paper.seller.name}`,
    language: paper.locale,
    ...size,
    pages: numbered(set, `${paper.seller.name}, ${paper.title}`, words),
  };
}
