import type { PrintedInvoice } from '../invoice/printed';
import { minorDigits } from '../money/currency';
import { decimalText } from '../money/decimal';
import type { PrintedCredit } from '../refund/printed-credit';
import { type EInvoice, type EInvoiceLine, UNIT_CODES } from './einvoice';
import { eInvoiceOf } from './of-invoice';
import { shared, sumsOf, withoutTaxOf } from './sums';

/**
 * A credit note in the model of EN 16931: what is credited, shared out over the categories and rates of its invoice by what
 * each of them came to with its tax, a line for each; or line by line, where it was credited so.
 *
 * @param credit its amount with tax, in minor units
 * @param invoice the invoice as it was printed
 */
export function eCreditOf(credit: PrintedCredit, invoice: PrintedInvoice): EInvoice {
  if (credit.part) return { ...eInvoiceOf({ ...invoice, ...credit.part }), ...creditHead(credit, invoice) };
  const of = eInvoiceOf(invoice);
  const parts = shared(
    BigInt(credit.amount),
    of.groups.map(({ base, amount }) => base + amount),
  );
  const lines = of.groups.flatMap(({ category, rate }, at): EInvoiceLine[] => {
    const net = withoutTaxOf(parts[at] ?? 0n, rate);
    if (net === 0n) return [];
    const name = `${credit.reason || 'Credit'} (${invoice.number})`;
    const rest = { allowance: 0n, code: '', note: '', on: '' };
    return [
      {
        name,
        quantity: '1',
        unit: UNIT_CODES.flat,
        price: decimalText(net, minorDigits(of.currency)),
        net,
        category,
        rate,
        ...rest,
      },
    ];
  });
  const why = new Map(of.groups.map(({ category, reason, reasonCode }) => [category, { reason, reasonCode }]));
  const sums = sumsOf({
    lines,
    allowances: [],
    charges: [],
    whyOf: (category) => why.get(category) ?? { reason: '', reasonCode: '' },
    asked: BigInt(credit.amount),
    paid: 0n,
  });
  return { ...of, ...creditHead(credit, invoice), lines, allowances: [], charges: [], ...sums };
}

/** What stands on a credit note otherwise than on its invoice. */
const creditHead = (credit: PrintedCredit, invoice: PrintedInvoice) =>
  ({
    kind: 'credit-note',
    number: credit.number,
    issuedOn: credit.issuedOn,
    dueOn: '',
    note: credit.reason,
    // What is owed to the buyer has no day by which they pay it.
    terms: `Credit of invoice ${invoice.number}`,
    preceding: invoice.number,
    transfer: null,
  }) as const;
