import { wordsOf } from './words';

/** Names in a sentence, in the reader's way: `Pia Vane and Noor Brandt`. @param locale BCP 47 */
const listed = (names: readonly string[], locale: string): string =>
  new Intl.ListFormat(locale).format(names.map((name) => name || '…'));

/** For whom a file waits; empty where it waits for nobody by name. @param locale BCP 47 */
export const waitsForWords = (names: readonly string[], locale: string): string =>
  names.length > 0 ? wordsOf(locale).waitsFor(listed(names, locale)) : '';

/**
 * Why nothing is paid yet: a file waits for the reader's own approval, or for others by name; empty where none waits.
 *
 * @param waiting of each file that waits, whether the reader decides it and for whose names it waits
 */
export function approveFirstWords(
  waiting: readonly { readonly mine: boolean; readonly names: readonly string[] }[],
  locale: string,
): string {
  const words = wordsOf(locale);
  if (waiting.length === 0) return '';
  if (waiting.some(({ mine }) => mine)) return words.firstApprove;
  return words.firstApprovedBy(listed([...new Set(waiting.flatMap(({ names }) => names))], locale));
}
