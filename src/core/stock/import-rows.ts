import { type ColumnsAs, cellOf, type RowRead } from '../import/columns';
import { typedDecimal } from '../money/typed';
import { scaledCount } from './available';
import { costText } from './movement';

/** What a column of a supplier's list, or of a count, can be. */
export const STOCK_FIELDS = { code: 'Code', quantity: 'How many', cost: 'Cost of one' } as const;
export type StockField = keyof typeof STOCK_FIELDS;

export const USUAL_STOCK_HEADINGS: Readonly<Record<StockField, RegExp>> = {
  code: /^(code|sku|no\.?|number|barcode|ean|gtin|(item|article|product) ?(no\.?|number|code)?|art(ikel)?[ .-]*(no\.?|nr\.?|nummer)|r[eé]f([eé]rence)?|referencia|c[oó]digo)$/i,
  quantity:
    /^(how many|quantity|qty\.?|pieces|pcs\.?|received|delivered|counted?|on the shelf|menge|anzahl|st[uü]ck|gez[aä]hlt|quantit[eé]|nombre|compt[eé]|cantidad|contado)$/i,
  cost: /^(cost( of one| price)?|unit (cost|price)|price|purchase price|(einzel|einkaufs)?preis|ep|prix( unitaire)?|co[uû]t|precio( unitario)?|coste)$/i,
};

/** A row of such a list: plain decimals, `cost` of one and empty where none is written. */
export type StockRowRead = { readonly code: string; readonly quantity: string; readonly cost: string };

/** Reads one row. @param sign the decimal sign of whoever brings the file */
export function importedStock(
  cells: readonly string[],
  mapping: ColumnsAs<StockField>,
  sign: '.' | ',',
): RowRead<StockRowRead> {
  const cell = cellOf(cells, mapping);
  const code = cell('code');
  const quantity = countRead(cell('quantity'), sign);
  const cost = cell('cost') === '' ? '' : costText(typedDecimal(cell('cost').replace(/[^\d.,]/g, ''), sign) ?? '');
  const reasons = [
    ...(code ? [] : ['No code']),
    ...(quantity === null ? [`How many: not a number: ${cell('quantity') || 'nothing'}`] : []),
    ...(cost === null ? [`Cost: not a number: ${cell('cost')}`] : []),
  ];
  if (quantity === null || cost === null || reasons.length > 0) return { ok: false, reasons };
  return { ok: true, value: { code, quantity, cost } };
}

/** A count as somebody wrote it, as a plain decimal of at most four digits after the point and nine before; null where it is none. */
export function countRead(typed: string, sign: '.' | ','): string | null {
  const read = typedDecimal(typed.trim(), sign);
  if (read === null || (read.split('.')[0] ?? '').length > 9) return null;
  try {
    scaledCount(read);
    return read;
  } catch {
    return null;
  }
}
