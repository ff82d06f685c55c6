import fc from 'fast-check';
import { expect, test } from 'vitest';
import { EXTRA_RIGHTS, extraBeyond, holdsText, mayDo, RIGHTS, ROLES } from './rights';

test('a role’s rights, and single rights on top', () => {
  const may = (role: (typeof ROLES)[number]) => RIGHTS.filter((right) => mayDo({ role, extra: [] }, right)).join(' ');
  expect(ROLES.map((role) => `${role}: ${may(role)}`)).toEqual([
    'owner: see ask take give-back records settings people',
    'bookkeeper: see take give-back records',
    'clerk: see ask take records',
    'reader: see',
  ]);
  expect(mayDo({ role: 'clerk', extra: ['give-back'] }, 'give-back')).toBe(true);
  expect(holdsText({ role: 'clerk', extra: ['take', 'give-back'] })).toBe('Clerk, and: Refund and pay out');
});

test('whatever is ticked, nobody but an owner decides who may what, and no right is told twice', () => {
  const holds = fc.record({
    role: fc.constantFrom(...ROLES),
    extra: fc.uniqueArray(fc.constantFrom(...EXTRA_RIGHTS)),
  });
  fc.assert(
    fc.property(holds, fc.constantFrom(...RIGHTS), ({ role, extra }, right) => {
      expect(mayDo({ role, extra }, 'people')).toBe(role === 'owner');
      expect(mayDo({ role, extra }, 'see')).toBe(true);
      const kept = extraBeyond(role, extra);
      // What is kept says the same as what was ticked.
      expect(mayDo({ role, extra: kept }, right)).toBe(mayDo({ role, extra }, right));
      for (const one of kept) expect(mayDo({ role, extra: [] }, one)).toBe(false);
    }),
  );
});
