import type { DisputeReason, DisputeState, LostBy } from './dispute';

/** What the card's holder told their bank, as a sentence without its end. */
export const DISPUTE_WORDS: Readonly<Record<DisputeReason, string>> = {
  'not-recognised': 'The holder does not recognise the payment',
  'not-received': 'The holder says that nothing came',
  'not-as-described': 'The holder says that it is not what was described',
  'charged-twice': 'The holder says that it was charged twice',
  cancelled: 'The holder says that it was cancelled',
  other: 'The holder gave no reason that we know',
};

/** What convinces their bank, by what the holder said: what to look for before the answer goes out. */
export const DISPUTE_ADVICE: Readonly<Record<DisputeReason, string>> = {
  'not-recognised':
    'Show that it was them: the consent with its signature, terms they accepted, messages they opened, earlier payments of the same card.',
  'not-received': 'Show that it was handed over: proof of delivery, a signature, what was said about it in messages.',
  'not-as-described':
    'Show what was agreed: the invoice or order as it was, files they approved, what you offered to put it right.',
  'charged-twice': 'Show that there were two things to pay, each with its own receipt; if it was one, accept the loss.',
  cancelled: 'Show the terms for cancelling, when they cancelled, and what was still owed by then.',
  other: 'Show what was agreed, that it was them, and that it was handed over.',
};

export const DISPUTE_STATE_WORDS: Readonly<Record<DisputeState, string>> = {
  open: 'To be answered',
  sending: 'Answer on its way',
  sent: 'Answered',
  won: 'Won',
  lost: 'Lost',
};

export const LOST_BY_WORDS: Readonly<Record<LostBy, string>> = {
  decision: 'the bank decided for the holder',
  silence: 'no answer came by the last day',
  accepted: 'the loss was accepted',
};
