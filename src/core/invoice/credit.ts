import { roundedQuotient } from '../money/decimal';
import type { PrintedInvoice } from './printed';

/** One of an invoice's taxes in a part of it: in a credit note, or in a part that was paid; minor units. */
export type TaxPart = {
  readonly id: string;
  readonly name: string;
  readonly rate: string;
  readonly amount: bigint;
};

/**
 * The taxes in a credit or a payment of part of an invoice: after credits of C in all of a total T, each tax's credited part is
 * round(tax × C / T), and each credit books the difference to what was credited before. So the parts of several credits sum
 * to the tax exactly once the whole is credited (the rule for reversing shares, `calculation.md` 10, applied to taxes).
 *
 * @param before what was credited (or paid) before this one, minor units @param amount this one, at most what is left
 */
export function taxesInPart(
  invoice: Pick<PrintedInvoice, 'total' | 'taxes' | 'flatTaxes'>,
  before: bigint,
  amount: bigint,
): TaxPart[] {
  const total = BigInt(invoice.total);
  const part = (tax: bigint, credited: bigint): bigint => (total === 0n ? 0n : roundedQuotient(tax * credited, total));
  const flat = invoice.flatTaxes.map((tax, at) => ({ id: `flat-${at}`, name: tax.name, rate: '', amount: tax.amount }));
  return [...invoice.taxes, ...flat].map(({ id, name, rate, amount: tax }) => ({
    id,
    name,
    rate,
    amount: part(BigInt(tax), before + amount) - part(BigInt(tax), before),
  }));
}

/** A credit note as the customer gets it; amounts in minor units. */
export type PrintedCredit = {
  readonly number: string;
  readonly invoice: Pick<
    PrintedInvoice,
    'number' | 'currency' | 'locale' | 'seller' | 'payer' | 'total' | 'logoId' | 'accent' | 'pricesIncludeTax'
  >;
  readonly issuedOn: string;
  readonly reason: string;
  readonly amount: number;
  readonly taxes: readonly { readonly name: string; readonly rate: string; readonly amount: number }[];
};
