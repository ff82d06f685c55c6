import { expect, test } from 'vitest';
import { type BusinessTax, placeTaxes, taxClasses } from './business-tax';

const tax = (id: string, part: Partial<BusinessTax> = {}): BusinessTax => ({
  id,
  name: id,
  rate: '10',
  onDelivery: false,
  class: 'standard',
  country: 'US',
  retired: false,
  ...part,
});

const state = tax('state', { regions: ['US-WA'] });
const county = tax('county', { additional: true, regions: ['US-WA'] });
const nation = tax('nation');

test('the most specific rule wins, and one that stands beside others is added to it', () => {
  expect(placeTaxes({ country: 'US', region: 'US-WA' }, 'standard', [nation, state, county])).toEqual([
    'state',
    'county',
  ]);
  expect(placeTaxes({ country: 'US', region: 'US-OR' }, 'standard', [nation, state, county])).toEqual(['nation']);
});

test('a retired tax and one without a country hold nowhere by themselves', () => {
  const rules = [tax('old', { retired: true }), tax('by hand', { country: '' })];
  expect(placeTaxes({ country: 'US' }, 'standard', rules)).toEqual([]);
});

test('another class has rules of its own', () => {
  const reduced = tax('reduced', { class: 'reduced' });
  expect(placeTaxes({ country: 'US' }, 'reduced', [nation, reduced])).toEqual(['reduced']);
  expect(placeTaxes({ country: 'US' }, 'zero', [nation, reduced])).toEqual([]);
});

test('the order of the table does not change which rules hold', () => {
  const place = { country: 'US', region: 'US-WA' };
  const all = [nation, state, county];
  const found = placeTaxes(place, 'standard', all).sort();
  expect(placeTaxes(place, 'standard', [...all].reverse()).sort()).toEqual(found);
});

test('the classes offered are the usual three and the business’s own, each once, without the retired', () => {
  const rules = [
    tax('a', { class: 'books' }),
    tax('b', { class: 'books' }),
    tax('c', { class: 'gone', retired: true }),
  ];
  expect(taxClasses(rules)).toEqual(['standard', 'reduced', 'zero', 'books']);
});
