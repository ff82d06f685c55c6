import fc from 'fast-check';
import { expect, test } from 'vitest';
import { dateOfDayNumber } from './calendar-date';
import { dayFigures, dayPattern, typedDay } from './typed-day';

test.each([
  ['en-US', '04/03/2026', 'MM/DD/YYYY'],
  ['en-GB', '03/04/2026', 'DD/MM/YYYY'],
  ['de-DE', '03.04.2026', 'DD.MM.YYYY'],
  ['fr-CA', '2026-04-03', 'YYYY-MM-DD'],
  ['nl-NL', '03-04-2026', 'DD-MM-YYYY'],
  ['hu-HU', '2026.04.03', 'YYYY.MM.DD'],
])('%s writes the third of April as %s', (locale, text, pattern) => {
  expect(dayFigures('2026-04-03', locale)).toBe(text);
  expect(dayPattern(locale)).toBe(pattern);
  expect(typedDay(text, locale)).toBe('2026-04-03');
});

test.each([
  ['4/3/26', 'en-US', '2026-04-03'],
  ['3. 4. 2026', 'de-DE', '2026-04-03'],
  ['3 4 2026', 'en-GB', '2026-04-03'],
  ['2026-04-03', 'en-US', '2026-04-03'],
  ['13/04/2026', 'en-US', null],
  ['02/30/2026', 'en-US', null],
  ['4/3', 'en-US', null],
  ['tomorrow', 'en-US', null],
  ['4/3/2026x', 'en-US', null],
  ['', 'en-US', null],
])('“%s” typed in %s is %s', (text, locale, date) => {
  expect(typedDay(text, locale)).toBe(date);
});

test('what a field shows reads back as the same day, in every order, also where figures or calendars are others', () => {
  const locale = fc.constantFrom(
    'en-US',
    'en-GB',
    'de-AT',
    'fr-CA',
    'ja-JP',
    'ar-EG',
    'fa-IR',
    'th-TH',
    'hu-HU',
    'sv-SE',
  );
  fc.assert(
    fc.property(fc.integer({ min: 700_000, max: 800_000 }), locale, (count, where) => {
      const date = dateOfDayNumber(count);
      expect(typedDay(dayFigures(date, where), where)).toBe(date);
    }),
  );
});
