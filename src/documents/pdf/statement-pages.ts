import type { Statement } from '@/core/statement/statement';
import { wordsOf } from '@/core/words/words';
import { dayOf, facts, figureOf, letterhead, numbered, payerLines, sumOf, total, wideRows } from './parts';
import { MARGIN, type Measure, type PictureSizes, paperOf, type SetDocument, Setter } from './setter';

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
    set.text(MARGIN, words.date, 'sans', 8.5, { soft: true });
    set.text(MARGIN + 110, words.what, 'sans', 8.5, { soft: true });
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
  const kinds = {
    invoice: words.invoice,
    'credit-note': words.creditNote,
    payment: words.payment,
    refund: words.refund,
  } as const;
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
