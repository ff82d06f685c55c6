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
];

/** Whether only the card's holder can do something about it. */
export const isHoldersTurn = (reason: RefusalReason | null): boolean =>
  reason !== null && HOLDERS_TURN.includes(reason);

/** The card as far as anybody but the processor may know it. */
export type CardSeen = { readonly scheme: string; readonly last4: string };

export const cardText = (card: CardSeen): string => `${card.scheme} ·${card.last4}`;

/** What is known of a sale at the processor. Amounts in minor units of the sale's currency. */
export type SaleOutcome =
  | { readonly kind: 'accepted'; readonly saleId: string; readonly feeMinor: bigint; readonly card: CardSeen }
  | { readonly kind: 'refused'; readonly reason: RefusalReason; readonly card: CardSeen | null }
  | { readonly kind: 'approval'; readonly saleId: string; readonly approvalUrl: string; readonly card: CardSeen }
  | { readonly kind: 'unknown' };
