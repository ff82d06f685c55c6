import fc from 'fast-check';
import { expect, test } from 'vitest';
import { EXTRAS, extraBeyond, extrasFor, HIDDEN, holdsText, mayDo, RIGHTS, ROLES, SIGHTS } from './rights';

const holds = fc.record({ role: fc.constantFrom(...ROLES), extra: fc.uniqueArray(fc.constantFrom(...EXTRAS)) });

test('a role’s rights, and single rights on top', () => {
  const may = (role: (typeof ROLES)[number]) => RIGHTS.filter((right) => mayDo({ role, extra: [] }, right)).join(' ');
  expect(ROLES.map((role) => `${role}: ${may(role)}`)).toEqual([
    'owner: own customers sums see ask take give-back records pack settings people',
    'bookkeeper: own customers sums see take give-back records',
    'clerk: own customers sums see ask take records pack',
    'packer: own customers pack',
    'reader: own customers sums see',
  ]);
  expect(mayDo({ role: 'clerk', extra: ['give-back'] }, 'give-back')).toBe(true);
  expect(holdsText({ role: 'clerk', extra: ['take', 'give-back'] })).toBe('Clerk, and: Refund and pay out');
  expect(holdsText({ role: 'reader', extra: ['no-sums', 'ask'] })).toBe(
    'Reader, hidden: Sums: no prices, takings or papers',
  );
});

test('whatever is ticked, nobody but an owner decides who may what, and no right is told twice', () => {
  fc.assert(
    fc.property(holds, fc.constantFrom(...RIGHTS), ({ role, extra }, right) => {
      expect(mayDo({ role, extra }, 'people')).toBe(role === 'owner' && !HIDDEN.some((one) => extra.includes(one)));
      expect(mayDo({ role, extra }, 'own')).toBe(true);
      const kept = extraBeyond(role, extra);
      expect(mayDo({ role, extra: kept }, 'people')).toBe(role === 'owner');
      // What is kept is offered, says what it says again, and gives no more than what was ticked or the role has.
      expect(extraBeyond(role, kept)).toEqual(kept);
      for (const one of kept) expect(extrasFor(role, kept)).toContain(one);
      if (mayDo({ role, extra: kept }, right))
        expect(mayDo({ role, extra: [] }, right) || extra.some((one) => one === right)).toBe(true);
    }),
  );
});

test('what is hidden takes along whatever would show it', () => {
  fc.assert(
    fc.property(holds, fc.constantFrom(...RIGHTS), ({ role, extra }, right) => {
      const acting = { role, extra: extraBeyond(role, extra) };
      const isShown = SIGHTS.every((sight) => mayDo(acting, sight));
      // Who packs sees customers, and needs no sums.
      const [customers] = SIGHTS;
      if (right === 'pack') expect(mayDo(acting, right) && !mayDo(acting, customers)).toBe(false);
      else if (!isShown && !['own', ...SIGHTS].includes(right)) expect(mayDo(acting, right)).toBe(false);
    }),
  );
  expect(mayDo({ role: 'reader', extra: ['no-customers'] }, 'sums')).toBe(true);
  expect(mayDo({ role: 'reader', extra: ['no-customers'] }, 'customers')).toBe(false);
  expect(mayDo({ role: 'program', extra: ['see'] }, 'sums')).toBe(true);
  expect(mayDo({ role: 'program', extra: ['ask'] }, 'ask')).toBe(false);
});
