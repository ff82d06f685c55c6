/** A postal address as its parts; `country` is an ISO 3166-1 code, `region` an ISO 3166-2 one, both may be empty. */
export type Address = {
  readonly lines: readonly string[];
  readonly city: string;
  readonly region: string;
  readonly postalCode: string;
  readonly country: string;
};

/** Which parts a country's addresses have, and in which order its last lines are written. */
export type AddressForm = {
  readonly order: 'code-city' | 'city-region-code' | 'city-code' | 'city-code-below';
  readonly region: '' | 'State' | 'Province' | 'County' | 'Region';
  readonly regionPrinted: boolean;
  readonly postalCode: 'ZIP code' | 'Postcode' | 'Postal code' | '';
};

export const NO_ADDRESS: Address = { lines: [], city: '', region: '', postalCode: '', country: '' };

const CITY_FIRST: AddressForm = {
  order: 'city-region-code',
  region: 'State',
  regionPrinted: true,
  postalCode: 'ZIP code',
};
const CODE_FIRST: AddressForm = {
  order: 'code-city',
  region: 'Region',
  regionPrinted: false,
  postalCode: 'Postal code',
};

const FORMS: Readonly<Record<string, AddressForm>> = {
  US: CITY_FIRST,
  CA: { ...CITY_FIRST, region: 'Province', postalCode: 'Postal code' },
  AU: { ...CITY_FIRST, postalCode: 'Postcode' },
  IN: { ...CITY_FIRST, order: 'city-code', regionPrinted: false, postalCode: 'Postal code' },
  GB: { order: 'city-code-below', region: 'County', regionPrinted: false, postalCode: 'Postcode' },
  IE: { order: 'city-code-below', region: 'County', regionPrinted: false, postalCode: 'Postcode' },
  NZ: { order: 'city-code', region: 'Region', regionPrinted: false, postalCode: 'Postcode' },
  HK: { order: 'city-code', region: '', regionPrinted: false, postalCode: '' },
  AE: { order: 'city-code', region: 'Region', regionPrinted: false, postalCode: '' },
};

/** How addresses are written in a country; where it is not known, postal code before city. */
export const addressForm = (country: string): AddressForm => FORMS[country] ?? CODE_FIRST;

/** Countries whose post has no codes, or does without them. */
const WITHOUT_CODES = new Set(
  (
    'AG AO AW BF BI BJ BO BS BW BZ CD CF CG CI CM DJ DM ER FJ GD GH GM GN GQ GY HK IE JM KE KI KM KN KP LC ML MO MR MS MU MW NR NU PA QA ' +
    'RW SB SC SL SO SR ST SY TD TG TK TL TO TT TV TZ UG VU YE ZW AE'
  ).split(' '),
);

/** Whether an address of a country is whole only with a postal code. */
export const isPostalCodeNeeded = (country: string): boolean =>
  country !== '' && addressForm(country).postalCode !== '' && !WITHOUT_CODES.has(country);

const without = (code: string): string => code.replace(/^[A-Z]{2}-/, '');

/**
 * An address as it is printed, line by line; the country's name ends it when it is not the sender's own.
 *
 * @param locale the language in which the country is named
 */
export function addressLines(address: Address, home: string, locale: string): string[] {
  const form = addressForm(address.country);
  const region = form.regionPrinted ? without(address.region) : '';
  const joined = (parts: readonly string[], by = ' ') =>
    parts
      .map((part) => part.trim())
      .filter(Boolean)
      .join(by);
  const place = {
    'code-city': [joined([address.postalCode, address.city])],
    'city-region-code': [joined([joined([address.city, region], ', '), address.postalCode])],
    'city-code': [joined([address.city, address.postalCode])],
    'city-code-below': [address.city, address.postalCode],
  }[form.order];
  const abroad = address.country && address.country !== home ? [countryName(address.country, locale)] : [];
  return [...address.lines, ...place, ...abroad].map((line) => line.trim()).filter(Boolean);
}

const namers = new Map<string, Intl.DisplayNames>();

/** A country's name in a language; the code itself where there is none. */
export function countryName(country: string, locale: string): string {
  if (!/^[A-Z]{2}$/.test(country)) return country;
  const namer = namers.get(locale) ?? new Intl.DisplayNames([locale], { type: 'region' });
  namers.set(locale, namer);
  return namer.of(country) ?? country;
}

/** Whether a code names a country: of two letters, its own canonical one (`UK` is `GB`), with a name. */
export const isCountryCode = (code: string): boolean =>
  /^[A-Z]{2}$/.test(code) && new Intl.Locale(`und-${code}`).region === code && countryName(code, 'en') !== code;

/** Whether nothing of an address has been written; a country alone is none. */
export const isNoAddress = (address: Address): boolean =>
  address.lines.every((line) => !line.trim()) && !address.city && !address.postalCode;
