import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { answerLine, verbs } from './verbs';

type Vector = { name: string; in: unknown; out: Record<string, unknown> };

// The repository's own copy, and beside it the place where new cases are handed over, if it is there.
const FOLDERS = ['tests/vectors', '../shared/vectors'].filter((folder) => existsSync(folder));

for (const folder of FOLDERS) {
  for (const file of readdirSync(folder).filter((name) => verbs.includes(name.replace('.ndjson', '')))) {
    const verb = file.replace('.ndjson', '');
    const vectors = readFileSync(join(folder, file), 'utf8')
      .split('\n')
      .filter((line) => line.trim())
      .map((line) => JSON.parse(line) as Vector);

    describe(`${folder}/${file}`, () => {
      test.each(vectors)('$name', (vector) => {
        const answer = JSON.parse(answerLine(verb, JSON.stringify(vector.in)) ?? 'null') as Record<string, unknown>;
        const { message: _, ...rest } = answer;
        expect('error' in vector.out ? rest : answer).toEqual(vector.out);
      });
    });
  }
}

test('a blank line gets no answer and a broken one is refused without ending the run', () => {
  expect(answerLine('tally', '  ')).toBeNull();
  expect(JSON.parse(answerLine('tally', '{"currency":') ?? '')).toMatchObject({ error: 'bad_input' });
  expect(JSON.parse(answerLine('tally', '[]') ?? '')).toMatchObject({ error: 'bad_input' });
});

describe('the command line under anything', () => {
  const anything = fc.letrec((tie) => ({
    value: fc.oneof(
      { maxDepth: 3 },
      fc.constantFrom(null, true, '', '0', '1.5', '-1', 'USD', 'a', -1, 0, 1, 0.5, 1e300, 2 ** 53),
      fc.array(tie('value'), { maxLength: 3 }),
      fc.dictionary(
        fc.constantFrom('percent', 'amount', 'lines', 'taxes', 'id', 'quantity', 'unitPrice', 'rate', 'name'),
        tie('value'),
        { maxKeys: 4 },
      ),
    ),
  })).value;
  const fields = [
    'currency',
    'pricesIncludeTax',
    'lines',
    'discount',
    'delivery',
    'fees',
    'taxes',
    'flatTaxes',
    'exempt',
    'total',
    'paid',
    'parts',
    'smallest',
    'firstPayment',
    'payment',
    'schedule',
    'dates',
    'zone',
    'hour',
    'limit',
    'place',
    'rules',
    'class',
    'amount',
    'fee',
    'partners',
    'refunds',
    'from',
    'to',
    'rate',
    'count',
    'documents',
    'today',
    'document',
    'steps',
    'days',
    'until',
    'minimum',
    'lag',
    'reserve',
    'make',
    'check',
    'find',
    'text',
    'format',
  ];

  test('an answer is always one JSON object: a result or a known code with the field in its message', () => {
    fc.assert(
      fc.property(fc.constantFrom(...verbs), fc.dictionary(fc.constantFrom(...fields), anything), (verb, input) => {
        const answer = JSON.parse(answerLine(verb, JSON.stringify(input)) ?? '') as {
          error?: string;
          message?: string;
        };
        if (answer.error === undefined) return;
        expect(answer.error).toMatch(
          /^(bad_[a-z]+|amount_out_of_range|discount_too_large|refund_too_large|unknown_tax)$/,
        );
        expect(answer.message?.length).toBeGreaterThan(5);
      }),
      { numRuns: 1500 },
    );
  });

  test.each([['"6"'], ['6'], ['["6"]'], ['[0]'], ['{}'], ['[1,2,3,4,5,6,7]']])(
    'a weekend of %s is no schedule',
    (weekend) => {
      const line = `{"schedule":{"unit":"day","every":1,"start":"2026-01-02","ends":"never","weekend":${weekend}},"limit":1}`;
      expect(JSON.parse(answerLine('schedule', line) ?? '')).toMatchObject({ error: 'bad_schedule' });
    },
  );

  test('the path of what is wrong is in the message', () => {
    const line = { quantity: '1', unitPrice: '2' };
    const input = {
      currency: 'EUR',
      pricesIncludeTax: false,
      lines: [line, { ...line, discount: { amount: -5 } }],
      taxes: [],
    };
    expect(JSON.parse(answerLine('tally', JSON.stringify(input)) ?? '')).toMatchObject({
      error: 'bad_input',
      message: expect.stringContaining('lines[1].discount.amount'),
    });
  });
});
