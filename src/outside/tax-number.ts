/**
 * Tax numbers by their check digits, where a standard gives them: numbers for value added tax by country (in the European Union, and of
 * Switzerland, Norway and the United Kingdom), and global location numbers (GS1). The digits themselves are worked out by a package.
 */
import { stdnum } from 'stdnum';

/** How the package calls the numbers that may stand behind the two letters with which one for value added tax begins. */
const BY_PREFIX: Readonly<Record<string, string>> = {
  AT: 'uid',
  BE: 'vat',
  BG: 'vat',
  CY: 'vat',
  CZ: 'dic',
  DE: 'vat',
  DK: 'cvr',
  EE: 'kmkr',
  EL: 'vat',
  ES: 'nif cif dni nie',
  FI: 'alv',
  FR: 'tva',
  GB: 'vat',
  HR: 'oib',
  HU: 'anum',
  IE: 'vat',
  IT: 'iva',
  LT: 'pvm',
  LU: 'tva',
  LV: 'pvn',
  MT: 'vat',
  NL: 'btw',
  PL: 'nip',
  PT: 'nif nipc',
  RO: 'cui cif',
  SE: 'vat',
  SI: 'ddv',
  SK: 'dph',
};
/** The country of each prefix is its own, but for Greece's. */
const kindsOf = (prefix: string) =>
  (BY_PREFIX[prefix]?.split(' ') ?? []).flatMap((kind) => stdnum[prefix === 'EL' ? 'GR' : prefix]?.[kind] ?? []);

/** Switzerland's begins with three letters, and may end with the tax's name. */
const SWISS = /^CHE\d{9}(MWST|TVA|IVA)?$/;

const CHECK_DIGIT = 'The check digit of this number does not fit. Look at it once more.';
const OTHER_FORM = 'A number that begins like this has another form. Look at it once more.';

/** Whether the last of thirteen digits is the one that the others give (GS1 General Specifications, 7.9). */
function isLocationNumber(digits: string): boolean {
  const sum = [...digits].reduce((all, digit, at) => all + Number(digit) * (at % 2 === 0 ? 1 : 3), 0);
  return sum % 10 === 0;
}

/**
 * What is wrong with a tax number, in words; null where nothing is seen: its check digits fit, or it is of no kind that has any (a number
 * that does not begin with the letters of a country is a matter between a business and its office).
 *
 * @param typed with spaces, dots and dashes as people write them
 */
export function taxNumberProblem(typed: string): string | null {
  const number = typed.toUpperCase().replace(/[^A-Z0-9]/g, '');
  if (/^GLN\d/.test(number)) {
    if (number.length !== 16) return OTHER_FORM;
    return isLocationNumber(number.slice(3)) ? null : CHECK_DIGIT;
  }
  if (/^CHE\d/.test(number)) {
    if (!SWISS.test(number)) return OTHER_FORM;
    return stdnum.CH?.uid?.validate(number.slice(0, 12)).isValid ? null : CHECK_DIGIT;
  }
  const prefix = number.slice(0, 2);
  const kinds = kindsOf(prefix);
  // Two letters and a figure behind them: a word that begins like a country is none.
  if (kinds.length === 0 || !/\d/.test(number.slice(2, 4))) return null;
  const outcomes = kinds.flatMap((kind) => [kind.validate(number), kind.validate(number.slice(2))]);
  if (outcomes.some(({ isValid }) => isValid)) return null;
  return outcomes.some(({ error }) => error?.name === 'InvalidChecksum') ? CHECK_DIGIT : OTHER_FORM;
}
