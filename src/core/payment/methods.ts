/** How money came in, or went back; `debit` from a bank account by the processor, `account` from what the customer had to their credit,
 * `voucher` from a gift voucher. */
export type PaymentMethod = 'card' | 'debit' | 'transfer' | 'cash' | 'cheque' | 'other' | 'account' | 'voucher';

/** How money came or went, as people at the desk call it. */
export const METHOD_WORDS: Readonly<Record<PaymentMethod, string>> = {
  card: 'by card',
  debit: 'by bank debit',
  transfer: 'by bank transfer',
  cash: 'in cash',
  cheque: 'by cheque',
  other: 'another way',
  account: 'from the account',
  voucher: 'by gift voucher',
};

/** The ways on which no money moves: it came before, and was owed. */
export const WITHOUT_MONEY = ['account', 'voucher'] as const;

/** The ways on which the processor moves the money. */
export const AT_PROCESSOR = ['card', 'debit'] as const;

export const isAtProcessor = (method: PaymentMethod): method is (typeof AT_PROCESSOR)[number] =>
  method === 'card' || method === 'debit';

/** Whether somebody wrote it down, and may have been mistaken: neither the processor's, nor money that was here before. */
export const isByHand = (
  method: PaymentMethod,
): method is Exclude<PaymentMethod, (typeof AT_PROCESSOR)[number] | (typeof WITHOUT_MONEY)[number]> =>
  !isAtProcessor(method) && method !== 'account' && method !== 'voucher';
