import { expect, test } from 'vitest';
import { paymentCode } from './payment-code';
import { plainOfReference } from './reference';

const CODE = {
  holder: 'Thistlewood Strings',
  account: 'DE17 5600 0001 0000 0427 7819'.replace('0000 0427 7819', '0004 2778 19'),
  bankCode: '125 000 999',
  currency: 'EUR',
  amountMinor: 24_551n,
  number: '1257',
};

test('a code in the standard’s order: service, bank, holder, account, sum, reference', () => {
  const lines = paymentCode(CODE)?.split('\n') ?? [];
  expect(lines.slice(0, 10)).toEqual([
    'BCD',
    '002',
    '1',
    'SCT',
    '',
    'Thistlewood Strings',
    'DE17560000010004277819',
    'EUR245.51',
    '',
    expect.stringMatching(/^RF\d\d1257$/),
  ]);
  expect(plainOfReference(lines[9] ?? '')).toBe('1257');
  expect(lines).toHaveLength(10);
  expect(paymentCode({ ...CODE, bankCode: 'COBADEFFXXX' })?.split('\n')[4]).toBe('COBADEFFXXX');
});

test('a number of which no reference can be made goes as text; the two exclude each other', () => {
  const lines = paymentCode({ ...CODE, number: 'Ж-7' })?.split('\n') ?? [];
  expect(lines.slice(8)).toEqual(['', '', 'Ж-7']);
});

test('there is none in another currency, without an IBAN of the area, or for a sum out of bounds', () => {
  for (const more of [
    { currency: 'USD' },
    { account: '0042 7781 9' },
    { account: 'DE18560000010004277819' },
    { account: 'BR1800360305000010009795493C1' },
    { amountMinor: 0n },
    { amountMinor: 100_000_000_000n },
  ])
    expect(paymentCode({ ...CODE, ...more })).toBeNull();
});
