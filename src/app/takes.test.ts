import { getMetadataStorage } from 'class-validator';
import { expect, test } from 'vitest';
import { formOf, type Shape } from '@/input/form';
import { PLAIN_LIMITS } from '@/input/plain';
import { allDoors } from '../../tests/support/fuzz/doors';
import { mostAt, namedAddresses } from './limits';

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

test('every address whose limit is named is one, and a limit is found by the address as it comes', async () => {
  const changing = new Set((await allDoors()).filter(({ method }) => method !== 'GET').map(({ address }) => address));
  expect(namedAddresses().filter((address) => !changing.has(address))).toEqual([]);
  for (const address of namedAddresses())
    expect(mostAt(address.replace(/\[\w+\]/g, 'x-1')), address).toBe(mostAt(address));
  expect(mostAt('/api/plans/many')).toBeGreaterThan(mostAt('/api/plans/many/x'));
  expect(mostAt('/constructor')).toBe(mostAt('/'));
});
