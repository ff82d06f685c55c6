import { minorDigits } from '../money/currency';
import { decimalText, powerOfTen, scaledDecimal } from '../money/decimal';
import type { Tally, TallyDocument } from './document';
import { scaledRate } from './tally';

/** One step of a working: what is done (`sign`), with what, and how much; exact decimals where nothing is rounded yet. */
export type Step = {
  readonly sign: '' | '+' | '−' | '×' | '=';
  readonly label: string;
  /** Minor units; or `exact`, a decimal string in main units. */
  readonly figure: { readonly minor: bigint } | { readonly exact: string };
  /** Minor units that the label ends with: `8.25 % of` 342.90. */
  readonly of?: bigint;
  readonly kind?: 'sum' | 'end';
};

/** How a figure comes about, for a person who checks it by hand. */
export type Working = { readonly title: string; readonly steps: readonly Step[]; readonly rules: readonly string[] };

/** Which figure of the document a person asks about; `line` and `tax` by position. */
export type Figure =
  | { readonly of: 'line'; readonly at: number }
  | { readonly of: 'sum' | 'discount' | 'total' }
  | { readonly of: 'tax'; readonly at: number };

const amount = (minor: bigint) => ({ minor });

function lineName(names: readonly string[], at: number): string {
  const name = names[at]?.trim();
  return name ? `${at + 1}. ${name}` : `Line ${at + 1}`;
}

function lineWorking(document: TallyDocument, worked: Tally, names: readonly string[], at: number): Working {
  const line = document.lines[at];
  const result = worked.lines[at];
  if (!line || !result) return { title: 'This line', steps: [], rules: [] };
  const digits = minorDigits(document.currency);
  const exact = scaledDecimal(line.quantity, 4, 'bad_quantity', '') * scaledDecimal(line.unitPrice, 6, 'bad_price', '');
  const rounded = exact !== result.gross * powerOfTen(10 - digits);
  return {
    title: lineName(names, at),
    steps: [
      { sign: '', label: 'Price of one', figure: { exact: line.unitPrice } },
      { sign: '×', label: 'How much', figure: { exact: line.quantity } },
      ...(rounded ? [{ sign: '=' as const, label: 'Not rounded yet', figure: { exact: decimalText(exact, 10) } }] : []),
      ...(line.discount
        ? [
            { sign: '=' as const, label: 'Before the discount', figure: amount(result.gross), kind: 'sum' as const },
            {
              sign: '−' as const,
              label: 'percent' in line.discount ? `Discount, ${line.discount.percent} %` : 'Discount, fixed',
              figure: amount(result.discount),
            },
          ]
        : []),
      { sign: '', label: 'Amount of the line', figure: amount(result.net), kind: 'end' },
    ],
    rules: rounded ? ['Rounded to the smallest coin, a half away from zero.'] : [],
  };
}

function taxWorking(document: TallyDocument, worked: Tally, names: readonly string[], at: number): Working {
  const tax = document.taxes[at];
  const result = worked.taxes[at];
  if (!tax || !result) return { title: 'Tax', steps: [], rules: [] };
  const lines = document.lines.flatMap((line, index) => {
    const own = worked.lines[index];
    if (!own || !line.taxes?.includes(tax.id)) return [];
    const share = own.apportioned > 0n ? ', less its share of the discount' : '';
    return [{ label: `${lineName(names, index)}${share}`, figure: amount(own.net - own.apportioned) }];
  });
  const others = document.lines.flatMap((line, index) => (line.taxes?.includes(tax.id) ? [] : [index + 1]));
  const digits = minorDigits(document.currency);
  const exact = result.base * scaledRate(tax.rate, 'rate');
  const taxed = document.pricesIncludeTax
    ? [{ sign: '' as const, label: 'Taxed amount, without the tax', figure: amount(result.base), kind: 'sum' as const }]
    : [
        ...lines.map((line, index) => ({ sign: index === 0 ? ('' as const) : ('+' as const), ...line })),
        { sign: '' as const, label: 'Taxed amount', figure: amount(result.base), kind: 'sum' as const },
        { sign: '×' as const, label: `${tax.rate} %, ${tax.name}`, figure: { exact: decimalText(exact, 6 + digits) } },
      ];
  return {
    title: tax.name,
    steps: [
      ...taxed,
      { sign: '', label: 'Rounded once, for the whole document', figure: amount(result.amount), kind: 'end' },
    ],
    rules: [
      ...(document.pricesIncludeTax
        ? [`The prices hold this tax of ${tax.rate} %: it is taken out of them, not added.`]
        : []),
      ...(others.length === 1 ? [`Line ${others[0]} does not name this tax.`] : []),
      ...(others.length > 1 && others.length <= 6 ? [`Lines ${others.join(', ')} do not name this tax.`] : []),
      ...(others.length > 6 ? [`${others.length} other lines do not name this tax.`] : []),
    ],
  };
}

