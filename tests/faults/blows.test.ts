import { resolve } from 'node:path';
import { expect, test } from 'vitest';
import { BLOWS } from './blows/blows';
import { blowUpon } from './blows/run';

/** A short run of what `bin/faults` does at length: every kind of blow. */
test('whatever falls upon it, nothing is lost, doubled, stuck or told twice', async () => {
  const outcome = await blowUpon({
    blows: 30,
    movements: 100,
    seed: 3,
    folder: resolve('.data/test/blows'),
    say: () => undefined,
  });
  expect(outcome.troubles).toEqual([]);
  expect(Object.keys(outcome.blows).sort()).toEqual([...BLOWS].sort());
  expect(outcome.counted.payments).toBeGreaterThan(70);
  expect(outcome.counted['charges of plans']).toBeGreaterThan(10);
});
