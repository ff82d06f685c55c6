import type { AuthorisationPaper } from '@/core/plan/authorisation-paper';
import { wordsOf } from '@/core/words/words';
import { dayOf, facts, figureOf, letterhead, numbered, passage, payerLines, signed, wideRows } from './parts';
import { isolated } from './runs';
import { MARGIN, type Measure, type PictureSizes, paperOf, type SetDocument, Setter } from './setter';

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
    set.text(MARGIN, words.plan.signHere, 'sans', 8.5, { soft: true });
  }
  return {
    title: `${name}, ${paper.payer.name}`,
    language: locale,
    ...size,
    pages: numbered(set, `${isolated(seller.name)}, ${name}`, words),
  };
}
