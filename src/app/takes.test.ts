import { getMetadataStorage } from 'class-validator';
import { expect, test } from 'vitest';
import { formOf, type Shape } from '@/input/form';
import { PLAIN_LIMITS } from '@/input/plain';
import { allDoors } from '../../tests/support/fuzz/doors';

const UUID_BYTES = JSON.stringify([crypto.randomUUID()]).length - 1;

/** Bytes of the largest lists of ids that a class takes, with the entries of the longest list in it. */
function largestLists(shape: Shape<object>): { bytes: number; entries: number } {
  const rules = getMetadataStorage().getTargetValidationMetadatas(shape, '', true, false);
  const { lists, nested } = formOf(shape);
  let bytes = 0;
  let entries = 0;
  for (const [name, { most }] of lists) {
    const inner = nested.get(name);
    const within = inner ? largestLists(inner.shape) : { bytes: 0, entries: 0 };
    const isId = rules.some((rule) => rule.propertyName === name && rule.name === 'isUuid');
    bytes += isId ? most * UUID_BYTES : 0;
    entries = Math.max(entries, most, within.entries);
  }
  return { bytes, entries };
}

test('who may send so many ids may send so many bytes', async () => {
  const doors = (await allDoors()).filter(({ shape, from }) => shape && from === 'body');
  expect(doors.length).toBeGreaterThan(80);
  const tooSmall = doors.flatMap(({ address, method, shape, most }) => {
    const { bytes, entries } = largestLists(shape as Shape<object>);
    return bytes > most || entries > PLAIN_LIMITS.entries
      ? [`${method} ${address}: ${bytes} of ${most}, ${entries}`]
      : [];
  });
  expect(tooSmall).toEqual([]);
});