function discountWorking(document: TallyDocument, worked: Tally, names: readonly string[]): Working {
  const discount = document.discount;
  const parts = worked.lines.flatMap((line, at) =>
    line.apportioned > 0n ? [{ sign: '' as const, label: lineName(names, at), figure: amount(line.apportioned) }] : [],
  );
  return {
    title: 'Discount',
    steps: [
      { sign: '', label: 'Sum of the lines', figure: amount(worked.subtotal - worked.lineDiscounts) },
      ...(discount && 'percent' in discount
        ? [{ sign: '×' as const, label: 'Of which taken off, in percent', figure: { exact: discount.percent } }]
        : []),
      { sign: '', label: 'Discount', figure: amount(worked.documentDiscount), kind: 'end' },
      ...(document.taxes.length > 0 ? parts : []),
    ],
    rules:
      document.taxes.length > 0 && parts.length > 0
        ? [
            'Shared out over the lines in proportion, so that each tax is on what is really paid. The shares sum to the discount.',
          ]
        : [],
  };
}

function sumWorking(worked: Tally, names: readonly string[]): Working {
  return {
    title: 'Sum of lines',
    steps: [
      ...worked.lines.map((line, at) => ({
        sign: at === 0 ? ('' as const) : ('+' as const),
        label: lineName(names, at),
        figure: amount(line.net),
      })),
      { sign: '', label: 'Sum of lines', figure: amount(worked.subtotal - worked.lineDiscounts), kind: 'end' },
    ],
    rules: [],
  };
}

function totalWorking(document: TallyDocument, worked: Tally): Working {
  const inside = document.pricesIncludeTax;
  return {
    title: 'Total',
    steps: [
      { sign: '', label: 'Sum of lines', figure: amount(worked.subtotal - worked.lineDiscounts) },
      ...(worked.documentDiscount > 0n
        ? [{ sign: '−' as const, label: 'Discount', figure: amount(worked.documentDiscount) }]
        : []),
      ...(worked.charges > 0n
        ? [{ sign: '+' as const, label: 'Delivery and fees', figure: amount(worked.charges) }]
        : []),
      ...(inside
        ? []
        : worked.taxes.map((tax, at) => ({
            sign: '+' as const,
            label: `${document.taxes[at]?.name}, ${document.taxes[at]?.rate} % of`,
            of: tax.base,
            figure: amount(tax.amount),
          }))),
      ...worked.flatTaxes.map((tax) => ({ sign: '+' as const, label: tax.name, figure: amount(tax.amount) })),
      { sign: '', label: 'Total', figure: amount(worked.total), kind: 'end' },
    ],
    rules: inside && worked.taxTotal > 0n ? ['The prices already hold the tax.'] : [],
  };
}

/**
 * The full working of one figure of a document: each step, and the rules that shaped it.
 *
 * @param names what each line is for, by position
 */
export function working(document: TallyDocument, worked: Tally, names: readonly string[], figure: Figure): Working {
  switch (figure.of) {
    case 'line':
      return lineWorking(document, worked, names, figure.at);
    case 'tax':
      return taxWorking(document, worked, names, figure.at);
    case 'discount':
      return discountWorking(document, worked, names);
    case 'sum':
      return sumWorking(worked, names);
    case 'total':
      return totalWorking(document, worked);
  }
}
