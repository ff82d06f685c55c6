/**
 * How somebody writes days and numbers, whatever the business's papers do. It travels in the private part of the desk's locale
 * (BCP 47, section 2.2.7: `en-GB-x-mdy-comma`), so that everything which writes or reads by a locale follows without being told.
 */
export const DAY_WAYS = ['dmy', 'dots', 'mdy', 'iso'] as const;
export type DayWay = (typeof DAY_WAYS)[number];

export const NUMBER_WAYS = ['point', 'comma', 'space', 'quote', 'lakh'] as const;
export type NumberWay = (typeof NUMBER_WAYS)[number];

/** Null where the business's own way is theirs. */
export type Writing = { readonly days: DayWay | null; readonly numbers: NumberWay | null };

export const AS_BUSINESS: Writing = { days: null, numbers: null };

/** Locales that write numbers so. */
const NUMBERS_LIKE: Readonly<Record<NumberWay, string>> = {
  point: 'en-GB',
  comma: 'de-DE',
  space: 'fr-FR',
  quote: 'de-CH',
  lakh: 'en-IN',
};

const isDayWay = (text: string): text is DayWay => DAY_WAYS.some((way) => way === text);
const isNumberWay = (text: string): text is NumberWay => NUMBER_WAYS.some((way) => way === text);

/** The locale of the desk for somebody who writes so. @param locale the business's, BCP 47 */
export function deskLocale(locale: string, { days, numbers }: Writing): string {
  const own = [days, numbers].filter((way) => way !== null);
  return own.length === 0 ? locale : `${locale}-x-${own.join('-')}`;
}

const known = new Map<string, { readonly language: string; readonly writing: Writing }>();

function partsOf(locale: string): { readonly language: string; readonly writing: Writing } {
  const found = known.get(locale);
  if (found) return found;
  const [language = '', own = ''] = locale.split('-x-');
  const ways = own.split('-');
  const writing = { days: ways.find(isDayWay) ?? null, numbers: ways.find(isNumberWay) ?? null };
  const parts = { language, writing };
  known.set(locale, parts);
  return parts;
}

/** How days are written under a locale; null where as its language does. */
export const dayWay = (locale: string): DayWay | null => partsOf(locale).writing.days;

/** The locale by which numbers are written under a locale. */
export function numbersLike(locale: string): string {
  const { language, writing } = partsOf(locale);
  return writing.numbers ? NUMBERS_LIKE[writing.numbers] : language;
}

/** The business's own locale again, without anybody's way. */
export const languageOf = (locale: string): string => partsOf(locale).language;
