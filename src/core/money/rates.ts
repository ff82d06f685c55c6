import { type CalendarDate, daysBetween } from '../dates/calendar-date';
import { decimalText, powerOfTen, roundedQuotient, scaledDecimal } from './decimal';

/** The rates of one day: how much of each currency one euro is worth, as decimals. */
export type RateTable = { readonly on: CalendarDate; readonly perEuro: Readonly<Record<string, string>> };

const SCALE = 10;

/**
 * What one main unit of `from` is worth in `to`: the two rates against the euro divided, with 10 digits after the point.
 * Null where the table lacks one of them.
 */
export function rateBetween({ perEuro }: RateTable, from: string, to: string): string | null {
  const of = (currency: string) => (currency === 'EUR' ? '1' : (perEuro[currency] ?? null));
  const [source, target] = [of(from), of(to)];
  if (source === null || target === null) return null;
  const [down, up] = [source, target].map((rate) => scaledDecimal(rate, SCALE, 'bad_rate', 'rate'));
  if (!down || !up) return null;
  const rate = roundedQuotient(up * powerOfTen(SCALE), down);
  return rate > 0n ? decimalText(rate, SCALE) : null;
}

const EURO = 'AT BE BG CY DE EE ES FI FR GR HR IE IT LT LU LV MT NL PT SI SK AD MC SM VA ME XK';
const OWN: Readonly<Record<string, string>> = {
  US: 'USD',
  CA: 'CAD',
  GB: 'GBP',
  AU: 'AUD',
  NZ: 'NZD',
  CH: 'CHF',
  LI: 'CHF',
  SE: 'SEK',
  NO: 'NOK',
  DK: 'DKK',
  PL: 'PLN',
  CZ: 'CZK',
  HU: 'HUF',
  RO: 'RON',
  IS: 'ISK',
  JP: 'JPY',
  KR: 'KRW',
  CN: 'CNY',
  HK: 'HKD',
  SG: 'SGD',
  IN: 'INR',
  MX: 'MXN',
  BR: 'BRL',
  ZA: 'ZAR',
  TR: 'TRY',
  IL: 'ILS',
  KW: 'KWD',
};

/** The currency that people of a country are used to; empty where we do not know. @param country ISO 3166-1 */
export const currencyOf = (country: string): string => OWN[country] ?? (EURO.split(' ').includes(country) ? 'EUR' : '');

/** Rates older than this are said to be: banks publish one every working day. */
const FRESH_DAYS = 7;

/** How many days old rates are, where that is more than a week; else null. */
export function rateAge(on: CalendarDate, today: CalendarDate): number | null {
  const days = daysBetween(on, today);
  return days > FRESH_DAYS ? days : null;
}
