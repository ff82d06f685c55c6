import type { PrintedInvoice, PrintedSums } from '../invoice/printed';
import type { CreditedPart } from './credited-part';

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
  /** Line by line what is credited; absent where it is a sum. */
  readonly part?: CreditedPart;
};

/** What a credit note says line by line, as a document of its own; null where it is a sum. */
export const sumsOfCredit = ({ invoice, part }: PrintedCredit): PrintedSums | null =>
  part
    ? { currency: invoice.currency, locale: invoice.locale, pricesIncludeTax: invoice.pricesIncludeTax, ...part }
    : null;
