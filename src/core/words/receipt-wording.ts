import type { PrintedReceipt } from '../receipt/receipt';
import type { SumRow } from './invoice-wording';
import { type Words, wordsOf } from './words';

/**
 * What stands on the receipt of an invoice, from its total to what is left: total, less what was credited and paid before, less
 * what is paid now, is what is still due. The taxes are those in what is paid now.
 */
export function receiptRows(receipt: PrintedReceipt, words: Words = wordsOf(receipt.locale)): SumRow[] {
  const { credited = 0, earlier = 0, tip = 0, stillDue } = receipt;
  const isPart = receipt.earlier !== undefined && (credited > 0 || earlier > 0 || stillDue > 0);
  const row = (label: string, minor: number): SumRow[] => (minor === 0 ? [] : [{ label, minor }]);
  return [
    { label: words.invoiceTotal(receipt.invoiceNumber), minor: receipt.invoiceTotal },
    ...row(words.credited, -credited),
    ...row(words.paidBefore, -earlier),
    ...(isPart ? [{ label: words.paidNow, minor: receipt.amount }] : []),
    ...receipt.taxes.flatMap(({ name, rate, amount }) =>
      row(words.ofWhich([name, rate ? `${rate} %` : ''].filter(Boolean).join(', ')), amount),
    ),
    ...row(words.tip, tip),
    ...row(words.stillDue, stillDue),
  ];
}
