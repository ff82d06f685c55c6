const SHORTEST_NUMBER = 3;

/** Letters and digits alone, in capitals: how numbers and keys are compared. */
export const plainKey = (text: string): string => text.toUpperCase().replace(/[^A-Z0-9]/g, '');

/** What stands before a number that is so short that it could be anything. */
const CALLED = /(\b(inv|invoice|no|nr|number|rechnung|rg|facture|factura|re)|#)[\s.:]*$/i;

/** What in a text can be a number of ours: each run of letters and digits, and up to three runs that stand together. */
export function numbersIn(text: string): Map<string, string> {
  const runs = [...text.toUpperCase().matchAll(/[A-Z0-9]+/g)].map((run) => ({
    text: run[0],
    from: run.index,
    to: run.index + run[0].length,
  }));
  const found = new Map<string, string>();
  for (const [at, first] of runs.entries())
    for (let count = 0; count < 3; count += 1) {
      const last = runs[at + count];
      if (!last) break;
      const written = text.slice(first.from, last.to);
      const number = plainKey(written);
      const isCalled = number.length >= SHORTEST_NUMBER || CALLED.test(text.slice(0, first.from));
      if (isCalled && /\d/.test(number) && !found.has(number)) found.set(number, written);
      const next = runs[at + count + 1];
      if (!next || next.from - last.to > 1) break;
    }
  return found;
}
