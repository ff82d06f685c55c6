import { money } from '../money/money';
import { moneyText } from '../money/money-text';
import type { QuoteProblem } from '../offer/quote';
import { wordsOf } from './words';

/** What stands in the way, in the payer's words. @param currency of the amounts that the words name */
export function problemText({ code, values = [] }: QuoteProblem, currency: string, locale: string): string {
  const [first = '', second = ''] = values.map((value) =>
    typeof value === 'bigint' ? moneyText(money(value, currency), locale) : String(value),
  );
  return wordsOf(locale).offer.problems[code](first, second);
}
