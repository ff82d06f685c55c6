/** What is kept, opened in its form and sent again without a change is the same, and the form's own rules let it pass. */
import 'reflect-metadata';
import { plainToInstance } from 'class-transformer';
import { validate } from 'class-validator';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { NEW_PROFILE, type ProfileFields } from '@/core/business/business';
import { type Customer, newCustomer } from '@/core/customer/customer';
import type { BusinessTax } from '@/core/tax/business-tax';
import { CustomerInput } from '@/input/customer-input';
import { ItemInput } from '@/input/item-input';
import { ProfileInput } from '@/input/profile-input';
import { customerTyped, typedCustomer } from './customer/customer-typed';
import { BLANK_ITEM, itemTyped } from './item/item-typed';
import { forgetTyped, keepTyped, typedBefore } from './kit/typed-words';
import { daysOf, profileTyped, typedProfile } from './profile/profile-typed';
import { taxTyped, typedTax } from './tax/tax-columns';

/** What the form and the handler would find wrong with a body, by field. */
async function wrongIn(Shape: new () => object, body: object): Promise<string[]> {
  const errors = await validate(plainToInstance(Shape, body), { whitelist: true, forbidNonWhitelisted: true });
  return errors.map(({ property }) => property);
}

const word = fc.stringMatching(/^[A-Za-zÄÖÜäöüß][A-Za-zÄÖÜäöüß .'-]{0,12}[a-z]$/);

describe('a customer', () => {
  const customer: fc.Arbitrary<Omit<Customer, 'id'>> = fc
    .record({ name: word, copies: fc.array(word, { maxLength: 3 }), groups: fc.array(word, { maxLength: 3 }) })
    .map(({ name, ...rest }) => newCustomer(name, rest));

  test('is the same after its form', () => {
    fc.assert(
      fc.property(customer, (kept) => {
        expect(customerTyped(typedCustomer(kept))).toEqual(kept);
      }),
    );
  });

  test('with a name alone passes; without one, or with half an address, it does not', async () => {
    expect(await wrongIn(CustomerInput, customerTyped(typedCustomer(newCustomer('Perpetua Vane'))))).toEqual([]);
    expect(await wrongIn(CustomerInput, newCustomer(' '))).toEqual(['name']);
    expect(await wrongIn(CustomerInput, newCustomer('X', { email: 'x@y' }))).toEqual(['email']);
  });

  test('lists are typed with commas, semicolons or lines between', () => {
    const typed = { ...typedCustomer(newCustomer('X')), groups: ' Choir;School,\nRents a cello , ' };
    expect(customerTyped(typed).groups).toEqual(['Choir', 'School', 'Rents a cello']);
  });
});

describe('an item', () => {
  test('with a name passes; prices that nobody wrote are not sent', async () => {
    const typed = { ...BLANK_ITEM, name: 'Rosin', prices: { USD: ' ', EUR: '9.80' } };
    expect(itemTyped(typed).prices).toEqual({ EUR: '9.80' });
    expect(await wrongIn(ItemInput, itemTyped(typed))).toEqual([]);
    expect(await wrongIn(ItemInput, itemTyped(BLANK_ITEM))).toEqual(['name']);
  });
});

describe('the profile', () => {
  const {
    id: _,
    address,
    zone,
    paperLocale,
    currency,
    signingSecret,
    receiptStyle,
    charging,
    tariff,
    signedUpAt,
    mailConfirmedAt,
    kind,
    statementName,
    cardsSince,
    verifiedAt,
    tradingNames,
    locations,
    ...kept
  } = {
    ...NEW_PROFILE,
    id: '',
    signingSecret: '',
    name: 'Sallow Joinery',
    email: 'bench@sallow.example',
    country: 'US',
    address: [],
    zone: 'UTC',
    paperLocale: 'en-US',
    currency: 'USD',
    smallestPayments: { USD: 100 },
    phone: '',
    website: '',
    taxNumber: '',
    pricesIncludeTax: false,
  };
  const profile = (part: Partial<ProfileFields> = {}) => ({ ...kept, series: [], ...part }) as ProfileFields;

  test('is the same after its form, and passes', async () => {
    const whole = profile({ reminders: [-3, 4, 14] });
    expect(profileTyped(typedProfile(whole))).toEqual(whole);
    expect(await wrongIn(ProfileInput, profileTyped(typedProfile(whole)))).toEqual([]);
  });

  test('days of reminders are read each once, in their order, whatever else stands there', () => {
    expect(daysOf('14, -3;4 4 soon 9999')).toEqual([-3, 4, 14]);
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: -365, max: 365 }), { maxLength: 8 }), (days) => {
        const sorted = [...days].sort((a, b) => a - b);
        expect(daysOf(days.join(', '))).toEqual(sorted);
      }),
    );
  });
});

test('a tax rule is the same after its table: an empty list is none', () => {
  const rule: BusinessTax = {
    id: 'a',
    name: 'Sales tax',
    rate: '8.25',
    class: 'standard',
    country: 'US',
    onDelivery: true,
    retired: false,
  };
  expect(taxTyped(typedTax(rule))).toEqual(rule);
  const placed = { ...rule, regions: ['US-WA'], postalCodes: ['981*'] };
  expect(taxTyped(typedTax(placed))).toEqual(placed);
});

test('a window that keeps nothing loses nothing else: typed words are simply not there', () => {
  keepTyped('customer:new', { name: 'Half a na' });
  expect(typedBefore('customer:new')).toBeNull();
  expect(() => forgetTyped('customer:new')).not.toThrow();
});
