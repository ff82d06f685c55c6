import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { Finding, PAUSE_MS } from './finding';
import type { Answer } from './send';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

const ROWS = ['Ada', 'Adele', 'Bo'];

/** A server that takes its time; the shorter the words, the longer. */
function finding(answer: (words: string) => Answer<string[]> = found) {
  const asked: string[] = [];
  const search = new Finding<string>(async (words) => {
    asked.push(words);
    await new Promise((resolve) => setTimeout(resolve, 1000 - 100 * words.length));
    return answer(words);
  });
  return { search, asked };
}
const found = (words: string): Answer<string[]> => ({
  ok: true,
  value: ROWS.filter((row) => row.toLowerCase().startsWith(words)),
});

test('it asks after a breath, and an answer to earlier words comes to nothing', async () => {
  const { search, asked } = finding();
  search.type('a');
  await vi.advanceTimersByTimeAsync(PAUSE_MS + 10);
  search.type('ad');
  search.type('adel');
  await vi.advanceTimersByTimeAsync(3000);
  expect(asked).toEqual(['a', 'adel']);
  expect(search.view()).toMatchObject({ words: 'adel', found: ['Adele'], waiting: false });
});

test('Enter before the answer waits for it, and takes what belongs to the words', async () => {
  const { search } = finding();
  const taken: (readonly string[])[] = [];
  search.type('');
  await vi.advanceTimersByTimeAsync(2000);
  search.type('bo');
  expect(search.enter((rows) => taken.push(rows))).toBe(true);
  expect(taken).toEqual([]);
  await vi.advanceTimersByTimeAsync(2000);
  expect(taken).toEqual([['Bo']]);
  expect(search.enter(() => taken.push([]))).toBe(false);
  expect(taken).toHaveLength(1);
});

test('typing on after Enter, or closing, takes nothing', async () => {
  const { search } = finding();
  const taken: unknown[] = [];
  search.type('a');
  search.enter((rows) => taken.push(rows));
  search.type('ad');
  await vi.advanceTimersByTimeAsync(3000);
  search.type('b');
  search.enter((rows) => taken.push(rows));
  search.stop();
  await vi.advanceTimersByTimeAsync(3000);
  expect(taken).toEqual([]);
});

test('without a connection it says so, takes nothing, and keeps what was found before', async () => {
  let reachable = true;
  const { search } = finding((words) =>
    reachable ? found(words) : { ok: false, code: 'unreachable', words: 'No connection.', fields: [] },
  );
  const taken: unknown[] = [];
  search.type('a');
  await vi.advanceTimersByTimeAsync(3000);
  reachable = false;
  search.type('b');
  search.enter((rows) => taken.push(rows));
  await vi.advanceTimersByTimeAsync(3000);
  expect(search.view()).toMatchObject({ trouble: 'No connection.', found: ['Ada', 'Adele'], waiting: false });
  expect(taken).toEqual([]);
});
