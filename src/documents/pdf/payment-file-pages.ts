import { PART_TITLES, type PaymentFilePaper } from '@/core/dispute/payment-file';
import { wordsOf } from '@/core/words/words';
import { facts, letterhead, numbered, passage } from './parts';
import { MARGIN, type Measure, type PictureSizes, paperOf, type SetDocument, Setter } from './setter';

/** Room for what a row is about. */
const WHAT = 150;

/** A row: what it is about at the left, its text beside it, as many lines as it needs. */
function row(set: Setter, what: string, text: string): void {
  const labels = set.wrapped(what, 'sans', 9, WHAT - 12);
  const lines = set.wrapped(text, 'serif', 10.5, set.right - MARGIN - WHAT);
  for (let at = 0; at < Math.max(labels.length, lines.length); at++) {
    set.room(15);
    set.text(MARGIN, labels[at] ?? '', 'sans', 9, { soft: true });
    set.text(MARGIN + WHAT, lines[at] ?? '', 'serif', 10.5);
    set.y += 14;
  }
  set.y += 1;
}

/** Sets a payment's file on pages: what the business says, then part by part what is known, with the papers that follow named. */
export function paymentFilePages(paper: PaymentFilePaper, measure: Measure, pictures: PictureSizes = {}): SetDocument {
  const size = paperOf(paper.locale);
  const set = new Setter(measure, size, () => undefined);
  letterhead(set, { seller: paper.seller, accent: paper.accent, logo: pictures.logo });
  facts(set, paper.title, paper.facts, 'Paid by', paper.payer);
  passage(set, 'What we say', paper.words, 'serif', 11);
  for (const { key, rows, texts, papers } of paper.parts) {
    set.room(44);
    set.y += 10;
    set.text(MARGIN, PART_TITLES[key], 'serif-bold', 12, { role: 'H2' });
    set.y += 18;
    for (const [what, text] of rows) row(set, what, text);
    for (const text of texts) passage(set, '', text);
    if (papers.length > 0) {
      set.y += 4;
      row(set, 'Papers behind', papers.map(({ name }) => name).join(', '));
    }
  }
  return {
    title: `${paper.title}, ${paper.payer[0] ?? ''}, ${paper.seller.name}`,
    language: paper.locale,
    ...size,
    pages: numbered(set, `${paper.seller.name}, ${paper.title}`, wordsOf(paper.locale)),
  };
}
