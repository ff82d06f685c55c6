/** The world's countries and their regions (ISO 3166), from the registry's tables. */
import byCountry from 'country-to-currency';
import countries from 'i18n-iso-countries';
import english from 'i18n-iso-countries/langs/en.json';
import iso from 'iso-3166-2';

countries.registerLocale(english);
const names = new Map<string, string>();
const LANGUAGES = ['en', 'de', 'fr', 'es'];

/** All countries' codes with their names in a language, by name. */
export function countryList(locale: string): { code: string; name: string }[] {
  const namer = new Intl.DisplayNames([locale], { type: 'region' });
  return Object.keys(countries.getAlpha2Codes())
    .map((code) => ({ code, name: namer.of(code) ?? code }))
    .sort((a, b) => a.name.localeCompare(b.name, locale));
}

/** A country's regions (ISO 3166-2) by name; none where it has none. */
export function regionList(country: string): { code: string; name: string }[] {
  const found = iso.data[country]?.sub ?? {};
  return Object.entries(found)
    .map(([code, { name }]) => ({ code, name }))
    .sort((a, b) => a.name.localeCompare(b.name));
}

/** A country's code by its code or its name in one of our languages; null where it is none. */
export function countryCode(text: string): string | null {
  if (names.size === 0) {
    for (const code of Object.keys(countries.getAlpha2Codes())) {
      names.set(code.toLowerCase(), code);
      const alpha3 = countries.alpha2ToAlpha3(code);
      if (alpha3) names.set(alpha3.toLowerCase(), code);
      const own = countries.getName(code, 'en');
      if (own) names.set(own.toLowerCase(), code);
      for (const language of LANGUAGES) {
        const name = new Intl.DisplayNames([language], { type: 'region' }).of(code);
        if (name) names.set(name.toLowerCase(), code);
      }
    }
  }
  return names.get(text.trim().toLowerCase()) ?? null;
}

const regionNames = new Map<string, Map<string, string>>();

/** A region's code by its code (with or without the country's) or its name; null where the country has no such region. */
export function regionCode(country: string, text: string): string | null {
  let known = regionNames.get(country);
  if (!known) {
    known = new Map(
      regionList(country).flatMap(({ code, name }) => [
        [code.toLowerCase(), code] as const,
        [code.slice(3).toLowerCase(), code] as const,
        [name.toLowerCase(), code] as const,
      ]),
    );
    regionNames.set(country, known);
  }
  return known.get(text.trim().toLowerCase()) ?? null;
}

const zones = new Map<string, string>();

/** Which countries' zones are which, as the language's own tables have it. */
function zonesByCountry(): ReadonlyMap<string, string> {
  if (zones.size > 0) return zones;
  for (const country of Object.keys(countries.getAlpha2Codes()))
    for (const zone of zonesOf(country)) zones.set(zone, country);
  return zones;
}

/** A country's zones (IANA); none where none is known. */
function zonesOf(country: string): readonly string[] {
  // Newer engines have a method in place of the property.
  const locale = new Intl.Locale(`und-${country}`) as Intl.Locale & {
    readonly timeZones?: readonly string[];
    readonly getTimeZones?: () => readonly string[] | undefined;
  };
  return locale.getTimeZones?.() ?? locale.timeZones ?? [];
}

/** Of countries with several zones, one that is no island's. */
const CAPITAL_ZONES: Readonly<Record<string, string>> = {
  AR: 'America/Buenos_Aires',
  AU: 'Australia/Sydney',
  BR: 'America/Sao_Paulo',
  CA: 'America/Toronto',
  CL: 'America/Santiago',
  CN: 'Asia/Shanghai',
  EC: 'America/Guayaquil',
  ES: 'Europe/Madrid',
  ID: 'Asia/Jakarta',
  KZ: 'Asia/Almaty',
  MX: 'America/Mexico_City',
  MY: 'Asia/Kuala_Lumpur',
  NZ: 'Pacific/Auckland',
  PT: 'Europe/Lisbon',
  RU: 'Europe/Moscow',
  UA: 'Europe/Kiev',
  US: 'America/New_York',
};

/** What is known of places for a first guess. */
export const guessing = {
  /** The country in which a zone lies; null where none does, or there is no such zone. */
  countryOfZone: (zone: string): string | null =>
    zonesByCountry().get(zone) ?? zonesByCountry().get(presentName(zone)) ?? null,
  currencyOf: (country: string): string | null => byCountry[country as keyof typeof byCountry] ?? null,
  isZone: (zone: string): boolean => zone !== '' && presentName(zone) !== '',
  /** One in which many of a country live. */
  zoneOf: (country: string): string | null => CAPITAL_ZONES[country] ?? zonesOf(country)[0] ?? null,
};

/** A zone by the name that this engine uses for it: browsers go by newer or older ones. */
function presentName(zone: string): string {
  try {
    return new Intl.DateTimeFormat('en', { timeZone: zone }).resolvedOptions().timeZone;
  } catch {
    return '';
  }
}
