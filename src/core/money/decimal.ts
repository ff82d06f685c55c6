import { type RuleCode, RuleError } from '../rule-error';

const DECIMAL = /^(?:0|[1-9][0-9]*)(?:\.[0-9]+)?$/;
const POWERS = Array.from({ length: 20 }, (_, digits) => 10n ** BigInt(digits));
const ZEROS = '00000000000000000000';
/** A number of this many digits is exact, and much faster to read than a bigint. */
const EXACT_DIGITS = 15;

/** 10 to the power of `digits`, as an integer. */
export const powerOfTen = (digits: number): bigint => POWERS[digits] ?? 10n ** BigInt(digits);

/**
 * A decimal string as an integer scaled by 10^`scale`: `scaledDecimal('3.5', 4, …)` is `35000n`.
 *
 * @throws RuleError with `code` where the text is not `(0|[1-9][0-9]*)(\.[0-9]+)?` or has more than `scale` fraction digits.
 */
export function scaledDecimal(text: string, scale: number, code: RuleCode, field: string): bigint {
  const point = text.indexOf('.');
  const fraction = point < 0 ? 0 : text.length - point - 1;
  if (fraction > scale || !DECIMAL.test(text)) {
    throw new RuleError(code, `${field}: a decimal with at most ${scale} digits after the point is needed`);
  }
  const missing = scale - fraction;
  const digits = point < 0 ? text : text.slice(0, point) + text.slice(point + 1);
  if (digits.length + missing <= EXACT_DIGITS) return BigInt(Number(digits) * 10 ** missing);
  return BigInt(digits + ZEROS.slice(0, missing));
}

/** Writes a scaled integer as a decimal string without needless zeros: `(35000n, 4)` is `'3.5'`. */
export function decimalText(scaled: bigint, scale: number): string {
  const digits = (scaled < 0n ? -scaled : scaled).toString().padStart(scale + 1, '0');
  const whole = digits.slice(0, digits.length - scale);
  const fraction = digits.slice(digits.length - scale).replace(/0+$/, '');
  return `${scaled < 0n ? '-' : ''}${whole}${fraction ? `.${fraction}` : ''}`;
}

/** The same with all its digits after the point: `(35000n, 4)` is `'3.5000'`, `(2200n, 2)` is `'22.00'`. */
export function fixedText(scaled: bigint, scale: number): string {
  const digits = (scaled < 0n ? -scaled : scaled).toString().padStart(scale + 1, '0');
  const whole = digits.slice(0, digits.length - scale);
  return `${scaled < 0n ? '-' : ''}${whole}${scale > 0 ? `.${digits.slice(digits.length - scale)}` : ''}`;
}

/** Integer division rounded half away from zero; the only rounding there is. @param divisor > 0 */
export function roundedQuotient(dividend: bigint, divisor: bigint): bigint {
  const twice = (dividend < 0n ? -dividend : dividend) * 2n + divisor;
  const magnitude = twice / (divisor * 2n);
  return dividend < 0n ? -magnitude : magnitude;
}
