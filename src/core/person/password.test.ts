import fc from 'fast-check';
import { expect, test } from 'vitest';
import { PASSWORD_LEAST, passwordProblem } from './password';

const common = new Set(['password', 'password123', 'qwertyuiop', 'letmein']);
const isCommon = (small: string) => common.has(small);
const of = (password: string, own: readonly string[] = []) => passwordProblem(password, isCommon, own);

test('a password is long, not one that is tried first, and not what others know', () => {
  expect(of('rosin maple')).toBeNull();
  expect(of('a plane and a saw')).toBeNull();
  expect(of('ein Bügel, drei Löffel')).toBeNull();
  expect(of('木の弓と古い弦の音がする')).toBeNull();
  expect(of('ninesigns')).toMatch(/at least 10/);
  // Nine signs that are eighteen of the computer's.
  expect(of('🎻🎻🎻🎻🎻🎻🎻🎻🎻')).toMatch(/at least 10/);
  for (const tried of ['qwertyuiop', 'QWERTYUIOP', 'Password123', 'password1234', 'qwertyuiop!1'])
    expect(of(tried), tried).toMatch(/tried first/);
  for (const dull of ['aaaaaaaaaaaa', 'abcabcabcabc', '1234567890', '0987654321', 'abcdefghijkl'])
    expect(of(dull), dull).toMatch(/tried first/);
  expect(of('ada@thistlewood.example', ['ada@thistlewood.example'])).toMatch(/others know/);
  expect(of('Thistlewood-Strings-1', ['x', 'Thistlewood Strings'])).toMatch(/others know/);
});

test('whatever is typed is answered, and what is too short never passes', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme', maxLength: 40 }), fc.string({ maxLength: 20 }), (password, own) => {
      const problem = of(password, [own]);
      if ([...password].length < PASSWORD_LEAST) expect(problem).not.toBeNull();
    }),
  );
});
