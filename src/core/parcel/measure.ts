import { decimalText, roundedQuotient } from '../money/decimal';
import { numbersLike } from '../writing/writing';

/** How a business weighs and measures: kilograms and centimetres, or pounds and inches. Kept are grams and millimetres. */
export type Measures = 'metric' | 'imperial';

/** What is weighed and measured in at home. */
export const measuresOf = (country: string): Measures => (['US', 'LR', 'MM'].includes(country) ? 'imperial' : 'metric');

/** One ounce is 28.349523125 g, an inch 25.4 mm, both exactly (international yard and pound agreement of 1959). */
const OUNCE_NG = 28_349_523_125n;
const OUNCES_A_POUND = 16n;

const figures = (value: string, locale: string): string =>
  new Intl.NumberFormat(numbersLike(locale), { maximumFractionDigits: 3 }).format(Number(value));

/** A weight in words: `350 g`, `2.4 kg`; `12 oz`, `13 lb 4 oz`. @param grams whole grams, at least 0 */
export function weightText(grams: number, measures: Measures, locale: string): string {
  if (measures === 'metric')
    return grams < 1000
      ? `${figures(String(grams), locale)} g`
      : `${figures(decimalText(BigInt(Math.round(grams / 10)), 2), locale)} kg`;
  const ounces = roundedQuotient(BigInt(grams) * 1_000_000_000n, OUNCE_NG);
  const [pounds, rest] = [ounces / OUNCES_A_POUND, ounces % OUNCES_A_POUND];
  const parts = [
    pounds > 0n ? `${figures(String(pounds), locale)} lb` : '',
    rest > 0n || pounds === 0n ? `${rest} oz` : '',
  ];
  return parts.filter(Boolean).join(' ');
}

/** A length for a screen: `32.5 cm` or `12.8 in`. @param millimetres whole, at least 0 */
const lengthFigure = (millimetres: number, measures: Measures, locale: string): string =>
  measures === 'metric'
    ? figures(decimalText(BigInt(millimetres), 1), locale)
    : figures(decimalText(roundedQuotient(BigInt(millimetres) * 100n, 254n), 1), locale);

/** The three sides of a parcel, longest first: `60 × 40 × 30 cm`. */
export const sizeText = (sides: Size, measures: Measures, locale: string): string =>
  `${sidesOf(sides)
    .map((one) => lengthFigure(one, measures, locale))
    .join(' × ')} ${measures === 'metric' ? 'cm' : 'in'}`;

/** Outer sides in whole millimetres. */
export type Size = { readonly lengthMm: number; readonly widthMm: number; readonly heightMm: number };

/** The sides, longest first. */
export const sidesOf = ({ lengthMm, widthMm, heightMm }: Size): readonly number[] =>
  [lengthMm, widthMm, heightMm].sort((one, other) => other - one);

/** The heaviest and longest that can be written down: 100 kg, 3 m. */
export const MOST_GRAMS = 100_000;
export const MOST_MM = 3_000;

const NUMBER = String.raw`(\d{1,6}(?:[.,]\d{1,3})?)`;
const WEIGHT = new RegExp(`^${NUMBER}\\s*(kg|g|lb|lbs|oz)?(?:\\s+${NUMBER}\\s*(oz))?$`, 'i');

/** Thousandths of a typed number such as `2,4`. */
const thousandths = (typed: string): bigint => {
  const [whole = '0', part = ''] = typed.replace(',', '.').split('.');
  return BigInt(whole) * 1000n + BigInt(part.padEnd(3, '0'));
};

/**
 * A typed weight in whole grams: `350 g`, `2.4 kg`, `13 lb 4 oz`; without a unit, grams or ounces. Null for what is none, or heavier than
 * any parcel.
 */
export function typedWeight(text: string, measures: Measures): number | null {
  const read = WEIGHT.exec(text.trim());
  if (!read) return null;
  const [, first = '', unit = measures === 'metric' ? 'g' : 'oz', more = '', ounce = ''] = read;
  const isPounds = /^lbs?$/i.test(unit);
  if (ounce && !isPounds) return null;
  const gramsOf = (typed: string, of: string): bigint => {
    const ounces = /^lbs?$/i.test(of) ? OUNCES_A_POUND : 1n;
    if (/^kg$/i.test(of)) return thousandths(typed);
    if (/^g$/i.test(of)) return roundedQuotient(thousandths(typed), 1000n);
    return roundedQuotient(thousandths(typed) * ounces * OUNCE_NG, 1_000_000_000_000n);
  };
  const grams = gramsOf(first, unit) + (ounce ? gramsOf(more, 'oz') : 0n);
  return grams > BigInt(MOST_GRAMS) ? null : Number(grams);
}

/** A typed length in whole millimetres: `32.5`, in centimetres or inches as the business measures. Null for what is none, or longer than any. */
export function typedLength(text: string, measures: Measures): number | null {
  const read = new RegExp(`^${NUMBER}\\s*(cm|mm|in)?$`, 'i').exec(text.trim());
  if (!read) return null;
  const [, number = '', unit = measures === 'metric' ? 'cm' : 'in'] = read;
  const scale = { mm: 10n, cm: 100n, in: 254n }[unit.toLowerCase()] ?? 100n;
  const millimetres = roundedQuotient(thousandths(number) * scale, 10_000n);
  return millimetres > BigInt(MOST_MM) ? null : Number(millimetres);
}

/** A kept length as somebody types it. */
export const lengthTyped = (millimetres: number, measures: Measures): string =>
  measures === 'metric'
    ? decimalText(BigInt(millimetres), 1)
    : decimalText(roundedQuotient(BigInt(millimetres) * 100n, 254n), 1);

/** A kept weight as somebody types it. */
export const weightTyped = (grams: number, measures: Measures): string =>
  grams === 0 ? '' : weightText(grams, measures, 'en-GB').replaceAll(',', '');
