import fc from 'fast-check';
import { expect, test } from 'vitest';
import { contrast, readableOn } from '../look/contrast';
import { isQuiet } from './business';

const time = fc
  .tuple(fc.integer({ min: 0, max: 23 }), fc.integer({ min: 0, max: 59 }))
  .map((parts) => parts.map((part) => String(part).padStart(2, '0')).join(':'));

test('of two spans that together are the day, each time is in one', () => {
  fc.assert(
    fc.property(time, time, time, (from, to, now) => {
      fc.pre(from !== to);
      const night = isQuiet({ quietFrom: from, quietTo: to }, now);
      const day = isQuiet({ quietFrom: to, quietTo: from }, now);
      expect(night).toBe(!day);
      expect(isQuiet({ quietFrom: from, quietTo: to }, from)).toBe(true);
      expect(isQuiet({ quietFrom: from, quietTo: to }, to)).toBe(false);
      expect(isQuiet({ quietFrom: from, quietTo: from }, now)).toBe(false);
    }),
  );
});

test('on whatever colour a business chooses, the words on its buttons can be read', () => {
  const colour = fc.integer({ min: 0, max: 0xffffff }).map((value) => `#${value.toString(16).padStart(6, '0')}`);
  fc.assert(
    fc.property(colour, colour, (one, other) => {
      expect(contrast(one, other)).toBe(contrast(other, one));
      expect(contrast(one, one)).toBe(1);
      expect(contrast(readableOn(one), one)).toBeGreaterThan(4);
    }),
  );
  expect(contrast('#000000', '#ffffff')).toBeCloseTo(21, 5);
});
