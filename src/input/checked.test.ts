import { ArrayMaxSize, IsArray, IsOptional, Matches, MaxLength } from 'class-validator';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { checkedInput, Malformed, parsedJson } from './checked';
import { QuoteInput } from './checkout-input';
import { ImportInput } from './customer-input';
import { PartnerInput } from './offer-records-input';
import { isStorable, PLAIN_LIMITS, plainTrouble } from './plain';
import { TaxesInput } from './profile-input';
import { MailStatementInput } from './recurring-input';

const wrongOf = async (
  shape: new () => object,
  given: unknown,
): Promise<readonly { field: string; words: string }[]> => {
  try {
    await checkedInput(shape, given);
    return [];
  } catch (error) {
    if (error instanceof Malformed) return error.fields;
    throw error;
  }
};
const fields = (n: number) => Object.fromEntries(Array.from({ length: n }, (_, at) => [`k${at}`, 1]));
const deep = (n: number) => parsedJson(`${'{"a":['.repeat(n)}${']}'.repeat(n)}`);

describe('the form of what is sent', () => {
  test.each([
    ['many fields', fields(PLAIN_LIMITS.names + 1)],
    ['a long list', { a: Array.from({ length: PLAIN_LIMITS.entries + 1 }, () => 1) }],
    ['deep nesting', deep(100)],
    ['nesting without end', deep(30_000)],
    ['very many values', { a: Array.from({ length: 4000 }, () => Array.from({ length: 50 }, () => 1)) }],
    ['a constructor', { constructor: {} }],
    ['a prototype', parsedJson('{"a":{"__proto__":{"role":"owner"}}}')],
    ['a NUL', { a: ['x\u0000'] }],
    ['half a sign', { a: { b: '\ud83d' } }],
    ['half a sign as a name', { '\ud83d': 1 }],
  ])('%s is refused before any rule', async (_, given) => {
    expect(plainTrouble(given)).toEqual(expect.any(String));
    expect((await wrongOf(QuoteInput, given)).length).toBe(1);
  });

  test('whatever JSON holds that is small and plain is let through to the rules', () => {
    const storable = fc.string({ unit: 'grapheme', maxLength: 20 }).filter(isStorable);
    fc.assert(
      fc.property(
        fc.dictionary(
          fc.stringMatching(/^[a-z]{1,8}$/),
          fc.oneof(storable, fc.double(), fc.boolean(), fc.constant(null)),
        ),
        (given) => {
          expect(plainTrouble(JSON.parse(JSON.stringify(given)))).toBeNull();
        },
      ),
    );
  });

  test('any text is either kept as it is or refused: nothing in between', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), (text) => {
        const kept = Buffer.from(text, 'utf8').toString('utf8') === text && !text.includes('\u0000');
        expect(isStorable(text)).toBe(kept);
      }),
    );
  });
});

test('twenty wrong fields are told, not more', async () => {
  expect((await wrongOf(QuoteInput, fields(150))).length).toBe(20);
});

test('a list where an object belongs is no object, however it is packed', async () => {
  expect(await wrongOf(TaxesInput, { rules: [[]] })).toMatchObject([{ field: 'rules.0' }]);
  expect(await wrongOf(TaxesInput, { rules: [[[{}]]] })).not.toEqual([]);
  // Rows of a table are lists of lists, and stay so.
  expect(await wrongOf(ImportInput, { mapping: [null], rows: [['a'], ['b']], write: false })).toEqual([]);
});

test('a list with more entries than it takes is told of by itself: none of its entries is looked at', async () => {
  const items = (n: number) => Array.from({ length: n }, () => ({ id: 'x', optionId: 1, quantity: 2 }));
  expect((await wrongOf(QuoteInput, { choice: { items: items(4000) } })).map(({ field }) => field)).toEqual([
    'choice.items',
  ]);
  expect((await wrongOf(QuoteInput, { choice: { items: items(60) } })).map(({ field }) => field)).toContain(
    'choice.items.0.id',
  );
});

test('names that nobody knows are told of before any rule, at whatever depth', async () => {
  expect(await wrongOf(QuoteInput, { choice: { items: [{ id: 1, price: 1 }], tip: 5 } })).toEqual([
    { field: 'choice.items.0.price', words: expect.any(String) },
  ]);
});

/** A pattern that takes forever on what nearly fits it. */
class Hard {
  @MaxLength(20) @Matches(/^(a+)+$/) short!: string;
  @IsOptional() @IsArray() @ArrayMaxSize(3) @Matches(/^(a+)+$/, { each: true }) list?: string[];
}

test('a text far longer than its rule is told of before any pattern is tried on it', async () => {
  const long = `${'a'.repeat(2000)}!`;
  expect(await wrongOf(Hard, { short: long })).toMatchObject([{ field: 'short' }]);
  expect(await wrongOf(Hard, { short: 'a', list: ['a', long] })).toMatchObject([{ field: 'list' }]);
  expect(await wrongOf(Hard, { short: 'aaa', list: ['a'] })).toEqual([]);
});

test('signs are counted as their rule counts them: a name of pictures is not too long', async () => {
  const partner = { name: '👩🏽‍🎤'.repeat(40), email: 'x@y.example' };
  expect(await wrongOf(PartnerInput, partner)).toEqual([]);
  expect(await wrongOf(PartnerInput, { ...partner, name: '弦'.repeat(161) })).toMatchObject([{ field: 'name' }]);
});

test('one object is no list, where one is asked for', async () => {
  expect(await wrongOf(QuoteInput, { choice: { billing: [{}] } })).toMatchObject([{ field: 'choice.billing' }]);
});

test('a day that is none is refused where it is sent, not where a job would fail on it for ever', async () => {
  const statement = { from: '', to: '', currency: 'USD', requestKey: crypto.randomUUID(), text: '' };
  expect(await wrongOf(MailStatementInput, statement)).toEqual([]);
  for (const day of ['2026-02-30', '0000-00-00', '9999-99-99', '0001-01-01', '9999-12-31', '٢٠٢٦-١١-٢٠'])
    expect(
      (await wrongOf(MailStatementInput, { ...statement, to: day })).map(({ field }) => field),
      day,
    ).toEqual(['to']);
});

test.each(['[]', 'null', '"x"', '1', 'true'])('%s is no object', async (text) => {
  expect((await wrongOf(QuoteInput, parsedJson(text))).length).toBe(1);
});

test('what is no JSON says so', () => {
  expect(() => parsedJson('{')).toThrow(Malformed);
  expect(parsedJson('')).toEqual({});
});
