import { type ColumnsAs, cellOf, type RowRead } from '../import/columns';
import { isCurrency } from '../money/currency';
import { typedDecimal } from '../money/typed';
import { GOES_AS_USUAL, type Item, UNITS, type Unit } from './item';

/** What a column of a file of items can be. */
export const ITEM_FIELDS = {
  name: 'Name',
  code: 'Code',
  description: 'Description',
  price: 'Price',
  currency: 'Currency',
  kind: 'Kind',
  unit: 'Unit',
  cost: 'Cost',
  taxClass: 'Tax class',
  onHand: 'On hand',
} as const;
export type ItemField = keyof typeof ITEM_FIELDS;

export const USUAL_ITEM_HEADINGS: Readonly<Record<ItemField, RegExp>> = {
  code: /^(code|sku|no\.?|number|item (no\.?|number|code)|art(icle|ikel)?[ .-]?(no\.?|nr\.?|nummer)?|r[eé]f([eé]rence)?|referencia)$/i,
  name: /^(name|item|product|title|what|bezeichnung|artikelname|nom|d[eé]signation|nombre|producto)$/i,
  description: /^(description|text|beschreibung|descripci[oó]n)$/i,
  price: /^(price|unit price|sales price|(einzel|verkaufs)?preis|prix|precio)$/i,
  currency: /^(currency|w[aä]hrung|devise|moneda)$/i,
  kind: /^(kind|type|art|typ|tipo)$/i,
  unit: /^(unit|einheit|unit[eé]|unidad)$/i,
  cost: /^(cost|unit cost|purchase price|einkaufspreis|co[uû]t|coste)$/i,
  taxClass: /^(tax( class| rate)?|vat|steuer(klasse|satz)?|tva|iva)$/i,
  onHand: /^(on hand|stock|quantity|bestand|lager(bestand)?|stock actuel|existencias)$/i,
};

const KINDS: readonly (readonly [Item['kind'], RegExp])[] = [
  ['service', /^(service|services|dienstleistung|leistung|servicio)$/i],
  ['digital', /^(digital|download)$/i],
  ['goods', /^(goods|product|physical|ware|waren|artikel|bien|producto)?$/i],
];

/**
 * Reads one row. Prices are decimals of the main unit in the file's way of writing them.
 *
 * @param setting.sign the decimal sign of whoever brings the file @param setting.classes the tax classes that the business has
 */
export function importedItem(
  cells: readonly string[],
  mapping: ColumnsAs<ItemField>,
  setting: { readonly currency: string; readonly sign: '.' | ','; readonly classes: readonly string[] },
): RowRead<Omit<Item, 'id'>> {
  const cell = cellOf(cells, mapping);
  const reasons: string[] = [];
  const name = cell('name');
  if (!name) reasons.push('No name');
  if (name.length > 160) reasons.push('Name: longer than 160 letters');
  if (cell('code').length > 40) reasons.push('Code: longer than 40 signs');
  if (cell('description').length > 1000) reasons.push('Description: longer than 1000 letters');
  const currency = cell('currency').toUpperCase() || setting.currency;
  if (!isCurrency(currency)) reasons.push(`Unknown currency: ${currency}`);
  const decimal = (field: 'price' | 'cost' | 'onHand'): string => {
    // A currency's sign beside the figure says nothing that its column does not.
    const text = cell(field).replace(/^[^\d.,-]+|[^\d.,]+$/g, '');
    if (cell(field) === '') return '';
    const read = typedDecimal(text.replace(/^-/, ''), setting.sign);
    if (read === null || (field !== 'onHand' && text.startsWith('-'))) {
      reasons.push(`${ITEM_FIELDS[field]}: not a number: ${cell(field)}`);
      return '';
    }
    return text.startsWith('-') ? `-${read}` : read;
  };
  const price = decimal('price');
  const cost = decimal('cost');
  const onHand = decimal('onHand');
  const kind = KINDS.find(([, says]) => says.test(cell('kind')))?.[0];
  if (!kind) reasons.push(`Kind: goods, digital or service, not ${cell('kind')}`);
  const unitText = cell('unit').toLowerCase();
  const unit: Unit | undefined = UNITS.find((one) => one === unitText || `${one}s` === unitText);
  if (unitText && !unit) reasons.push(`Unknown unit: ${cell('unit')}`);
  const taxClass = cell('taxClass') || 'standard';
  if (!setting.classes.includes(taxClass) && taxClass !== 'standard')
    reasons.push(`No tax rule has the class ${taxClass}`);
  if (reasons.length > 0) return { ok: false, reasons };
  return {
    ok: true,
    value: {
      name,
      code: cell('code'),
      description: cell('description'),
      kind: kind ?? 'goods',
      unit: unit ?? 'piece',
      prices: price === '' ? {} : { [currency]: price },
      cost,
      taxClass,
      onHand: onHand === '' ? null : onHand,
      lowAt: null,
      pictureId: null,
      going: GOES_AS_USUAL,
      options: [],
    },
  };
}
