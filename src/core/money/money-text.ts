import { numbersLike } from '../writing/writing';
import { minorDigits } from './currency';
import { type Money, money } from './money';

const formatters = new Map<string, Intl.NumberFormat>();

function formatter(locale: string, digits: number): Intl.NumberFormat {
  const key = `${locale} ${digits}`;
  const known = formatters.get(key);
  if (known) return known;
  const made = new Intl.NumberFormat(numbersLike(locale), {
    minimumFractionDigits: digits,
    maximumFractionDigits: digits,
  });
  formatters.set(key, made);
  return made;
}

/** The figure alone, grouped as the locale has it and with a true minus sign: `1,139.33`. */
export function figureText(amount: Money, locale: string): string {
  const digits = minorDigits(amount.currency);
  const magnitude = (amount.minor < 0n ? -amount.minor : amount.minor).toString().padStart(digits + 1, '0');
  const point = magnitude.length - digits;
  const decimal = digits ? `${magnitude.slice(0, point)}.${magnitude.slice(point)}` : magnitude;
  // A decimal string keeps every digit: Intl reads it exactly, a number would not above 2^53.
  const text = formatter(locale, digits).format(decimal as `${number}`);
  return amount.minor < 0n ? `−${text}` : text;
}

/** Whether the locale puts the sign before or after the figure, and the sign itself (`$`, `€`). */
export function currencySign(currency: string, locale: string): { sign: string; leads: boolean } {
  const parts = new Intl.NumberFormat(numbersLike(locale), {
    style: 'currency',
    currency,
    currencyDisplay: 'narrowSymbol',
  });
  const list = parts.formatToParts(0).filter((part) => part.type === 'currency' || part.type === 'integer');
  const sign = list.find((part) => part.type === 'currency')?.value ?? currency;
  return { sign, leads: list[0]?.type === 'currency' };
}

/** The whole sum in one string for running text, mail and file: `$1,139.33`, `151,20 €`. */
export function moneyText(amount: Money, locale: string): string {
  const { sign, leads } = currencySign(amount.currency, locale);
  const figure = figureText({ ...amount, minor: amount.minor < 0n ? -amount.minor : amount.minor }, locale);
  const text = leads ? `${sign}${figure}` : `${figure}\u00a0${sign}`;
  return amount.minor < 0n ? `−${text}` : text;
}

/** A sum as it is typed: a plain decimal with all of its currency's digits. @param minor minor units */
export const plainSum = (minor: bigint, currency: string): string =>
  figureText(money(minor, currency), 'en-US').replace(/,/g, '');
