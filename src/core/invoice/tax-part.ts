import { roundedQuotient } from '../money/decimal';
import type { PrintedInvoice } from './printed';

/** One of an invoice's taxes in a part of it that was paid; minor units. */
export type TaxPart = {
  readonly id: string;
  readonly name: string;
  readonly rate: string;
  readonly amount: bigint;
};

/**
 * The taxes in a payment of part of an invoice: after payments of C in all of a total T, each tax's part is round(tax × C / T), and
 * each payment has the difference to what was paid before, so that the parts of several payments sum to the tax exactly once the
 * whole is paid (as a credit by sum, `calculation.md` 15).
 *
 * @param before what was paid before this one, minor units @param amount this one, at most what is left
 */
export function taxesInPart(
  invoice: Pick<PrintedInvoice, 'total' | 'taxes' | 'flatTaxes'>,
  before: bigint,
  amount: bigint,
): TaxPart[] {
  const total = BigInt(invoice.total);
  const part = (tax: bigint, paid: bigint): bigint => (total === 0n ? 0n : roundedQuotient(tax * paid, total));
  const flat = invoice.flatTaxes.map((tax, at) => ({ id: `flat-${at}`, name: tax.name, rate: '', amount: tax.amount }));
  return [...invoice.taxes, ...flat].map(({ id, name, rate, amount: tax }) => ({
    id,
    name,
    rate,
    amount: part(BigInt(tax), before + amount) - part(BigInt(tax), before),
  }));
}
