import type { ReceiptStyle } from '../business/business';
import type { CalendarDate } from '../dates/calendar-date';
import type { Payer, PrintedInvoice, PrintedSums, Seller } from '../invoice/printed';
import { taxesInPart } from '../invoice/tax-part';
import { jsonMinor } from '../money/money';
import type { LaterCharges } from './later';

/** A receipt as the customer gets it, unchanging; amounts in minor units. */
export type PrintedReceipt = {
  readonly number: string;
  readonly currency: string;
  readonly locale: string;
  readonly paidOn: CalendarDate;
  readonly seller: Seller;
  readonly payer: Payer;
  readonly invoiceNumber: string;
  readonly invoiceTotal: number;
  /** The taxes in what was paid; of receipts from before parts had their own, in the whole invoice. */
  readonly taxes: readonly { readonly name: string; readonly rate: string; readonly amount: number }[];
  /** What had been credited and paid of the invoice before; none on receipts of before these were kept. */
  readonly credited?: number;
  readonly earlier?: number;
  readonly amount: number;
  readonly stillDue: number;
  /** How it was paid in the customer's words: `Corvid ·1111`, `cash`. */
  readonly method: string;
  /** On top of the amount; 0 or absent for none. */
  readonly tip?: number;
  readonly accent?: string;
  readonly logoId?: string | null;
  /** What the business wants on its receipts: registration data, the statement for donations, who signs. */
  readonly style?: Partial<ReceiptStyle>;
  /** What the business calls it in its own books, said when it is sent by hand; each new one is a new version. */
  readonly ownReference?: string;
  readonly version?: number;
  /** What was bought or given, where there is no invoice. */
  readonly order?: {
    readonly title: string;
    readonly reference: string;
    readonly donation: boolean;
    readonly sums: PrintedSums;
    readonly answers: readonly { readonly label: string; readonly text: string }[];
    /** What is charged later, where this was the first of several. */
    readonly later?: LaterCharges;
  };
};

/** The same receipt under a reference of the business's own: the next version, or the same one where nothing changes. */
export const receiptUnder = (receipt: PrintedReceipt, ownReference: string): PrintedReceipt =>
  (receipt.ownReference ?? '') === ownReference
    ? receipt
    : { ...receipt, ownReference, version: (receipt.version ?? 1) + 1 };

type Answer = { readonly label: string; readonly text: string };

/** Those answers of an order that the business wants on its receipts. */
export const answersOnReceipt = ({
  answers,
}: {
  readonly answers: readonly (Answer & { readonly onReceipt: boolean })[];
}): Answer[] => answers.filter(({ onReceipt }) => onReceipt).map(({ label, text }) => ({ label, text }));

/**
 * The receipt of a payment of an invoice.
 *
 * @param receipt.amountMinor what was paid now, after `earlierMinor`, of what was not credited
 * @param receipt.stillDueMinor what the invoice owes afterwards
 * @param again where it is a later payment of what was ordered once: title, purpose, answers, statement are the first's
 */
export function printedReceipt(
  invoice: PrintedInvoice,
  receipt: {
    number: string;
    paidOn: CalendarDate;
    amountMinor: number;
    tipMinor: number;
    stillDueMinor: number;
    earlierMinor: number;
    creditedMinor: number;
    method: string;
  },
  again?: {
    readonly order: Parameters<typeof answersOnReceipt>[0] & { readonly title: string; readonly kind: string };
    readonly reference: string;
    readonly style: NonNullable<PrintedReceipt['style']>;
  },
): PrintedReceipt {
  // What is paid above the total holds no tax.
  const taxed = Math.min(receipt.amountMinor, Math.max(0, invoice.total - receipt.earlierMinor));
  const taxes = taxesInPart(invoice, BigInt(receipt.earlierMinor), BigInt(taxed));
  return {
    number: receipt.number,
    currency: invoice.currency,
    locale: invoice.locale,
    paidOn: receipt.paidOn,
    seller: invoice.seller,
    accent: invoice.accent,
    logoId: invoice.logoId,
    payer: invoice.payer,
    invoiceNumber: invoice.number,
    invoiceTotal: invoice.total,
    taxes: taxes.map(({ name, rate, amount }) => ({ name, rate, amount: jsonMinor(amount) })),
    credited: receipt.creditedMinor,
    earlier: receipt.earlierMinor,
    amount: receipt.amountMinor,
    stillDue: receipt.stillDueMinor,
    method: receipt.method,
    ...(receipt.tipMinor > 0 ? { tip: receipt.tipMinor } : {}),
    ...(again
      ? {
          style: again.style,
          order: {
            title: again.order.title,
            reference: again.reference,
            donation: again.order.kind === 'donation',
            sums: invoice,
            answers: answersOnReceipt(again.order),
          },
        }
      : {}),
  };
}
