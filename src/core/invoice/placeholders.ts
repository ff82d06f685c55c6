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

/** The same paper once more, with line ids of its own. Its files come along where they are wanted. */
export const copiedPaper = (paper: Paper, freshId: () => string, withFiles = false): Paper => ({
  ...paper,
  lines: paper.lines.map((line) => ({ ...line, id: freshId() })),
  fees: paper.fees.map((fee) => ({ ...fee, id: freshId() })),
  flatTaxes: paper.flatTaxes.map((tax) => ({ ...tax, id: freshId() })),
  number: '',
  files: withFiles ? paper.files : [],
  elsewhere: null,
  sample: false,
});

/** A paper to start another from at another moment: its own days (of issue, of the service, of a line, when it is due) stay behind. */
export const freshPaper = (paper: Paper, freshId: () => string, withFiles = false): Paper => {
  const copied = copiedPaper(paper, freshId, withFiles);
  return {
    ...copied,
    lines: copied.lines.map(({ on: _, ...line }) => line),
    issuedOn: '',
    serviceFrom: '',
    serviceTo: '',
    due: paper.due.kind === 'date' ? { kind: 'days', days: 14 } : paper.due,
  };
};

/** A paper without what belongs to whom it was written for: their reference, the private note, their people who approve. */
export const forOthers = (paper: Paper): Paper => ({
  ...paper,
  reference: '',
  memo: '',
  files: paper.files.map(({ approvers: _, ...file }) => file),
});

/** A paper to start another from, for another occasion or another customer. */
export const anothersPaper = (...given: Parameters<typeof freshPaper>): Paper => forOthers(freshPaper(...given));
