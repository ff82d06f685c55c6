import type { PrintedLine, PrintedSums } from '../invoice/printed';
import { decimalText, roundedQuotient, scaledDecimal } from '../money/decimal';
import { jsonMinor } from '../money/money';
import type { Credited, Crediting, CreditStep } from '../tally/credit-steps';
import { QUANTITY_SCALE } from '../tally/tally';

/** What of a document is credited, line by line, set like the document itself. Plain JSON; amounts in minor units. */
export type CreditedPart = Pick<
  PrintedSums,
  | 'lines'
  | 'subtotal'
  | 'lineDiscounts'
  | 'discount'
  | 'discountText'
  | 'taxes'
  | 'taxTotal'
  | 'total'
  | 'delivery'
  | 'fees'
  | 'flatTaxes'
  | 'exempt'
>;

/** How much of which lines, fees and the delivery a step credits. */
function named(step: CreditStep, before: Crediting) {
  if ('lines' in step) return { lines: step.lines, fees: step.fees ?? [], delivery: step.delivery ?? false };
  const lines = before.quantitiesLeft.flatMap((left, index) =>
    left > 0n ? [{ index, quantity: decimalText(left, QUANTITY_SCALE) }] : [],
  );
  return {
    lines,
    fees: before.feesLeft.flatMap((left, at) => (left ? [at] : [])),
    delivery: before.deliveryLeft,
  };
}

/** A line as far as it is credited. @param quantity how much of it */
function creditedLine(line: PrintedLine, quantity: string, net: bigint): PrintedLine {
  const scaled = (text: string) => scaledDecimal(text, QUANTITY_SCALE, 'bad_quantity', 'quantity');
  const discount = roundedQuotient(BigInt(line.discount) * scaled(quantity), scaled(line.quantity));
  return { ...line, quantity, gross: jsonMinor(net + discount), discount: jsonMinor(discount), net: jsonMinor(net) };
}

/**
 * What a step credits as the credit note prints it; null where it is a sum without lines.
 *
 * @param before how far the document was credited before the step
 */
export function creditedPart(
  printed: PrintedSums,
  before: Crediting,
  step: CreditStep,
  credited: Credited,
): CreditedPart | null {
  if ('amount' in step || !before.mayByLines) return null;
  const { lines: wanted, fees, delivery } = named(step, before);
  const lines = credited.lines.flatMap(({ index, net }) => {
    const line = printed.lines[index];
    const quantity = wanted.find((one) => one.index === index)?.quantity;
    return line && quantity ? [creditedLine(line, quantity, net)] : [];
  });
  const sum = (of: (line: PrintedLine) => number) => lines.reduce((all, line) => all + of(line), 0);
  const flatTaxes = printed.flatTaxes.flatMap(({ name }, at) => {
    const minor = credited.flatTaxes[at] ?? 0n;
    return minor === 0n ? [] : [{ name, amount: jsonMinor(minor) }];
  });
  const taxes = printed.taxes.flatMap((tax, at) => {
    const part = credited.taxes[at];
    return part && (part.amount !== 0n || part.base !== 0n)
      ? [{ ...tax, base: jsonMinor(part.base), amount: jsonMinor(part.amount) }]
      : [];
  });
  return {
    lines,
    subtotal: sum(({ gross }) => gross),
    lineDiscounts: sum(({ discount }) => discount),
    discount: jsonMinor(credited.lines.reduce((all, { apportioned }) => all + apportioned, 0n)),
    discountText: '',
    taxes,
    taxTotal: jsonMinor(
      [...credited.taxes.map(({ amount }) => amount), ...credited.flatTaxes].reduce((all, minor) => all + minor, 0n),
    ),
    total: jsonMinor(credited.total),
    delivery: delivery ? printed.delivery : null,
    fees: fees.flatMap((at) => printed.fees[at] ?? []),
    flatTaxes,
    exempt: printed.exempt,
  };
}
