import type { CalendarDate } from '../dates/calendar-date';
import { type FrontChoice, type Fronts, tradingNameOf } from '../front/front';

/** A series of numbers: `{n}` is its counter, `{n:4}` with leading zeros, `{year}`, `{yy}` and `{month}` of the day of issue. */
export type NumberSeries = { readonly name: string; readonly pattern: string };

/** The series of a business that has not made its own. */
export const PLAIN_SERIES: NumberSeries = { name: '', pattern: '{n}' };

const TOKEN = /\{(n(?::([1-9]))?|year|yy|month)\}/g;

/** The number that a counter gives on a day. */
export function numberText({ pattern }: NumberSeries, counter: bigint, on: CalendarDate): string {
  const [year = '', month = ''] = on.split('-');
  return pattern.replace(TOKEN, (_, token: string, digits: string | undefined) => {
    if (token === 'year') return year;
    if (token === 'yy') return year.slice(2);
    if (token === 'month') return month;
    return counter.toString().padStart(Number(digits ?? 1), '0');
  });
}

/** The counter behind a series on a day: one of its own each year where the number says the year, each month likewise. */
export function counterKey({ name, pattern }: NumberSeries, on: CalendarDate): string {
  const [year = '', month = ''] = on.split('-');
  const base = name ? `invoice:${name}` : 'invoice';
  const span = /\{month\}/.test(pattern) && /\{yy?(ear)?\}/.test(pattern) ? `${year}-${month}` : year;
  return /\{(year|yy)\}/.test(pattern) ? `${base}:${span}` : base;
}

/** The series that numbers a paper: the one it names, else its trading name's, else the business's first. */
export function seriesFor(
  all: readonly NumberSeries[],
  fronts: Fronts,
  paper: FrontChoice & { readonly series: string },
): NumberSeries {
  const named = [paper.series, tradingNameOf(fronts, paper)?.series];
  const wanted = named.map((series) => all.find(({ name }) => series && name === series)).find(Boolean);
  return wanted ?? all[0] ?? PLAIN_SERIES;
}

/** What is wrong with a pattern, in words, or null. */
export function patternProblem(pattern: string): string | null {
  if (!/\{n(:[1-9])?\}/.test(pattern)) return 'The number needs its counter: write {n}, or {n:4} for four digits.';
  const rest = pattern.replace(TOKEN, '');
  if (/[{}]/.test(rest)) return 'Only {n}, {n:4}, {year}, {yy} and {month} can stand in braces.';
  if (!/^[\p{L}\p{N} ./_-]*$/u.test(rest)) return 'Letters, digits, spaces and . / _ - can stand in a number.';
  return pattern.length > 40 ? 'A pattern has 40 letters at most.' : null;
}
