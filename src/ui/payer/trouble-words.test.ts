import { expect, test } from 'vitest';
import { wordsOf } from '@/core/words/words';
import { troubleWords } from './trouble-words';

test('whoever opened a link reads a refusal in their language, also one of the network', () => {
  expect(troubleWords(wordsOf('de').troubles, { ok: false, code: 'already-paid', words: 'English', fields: [] })).toBe(
    'Diese Rechnung ist schon bezahlt. Es wurde nichts belastet.',
  );
  expect(
    troubleWords(wordsOf('fr').troubles, { ok: false, code: 'unreachable', words: 'English', fields: [] }),
  ).toMatch(/^Pas de connexion/);
});
