import { describe, expect, test } from 'vitest';
import { en } from './en';
import { LANGUAGES, localeFor, wordsOf } from './words';

/** Every text of a language by its path; one with places to fill is filled with markers. */
function texts(of: unknown, path = ''): Map<string, string> {
  if (typeof of === 'string') return new Map([[path, of]]);
  if (typeof of === 'function') {
    // Two figures and two words: a text may decline by a count.
    const filled = [
      of(...Array.from({ length: of.length }, (_, at) => `«${at}»`)),
      of(...Array.from({ length: of.length }, (_, at) => 70 + at)),
    ];
    return new Map(filled.map((text, at) => [`${path}(${at})`, String(text)]));
  }
  if (typeof of !== 'object' || of === null) return new Map();
  return new Map(Object.entries(of).flatMap(([key, part]) => [...texts(part, `${path}.${key}`)]));
}
const filledWith = (text: string): string[] => [...new Set(text.match(/«\d»|\b7\d\b/g) ?? [])].sort();

const english = texts(en);

describe.each(Object.entries(LANGUAGES))('%s', (_language, words) => {
  const own = texts(words);

  test('says everything that English says, and leaves nothing empty', () => {
    expect([...own.keys()].sort()).toEqual([...english.keys()].sort());
    for (const [path, text] of own) if (english.get(path)) expect(text.trim(), path).not.toBe('');
  });

  test('names the same numbers, sums and dates in each text', () => {
    for (const [path, text] of own) expect(filledWith(text), path).toEqual(filledWith(english.get(path) ?? ''));
  });
});

test('no sentence of English is left in another language', () => {
  const sentences = [...english].filter(([, text]) => text.split(' ').length > 3);
  expect(sentences.length).toBeGreaterThan(30);
  for (const [language, words] of Object.entries(LANGUAGES)) {
    if (language === 'en') continue;
    const own = texts(words);
    for (const [path, text] of sentences) expect(own.get(path), `${language}${path}`).not.toBe(text);
  }
});

test.each([
  ['', 'en-US', 'FR', 'en-US'],
  ['en', 'en-GB', 'US', 'en-GB'],
  ['de', 'en-US', 'AT', 'de-AT'],
  ['de', 'en-US', 'JP', 'de-DE'],
  ['fr', 'en-US', 'CA', 'fr-CA'],
  ['es', 'de-DE', 'MX', 'es-MX'],
  ['tlh', 'en-US', 'US', 'en-US'],
])('customer’s language %s, house %s, in %s: written as %s', (language, house, country, locale) => {
  expect(localeFor(language, house, country)).toBe(locale);
});

test('a language that is not ours is read in English', () => {
  expect(wordsOf('xx-YY')).toBe(en);
  expect(wordsOf('DE-at')).toBe(LANGUAGES.de);
});
