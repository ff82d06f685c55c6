import { afterAll, beforeAll, expect, test } from 'vitest';
import { fuzz } from '../support/fuzz/fuzz';
import { attackedHouse } from '../support/fuzz/house';
import { type Stack, startStack } from '../support/stack';

const EACH = Number(process.env.FUZZ_EACH ?? 8);
const SEED = Number(process.env.FUZZ_SEED ?? 1);

let stack: Stack;
beforeAll(async () => {
  stack = await startStack({ STANDINS_DELAY_MS: '0' });
});
afterAll(() => stack.close());

test('no address answers with an error of ours, none at all, or none in words, whatever it is sent', async () => {
  const attacked = await attackedHouse(stack.web, { ...stack, smtpPort: 0, stopStandIns: async () => {} });
  const { doors, sent, found } = await fuzz(attacked, EACH, SEED);
  expect(doors).toBeGreaterThan(200);
  expect(sent).toBe(doors * EACH);
  if (process.env.FUZZ_OUT)
    (await import('node:fs')).writeFileSync(process.env.FUZZ_OUT, found.map((one) => JSON.stringify(one)).join('\n'));
  expect(found).toEqual([]);
  expect((await fetch(`${stack.web}/api/health`)).status).toBe(200);
});
