import { expect, test } from 'vitest';
import { guessedSetting } from '@/core/beginning/first-setting';
import { countryList, guessing } from './places';

const guess = (zone: string, ...languages: string[]) => guessedSetting(zone, languages, guessing);

test('the zone tells the country, the first language how it is written', () => {
  expect(guess('Europe/Vienna', 'de-AT', 'en')).toEqual({
    country: 'AT',
    zone: 'Europe/Vienna',
    currency: 'EUR',
    locale: 'de-AT',
  });
  expect(guess('America/Los_Angeles', 'en-US')).toMatchObject({ country: 'US', currency: 'USD', locale: 'en-US' });
  // Somebody who reads English in Vienna is in Vienna.
  expect(guess('Europe/Vienna', 'en-GB')).toMatchObject({ country: 'AT', currency: 'EUR', locale: 'en-AT' });
  expect(guess('Europe/Zurich', 'fr-CH', 'de')).toMatchObject({ country: 'CH', currency: 'CHF', locale: 'fr-CH' });
  expect(guess('Asia/Tokyo', 'ja-JP')).toMatchObject({ country: 'JP', currency: 'JPY', locale: 'en-JP' });
  // An older name of a zone, as some browsers have it.
  expect(guess('Asia/Kolkata', 'en-IN')).toMatchObject({ country: 'IN', currency: 'INR' });
});

test('without a zone the country in the language tells; with nothing at all there is still a beginning', () => {
  expect(guess('', 'es', 'es-MX')).toMatchObject({ country: 'MX', currency: 'MXN', locale: 'es-MX' });
  expect(guess('Nowhere/Land', 'xx', '*')).toMatchObject({ country: 'US', currency: 'USD', locale: 'en-US' });
  // A zone of no country stays: it is the clock that the browser goes by.
  expect(guess('UTC', 'de')).toMatchObject({ zone: 'UTC', locale: 'de-US' });
  expect(guess('', 'en-US').zone).toBe('America/New_York');
});

test('every country has a currency, and its zone can be used', () => {
  expect(countryList('en').filter(({ code }) => !guessing.currencyOf(code))).toEqual([]);
  for (const { code } of countryList('en')) {
    const zone = guessing.zoneOf(code);
    if (zone) expect(() => new Intl.DateTimeFormat('en', { timeZone: zone })).not.toThrow();
  }
});
