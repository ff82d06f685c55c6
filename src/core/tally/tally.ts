import { minorDigits } from '../money/currency';
import { powerOfTen, roundedQuotient, scaledDecimal } from '../money/decimal';
import { allocate, inRange } from '../money/money';
import { RuleError } from '../rule-error';
import type { Discount, LineTally, Tally, TallyDocument, TallyLine } from './document';

/** Fraction digits of a quantity. */
export const QUANTITY_SCALE = 4;
const PRICE_SCALE = 6;
const RATE_SCALE = 4;
const WHOLE = 100n * powerOfTen(RATE_SCALE); // 100 percent

/** A percentage scaled by 10^4. @throws RuleError `bad_rate` outside 0 to 100 */
export function scaledRate(percent: string, field: string): bigint {
  const rate = scaledDecimal(percent, RATE_SCALE, 'bad_rate', field);
  if (rate > WHOLE) throw new RuleError('bad_rate', `${field}: a rate is at most 100 percent`);
  return rate;
}

/** `percent` of an amount in minor units, rounded half away from zero. @throws RuleError `bad_rate` */
export const percentOf = (amount: bigint, percent: string, field: string): bigint =>
  roundedQuotient(amount * scaledRate(percent, field), WHOLE);

function discountOf(base: bigint, discount: Discount | undefined, field: string): bigint {
  if (!discount) return 0n;
  if ('percent' in discount) return percentOf(base, discount.percent, `${field}.percent`);
  if (discount.amount > base)
    throw new RuleError('discount_too_large', `${field}: a discount is at most what it is taken from`);
  return discount.amount;
}

/**
 * Quantity × unit price, rounded to the minor unit, less the line's discount.
 *
 * @param unit 10^minor digits of the currency
 * @throws RuleError `bad_quantity`, `bad_price`, `bad_rate`, `discount_too_large`, `amount_out_of_range`
 */
export function lineTally(line: TallyLine, unit: bigint, field = 'line'): Omit<LineTally, 'apportioned'> {
  const quantity = scaledDecimal(line.quantity, QUANTITY_SCALE, 'bad_quantity', `${field}.quantity`);
  if (quantity === 0n) throw new RuleError('bad_quantity', `${field}.quantity: must be above 0`);
  const price = scaledDecimal(line.unitPrice, PRICE_SCALE, 'bad_price', `${field}.unitPrice`);
  const gross = inRange(roundedQuotient(quantity * price * unit, powerOfTen(QUANTITY_SCALE + PRICE_SCALE)));
  const discount = discountOf(gross, line.discount, `${field}.discount`);
  return { gross, discount, net: gross - discount };
}

const sum = (amounts: readonly bigint[]): bigint => inRange(amounts.reduce((a, b) => a + b, 0n));

/** Something taxed: its worth after discounts, and which taxes (positions in the document's list) it names. */
export type Taxed = { readonly worth: bigint; readonly taxes: readonly number[] };

function taxesOnTop(taxed: readonly Taxed[], rates: readonly bigint[]): { base: bigint; amount: bigint }[] {
  const bases = rates.map(() => 0n);
  for (const { worth, taxes } of taxed) for (const at of taxes) bases[at] = (bases[at] ?? 0n) + worth;
  return bases.map((base, at) => ({ base, amount: roundedQuotient(base * (rates[at] ?? 0n), WHOLE) }));
}

/** Tax inside the price: grouped by the set of taxes, each group rounded once (`calculation.md` 5). */
function taxesInside(taxed: readonly Taxed[], rates: readonly bigint[]): { base: bigint; amount: bigint }[] {
  const groups = new Map<string, { taxes: readonly number[]; worth: bigint }>();
  for (const { worth, taxes } of taxed) {
    const key = taxes.join(' ');
    groups.set(key, { taxes, worth: worth + (groups.get(key)?.worth ?? 0n) });
  }
  const found = rates.map(() => ({ base: 0n, amount: 0n }));
  for (const { taxes, worth } of groups.values()) {
    const own = taxes.map((at) => rates[at] ?? 0n);
    const net = roundedQuotient(worth * WHOLE, WHOLE + own.reduce((a, b) => a + b, 0n));
    const parts = allocate(worth - net, own);
    taxes.forEach((at, index) => {
      const tax = found[at];
      if (tax) found[at] = { base: tax.base + net, amount: tax.amount + (parts[index] ?? 0n) };
    });
  }
  return found;
}

function limitedTo(lines: readonly number[] | undefined, count: number): Set<number> | null {
  if (!lines) return null;
  if (lines.length === 0) throw new RuleError('bad_input', 'discount.lines: name at least one line');
  for (const at of lines) {
    if (!Number.isInteger(at) || at < 0 || at >= count)
      throw new RuleError('bad_input', `discount.lines: there is no line ${at}`);
  }
  return new Set(lines);
}

