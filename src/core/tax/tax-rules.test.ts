import fc from 'fast-check';
import { expect, test } from 'vitest';
import { applyingRules, type TaxRule } from './tax-rules';

const rules = fc.array(
  fc.record(
    {
      name: fc.constantFrom('A', 'B', 'C'),
      class: fc.constantFrom('standard', 'reduced'),
      country: fc.constantFrom('US', 'DE'),
      regions: fc.constantFrom(['US-FL'], ['US-GA', 'US-FL']),
      postalCodes: fc.constantFrom(['32*'], ['32004-32099'], ['32055'], ['3*', '32055']),
      additional: fc.boolean(),
    },
    { requiredKeys: ['name', 'class', 'country'] },
  ) as fc.Arbitrary<TaxRule>,
  { maxLength: 8 },
);
const PLACE = { country: 'US', region: 'US-FL', postalCode: '32055' };

test('of one name at most one rule applies, all of the class and country asked for, in the order of the list', () => {
  fc.assert(
    fc.property(rules, (list) => {
      const found = applyingRules(PLACE, 'standard', list);
      const names = found.map((at) => list[at]?.name);
      expect(new Set(names).size).toBe(names.length);
      expect([...found].sort((a, b) => a - b)).toEqual(found);
      for (const at of found) expect(list[at]).toMatchObject({ class: 'standard', country: 'US' });
    }),
  );
});

test('rules elsewhere or of another class change nothing', () => {
  fc.assert(
    fc.property(rules, rules, (list, others) => {
      const strangers = others.map((rule) => ({ ...rule, country: 'FR' }));
      expect(applyingRules(PLACE, 'standard', [...list, ...strangers])).toEqual(applyingRules(PLACE, 'standard', list));
    }),
  );
});
