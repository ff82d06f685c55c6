import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { NO_ADDRESS } from '../place/address';
import { isDeclared } from './border';
import {
  customsProblems,
  declarationOf,
  declaredSum,
  isHsCode,
  type LineToDeclare,
  NATURES,
  USUAL_CUSTOMS,
} from './declaration';
import { kilograms, writtenDeclaration } from './form';

const at = (country: string, postalCode = '', region = '') => ({ ...NO_ADDRESS, country, postalCode, region });
const US = at('US', '97201', 'US-OR');
const STRINGS = { grams: 40, hsCode: '9209.94', origin: 'DK' };
const line = (more: Partial<LineToDeclare> = {}): LineToDeclare => ({
  ...{ what: 'Violin strings', quantity: '2', valueMinor: 4800n, customs: null, item: STRINGS },
  ...more,
});
const declaration = (lines: readonly LineToDeclare[], part = {}) =>
  declarationOf(lines, { ...USUAL_CUSTOMS, ...part }, { currency: 'USD', reference: '' });

describe('where a border asks', () => {
  test.each([
    ['at home', US, at('US', '10001'), false],
    ['abroad', US, at('CA', 'K1A 0B1'), true],
    ['within the Union', at('DE', '10115'), at('FR', '75001'), false],
    ['out of the Union', at('DE', '10115'), at('CH', '8001'), true],
    ['Switzerland and Liechtenstein are one area', at('CH', '8001'), at('LI', '9490'), false],
    ['Monaco belongs to the Union', at('FR', '06000'), at('MC', '98000'), false],
    ['Monaco under a French code too', at('DE', '10115'), at('FR', '98000'), false],
    ['overseas under a French code', at('FR', '75001'), at('FR', '97400'), true],
    ['overseas under its own code', at('FR', '75001'), at('RE', '97400'), true],
    ['the Canary Islands, from their own country', at('ES', '28001'), at('ES', '35001'), true],
    ['between the Canary Islands', at('ES', '35001'), at('ES', '35 500'), false],
    ['Heligoland', at('DE', '10115'), at('DE', '27498'), true],
    ['Northern Ireland from the Union', at('IE', 'D02'), at('GB', 'BT1 5GS'), false],
    ['Northern Ireland from elsewhere', US, at('GB', 'BT1 5GS'), true],
    ['Great Britain from the Union', at('IE', 'D02'), at('GB', 'SW1A 1AA'), true],
    ['post of forces', US, at('US', '09012', 'US-AE'), true],
    ['nobody said where from', NO_ADDRESS, US, false],
  ])('%s', (_, from, to, asked) => {
    expect(isDeclared(from, to)).toBe(asked);
    // A border asks in both directions.
    expect(isDeclared(to, from)).toBe(asked);
  });
});

describe('what is declared', () => {
  test('a line says what its item says, and what was said for it before that', () => {
    const said = { declaredAs: 'Steel strings for violin', hsCode: '', origin: 'US', netGrams: 45 };
    expect(declaration([line(), line({ customs: said })]).lines).toEqual([
      { what: 'Violin strings', quantity: '2', grams: 80, minor: 4800, hsCode: '920994', origin: 'DK' },
      { what: 'Steel strings for violin', quantity: '2', grams: 90, minor: 4800, hsCode: '920994', origin: 'US' },
    ]);
  });

  test('what is sold needs number, country, weight and worth; a gift needs its worth all the same', () => {
    const bare = line({ item: null, valueMinor: 0n });
    const fields = (part = {}) => customsProblems(declaration([bare], part), 500).map(({ field }) => field);
    expect(fields()).toEqual(['netGrams', 'minor', 'hsCode', 'origin']);
    expect(fields({ nature: 'gift' })).toEqual(['netGrams', 'minor']);
    expect(fields({ nature: 'documents' })).toEqual(['netGrams']);
    expect(fields({ nature: 'other' })).toEqual(['explanation', 'netGrams', 'minor']);
    expect(customsProblems(declaration([line()]), 500)).toEqual([]);
  });

  test.each(['gift', 'Samples', ' goods ', 'Spare parts', '…', '-', '12', 'An item'])('%j says nothing', (what) => {
    expect(customsProblems(declaration([line({ what })]), 500).map(({ field }) => field)).toEqual(['declaredAs']);
  });
  test.each(['Gift box of rosin', 'バイオリンの弦', 'Скрипка', 'Geigensaiten, Stahl'])('%j says what it is', (what) => {
    expect(customsProblems(declaration([line({ what })]), 500)).toEqual([]);
  });

  test('no more can be in a parcel than it weighs', () => {
    expect(customsProblems(declaration([line({ quantity: '20' })]), 500).map(({ field }) => field)).toEqual([
      'netGrams',
    ]);
  });

  test.each([
    ['920994', true],
    ['9209.94', true],
    ['9209.94.00.00', true],
    ['9209 94 00', true],
    ['9209', false],
    ['92099', false],
    ['920994000', false],
    ['92O994', false],
  ])('a customs number %s', (typed, is) => expect(isHsCode(typed)).toBe(is));

  const anyLine = fc.record({
    what: fc.string({ maxLength: 30 }),
    quantity: fc.integer({ min: 1, max: 99_999 }).map((tenth) => String(tenth / 10)),
    valueMinor: fc.bigInt({ min: 0n, max: 10_000_000n }),
    customs: fc.option(
      fc.record({
        ...{ declaredAs: fc.string({ maxLength: 30 }), hsCode: fc.constantFrom('', '9209.94', 'x') },
        ...{ origin: fc.constantFrom('', 'DK', 'ZZ'), netGrams: fc.option(fc.integer({ min: 1, max: 5000 })) },
      }),
    ),
    item: fc.option(fc.constant(STRINGS)),
  });
  test('sums of the paper are those of its lines, whatever is in it', () => {
    fc.assert(
      fc.property(fc.array(anyLine, { maxLength: 8 }), fc.constantFrom(...NATURES), (lines, nature) => {
        const made = declaration(lines, { nature });
        const { grams, minor } = declaredSum(made);
        const paper = writtenDeclaration(made, grams);
        const sum = (texts: readonly string[]) => texts.reduce((all, text) => all + Math.round(Number(text) * 1000), 0);
        expect(sum(paper.lines.map((one) => one.kilograms))).toBe(sum([paper.netKilograms]));
        expect(BigInt(minor)).toBe(lines.reduce((all, one) => all + one.valueMinor, 0n));
        // What is found wanting names a line that there is.
        for (const problem of customsProblems(made, grams))
          expect(problem.line === null || problem.line < lines.length).toBe(true);
      }),
    );
  });

  test('the paper writes values with their currency and weights in kilograms', () => {
    expect(kilograms(1)).toBe('0.001');
    const { lines, value, grossKilograms } = writtenDeclaration(declaration([line()]), 120);
    expect([lines[0]?.value, lines[0]?.kilograms, value, grossKilograms]).toEqual([
      '48.00 USD',
      '0.080',
      '48.00 USD',
      '0.120',
    ]);
  });
});
