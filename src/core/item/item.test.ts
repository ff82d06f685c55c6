import { describe, expect, test } from 'vitest';
import { isLow } from '../stock/available';
import { GOES_AS_USUAL, type Item, type ItemOption, itemProblems, itemSearchText, priceIn, stockKey } from './item';

const option = (part: Partial<ItemOption> = {}): ItemOption => ({
  id: 'o',
  name: 'light',
  code: '',
  prices: {},
  onHand: null,
  lowAt: null,
  ...part,
});
const item = (part: Partial<Item> = {}): Item => ({
  id: 'i',
  code: 'STR-1',
  name: 'Violin strings',
  description: 'A set of four',
  kind: 'goods',
  unit: 'piece',
  prices: { USD: '58.50' },
  cost: '',
  taxClass: 'standard',
  onHand: null,
  lowAt: null,
  pictureId: null,
  going: GOES_AS_USUAL,
  options: [],
  ...part,
});

test('an item as it should be has nothing wrong with it', () => {
  expect(itemProblems(item({ options: [option({ code: 'STR-1-L' })] }))).toEqual([]);
});

describe('what is wrong names its place', () => {
  test.each([
    [{ prices: { USD: 'ten' } }, 'prices.USD'],
    [{ prices: { XXY: '10' } }, 'prices.XXY'],
    [{ cost: 'much' }, 'cost'],
    [{ onHand: 'some' }, 'onHand'],
    [{ lowAt: '1..2' }, 'lowAt'],
    [{ options: [option({ name: ' ' })] }, 'options.0.name'],
    [{ options: [option(), option({ id: 'p', prices: { USD: '-' } })] }, 'options.1.prices'],
    [{ options: [option({ onHand: 'x' })] }, 'options.0.onHand'],
    [{ options: [option({ code: 'str-1' })] }, 'code'],
  ] as const)('%j', (part, field) => {
    expect(itemProblems(item(part)).map((one) => one.field)).toEqual([field]);
  });
});

test('stock may be below nothing: more was promised than there was', () => {
  expect(itemProblems(item({ onHand: '-2.5' }))).toEqual([]);
});

test('an option’s own price goes before the item’s; none is given for a currency without', () => {
  const sized = item({ options: [option({ prices: { USD: '61.00' } })] });
  expect(priceIn(sized, sized.options[0] ?? null, 'USD')).toBe('61.00');
  expect(priceIn(sized, null, 'USD')).toBe('58.50');
  expect(priceIn(sized, option(), 'USD')).toBe('58.50');
  expect(priceIn(sized, null, 'EUR')).toBe('');
});

test('it is found by name, code and description, its options’ as well, in small letters', () => {
  const words = itemSearchText(item({ options: [option({ name: 'Heavy', code: 'H-9' })] }));
  for (const part of ['violin strings', 'str-1', 'a set of four', 'heavy', 'h-9']) expect(words).toContain(part);
});

test('stock is promised by item, and by option where it has some', () => {
  expect(stockKey('i', null)).toBe('i');
  expect(stockKey('i', 'o')).toBe('i/o');
});

test('low is at the mark or below it, and nothing where no stock is kept', () => {
  expect(isLow(item({ onHand: '3', lowAt: '3' }))).toBe(true);
  expect(isLow(item({ onHand: '3.0001', lowAt: '3' }))).toBe(false);
  expect(isLow(item({ onHand: null, lowAt: '3' }))).toBe(false);
  expect(isLow(item({ onHand: '3', lowAt: null }))).toBe(false);
});
