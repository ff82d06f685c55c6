import fc from 'fast-check';
import { expect, test } from 'vitest';
import { scaledCount } from './available';
import { type Comeback, comesBack } from './comeback';

const said = (text: string): Comeback[] =>
  text
    .split(' ')
    .filter(Boolean)
    .map((one) => ({
      by: ({ s: 'seen', g: 'given-back', x: 'sent-again' } as const)[one[0] as 's'],
      quantity: one.slice(1),
    }));
const played = (text: string): string[] => {
  const all = said(text);
  return all.map((now, at) => comesBack(all.slice(0, at), now));
};

test.each([
  ['seen, then money for it', 's1 g1', ['1', '0']],
  ['money first, then it is seen', 'g1 s1', ['1', '0']],
  ['money for more than was seen', 's1 g3', ['1', '2']],
  ['more is seen than money was given for', 'g1 s3', ['1', '2']],
  ['in parts, crosswise', 's1 g2 s1 g1 s1', ['1', '1', '0', '1', '0']],
  ['exchanged, and then given back after all', 's1 x1 g1', ['1', '0', '1']],
  ['exchanged, and that comes back too', 's1 x1 s1 g1', ['1', '0', '1', '0']],
  ['halves', 's0.5 g0.75', ['0.5', '0.25']],
])('%s', (_, text, wanted) => expect(played(text)).toEqual(wanted));

test('whatever is said in whatever order, as much comes in as the larger side says, and never less than nothing', () => {
  const one = fc.record({
    by: fc.constantFrom('seen' as const, 'given-back' as const),
    quantity: fc.integer({ min: 1, max: 50_000 }).map((tenth) => String(tenth / 10)),
  });
  fc.assert(
    fc.property(fc.array(one, { maxLength: 12 }), (all) => {
      const came = all.map((now, at) => scaledCount(comesBack(all.slice(0, at), now)));
      const sum = (by: string) =>
        all.reduce((whole, { by: of, quantity }) => (of === by ? whole + scaledCount(quantity) : whole), 0n);
      const [seen, given] = [sum('seen'), sum('given-back')];
      expect(came.every((count) => count >= 0n)).toBe(true);
      expect(came.reduce((whole, count) => whole + count, 0n)).toBe([seen, given].sort((a, b) => Number(b - a))[0]);
    }),
  );
});
