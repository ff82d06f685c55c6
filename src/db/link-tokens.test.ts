import { randomUUID } from 'node:crypto';
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { beginningOf, linkKey, newToken } from './link-tokens';

test('a link says whose it is by its first eight letters, and by nothing else', () => {
  fc.assert(
    fc.property(fc.uuid({ version: 4 }), fc.constantFrom(18, 24, 32), (business, bytes) => {
      const token = newToken(business, bytes);
      expect(beginningOf(token)).toBe(linkKey(business));
      expect(token).toMatch(/^[A-Za-z0-9_-]+$/);
      expect(token.length).toBe(8 + Math.ceil((bytes * 4) / 3));
      // Four further bits of the id begin the version: the rest of it is not in the link.
      expect(Buffer.from(token, 'base64url').toString('hex').slice(0, 12)).toBe(
        business.replaceAll('-', '').slice(0, 12),
      );
    }),
  );
});

test('two links of one business have nothing but its key in common', () => {
  const business = randomUUID();
  const secrets = Array.from({ length: 200 }, () => newToken(business).slice(8));
  expect(new Set(secrets).size).toBe(secrets.length);
});

test('businesses whose ids differ at the beginning have keys that differ', () => {
  const ids = Array.from({ length: 2000 }, () => randomUUID());
  const beginnings = new Set(ids.map((id) => id.replaceAll('-', '').slice(0, 12)));
  expect(new Set(ids.map(linkKey)).size).toBe(beginnings.size);
});
