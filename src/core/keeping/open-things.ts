/** What is open: nobody is forgotten and nothing is closed while money or goods are owed either way. */

/** How many of each are open. */
export type OpenThings = {
  /** Sent and not settled. */
  readonly invoices: number;
  /** Wait for their customer, run or pause. */
  readonly plans: number;
  /** Made again and again, and not ended. */
  readonly recurring: number;
  /** Paid, and the bank or the processor has not said so yet; or given back and not there yet. */
  readonly underWay: number;
  readonly disputes: number;
  /** Sales that wait to be packed, and parcels that are not at the door. */
  readonly parcels: number;
  /** Currencies in which money is left that belongs to a customer. */
  readonly credit: number;
  /** Gift vouchers that are still to be sent. */
  readonly vouchersToSend: number;
  /** Gift vouchers with something left on them. */
  readonly vouchersOwed: number;
  /** Currencies in which money lies with the processor or on the way to an account. */
  readonly notPaidOut: number;
};

export type OpenKind = keyof OpenThings;

type Words = { readonly one: string; readonly many: string; readonly how: string; readonly where: string };

/** What each is called, what is done about it, and where. */
const WORDS: Readonly<Record<OpenKind, Words>> = {
  invoices: {
    one: '1 invoice is not settled',
    many: 'invoices are not settled',
    how: 'Have them paid, or cancel or credit them.',
    where: '/ask/invoices',
  },
  plans: { one: '1 plan is not ended', many: 'plans are not ended', how: 'End them.', where: '/ask/plans' },
  recurring: {
    one: '1 recurring invoice goes on',
    many: 'recurring invoices go on',
    how: 'End them.',
    where: '/ask/recurring',
  },
  underWay: {
    one: '1 payment or refund is under way',
    many: 'payments or refunds are under way',
    how: 'Wait until the bank has answered.',
    where: '/money/payments',
  },
  disputes: {
    one: '1 dispute is not decided',
    many: 'disputes are not decided',
    how: 'Answer or accept them, and wait for the decision.',
    where: '/money/disputes',
  },
  parcels: {
    one: '1 parcel waits to be packed, or is not at the door',
    many: 'parcels wait to be packed, or are not at the door',
    how: 'Send them, or cancel what was sold; what is lost is claimed, or sent again.',
    where: '/deliver/shipments',
  },
  credit: {
    one: 'Money is left that belongs to a customer',
    many: 'currencies in which money is left that belongs to customers',
    how: 'Use it for an invoice, or give it back.',
    where: '/money/payments',
  },
  vouchersToSend: {
    one: '1 gift voucher is still to be sent',
    many: 'gift vouchers are still to be sent',
    how: 'Send them, or wait for their day.',
    where: '/records/vouchers',
  },
  vouchersOwed: {
    one: '1 gift voucher has something left on it',
    many: 'gift vouchers have something left on them',
    how: 'Refund them, or wait until they are used or over.',
    where: '/records/vouchers',
  },
  notPaidOut: {
    one: 'Money in one currency is not in your account yet',
    many: 'currencies in which money is not in your account yet',
    how: 'Wait for the last payout; a rest below your smallest sum goes out once that is lower.',
    where: '/money/payouts',
  },
};

/** What holds up forgetting a customer; the money of the business itself does not. */
export const OF_CUSTOMER: readonly OpenKind[] = [
  'invoices',
  'plans',
  'recurring',
  'underWay',
  'disputes',
  'parcels',
  'credit',
  'vouchersToSend',
];

/** What holds up closing a business. */
export const OF_BUSINESS: readonly OpenKind[] = [
  ...OF_CUSTOMER.filter((kind) => kind !== 'vouchersToSend'),
  'vouchersOwed',
  'notPaidOut',
];

export type OpenThing = {
  readonly kind: OpenKind;
  readonly words: string;
  readonly how: string;
  readonly where: string;
};

/** What of these kinds is open, in words; nothing where all is dealt with. */
export const openThings = (counts: OpenThings, kinds: readonly OpenKind[]): OpenThing[] =>
  kinds.flatMap((kind) => {
    const count = counts[kind];
    const { one, many, how, where } = WORDS[kind];
    return count > 0 ? [{ kind, words: count === 1 ? one : `${count} ${many}`, how, where }] : [];
  });
