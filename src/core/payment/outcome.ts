/** States of a payment that went through, also where all of it was taken back the same day. */
export const WENT_THROUGH = ['paid', 'voided'] as const;

/** Why a card was refused, in our words; the processor's own codes are turned into these at the border. */
export type RefusalReason =
  | 'not-enough-money'
  | 'over-limit'
  | 'card-blocked'
  | 'card-expired'
  | 'wrong-security-number'
  | 'approval-needed'
  | 'approval-declined'
  | 'approval-lapsed'
  | 'never-charged'
  // Of bank debits: told days after they were asked for, or weeks after they were paid.
  | 'account-short'
  | 'account-closed'
  | 'no-mandate'
  | 'debit-objected'
  | 'debit-unpaid'
  | 'refused';

/** What the payer reads: the reason and what to do. Nothing was charged in any of these cases. */
export const REFUSAL_WORDS: Readonly<Record<RefusalReason, string>> = {
  'not-enough-money': 'There is not enough money on this card. Try another card, or the same one later.',
  'over-limit': 'This is above the limit of the card. Try another card, or ask your bank to raise the limit.',
  'card-blocked': 'This card is blocked. Try another card, and ask your bank about this one.',
  'card-expired': 'This card has expired. Try another card.',
  'wrong-security-number':
    'The security number does not match the card. Look at the back of the card and type it again.',
  'approval-needed': 'Your bank wants you to approve this payment yourself. Pay it here, or use another card.',
  'approval-declined': 'You did not approve the payment at your bank. Try again, or use another card.',
  'approval-lapsed': 'The approval at your bank was not finished in time. Try again.',
  'never-charged': 'The payment did not reach the card processor. Nothing was charged: try again.',
  'account-short': 'There was not enough money in the account. Pay it here, by card or from another account.',
  'account-closed': 'Your bank says that the account cannot be charged any more. Use another account, or a card.',
  'no-mandate': 'Your bank knows of no authorisation for this debit. Pay it here, and speak to your bank.',
  'debit-objected': 'You asked your bank for this payment back. It is still to be paid.',
  'debit-unpaid': 'Your bank did not pay this debit and gave no reason. Pay it here, or ask your bank.',
  refused: 'The bank refused this card without a reason. Try another card, or ask your bank.',
};

/** What the business reads on the timeline and in the queue. */
export const REFUSAL_BRIEF: Readonly<Record<RefusalReason, string>> = {
  'not-enough-money': 'not enough money on the card',
  'over-limit': 'above the limit of the card',
  'card-blocked': 'the card is blocked',
  'card-expired': 'the card has expired',
  'wrong-security-number': 'wrong security number',
  'approval-needed': 'the bank asks for the holder’s approval',
  'approval-declined': 'not approved at the bank',
  'approval-lapsed': 'approval not finished in time',
  'never-charged': 'it did not reach the processor',
  'account-short': 'not enough money in the account',
  'account-closed': 'the account cannot be charged',
  'no-mandate': 'the bank knows of no authorisation',
  'debit-objected': 'the payer asked their bank for it back',
  'debit-unpaid': 'the bank did not pay, without a reason',
  refused: 'refused without a reason',
};

/** Refusals after which charging the same card again is of no use: the holder has to approve, or give another. */
const HOLDERS_TURN: readonly RefusalReason[] = [
  'card-blocked',
  'card-expired',
  'wrong-security-number',
  'approval-needed',
  'approval-declined',
  'approval-lapsed',
  'account-closed',
  'no-mandate',
  'debit-objected',
];

/** Whether only the card's holder can do something about it. */
export const isHoldersTurn = (reason: RefusalReason | null): boolean =>
  reason !== null && HOLDERS_TURN.includes(reason);

/** What is charged, as far as anybody but the processor may know it: a card, or a bank account (`ACCOUNT_SCHEME`). */
export type CardSeen = { readonly scheme: string; readonly last4: string };

/** What stands in the place of a card's scheme where a bank account is charged. */
export const ACCOUNT_SCHEME = 'Bank account';

/** How a payment with it is made. */
export const methodOf = ({ scheme }: Pick<CardSeen, 'scheme'>): 'card' | 'debit' =>
  scheme === ACCOUNT_SCHEME ? 'debit' : 'card';

export const cardText = (card: CardSeen): string => `${card.scheme} ·${card.last4}`;

/** What is known of a sale at the processor. Amounts in minor units of the sale's currency. */
export type SaleOutcome =
  | { readonly kind: 'accepted'; readonly saleId: string; readonly feeMinor: bigint; readonly card: CardSeen }
  | { readonly kind: 'refused'; readonly reason: RefusalReason; readonly card: CardSeen | null }
  | { readonly kind: 'approval'; readonly saleId: string; readonly approvalUrl: string; readonly card: CardSeen }
  /** A bank debit is under way: whether it is paid is known on a banking day to come. */
  | { readonly kind: 'collecting'; readonly saleId: string; readonly expectedAt: Date; readonly card: CardSeen }
  | { readonly kind: 'unknown' };
