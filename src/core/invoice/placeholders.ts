import { addDays, type CalendarDate, monthEnd } from '../dates/calendar-date';
import type { Paper } from '../paper/paper';

const monthName = (on: CalendarDate, locale: string): string =>
  new Intl.DateTimeFormat(locale, { timeZone: 'UTC', month: 'long' }).format(new Date(`${on}T12:00:00Z`));

/** `{month}`, `{year}` and `{next month}` as they read on a day: `Rent for {month} {year}` becomes `Rent for May 2026`. */
export function filledText(text: string, on: CalendarDate, locale: string): string {
  return text.replace(/\{(next month|last month|month|year)\}/g, (_, token: string) => {
    if (token === 'year') return on.slice(0, 4);
    if (token === 'month') return monthName(on, locale);
    return monthName(
      token === 'next month' ? addDays(monthEnd(on), 1) : addDays(`${on.slice(0, 7)}-01` as CalendarDate, -1),
      locale,
    );
  });
}

/** A template's paper on a day: every text with its placeholders filled. */
export const filledPaper = (paper: Paper, on: CalendarDate, locale: string): Paper => {
  const fill = (text: string) => filledText(text, on, locale);
  return {
    ...paper,
    title: fill(paper.title),
    reference: fill(paper.reference),
    note: fill(paper.note),
    lines: paper.lines.map((line) => ({
      ...line,
      what: fill(line.what),
      ...(line.note ? { note: fill(line.note) } : {}),
    })),
  };
};

/**
 * A paper to start another from: what belonged to that one moment is left behind, with fresh line ids. Its files come along
 * where they are wanted.
 */
export const freshPaper = (paper: Paper, freshId: () => string, withFiles = false): Paper => ({
  ...paper,
  lines: paper.lines.map((line) => ({ ...line, id: freshId() })),
  fees: paper.fees.map((fee) => ({ ...fee, id: freshId() })),
  flatTaxes: paper.flatTaxes.map((tax) => ({ ...tax, id: freshId() })),
  number: '',
  issuedOn: '',
  due: paper.due.kind === 'date' ? { kind: 'days', days: 14 } : paper.due,
  files: withFiles ? paper.files : [],
  elsewhere: null,
});

/**
 * The same for another occasion, or another customer: their reference and the private note belong to the one they were written for.
 */
export const anothersPaper = (paper: Paper, freshId: () => string, withFiles = false): Paper => ({
  ...freshPaper(paper, freshId, withFiles),
  reference: '',
  memo: '',
});
