/**
 * Every kind of message: what it is called at the desk, who reads it, and what its subject's timeline tells of its way: nothing,
 * that it was handed over, or also what became of it afterwards.
 */
export const MESSAGE_KINDS = {
  invoice: { called: 'Invoice', reader: 'customer', told: 'all' },
  receipt: { called: 'Receipt', reader: 'customer', told: 'all' },
  'approval-asked': { called: 'Request to approve', reader: 'customer', told: 'all' },
  'receipt-taken-back': { called: 'Notice that a receipt does not count', reader: 'customer', told: 'all' },
  'debit-returned': { called: 'Notice of a debit that came back', reader: 'customer', told: 'all' },
  voucher: { called: 'Gift voucher', reader: 'customer', told: 'all' },
  dispute: { called: 'Notice of a dispute', reader: 'business', told: 'nothing' },
  'gift-letter': { called: 'Donation statement', reader: 'customer', told: 'all' },
  'payment-notice': { called: 'Notice of the payment', reader: 'business', told: 'handing-over' },
  reminder: { called: 'Reminder', reader: 'customer', told: 'all' },
  changed: { called: 'Changed invoice', reader: 'customer', told: 'all' },
  cancelled: { called: 'Cancellation', reader: 'customer', told: 'all' },
  'credit-note': { called: 'Credit note', reader: 'customer', told: 'all' },
  question: { called: 'Question', reader: 'business', told: 'nothing' },
  answer: { called: 'Answer', reader: 'customer', told: 'all' },
  trial: { called: 'Test copy', reader: 'customer', told: 'nothing' },
  statement: { called: 'Statement', reader: 'customer', told: 'all' },
  notice: { called: 'Notice', reader: 'business', told: 'nothing' },
  request: { called: 'Request', reader: 'customer', told: 'all' },
  'order-notice': { called: 'Notice of the payment', reader: 'business', told: 'nothing' },
  refund: { called: 'Notice of the refund', reader: 'customer', told: 'all' },
  'plan-link': { called: 'Link to the plan', reader: 'customer', told: 'all' },
  'plan-reminder': { called: 'Reminder of the plan', reader: 'customer', told: 'all' },
  'charge-notice': { called: 'Notice before a charge', reader: 'customer', told: 'all' },
  'charge-refused': { called: 'Notice of the refused charge', reader: 'customer', told: 'all' },
  'part-due': { called: 'Request for a part', reader: 'customer', told: 'all' },
  'card-asked': { called: 'Request for a new card', reader: 'customer', told: 'all' },
  'own-page': { called: 'Link to the customer’s own page', reader: 'customer', told: 'all' },
  'settings-changed': { called: 'Notice of changed settings', reader: 'business', told: 'nothing' },
  'plan-changed': { called: 'Notice of the changed plan', reader: 'customer', told: 'all' },
  'plan-proposed': { called: 'Request to agree to a change', reader: 'customer', told: 'all' },
  'plan-ending': { called: 'Notice of the plan’s last day', reader: 'customer', told: 'all' },
  'plan-over': { called: 'Notice of the plan’s end', reader: 'business', told: 'nothing' },
  'plan-ended': { called: 'Notice of the plan’s end', reader: 'customer', told: 'all' },
  'payout-returned': { called: 'Notice that a payout came back', reader: 'business', told: 'nothing' },
  'confirm-address': { called: 'Figures to confirm an address', reader: 'person', told: 'nothing' },
  'password-link': { called: 'Link for a new password', reader: 'person', told: 'nothing' },
  'password-changed': { called: 'Notice of a new password', reader: 'person', told: 'nothing' },
  'new-sign-in': { called: 'Notice that somebody signed in', reader: 'person', told: 'nothing' },
  'step-changed': { called: 'Notice about the second step', reader: 'person', told: 'nothing' },
  'codes-tried': { called: 'Notice of wrong codes', reader: 'person', told: 'nothing' },
  'lost-steps-link': { called: 'Link for a lost second step', reader: 'person', told: 'nothing' },
  'steps-lost': { called: 'Notice that the second step ends', reader: 'person', told: 'nothing' },
  'address-link': { called: 'Link to change an address', reader: 'person', told: 'nothing' },
  'address-moved': { called: 'Notice of a changed address', reader: 'person', told: 'nothing' },
  'hook-failing': { called: 'Notice that a program is not reached', reader: 'business', told: 'nothing' },
  'business-closed': { called: 'Notice that the business is closed', reader: 'person', told: 'nothing' },
  'own-news': { called: 'News', reader: 'person', told: 'nothing' },
  'parcel-left': { called: 'Notice that a parcel left', reader: 'customer', told: 'all' },
  'parcel-door': { called: 'Notice that a parcel comes today', reader: 'customer', told: 'all' },
  'parcel-delivered': { called: 'Notice that a parcel arrived', reader: 'customer', told: 'all' },
  'parcel-late': { called: 'Notice that a parcel is late', reader: 'customer', told: 'all' },
  'digital-ready': { called: 'Notice that something can be downloaded', reader: 'customer', told: 'all' },
  'counter-ready': { called: 'Notice that something can be fetched', reader: 'customer', told: 'all' },
  'return-answered': { called: 'Answer about sending something back', reader: 'customer', told: 'all' },
  identity: { called: 'Notice of who stands behind the business', reader: 'person', told: 'nothing' },
  invitation: { called: 'Invitation', reader: 'invited', told: 'nothing' },
  'partner-statement': { called: 'Partner’s statement', reader: 'partner', told: 'nothing' },
  'partner-page': { called: 'Link to the partner’s page', reader: 'partner', told: 'nothing' },
} as const satisfies Readonly<
  Record<
    string,
    {
      readonly called: string;
      /** `person`: who signs in, by Dahlia itself and not in the business's name. */
      readonly reader: 'customer' | 'business' | 'partner' | 'person' | 'invited';
      readonly told: 'nothing' | 'handing-over' | 'all';
    }
  >
>;

export type MessageKind = keyof typeof MESSAGE_KINDS;

/** Whether a kind of message leaves the business: what nobody gets before the business may send. */
export const isOutward = (kind: MessageKind): boolean =>
  ['customer', 'partner', 'invited'].includes(MESSAGE_KINDS[kind].reader);
