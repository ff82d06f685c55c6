import fc from 'fast-check';
import { expect, test } from 'vitest';
import { USUAL_POLICY } from '../plan/dunning';
import { type Business, NEW_PROFILE } from './business';
import { changedBetween, chargingSettings, profileSettings, type Shown, taxSettings } from './money-settings';

const business: Business = {
  ...NEW_PROFILE,
  name: 'Sallow',
  email: 'a@b.example',
  country: 'US',
  taxNumber: '',
  id: '',
  address: [],
  phone: '',
  website: '',
  zone: 'UTC',
  paperLocale: 'en-US',
  deskLocale: 'en-US',
  currency: 'USD',
  pricesIncludeTax: false,
  smallestPayments: {},
};
const rule = { id: '1', name: 'VAT', rate: '19', class: 'standard', country: 'DE', onDelivery: false, retired: false };

test('what is told is what differs, once, with both values', () => {
  const bank = { ...business.bank, account: 'DE02 1203' };
  expect(changedBetween(profileSettings(business), profileSettings({ ...business, bank }))).toEqual([
    { what: 'Account number', from: '', to: 'DE02 1203' },
  ]);
  const policy = { ...USUAL_POLICY, retryDays: [1], secondCard: false };
  expect(changedBetween(chargingSettings(USUAL_POLICY), chargingSettings(policy)).map(({ what }) => what)).toEqual([
    'Tried again after days',
    'Second card',
  ]);
});

test('a tax rule is told when it changes, comes and goes', () => {
  const told = changedBetween(
    taxSettings([rule]),
    taxSettings([
      { ...rule, rate: '21' },
      { ...rule, id: '2', name: 'Levy' },
    ]),
  );
  expect(told).toEqual([
    { what: 'Tax rule VAT', from: 'VAT 19 %, standard, DE', to: 'VAT 21 %, standard, DE' },
    { what: 'Tax rule Levy', from: '', to: 'Levy 19 %, standard, DE' },
  ]);
  expect(changedBetween(taxSettings([rule]), taxSettings([{ ...rule, retired: true }]))).toMatchObject([{ to: '' }]);
});

test('any two states: nothing for the same, and undone by the changes the other way', () => {
  const states = fc
    .dictionary(fc.string({ maxLength: 4 }), fc.string({ maxLength: 4, minLength: 1 }), { maxKeys: 6 })
    .map((made): Shown => new Map(Object.entries(made).map(([key, text]) => [key, { what: key, text }])));
  fc.assert(
    fc.property(states, states, (one, other) => {
      expect(changedBetween(one, one)).toEqual([]);
      const there = changedBetween(one, other);
      const back = changedBetween(other, one).map(({ what, from, to }) => ({ what, from: to, to: from }));
      const sorted = (all: typeof there) => [...all].sort((a, b) => (a.what < b.what ? -1 : 1));
      expect(sorted(back)).toEqual(sorted(there));
    }),
  );
});
