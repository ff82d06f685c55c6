/** What came of a try, in words; empty before the first. @param outcome the status of an answer, or why there was none */
export function outcomeWords(outcome: string): string {
  const words: Readonly<Record<string, string>> = {
    '': 'not tried yet',
    'inner-address': 'its name leads into an inner network',
    'no-such-name': 'there is no such name',
    'no-answer': 'no answer in time',
    'not-safe': 'its certificate does not hold',
    'switched-off': 'switched off meanwhile',
  };
  if (Object.hasOwn(words, outcome)) return words[outcome] ?? '';
  const redirects = /^3\d\d$/.test(outcome) ? ', which points elsewhere' : '';
  return `answered ${outcome}${redirects}`;
}
