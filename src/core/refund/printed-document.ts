import type { PrintedSums } from '../invoice/printed';
import { type Crediting, type CreditStep, creditInSteps, type DocumentSums } from '../tally/credit-steps';
import type { TallyDocument } from '../tally/document';

/** The document that a printed invoice or order was counted from, as it stands printed: discounts are sums by now. */
export function documentOfPrinted(printed: PrintedSums): TallyDocument {
  return {
    currency: printed.currency,
    pricesIncludeTax: printed.pricesIncludeTax,
    ...(printed.exempt ? { exempt: printed.exempt } : {}),
    lines: printed.lines.map(({ quantity, unitPrice, discount, taxIds = [] }) => ({
      quantity,
      unitPrice,
      ...(discount > 0 ? { discount: { amount: BigInt(discount) } } : {}),
      taxes: taxIds,
    })),
    ...(printed.discount > 0
      ? {
          discount: {
            amount: BigInt(printed.discount),
            ...(printed.discountLines ? { lines: printed.discountLines } : {}),
          },
        }
      : {}),
    ...(printed.delivery
      ? { delivery: { amount: BigInt(printed.delivery.amount), taxes: printed.exempt ? [] : printed.delivery.taxIds } }
      : {}),
    fees: printed.fees.map(({ amount, taxIds }) => ({ amount: BigInt(amount), taxes: taxIds })),
    taxes: printed.taxes.map(({ id, name, rate }) => ({ id, name, rate, onDelivery: false })),
    flatTaxes: printed.flatTaxes.map(({ name, amount }) => ({ name, amount: BigInt(amount) })),
  };
}

/** Whether two printed documents count the same: then what was credited of the one is credited of the other. */
export const isSameDocument = (one: PrintedSums, other: PrintedSums): boolean => {
  const text = (printed: PrintedSums) =>
    JSON.stringify(documentOfPrinted(printed), (_, value) => (typeof value === 'bigint' ? String(value) : value));
  return text(one) === text(other);
};

const sumsOfPrinted = (printed: PrintedSums): DocumentSums => ({
  taxes: printed.taxes.map(({ id, base, amount }) => ({ id, base: BigInt(base), amount: BigInt(amount) })),
  flatTaxes: printed.flatTaxes.map(({ amount }) => BigInt(amount)),
  total: BigInt(printed.total),
});

/** A step as it is kept: plain JSON, a sum in minor units. */
export type KeptStep = Exclude<CreditStep, { readonly amount: bigint }> | { readonly amount: number };

export const keptStep = (step: CreditStep): KeptStep => ('amount' in step ? { amount: Number(step.amount) } : step);

export const stepOf = (kept: KeptStep): CreditStep => ('amount' in kept ? { amount: BigInt(kept.amount) } : kept);

/** A printed document, credited as far as these steps went. @throws RuleError where they do not fit it */
export const creditedSoFar = (printed: PrintedSums, steps: readonly KeptStep[]): Crediting =>
  creditInSteps(documentOfPrinted(printed), steps.map(stepOf), sumsOfPrinted(printed)).now;
