import { expect, test } from 'vitest';
import { decrypted, encrypted } from './sealing';

const kept = globalThis as { dahliaServices?: unknown };
const withSecret = (sealingSecret: string): void => {
  kept.dahliaServices = { sealingSecret };
};

test('what is encrypted opens for whom it is bound to, with the secret it was made with, unaltered', () => {
  withSecret('a secret of this test');
  const plain = Buffer.from('the key of an app');
  const one = encrypted('time-key', 'ada', plain);
  expect(one).not.toEqual(encrypted('time-key', 'ada', plain));
  expect(one.includes(plain)).toBe(false);
  expect(decrypted('time-key', 'ada', one)).toEqual(plain);
  expect(() => decrypted('time-key', 'bram', one)).toThrow();
  for (let at = 0; at < one.length; at++) {
    const altered = Buffer.from(one);
    altered[at] = (altered[at] ?? 0) ^ 1;
    expect(() => decrypted('time-key', 'ada', altered)).toThrow();
  }
  withSecret('another secret');
  expect(() => decrypted('time-key', 'ada', one)).toThrow();
  kept.dahliaServices = undefined;
});
