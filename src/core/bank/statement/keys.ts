import type { StatementLine } from './statement';

/** A text as it counts for telling lines apart: banks write blanks and capitals as they like. */
const plain = (text: string): string => storable(text.replace(/\s+/g, ' ').trim().toUpperCase().slice(0, LONGEST));

/** So much of a text tells lines apart: what is alike in that is counted. */
const LONGEST = 160;

/** A text as a database takes it: no NUL, no half signs. */
export const storable = (text: string): string => text.replaceAll('\u0000', '').toWellFormed();

/**
 * What makes each line the same line in whatever file it comes again: the bank's own reference where it has one, else its text; with
 * day and sum, and the how-many-th it is of those that are alike in all of that.
 */
export function lineKeys(lines: readonly StatementLine[]): string[] {
  const seen = new Map<string, number>();
  return lines.map(({ day, amount, bankReference, text, name = '' }) => {
    const what = bankReference ? `ref ${plain(bankReference)}` : `text ${plain(`${name} ${text}`)}`;
    const alike = `${day} ${amount} ${what}`;
    const ordinal = (seen.get(alike) ?? 0) + 1;
    seen.set(alike, ordinal);
    return `${alike} ${ordinal}`;
  });
}
