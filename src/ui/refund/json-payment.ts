import type { PrintedSums } from '@/core/invoice/printed';
import type { PaymentMethod } from '@/core/payment/methods';
import { creditedSoFar, type KeptStep } from '@/core/refund/printed-document';
import { type Refundable, type RefundParts, type RefundWish, refundParts } from '@/core/refund/refund';
import { RuleError } from '@/core/rule-error';

/** A payment as its sheet in the browser has it. Plain JSON; amounts in minor units. */
export type JsonPayment = {
  readonly id: string;
  readonly currency: string;
  readonly locale: string;
  readonly payer: string;
  readonly email: string;
  readonly method: PaymentMethod;
  /** The card, or how else it was paid. */
  readonly how: string;
  readonly state: 'pending' | 'paid' | 'refused' | 'voided';
  /** What it paid for, as printed. */
  readonly printed: PrintedSums;
  readonly steps: readonly KeptStep[];
  readonly amount: number;
  readonly tip: number;
  readonly fee: number;
  /** What the tariff says that the fee is; null without one. */
  readonly agreed: number | null;
  /** The line of the tariff that says so. */
  readonly agreedLine: { readonly percent: string; readonly fixed: number; readonly text: string } | null;
  readonly refunded: number;
  /** What of that a payer's bank took back of a debit, and its fee; null where nothing came back. */
  readonly returned: { readonly taken: number; readonly fee: number } | null;
  readonly tipRefunded: number;
  readonly shares: readonly {
    readonly name: string;
    readonly share: number;
    readonly fee: number;
    readonly reversed: number;
  }[];
  readonly isInvoice: boolean;
  readonly invoiceNumber: string;
  /** What the customer has to their credit on the invoice, and what it still asks for. */
  readonly credit: number;
  readonly due: number;
  readonly mayVoid: boolean;
  readonly mayRefund: boolean;
  /** What a dispute took, and its fee; null where there is none. */
  readonly dispute: { readonly taken: number; readonly fee: number } | null;
  readonly plan: { readonly name: string; readonly runs: boolean } | null;
  /** Which lines are goods of which a stock is kept. */
  readonly goods: readonly number[];
};

const refundable = (payment: JsonPayment): Refundable => ({
  amountMinor: BigInt(payment.amount),
  tipMinor: BigInt(payment.tip),
  feeMinor: BigInt(payment.fee),
  refundedMinor: BigInt(payment.refunded),
  tipRefundedMinor: BigInt(payment.tipRefunded),
  shares: payment.shares.map(({ share, fee }) => ({ shareMinor: BigInt(share), feeMinor: BigInt(fee) })),
});

/** What a refund would take, worked out by the rule itself; null, with the rule's code, for what it refuses. */
export function refundPreview(
  payment: JsonPayment,
  wish: RefundWish,
  owedAgain: boolean,
): { readonly parts: RefundParts | null; readonly refused: RuleError['code'] | null } {
  try {
    const crediting = creditedSoFar(payment.printed, payment.steps);
    const document = { crediting, creditMinor: BigInt(payment.credit), owedAgain };
    return { parts: refundParts(refundable(payment), document, wish), refused: null };
  } catch (error) {
    if (!(error instanceof RuleError)) throw error;
    return { parts: null, refused: error.code };
  }
}

/** How far the document is credited. */
export const creditingOf = (payment: JsonPayment) => creditedSoFar(payment.printed, payment.steps);