/** A document worked out as far as its tax bases: its lines, its discount, and what its taxes are taken of. */
export type Worked = {
  readonly lines: readonly LineTally[];
  readonly documentDiscount: bigint;
  readonly charges: bigint;
  /** In the order of the document. */
  readonly taxedLines: readonly Taxed[];
  readonly taxedFees: readonly Taxed[];
  readonly taxedDelivery: Taxed | null;
  readonly flatTaxes: readonly { readonly name: string; readonly amount: bigint }[];
  /** The base and the amount of each of the document's taxes over something of it (`calculation.md` 5); none where exempt. */
  readonly taxesOf: (
    taxed: readonly Taxed[],
  ) => { readonly id: string; readonly base: bigint; readonly amount: bigint }[];
};

/** Works a document out as far as what is taxed (`calculation.md` 1 to 5). @throws RuleError as `tally` */
export function worked(document: TallyDocument): Worked {
  const unit = powerOfTen(minorDigits(document.currency));
  if (document.exempt !== undefined && document.exempt.trim() === '') {
    throw new RuleError('bad_input', 'exempt: state the reason');
  }
  const position = new Map(document.taxes.map((tax, at) => [tax.id, at]));
  if (position.size < document.taxes.length) throw new RuleError('bad_input', 'taxes: an id is given twice');
  const rates = document.taxes.map((tax, at) => scaledRate(tax.rate, `taxes[${at}].rate`));
  const positions = (ids: readonly string[] | undefined, field: string): number[] => {
    const found = (ids ?? []).map((id) => {
      const at = position.get(id);
      if (at === undefined) throw new RuleError('unknown_tax', `${field}: the document does not list a tax ${id}`);
      return at;
    });
    return found.length < 2 ? found : [...new Set(found)].sort((a, b) => a - b);
  };

  const lines = document.lines.map((line, at) => lineTally(line, unit, `lines[${at}]`));
  const lineTaxes = document.lines.map((line, at) => positions(line.taxes, `lines[${at}].taxes`));

  const only = limitedTo(document.discount?.lines, document.lines.length);
  const weights = lines.map(({ net }, at) => (!only || only.has(at) ? net : 0n));
  const documentDiscount = discountOf(sum(weights), document.discount, 'discount');
  const apportioned = allocate(documentDiscount, weights);

  const fees = document.fees ?? [];
  const feeTaxes = fees.map((fee, at) => positions(fee.taxes, `fees[${at}].taxes`));
  const named = new Set(lineTaxes.flat());
  const deliveryTaxes = document.delivery?.taxes
    ? positions(document.delivery.taxes, 'delivery.taxes')
    : document.taxes.flatMap((tax, at) => (tax.onDelivery && named.has(at) ? [at] : []));
  const exempt = document.exempt !== undefined;
  return {
    lines: lines.map((line, at) => ({ ...line, apportioned: apportioned[at] ?? 0n })),
    documentDiscount,
    charges: sum([document.delivery?.amount ?? 0n, ...fees.map((fee) => fee.amount)]),
    taxedLines: lines.map(({ net }, at) => ({ worth: net - (apportioned[at] ?? 0n), taxes: lineTaxes[at] ?? [] })),
    taxedFees: fees.map((fee, at) => ({ worth: fee.amount, taxes: feeTaxes[at] ?? [] })),
    taxedDelivery: document.delivery ? { worth: document.delivery.amount, taxes: deliveryTaxes } : null,
    flatTaxes: exempt ? [] : (document.flatTaxes ?? []).map(({ name, amount }) => ({ name, amount })),
    taxesOf: (taxed) =>
      (exempt ? [] : (document.pricesIncludeTax ? taxesInside : taxesOnTop)(taxed, rates)).map((tax, at) => ({
        id: document.taxes[at]?.id ?? '',
        base: inRange(tax.base),
        amount: inRange(tax.amount),
      })),
  };
}

/**
 * The total of a document with every step that leads to it: lines, discounts, charges, taxes
 * (`calculation.md` 1 to 6; the order of the totals follows EN 16931-1).
 *
 * Rounds half away from zero to the minor unit at four places only: a line's gross, a discount in percent, a tax
 * (once per document, not per line), and the net of a group whose prices include tax.
 *
 * @throws RuleError with the code and the field's path where a value is outside its rule
 */
export function tally(document: TallyDocument): Tally {
  const { lines, documentDiscount, charges, taxedLines, taxedFees, taxedDelivery, flatTaxes, taxesOf } =
    worked(document);
  const taxes = taxesOf([...taxedLines, ...taxedFees, ...(taxedDelivery ? [taxedDelivery] : [])]);
  const flat = sum(flatTaxes.map((tax) => tax.amount));
  const taxTotal = inRange(sum(taxes.map((tax) => tax.amount)) + flat);
  const net = sum(lines.map((line) => line.net)) - documentDiscount + charges;
  return {
    currency: document.currency,
    lines,
    subtotal: sum(lines.map((line) => line.gross)),
    lineDiscounts: sum(lines.map((line) => line.discount)),
    documentDiscount,
    charges,
    taxes,
    flatTaxes,
    taxTotal,
    total: inRange(net + (document.pricesIncludeTax ? flat : taxTotal)),
  };
}
