import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { type Address, addressForm, addressLines, countryName, isNoAddress, NO_ADDRESS } from './address';

const at = (part: Partial<Address>): Address => ({
  lines: ['9 Weir Street'],
  city: 'Altmoor',
  region: '',
  postalCode: '10115',
  country: 'DE',
  ...part,
});

describe('the last lines are in the country’s own order', () => {
  test.each([
    ['DE', {}, ['10115 Altmoor']],
    ['US', { region: 'US-WA', postalCode: '98101' }, ['Altmoor, WA 98101']],
    ['CA', { region: 'CA-QC', postalCode: 'H2X 1Y4' }, ['Altmoor, QC H2X 1Y4']],
    ['GB', { region: 'GB-KEN', postalCode: 'ME1 1AA' }, ['Altmoor', 'ME1 1AA']],
    ['NZ', { postalCode: '6011' }, ['Altmoor 6011']],
    ['HK', { postalCode: '' }, ['Altmoor']],
    ['XX', {}, ['10115 Altmoor']],
  ] as const)('%s', (country, part, last) => {
    expect(addressLines(at({ country, ...part }), country, 'en-US')).toEqual(['9 Weir Street', ...last]);
  });
});

test('the country ends it where it is not the sender’s own, in the reader’s language', () => {
  expect(addressLines(at({}), 'US', 'en-US').at(-1)).toBe('Germany');
  expect(addressLines(at({}), 'US', 'fr').at(-1)).toBe('Allemagne');
  expect(addressLines(at({}), 'DE', 'en-US').at(-1)).toBe('10115 Altmoor');
});

test('what is missing leaves no hole: no empty line, no comma without what follows', () => {
  const part = fc.constantFrom('', ' ', 'Altmoor', 'Ödön');
  const address = fc.record({
    lines: fc.array(part, { maxLength: 3 }),
    city: part,
    region: fc.constantFrom('', 'US-WA', 'GB-KEN'),
    postalCode: fc.constantFrom('', '98101'),
    country: fc.constantFrom('', 'US', 'GB', 'DE', 'AU', 'IN', 'AE'),
  });
  fc.assert(
    fc.property(address, (one) => {
      for (const line of addressLines(one, 'US', 'en-US')) {
        expect(line).toBe(line.trim());
        expect(line).not.toMatch(/^$|^,|,$| {2}/);
      }
    }),
  );
});

test('a country alone is no address, and a word is one', () => {
  expect(isNoAddress({ ...NO_ADDRESS, country: 'DE', lines: [' '] })).toBe(true);
  expect(isNoAddress({ ...NO_ADDRESS, city: 'Altmoor' })).toBe(false);
});

test('a code that is no country is shown as it is', () => {
  expect(countryName('', 'en-US')).toBe('');
  expect(countryName('Altmoor', 'en-US')).toBe('Altmoor');
});

test('every country asks for its code by the name that it has there', () => {
  expect(addressForm('US')).toMatchObject({ postalCode: 'ZIP code', region: 'State' });
  expect(addressForm('GB')).toMatchObject({ postalCode: 'Postcode', region: 'County', regionPrinted: false });
  expect(addressForm('AE').postalCode).toBe('');
});
