import type { CalendarDate } from '@/core/dates/calendar-date';
import type { PaperReading } from '@/core/invoice/read-paper';
import { sendingProblems } from '@/core/invoice/sending';
import type { Paper } from '@/core/paper/paper';

/** What to say at which place: `byLine` for the parts of a line, `of` for the rest of the paper. */
export type ShownProblems = {
  readonly byLine: ReadonlyMap<string, Readonly<Record<string, string>>>;
  readonly of: (field: string) => string | undefined;
  /** All words about the parts of one line or fee. */
  readonly line: (id: string) => readonly string[];
};

/**
 * What is shown as wrong on the paper. What is merely not written yet is no fault until somebody has tried to send it.
 *
 * @param tried whether sending was tried
 */
export function shownProblems(paper: Paper, reading: PaperReading, today: CalendarDate, tried: boolean): ShownProblems {
  const missing = (field: string): boolean =>
    field.endsWith('.what') ||
    (field.endsWith('.price') && !paper.lines.find(({ id }) => field.startsWith(id))?.price.trim());
  const all = tried ? sendingProblems(paper, reading, today) : reading.problems;
  const shown = all.filter(({ field }) => tried || !missing(field));
  const byLine = new Map<string, Record<string, string>>();
  for (const { field, words } of shown) {
    const [line = '', part = ''] = field.split(/\.(?=[a-z]+$)/);
    if (part) byLine.set(line, { ...byLine.get(line), [part]: words });
  }
  return {
    byLine,
    of: (field) => shown.find((problem) => problem.field === field)?.words,
    line: (id) => Object.values(byLine.get(id) ?? {}),
  };
}
