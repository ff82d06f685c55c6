/** How money came in, or went back; `account`: from what the customer had to their credit. */
export type PaymentMethod = 'card' | 'transfer' | 'cash' | 'cheque' | 'other' | 'account';

/** How money came or went, as people at the desk call it. */
export const METHOD_WORDS: Readonly<Record<PaymentMethod, string>> = {
  card: 'by card',
  transfer: 'by bank transfer',
  cash: 'in cash',
  cheque: 'by cheque',
  other: 'another way',
  account: 'from the account',
};
