import type { Business } from '@/core/business/business';
import { money } from '@/core/money/money';
import { figureText } from '@/core/money/money-text';
import { decimalSignOf, spokenDecimal } from '@/core/money/typed';
import { costShown } from '@/core/stock/movement';
import type { StockCosts, StockLine } from '@/flows/stock/stock-desk';
import type { StockShown } from '@/ui/stock/shown';

/** A row of the stock as it is shown. @param costs null where they may not be seen */
export function jsonStock(
  line: StockLine,
  costs: StockCosts | null,
  { deskLocale: locale, currency }: Pick<Business, 'deskLocale' | 'currency'>,
): StockShown {
  const id = line.optionId ?? line.itemId;
  const cost = costs?.[id];
  return {
    id,
    itemId: line.itemId,
    optionId: line.optionId,
    name: line.option ? `${line.name}, ${line.option}` : line.name,
    code: line.code,
    unit: line.unit === 'piece' ? '' : line.unit,
    shelf: line.shelf,
    onHand: line.onHand,
    promised: line.promised,
    available: line.available,
    lies: line.lies,
    lowAt: line.lowAt ?? '',
    order: line.order === '0' ? '' : line.order,
    average: costWords(costShown(cost?.average ?? '', currency), locale),
    worth: cost?.worthMinor == null ? '' : figureText(money(cost.worthMinor, currency), locale),
  };
}

/** A cost as its reader writes it, with two digits at least after its sign. */
export function costWords(cost: string, locale: string): string {
  if (cost === '') return '';
  const [whole = '0', fraction = ''] = cost.split('.');
  return spokenDecimal(`${whole}.${fraction.padEnd(2, '0')}`, decimalSignOf(locale));
}
