import fc from 'fast-check';
import { expect, test } from 'vitest';
import { calendarDate, dateOfDayNumber } from '../dates/calendar-date';
import { dayHeading, longDate, shortDate } from '../dates/date-text';
import { dayFigures, typedDay } from '../dates/typed-day';
import { money } from '../money/money';
import { figureText, moneyText } from '../money/money-text';
import { decimalSignOf, typedDecimal } from '../money/typed';
import { wordsOf } from '../words/words';
import { AS_BUSINESS, DAY_WAYS, deskLocale, languageOf, NUMBER_WAYS } from './writing';

const locales = fc.constantFrom('en-US', 'en-GB', 'de-DE', 'fr-FR', 'es-ES', 'de-CH', 'pt-BR', 'hu-HU');
const writings = fc.record({
  days: fc.constantFrom(null, ...DAY_WAYS),
  numbers: fc.constantFrom(null, ...NUMBER_WAYS),
});

test('whatever somebody chose, what is written for them reads back as they would type it', () => {
  fc.assert(
    fc.property(
      locales,
      writings,
      fc.bigInt({ min: -(10n ** 15n), max: 10n ** 15n }),
      fc.integer({ min: 0, max: 80_000 }),
      (locale, writing, minor, day) => {
        const own = deskLocale(locale, writing);
        const figure = figureText(money(minor, 'EUR'), own).replace('−', '');
        const [whole, cents] = [(minor < 0n ? -minor : minor) / 100n, (minor < 0n ? -minor : minor) % 100n];
        expect(typedDecimal(figure, decimalSignOf(own))).toBe(`${whole}.${`${cents}`.padStart(2, '0')}`);
        const on = dateOfDayNumber(day);
        expect(typedDay(dayFigures(on, own), own)).toBe(on);
        expect(languageOf(own)).toBe(locale);
        expect(wordsOf(own)).toBe(wordsOf(locale));
      },
    ),
  );
});

test('who chose nothing reads what the business writes', () => {
  fc.assert(
    fc.property(locales, (locale) => {
      expect(deskLocale(locale, AS_BUSINESS)).toBe(locale);
    }),
  );
});

const ON = calendarDate('2025-11-28');

test.each([
  ['en-US-x-dmy-comma', '1.139,33\u00a0$', '28 Nov 2025', '28 November 2025', 'Friday, 28 November', '28/11/2025'],
  ['en-GB-x-mdy-point', '$1,139.33', 'Nov 28, 2025', 'November 28, 2025', 'Friday, November 28', '11/28/2025'],
  ['en-US-x-iso-quote', "$1'139.33", '2025-11-28', '2025-11-28', 'Friday, 2025-11-28', '2025-11-28'],
  ['de-DE-x-dots-lakh', '$1,139.33', '28 Nov. 2025', '28. November 2025', 'Freitag, 28 November', '28.11.2025'],
  ['en-US-x-space', '1\u202f139,33\u00a0$', '28 Nov 2025', 'November 28, 2025', 'Friday, 28 November', '11/28/2025'],
])('%s', (own, sum, short, long, heading, figures) => {
  expect(moneyText(money(113_933n, 'USD'), own)).toBe(sum);
  expect(shortDate(ON, own, { year: true })).toBe(short);
  expect(longDate(ON, own)).toBe(long);
  expect(dayHeading(ON, own)).toBe(heading);
  expect(dayFigures(ON, own)).toBe(figures);
});

test('a group of thousands stands where its writer puts it', () => {
  expect(figureText(money(1_234_567_89n, 'EUR'), 'en-GB-x-lakh')).toBe(
    '12,34,567.89'.replace('12,34,567', '12,34,567'),
  );
  expect(shortDate(ON, 'en-GB-x-mdy', { weekday: true, year: true })).toBe('Fri Nov 28, 2025');
  expect(shortDate(ON, 'en-GB-x-iso')).toBe('11-28');
});
