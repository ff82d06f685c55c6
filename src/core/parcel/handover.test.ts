/** Measures as people write them, and what a sale hands over. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { PrintedLine } from '../invoice/printed';
import { NO_ADDRESS } from '../place/address';
import { blockOf, handedOver, sameDoor, wantedBy } from './handover';
import { byDoor, contentWords } from './lot';
import { lengthTyped, MOST_GRAMS, MOST_MM, typedLength, typedWeight, weightText, weightTyped } from './measure';

const MEASURES = ['metric', 'imperial'] as const;

describe('measures', () => {
  test.each([
    ['350', 'metric', 350],
    ['350 g', 'imperial', 350],
    ['2.4 kg', 'metric', 2400],
    ['2,4 kg', 'metric', 2400],
    // 12 oz = 340.19 g; 13 lb 4 oz = 212 oz = 6010.10 g.
    ['12 oz', 'imperial', 340],
    ['12', 'imperial', 340],
    ['13 lb 4 oz', 'imperial', 6010],
    ['1 lb', 'imperial', 454],
    ['heavy', 'metric', null],
    ['-5 g', 'metric', null],
    ['3 kg 4 oz', 'metric', null],
    ['101 kg', 'metric', null],
  ] as const)('%s in %s are so many grams', (typed, measures, grams) => {
    expect(typedWeight(typed, measures)).toBe(grams);
  });

  test('what is written for somebody is read again as it was, to the step in which it is written', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: MOST_GRAMS }), fc.constantFrom(...MEASURES), (grams, measures) => {
        const again = typedWeight(weightTyped(grams, measures), measures);
        // Kilograms have two places, pounds whole ounces.
        const step = measures === 'imperial' ? 15 : grams < 1000 ? 0 : 5;
        expect(Math.abs((again ?? Number.NaN) - grams)).toBeLessThanOrEqual(step);
      }),
    );
    fc.assert(
      fc.property(fc.integer({ min: 1, max: MOST_MM }), fc.constantFrom(...MEASURES), (millimetres, measures) => {
        const again = typedLength(lengthTyped(millimetres, measures), measures);
        expect(Math.abs((again ?? Number.NaN) - millimetres)).toBeLessThanOrEqual(measures === 'imperial' ? 2 : 0);
      }),
    );
  });

  test('a weight is said in the units of who reads', () => {
    expect([
      weightText(350, 'metric', 'en-GB'),
      weightText(2400, 'metric', 'de-DE'),
      weightText(340, 'imperial', 'en-US'),
      weightText(6010, 'imperial', 'en-US'),
      weightText(454, 'imperial', 'en-US'),
    ]).toEqual(['350 g', '2,4 kg', '12 oz', '13 lb 4 oz', '1 lb']);
  });
});

const line = (more: Partial<PrintedLine>): PrintedLine => ({
  what: 'Rosin',
  unit: 'piece',
  quantity: '1',
  unitPrice: '8',
  gross: 800,
  discount: 0,
  discountText: '',
  net: 800,
  taxes: [],
  ...more,
});

describe('what a sale hands over', () => {
  const ways = new Map([
    ['rosin', 'posted'],
    ['hours', 'service'],
    ['tracks', 'digital'],
  ] as const);

  test('a line goes as it says, else as its item; work and nothing are not packed', () => {
    const lines = [
      line({ itemId: 'rosin' }),
      line({ itemId: 'hours' }),
      line({ itemId: 'tracks' }),
      line({}),
      line({ itemId: 'rosin', handed: 'collected' }),
      line({ handed: 'posted', quantity: '0' }),
    ];
    expect(handedOver(lines, ways, true).map((one) => [one.line, one.handed])).toEqual([
      [0, 'posted'],
      [2, 'digital'],
      [4, 'collected'],
    ]);
  });

  test('where nothing is delivered, goods are collected, but for those that were said to be posted', () => {
    const lines = [line({ itemId: 'rosin' }), line({ itemId: 'rosin', handed: 'posted' })];
    expect(handedOver(lines, ways, false).map(({ handed }) => handed)).toEqual(['collected', 'posted']);
  });

  test('it is wanted by the latest day that is named', () => {
    expect(wantedBy([{ on: '2026-12-01' }, { on: '' }, {}], '2026-12-24')).toBe('2026-12-24');
    expect(wantedBy([{ on: 'soon' }], '')).toBeNull();
  });

  test.each([
    ['', { lines: ['18 Pan Lane'], city: 'Gull Point', postalCode: '97201', country: 'US' }],
    ['no-address', {}],
    ['no-country', { lines: ['18 Pan Lane'], city: 'Gull Point', postalCode: '97201' }],
    ['no-street', { city: 'Gull Point', postalCode: '97201', country: 'US' }],
    ['no-city', { lines: ['18 Pan Lane'], postalCode: '97201', country: 'US' }],
    ['no-code', { lines: ['18 Pan Lane'], city: 'Gull Point', country: 'US' }],
    ['no-number', { lines: ['Pan Lane'], city: 'Gull Point', postalCode: '97201', country: 'US' }],
    ['', { lines: ['Rose Cottage, Pan Lane'], city: 'Upper Marsh', postalCode: 'UM1 4ZZ', country: 'GB' }],
    ['', { lines: ['١٤ شارع النخيل'], city: 'دبي', postalCode: '', country: 'AE' }],
  ] as const)('%s is what keeps %j', (block, address) => {
    expect(blockOf({ name: 'Ida Marsh', address: { ...NO_ADDRESS, ...address } })).toBe(block);
  });

  test('one door is one parcel, for one customer', () => {
    const at = (customerId: string, name: string, city: string) => ({
      customerId,
      recipient: {
        name,
        address: { ...NO_ADDRESS, lines: ['1 Lane'], city, country: 'US' },
        email: '',
        phone: '',
        locale: 'en-US',
      },
    });
    const [a, b, c, d] = [
      at('1', 'Ida', 'Gull'),
      at('1', ' ida ', 'GULL'),
      at('1', 'Ida', 'Tarn'),
      at('2', 'Ida', 'Gull'),
    ];
    expect(sameDoor(a.recipient, b.recipient)).toBe(true);
    expect(byDoor([a, b, c, d])).toEqual([[a, b], [c], [d]]);
  });

  test('its content is said in a few words', () => {
    const of = (...all: [string, string][]) => contentWords(all.map(([what, quantity]) => ({ what, quantity })));
    expect([
      of(),
      of(['Rosin', '1']),
      of(['Rosin', '2'], ['Mute', '1']),
      of(['A', '1'], ['B', '1'], ['C', '1']),
    ]).toEqual(['Nothing yet', 'Rosin', 'Rosin, 2; Mute', 'A and two more']);
  });
});
