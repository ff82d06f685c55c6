import fc from 'fast-check';
import { expect, test } from 'vitest';
import { WORK_GROUPS, type WorkItem, workList } from './work';

const item = fc.record({
  group: fc.constantFrom(...WORK_GROUPS, 'waits' as const),
  who: fc.option(fc.constantFrom('Ada', 'Bo', 'Cleo', 'Dov')),
  things: fc.uniqueArray(fc.constantFrom('invoice 1', 'invoice 2', 'plan 3', 'plan 4'), { maxLength: 2 }),
});

test('nobody and nothing stands twice, nothing that stands for itself is lost, and what is most pressing leads', () => {
  fc.assert(
    fc.property(fc.array(item, { maxLength: 24 }), (items) => {
      const of = items.map((one, at): WorkItem<number> => ({ ...one, of: at }));
      const { groups, waits } = workList(of);
      const rows = [...groups.flatMap((one) => one.rows), ...waits];
      const shown = rows.flatMap(({ first, same, also }) => [first, ...same, ...also.map((one) => one.of)]);
      expect(new Set(shown).size).toBe(shown.length);
      const people = rows.flatMap(({ first }) => items[first]?.who ?? []);
      expect(new Set(people).size).toBe(people.length);
      const things = shown.flatMap((at) => items[at]?.things ?? []);
      expect(new Set(things).size).toBe(things.length);
      // Only what another item is about already is left out, and that one is at least as pressing.
      const rank = (at: number) => [...WORK_GROUPS, 'waits'].indexOf(items[at]?.group ?? 'waits');
      for (const [at, one] of items.entries())
        if (!shown.includes(at))
          expect(
            shown.some(
              (other) => rank(other) <= rank(at) && items[other]?.things.some((of) => one.things.includes(of)),
            ),
          ).toBe(true);
      for (const { first, same, also } of rows) {
        expect(same.every((at) => rank(at) === rank(first))).toBe(true);
        expect(also.every((one) => rank(one.of) > rank(first))).toBe(true);
      }
      expect(groups.map(({ group }) => group)).toEqual(
        WORK_GROUPS.filter((group) => groups.some((one) => one.group === group)),
      );
    }),
  );
});
