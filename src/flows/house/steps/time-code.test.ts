import { expect, test } from 'vitest';
import { appKey, newTimeKey, stepOfCode } from './time-code';

/** RFC 6238, appendix B: the SHA-1 rows, of whose eight figures an app shows the last six. */
const KEY = Buffer.from('12345678901234567890');
const ROWS = [
  [59, '94287082'],
  [1111111109, '07081804'],
  [1111111111, '14050471'],
  [1234567890, '89005924'],
  [2000000000, '69279037'],
  [20000000000, '65353130'],
] as const;

test.each(ROWS)(
  'at %i seconds the code of the standard holds, one step around it too, and not two',
  (seconds, code) => {
    const typed = code.slice(2);
    const step = BigInt(Math.floor(seconds / 30));
    const at = (more: number) => stepOfCode(KEY, typed, new Date((seconds + more) * 1000));
    expect([at(0), at(30), at(-30)]).toEqual([step, step, step]);
    expect([at(60), at(-60)]).toEqual([null, null]);
    expect(stepOfCode(KEY, `${typed.slice(0, 3)} ${typed.slice(3)}`, new Date(seconds * 1000))).toBe(step);
  },
);

test('what is no code is none, and a key is told as apps take it', () => {
  const at = new Date(59_000);
  expect(['', '28708', '2870822', 'abcdef', '287083'].map((typed) => stepOfCode(KEY, typed, at))).toEqual(
    Array(5).fill(null),
  );
  const { typed, address } = appKey(KEY, 'ada@workshop.example');
  expect(typed.replaceAll(' ', '')).toBe('GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ');
  const read = new URL(address);
  expect(`${read.protocol}//${read.host}`).toBe('otpauth://totp');
  expect(Object.fromEntries(read.searchParams)).toMatchObject({
    secret: 'GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ',
    issuer: 'Dahlia',
    period: '30',
    digits: '6',
  });
  expect(newTimeKey()).toHaveLength(20);
  expect(newTimeKey()).not.toEqual(newTimeKey());
});
