import { money } from '../money/money';
import { moneyText } from '../money/money-text';
import { wordsOf } from '../words/words';
import type { QuoteProblem } from './quote';

/** What stands in the way, in the payer's words. @param currency of the amounts that the words name */
export function problemText({ code, values = [] }: QuoteProblem, currency: string, locale: string): string {
  const [first = '', second = ''] = values.map((value) =>
    typeof value === 'bigint' ? moneyText(money(value, currency), locale) : String(value),
  );
  return wordsOf(locale).offer.problems[code](first, second);
}
