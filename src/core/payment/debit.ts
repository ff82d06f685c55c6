import { canBeOf } from '../dispute/dispute';
import type { RefusalReason } from './outcome';

/** ISO 20022 external status reason codes of debits that were not paid, or came back. */
const REASONS: Readonly<Record<string, RefusalReason>> = {
  AM04: 'account-short',
  AC01: 'account-closed',
  AC04: 'account-closed',
  AC06: 'account-closed',
  AC13: 'account-closed',
  AG01: 'account-closed',
  MD07: 'account-closed',
  MD01: 'no-mandate',
  MD06: 'debit-objected',
};

/** Why a debit was not paid or came back, in our words. @param code an ISO 20022 external status reason code */
export const debitReason = (code: string): RefusalReason => REASONS[code] ?? 'debit-unpaid';

/** A debit that was paid and that the payer's bank took back, as the processor tells it: amounts in minor units. */
export type ToldReturn = {
  /** The processor's own name of it, a UUID: the refund that it is here has the same. */
  readonly id: string;
  readonly paymentId: string;
  readonly currency: string;
  readonly amountMinor: bigint;
  /** What the bank asks for it. */
  readonly feeMinor: bigint;
  /** An ISO 20022 external status reason code. */
  readonly code: string;
};

/** Whether what is told can be of a payment: a debit in its currency, and no more than was paid. */
export const canReturn = (
  told: ToldReturn,
  payment: Parameters<typeof canBeOf>[1] & { readonly method: string },
): boolean => payment.method === 'debit' && canBeOf(told, payment);
