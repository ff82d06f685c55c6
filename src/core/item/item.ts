import { isCurrency } from '../money/currency';
import { typedDecimal } from '../money/typed';
import { isCountryCode } from '../place/address';

/** What something is counted in. */
export const UNITS = ['piece', 'hour', 'day', 'week', 'month', 'night', 'kilogram', 'metre', 'litre', 'flat'] as const;
export type Unit = (typeof UNITS)[number];

/** How what is sold comes to the customer. */
export const HANDED = ['posted', 'collected', 'digital', 'service'] as const;
export type Handed = (typeof HANDED)[number];

/** One way in which an item comes: a size, a gauge. Empty prices are the item's own. Stock in units, null where none is kept. */
export type ItemOption = {
  readonly id: string;
  readonly name: string;
  readonly code: string;
  readonly prices: Readonly<Record<string, string>>;
  readonly onHand: string | null;
  readonly lowAt: string | null;
  /** What one weighs, in whole grams, and where it lies, where that differs from the item's own. */
  readonly grams?: number;
  readonly shelf?: string;
};

/** How an item is packed and goes: whole grams and millimetres, 0 for what nobody measured. */
export type ItemGoing = {
  /** How it comes to the customer; empty for as its kind does. */
  readonly handed: Handed | '';
  readonly grams: number;
  readonly lengthMm: number;
  readonly widthMm: number;
  readonly heightMm: number;
  /** Where it lies, as the business names its shelves. */
  readonly shelf: string;
  /** The country it was made in (ISO 3166-1), and its number in the Harmonized System, for customs; empty where nobody said. */
  readonly origin: string;
  readonly hsCode: string;
};

/** An item of which nobody said how it goes. */
export const GOES_AS_USUAL: ItemGoing = {
  handed: '',
  grams: 0,
  lengthMm: 0,
  widthMm: 0,
  heightMm: 0,
  shelf: '',
  origin: '',
  hsCode: '',
};

/** Something sold; prices are decimals of a currency's major unit, by currency. */
export type Item = {
  readonly id: string;
  readonly code: string;
  readonly name: string;
  readonly description: string;
  readonly kind: 'goods' | 'digital' | 'service';
  readonly unit: Unit;
  readonly prices: Readonly<Record<string, string>>;
  readonly cost: string;
  readonly taxClass: string;
  readonly onHand: string | null;
  readonly lowAt: string | null;
  readonly pictureId: string | null;
  readonly going: ItemGoing;
  readonly options: readonly ItemOption[];
};

/** What is promised to customers and has not left yet, by item and option (`ITEM` or `ITEM/OPTION`), in units. */
export type Promised = Readonly<Record<string, string>>;

export const stockKey = (itemId: string, optionId: string | null): string =>
  optionId ? `${itemId}/${optionId}` : itemId;

/** What an item is found by, in lower case. */
export const itemSearchText = (item: Item): string =>
  [item.name, item.code, item.description, ...item.options.flatMap((option) => [option.name, option.code])]
    .filter(Boolean)
    .join(' ')
    .toLowerCase();

/** The price of one in a currency; empty where none is given for it. */
export const priceIn = (item: Item, option: ItemOption | null, currency: string): string =>
  option?.prices[currency] || item.prices[currency] || '';

/** Where one of an item lies, what it weighs and measures: an option's own before the item's. */
export const goingOf = (item: Pick<Item, 'going'>, option: ItemOption | null): ItemGoing => ({
  ...item.going,
  ...(option?.grams ? { grams: option.grams } : {}),
  ...(option?.shelf ? { shelf: option.shelf } : {}),
});

/** What is wrong with an item's figures, by field, in words. */
export function itemProblems(item: Item): { field: string; words: string }[] {
  const problems: { field: string; words: string }[] = [];
  const price = (field: string, currency: string, typed: string) => {
    if (!isCurrency(currency)) problems.push({ field, words: `${currency} is no currency.` });
    else if (typedDecimal(typed) === null) problems.push({ field, words: 'Write the price as a number.' });
  };
  const stock = (field: string, typed: string | null) => {
    if (typed !== null && typedDecimal(typed.replace(/^-/, '')) === null)
      problems.push({ field, words: 'Write how many as a number.' });
  };
  for (const [currency, typed] of Object.entries(item.prices)) price(`prices.${currency}`, currency, typed);
  if (item.cost && typedDecimal(item.cost) === null)
    problems.push({ field: 'cost', words: 'Write the cost as a number.' });
  stock('onHand', item.onHand);
  stock('lowAt', item.lowAt);
  const { going } = item;
  if (going.hsCode && !/^\d{4}(\.?\d{2}){1,3}$/.test(going.hsCode.replaceAll(' ', '')))
    problems.push({ field: 'hsCode', words: 'Write the customs number with 6 to 10 figures, such as 9209.94.' });
  if (going.origin && !isCountryCode(going.origin))
    problems.push({ field: 'origin', words: 'Choose the country of the list.' });
  const codes = [item.code, ...item.options.map(({ code }) => code)].filter(Boolean).map((code) => code.toLowerCase());
  if (new Set(codes).size < codes.length)
    problems.push({ field: 'code', words: 'Each option needs a code of its own.' });
  for (const [at, option] of item.options.entries()) {
    if (!option.name.trim()) problems.push({ field: `options.${at}.name`, words: 'Name this option.' });
    for (const [currency, typed] of Object.entries(option.prices)) price(`options.${at}.prices`, currency, typed);
    stock(`options.${at}.onHand`, option.onHand);
  }
  return problems;
}
