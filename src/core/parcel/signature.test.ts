import fc from 'fast-check';
import { expect, test } from 'vitest';
import { STROKES, signaturePath } from './signature';

const PAD = { width: 430, height: 120 };

test('a hand is drawn in its field, whatever the pad; a dot is no hand', () => {
  expect(
    signaturePath(
      [
        [
          { x: 0, y: 0 },
          { x: 300, y: 120 },
        ],
      ],
      { width: 300, height: 120 },
    ),
  ).toBe('M0.0 0.0 L100.0 40.0');
  expect(signaturePath([[{ x: 3, y: 3 }]], PAD)).toBe('');
  expect(signaturePath([], PAD)).toBe('');
});

test('whatever is drawn can be kept: within its field and its length', () => {
  const point = fc.record({
    x: fc.double({ min: -50, max: 900, noNaN: true }),
    y: fc.double({ min: -50, max: 400, noNaN: true }),
  });
  const strokes = fc.array(fc.array(point, { maxLength: 200 }), { maxLength: 60 });
  fc.assert(
    fc.property(strokes, (drawn) => {
      const path = signaturePath(drawn, PAD);
      expect(path).toMatch(STROKES);
      for (const [, x, y] of path.matchAll(/[ML]([\d.]+) ([\d.]+)/g)) {
        expect(Number(x)).toBeLessThanOrEqual(100);
        expect(Number(y)).toBeLessThanOrEqual(40);
      }
    }),
  );
});
