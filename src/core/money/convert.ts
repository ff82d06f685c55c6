import { RuleError } from '../rule-error';
import { minorDigits } from './currency';
import { powerOfTen, roundedQuotient, scaledDecimal } from './decimal';
import { inRange, type Money } from './money';

const RATE_SCALE = 10;

/**
 * An amount in another currency: amount × rate × 10^(target digits − source digits), rounded half away from zero
 * (`calculation.md` 13).
 *
 * @param rate what one main unit of the source is worth in the target; a decimal above 0 with up to 10 fraction digits
 * @throws RuleError `bad_rate`, `bad_currency`, `amount_out_of_range`
 */
export function converted(amount: Money, to: string, rate: string): Money {
  const scaled = scaledDecimal(rate, RATE_SCALE, 'bad_rate', 'rate');
  if (scaled === 0n) throw new RuleError('bad_rate', 'rate: must be above 0');
  const up = powerOfTen(minorDigits(to));
  const down = powerOfTen(minorDigits(amount.currency)) * powerOfTen(RATE_SCALE);
  return { minor: inRange(roundedQuotient(amount.minor * scaled * up, down)), currency: to };
}
