import { expect, test } from 'vitest';
import { gathered } from './gathered';

/** A set is dealt with once it is let through: the test says when. */
function held() {
  const sets: number[][] = [];
  const open: (() => void)[] = [];
  const handOn = (set: readonly number[]): Promise<void> => {
    sets.push([...set]);
    return new Promise((resolve) => open.push(resolve));
  };
  const letThrough = async (): Promise<void> => {
    open.shift()?.();
    for (let turn = 0; turn < 5; turn++) await Promise.resolve();
  };
  return { sets, handOn, letThrough };
}

test('what comes while a set is dealt with is the next one, in order, none larger than the most', async () => {
  const { sets, handOn, letThrough } = held();
  const outcomes = gathered<number>(3, 60_000, handOn);
  for (let one = 1; one <= 8; one++) outcomes.add(one);
  expect(sets).toEqual([[1, 2, 3]]);
  await letThrough();
  expect(sets).toEqual([
    [1, 2, 3],
    [4, 5, 6],
  ]);
  const rest = outcomes.rest();
  await letThrough();
  await letThrough();
  await letThrough();
  await rest;
  expect(sets).toEqual([
    [1, 2, 3],
    [4, 5, 6],
    [7, 8],
  ]);
});

test('there is room again once no more than one set waits', async () => {
  const { handOn, letThrough } = held();
  const outcomes = gathered<number>(2, 60_000, handOn);
  for (let one = 1; one <= 7; one++) outcomes.add(one);
  let room = false;
  void outcomes.room().then(() => {
    room = true;
  });
  await letThrough();
  expect(room).toBe(false);
  await letThrough();
  await letThrough();
  expect(room).toBe(true);
});

test('few are handed on after a while too', async () => {
  const sets: number[][] = [];
  const handed = new Promise<void>((resolve) => {
    const outcomes = gathered<number>(100, 1, async (set) => {
      sets.push([...set]);
      resolve();
    });
    outcomes.add(1);
    outcomes.add(2);
  });
  await handed;
  expect(sets).toEqual([[1, 2]]);
});

test('a set that breaks does not hold the others back, and is told at the end', async () => {
  const sets: number[][] = [];
  const outcomes = gathered<number>(1, 1, async (set) => {
    sets.push([...set]);
    if (set[0] === 1) throw new Error('the first broke');
  });
  outcomes.add(1);
  outcomes.add(2);
  await expect(outcomes.rest()).rejects.toThrow('the first broke');
  expect(sets).toEqual([[1], [2]]);
});
