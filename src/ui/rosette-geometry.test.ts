import { expect, test } from 'vitest';
import { petals } from './rosette-geometry';

test('six petals fill clockwise with the share', () => {
  expect(petals(0)).toEqual([0, 0, 0, 0, 0, 0]);
  expect(petals(0.5)).toEqual([1, 1, 1, 0, 0, 0]);
  expect(petals(1)).toEqual([1, 1, 1, 1, 1, 1]);
});

test('anything paid shows half a petal at least, and six full ones only what is complete', () => {
  expect(petals(0.001)[0]).toBe(0.5);
  expect(petals(0.9999)[5]).toBeLessThan(1);
});
