import fc from 'fast-check';
import { expect, test } from 'vitest';
import { BUSINESS_KINDS, businessKind, findKinds } from './kinds';
import { answerProblems, STATEMENT_NAME, statementName, steps } from './opening';

const at = new Date(0);

test('what opens what: the first that is missing is next, the others wait without hurry', () => {
  const shown = (
    mailConfirmedAt: Date | null,
    cardsSince: Date | null,
    account: Parameters<typeof steps>[1],
    check: Parameters<typeof steps>[2] = null,
  ) => {
    const verifiedAt = check === 'accepted' ? at : null;
    return steps({ mailConfirmedAt, cardsSince, verifiedAt }, account, check)
      .map(({ step, state }) => `${step} ${state}`)
      .join(', ');
  };
  expect(shown(null, null, 'none')).toBe('signed-up open, mail next, cards later, identity later, payouts later');
  expect(shown(at, null, 'checking', 'checking')).toBe(
    'signed-up open, mail open, cards next, identity looked-at, payouts looked-at',
  );
  expect(shown(null, at, 'none')).toBe('signed-up open, mail next, cards open, identity later, payouts later');
  // What is asked anew is theirs to do again.
  expect(shown(at, at, 'confirmed', 'asked')).toBe(
    'signed-up open, mail open, cards open, identity next, payouts open',
  );
  expect(
    shown(at, at, 'confirmed', 'accepted')
      .split(', ')
      .every((one) => one.endsWith(' open')),
  ).toBe(true);
});

test('a name on statements is what every scheme carries, whatever was typed', () => {
  expect(statementName('Ödön’s Geigenbau & Söhne')).toBe('ODON S GEIGENBAU & SOH');
  expect(statementName('  weiß   Müller ')).toBe('WEISS MULLER');
  expect(statementName('竹下 弦楽器')).toBe('');
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme', maxLength: 60 }), (typed) => {
      const name = statementName(typed);
      expect(name).toMatch(/^([A-Z0-9.&/-]([A-Z0-9 .&/-]*[A-Z0-9.&/-])?)?$/);
      expect(name.length).toBeLessThanOrEqual(STATEMENT_NAME.most);
      expect(statementName(name)).toBe(name);
    }),
  );
});

test('cards open with a known kind and a name that can be read', () => {
  const wrong = (kind: string, name: string) => answerProblems({ kind, statementName: name }).map(({ field }) => field);
  expect(wrong('322', 'Thistlewood Strings')).toEqual([]);
  expect(wrong('', 'Ann')).toEqual(['kind', 'statementName']);
  expect(wrong('999', '12345 67')).toEqual(['kind', 'statementName']);
});

test('kinds of business are whole and found by the words of the trade', () => {
  expect(BUSINESS_KINDS.length).toBe(238);
  expect(new Set(BUSINESS_KINDS.map(({ code }) => code)).size).toBe(238);
  for (const { code, name } of BUSINESS_KINDS) {
    expect(code).toMatch(/^\d{3}$/);
    expect(name.length).toBeGreaterThan(4);
  }
  const codes = (typed: string) => findKinds(typed).map(({ code }) => code);
  expect(codes('violin')).toContain('322');
  expect(codes('Hairdr')).toEqual(['960']);
  expect(codes('music lessons')).toEqual(['854']);
  expect(codes('café')).toEqual(codes('cafe'));
  expect(codes('322')).toEqual(['322']);
  expect(codes('   ')).toEqual([]);
  expect(codes('zzz')).toEqual([]);
  expect(businessKind('8540')).toBeNull();
});
