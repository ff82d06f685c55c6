import { expect, test } from 'vitest';
import { stuckWords } from '@/core/today/stuck-words';
import { CONCERNS } from '@/db/due-work';
import { LANES } from './tasks';

const OTHER = stuckWords('', undefined).what;

test('every task and every concern that can be stuck has words of its own', () => {
  for (const concern of CONCERNS) expect(stuckWords('due-work', concern).what, concern).not.toBe(OTHER);
  const tasks = Object.values(LANES).flatMap((lane) => Object.keys(lane.tasks));
  for (const task of tasks.filter((name) => !['due-work', 'due-charges', 'minute', 'check-books'].includes(name)))
    expect(stuckWords(task, undefined).what, task).not.toBe(OTHER);
});
