import bidiFactory from 'bidi-js';
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { isolated, runsOf } from './runs';

const bidi = bidiFactory();
const TURNED = /[\p{Script=Hebrew}\p{Script=Arabic}]/u;
const reversed = (text: string) => [...text].reverse().join('');

/** What is seen from left to right: the fonts of these scripts turn what they are given. */
const seen = (runs: readonly { text: string }[]): string =>
  runs.map(({ text }) => (TURNED.test(text) ? reversed(text) : text)).join('');

test('whatever is mixed, a line is seen in the order of the standard, brackets turned with it', () => {
  const signs = fc.array(fc.constantFrom(...'ab שלום رقم 12,.-()&'), { maxLength: 24 }).map((all) => all.join(''));
  fc.assert(
    fc.property(signs, (text) => {
      const levels = bidi.getEmbeddingLevels(text, 'auto');
      // Another program's order of the same standard.
      expect(seen(runsOf(text, ['sans'], () => true))).toBe(bidi.getReorderedString(text, levels));
    }),
    { numRuns: 2000 },
  );
});

test('each letter is set in the first face that has it, in none too many', () => {
  const has = (face: string, text: string) =>
    face === 'sans' ? /^[\w ,]*$/.test(text) : face === 'chinese' ? /^\p{Script=Han}*$/u.test(text) : false;
  expect(runsOf('Wang 王小明, Beijing 北', ['sans', 'chinese'], has)).toEqual([
    { face: 'sans', text: 'Wang ' },
    { face: 'chinese', text: '王小明' },
    { face: 'sans', text: ', Beijing ' },
    { face: 'chinese', text: '北' },
  ]);
  // What nobody has stays in the line's own face.
  expect(runsOf('a\u{10330}', ['sans', 'chinese'], has)).toEqual([{ face: 'sans', text: 'a\u{10330}' }]);
});

test('a name within a line does not turn what stands beside it', () => {
  const all = () => true;
  expect(seen(runsOf(`${isolated('משה 5')}, 12`, ['sans'], all))).toBe('5 השמ, 12');
  expect(isolated('Ida Marsh')).toBe('Ida Marsh');
});
