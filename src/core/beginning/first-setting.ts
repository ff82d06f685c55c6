import { isLanguage } from '../words/words';

/** What a business counts and writes in, as it is guessed before anybody says so. */
export type FirstSetting = {
  /** ISO 3166-1. */
  readonly country: string;
  /** IANA. */
  readonly zone: string;
  /** ISO 4217. */
  readonly currency: string;
  /** BCP 47, language and country: how dates and sums are written, and what customers without a language of their own read. */
  readonly locale: string;
};

/** What is known of places: which country a zone lies in, and what is paid with there. */
export type Places = {
  readonly countryOfZone: (zone: string) => string | null;
  readonly isZone: (zone: string) => boolean;
  readonly currencyOf: (country: string) => string | null;
  readonly zoneOf: (country: string) => string | null;
};

const NOWHERE: FirstSetting = { country: 'US', zone: 'UTC', currency: 'USD', locale: 'en-US' };

/** A locale of a language that customers can read, as it is written in a country; English where we have no words of theirs. */
export const localeIn = (language: string, country: string): string =>
  `${isLanguage(language.slice(0, 2).toLowerCase()) ? language.slice(0, 2).toLowerCase() : 'en'}-${country}`;

/**
 * Guesses where somebody works from what their browser says: the zone tells the country, since languages are spoken in many; without
 * a zone the country in their language does.
 *
 * @param zone IANA, or empty
 * @param languages BCP 47, the liked one first
 */
export function guessedSetting(zone: string, languages: readonly string[], places: Places): FirstSetting {
  const spoken = languages.find((one) => /^[a-z]{2,3}([-_]|$)/i.test(one)) ?? '';
  const inLanguage = languages
    .map((one) => /[-_]([A-Z]{2})$/.exec(one)?.[1] ?? '')
    .find((country) => country !== '' && places.currencyOf(country));
  const country = places.countryOfZone(zone) ?? inLanguage ?? NOWHERE.country;
  return {
    country,
    zone: places.isZone(zone) ? zone : (places.zoneOf(country) ?? NOWHERE.zone),
    currency: places.currencyOf(country) ?? NOWHERE.currency,
    locale: localeIn(spoken, country),
  };
}

/** Where prices are shown without tax also to consumers. */
const WITHOUT_TAX = new Set(['US', 'CA']);

/** Whether prices include tax, until the business says otherwise. */
export const pricesUsuallyIncludeTax = (country: string): boolean => !WITHOUT_TAX.has(country);
