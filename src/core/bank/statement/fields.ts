import { type CalendarDate, isCalendarDate } from '../../dates/calendar-date';
import { isCurrency, minorDigits } from '../../money/currency';
import { inRange } from '../../money/money';
import { RuleError } from '../../rule-error';

/** A fault of the file. */
export const fault = (where: string, words: string): RuleError => new RuleError('bad_input', `${where}: ${words}`);

/** A text as one line; empty where nothing is left of it. */
export const oneLine = (text: string): string => text.replace(/[ \t\r\n]+/g, ' ').replace(/^ | $/g, '');

/** A field of a name where there is something in it: what is empty is absent. */
export const field = <Name extends string>(
  name: Name,
  text: string | undefined,
): { readonly [key in Name]?: string } => {
  const line = oneLine(text ?? '');
  return (line === '' ? {} : { [name]: line }) as { readonly [key in Name]?: string };
};

/** @throws RuleError `bad_input` for what is no currency of ISO 4217 */
export function currencyOf(code: string | undefined, where: string): string {
  const currency = oneLine(code ?? '');
  if (!isCurrency(currency)) throw fault(where, `${currency || 'nothing'} is no currency`);
  return currency;
}

/** Digits before and after the point as minor units; digits that the currency does not have must be noughts. */
export function minorOf(whole: string, fraction: string, currency: string, where: string): bigint {
  const digits = minorDigits(currency);
  if (/[^0]/.test(fraction.slice(digits))) throw fault(where, `${currency} has ${digits} digits after the point`);
  const kept = fraction.slice(0, digits).padEnd(digits, '0');
  if (whole.replace(/^0+/, '').length > 20) throw new RuleError('amount_out_of_range', `${where}: outside ±(2^53 − 1)`);
  return inRange(BigInt(`${whole}${kept}`));
}

/** @throws RuleError `bad_input` */
export function dayOf(text: string, where: string): CalendarDate {
  if (!isCalendarDate(text)) throw fault(where, `${text} is no day`);
  return text;
}
