/** What a job was to do, and what a person can do about it, by the queue's name of it. */
const TASKS: Readonly<Record<string, { readonly what: string; readonly advice: string }>> = {
  'settle-payments': {
    what: 'The outcome of a payment cannot be found out',
    advice: 'Trying again only asks. If it stays, look the payment up at your card processor.',
  },
  'settle-refund': {
    what: 'A refund is not confirmed',
    advice: 'Trying again refunds nothing twice. If it stays, look the refund up at your card processor.',
  },
  'answer-dispute': {
    what: 'An answer to a dispute is not confirmed',
    advice: 'Trying again sends it once. Look at the last day under Money, Disputes.',
  },
  'tell-program': {
    what: 'Another program is not told of something',
    advice: 'Look under Settings, Other programs, at what it answers.',
  },
  'settle-card': {
    what: 'A card that is not needed any more cannot be taken off at the processor',
    advice: 'Nothing is charged to it from here.',
  },
  'buy-labels': {
    what: 'Labels that were asked for are not bought',
    advice: 'Trying again buys none twice. If it stays, look at your account at the carrier.',
  },
  'top-up-carrier': {
    what: 'Money for the carrier is not confirmed',
    advice: 'Trying again puts it there once. If it stays, look at your account at the carrier.',
  },
  'run-batch': { what: 'Bulk invoices do not go on', advice: 'Open them under Ask, Bulk, and look which rows wait.' },
  'hand-over-message': {
    what: 'A message cannot be handed over',
    advice: 'Call whoever waits for it; it is tried further.',
  },
};

const CONCERNS: Readonly<Record<string, { readonly what: string; readonly advice: string }>> = {
  'timed-sending': {
    what: 'Invoices that were to go out at a time have not gone',
    advice: 'Open the drafts and send them by hand.',
  },
  recurring: { what: 'Recurring invoices are not made', advice: 'Open them under Ask, Recurring invoices.' },
  reminders: { what: 'Reminders do not go out', advice: 'Send the urgent ones from the invoices.' },
  charges: { what: 'Plans are not charged', advice: 'Open Money, Upcoming, and look at what is due.' },
  notices: { what: 'Customers are not told before a charge', advice: 'Open Money, Upcoming, and look at what is due.' },
  'plan-reminders': { what: 'Customers are not reminded of plans', advice: 'Send the links again from the plans.' },
  lapses: { what: 'Plans that nobody accepted do not lapse', advice: 'Cancel them by hand.' },
  parts: { what: 'Parts of a balance are not asked for', advice: 'Remind by hand from the invoices.' },
  cards: { what: 'Customers are not asked for new cards', advice: 'Send them the link to their own page.' },
  vouchers: { what: 'Gift vouchers do not go out', advice: 'Send them by hand under Records, Vouchers.' },
  parcels: { what: 'Parcels are not followed, and customers not told', advice: 'Look at Deliver, Shipments.' },
  news: { what: 'Nobody is mailed what they want to hear of', advice: 'Look at Today, and at the bell beside it.' },
  closing: { what: 'A day is not closed', advice: 'Open Money, Daily closing, and compare again.' },
  payouts: {
    what: 'Nothing is paid out, and the bank’s statements are not fetched',
    advice: 'Open Money, Payouts, and pay out by hand; import statements under Bank.',
  },
};

/**
 * What somebody reads of a job that fails again and again.
 *
 * @param task the queue's name of it
 * @param concern what it looks after, where it looks after one of several
 */
export const stuckWords = (task: string, concern: unknown): { readonly what: string; readonly advice: string } =>
  CONCERNS[String(concern ?? '')] ??
  TASKS[task] ?? { what: 'Something that was to be done is not', advice: 'Write to whoever runs Dahlia for you.' };
