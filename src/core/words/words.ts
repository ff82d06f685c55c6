import { ACCOUNT_SCHEME } from '../payment/outcome';
import { de } from './de';
import { en, type Words } from './en';
import { es } from './es';
import { fr } from './fr';

export type { Words };

/** The languages that customers can read; a new one is one file and one word here. */
export const LANGUAGES = { en, de, fr, es } as const satisfies Readonly<Record<string, Words>>;
export type Language = keyof typeof LANGUAGES;

export const isLanguage = (text: string): text is Language => Object.hasOwn(LANGUAGES, text);

/** The words of a language, or of the one a locale begins with; English where there is none of ours. */
export function wordsOf(languageOrLocale: string): Words {
  const language = languageOrLocale.slice(0, 2).toLowerCase();
  return isLanguage(language) ? LANGUAGES[language] : en;
}

/** What was charged, as its holder reads it: a card's scheme is its name, a bank account is called so in their language. */
export const accountText = (card: string, { plan }: Words): string =>
  card.startsWith(ACCOUNT_SCHEME) ? card.replace(ACCOUNT_SCHEME, plan.bankAccount) : card;

const HOMES: Readonly<Record<Language, string>> = { en: 'US', de: 'DE', fr: 'FR', es: 'ES' };

/**
 * The locale in which a customer's dates and sums are written.
 *
 * @param language the customer's; empty for the business's own
 * @param house the business's locale, kept where the languages agree
 * @param country the customer's, for how their language is written there
 */
export function localeFor(language: string, house: string, country: string): string {
  if (!language || house.toLowerCase().startsWith(language)) return house;
  if (!isLanguage(language)) return house;
  const spoken: Readonly<Record<Language, RegExp>> = {
    en: /^(US|GB|IE|CA|AU|NZ)$/,
    de: /^(DE|AT|CH|LI)$/,
    fr: /^(FR|BE|CH|CA|LU)$/,
    es: /^(ES|MX|AR|CO|CL|PE|US)$/,
  };
  return `${language}-${spoken[language].test(country) ? country : HOMES[language]}`;
}
