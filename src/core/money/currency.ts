import { RuleError } from '../rule-error';

/**
 * Minor-unit digits by currency code, ISO 4217 list one. Written out because locale data
 * disagrees with the standard for some (IQD, for example). Codes without a minor unit
 * (metals, funds of account without digits, test codes) are left out on purpose.
 */
const CODES_BY_DIGITS: Readonly<Record<number, string>> = {
  0: 'BIF CLP DJF GNF ISK JPY KMF KRW PYG RWF UGX UYI VND VUV XAF XOF XPF',
  2: `AED AFN ALL AMD ANG AOA ARS AUD AWG AZN BAM BBD BDT BGN BMD BND BOB BOV BRL BSD BTN BWP BYN BZD CAD CDF CHE
    CHF CHW CNY COP COU CRC CUP CVE CZK DKK DOP DZD EGP ERN ETB EUR FJD FKP GBP GEL GHS GIP GMD GTQ GYD HKD HNL HTG
    HUF IDR ILS INR IRR JMD KES KGS KHR KPW KYD KZT LAK LBP LKR LRD LSL MAD MDL MGA MKD MMK MNT MOP MRU MUR MVR MWK
    MXN MXV MYR MZN NAD NGN NIO NOK NPR NZD PAB PEN PGK PHP PKR PLN QAR RON RSD RUB SAR SBD SCR SDG SEK SGD SHP SLE
    SOS SRD SSP STN SVC SYP SZL THB TJS TMT TOP TRY TTD TWD TZS UAH USD USN UYU UZS VED VES WST XAD XCD XCG YER ZAR
    ZMW ZWG`,
  3: 'BHD IQD JOD KWD LYD OMR TND',
  4: 'CLF UYW',
};

const DIGITS = new Map<string, number>(
  Object.entries(CODES_BY_DIGITS).flatMap(([digits, codes]) =>
    codes.split(/\s+/).map((code): [string, number] => [code, Number(digits)]),
  ),
);

/** An ISO 4217 code with a minor unit. */
export type Currency = string & { readonly brand?: 'Currency' };

/** How many decimal digits the minor unit has (USD 2, JPY 0, KWD 3). @throws RuleError `bad_currency` */
export function minorDigits(code: string): number {
  const digits = DIGITS.get(code);
  if (digits === undefined) throw new RuleError('bad_currency', `${code} is not a currency with a minor unit`);
  return digits;
}

/** Whether a code is a currency with a minor unit. */
export const isCurrency = (code: string): boolean => DIGITS.has(code);

/** Those that are offered first where one is chosen; any other of ISO 4217 can be typed in a file. */
export const USUAL_CURRENCIES: readonly string[] = [
  'USD',
  'EUR',
  'GBP',
  'CAD',
  'AUD',
  'CHF',
  'JPY',
  'SEK',
  'NOK',
  'DKK',
  'PLN',
  'NZD',
  'MXN',
  'KWD',
];
