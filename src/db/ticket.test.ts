import { createHash, createHmac } from 'node:crypto';
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { hmacPads, ticketFor } from './ticket';

const sha = (...parts: Buffer[]): Buffer => createHash('sha256').update(Buffer.concat(parts)).digest();

test('the pads that the database is given make the same signature, for a secret of any length', () => {
  fc.assert(
    fc.property(fc.string({ minLength: 1, maxLength: 200 }), fc.uuid(), fc.nat(), (secret, business, process) => {
      const { inner, outer } = hmacPads(secret);
      expect([inner.length, outer.length]).toEqual([64, 64]);
      const said = Buffer.from(`${business}.${process}`);
      const signature = sha(outer, sha(inner, said)).toString('hex');
      expect(signature).toBe(createHmac('sha256', secret).update(said).digest('hex'));
      expect(ticketFor(business, process, secret)).toBe(`${business}.${signature}`);
    }),
  );
});
