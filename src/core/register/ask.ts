import { decimalReadings } from '../money/typed';

/** What a row of the register is. */
export const SHOWN = ['payments', 'refunds'] as const;
/** How a row stands: a payment's state, or that a refund is still asked about or was refused. */
export const REGISTER_STATES = [
  'paid',
  'part-refunded',
  'refunded',
  'pending',
  'refused',
  'voided',
  'disputed',
  'dispute-lost',
  'came-back',
] as const;
export const REGISTER_CHANNELS = ['invoice', 'link', 'page', 'button', 'plan', 'desk'] as const;
export const REGISTER_WAYS = ['card', 'debit', 'cash', 'cheque', 'transfer', 'other', 'account', 'voucher'] as const;

/** What is asked of the register; what is empty asks nothing. Days are the business's, both included. */
export type RegisterAsk = {
  readonly words: string;
  readonly show: (typeof SHOWN)[number] | '';
  readonly from: string;
  readonly to: string;
  readonly channel: (typeof REGISTER_CHANNELS)[number] | '';
  readonly state: (typeof REGISTER_STATES)[number] | '';
  readonly way: (typeof REGISTER_WAYS)[number] | '';
  readonly currency: string;
  readonly customerId: string;
  readonly offerId: string;
  readonly planId: string;
  readonly partnerId: string;
  readonly itemId: string;
  /** Only payments whose fee is not what was agreed. */
  readonly fee: 'differs' | '';
  /** Only what the processor took and stands in no payout that has arrived. */
  readonly landed: 'not-yet' | '';
};

export const WHOLE_REGISTER: RegisterAsk = {
  words: '',
  show: '',
  from: '',
  to: '',
  channel: '',
  state: '',
  way: '',
  currency: '',
  customerId: '',
  offerId: '',
  planId: '',
  partnerId: '',
  itemId: '',
  fee: '',
  landed: '',
};

/** What else than by days, currency, channel and way the register is narrowed by. */
const COUNTED: readonly (keyof RegisterAsk)[] = [
  'words',
  'state',
  'customerId',
  'offerId',
  'planId',
  'partnerId',
  'itemId',
  'fee',
  'landed',
];

/** Whether the sums of what is asked stand in what is kept by day; else the rows have to be counted. */
export const isKept = (ask: RegisterAsk): boolean => COUNTED.every((name) => ask[name].trim() === '');

/** Whether anything is asked. */
export const isNarrowedRegister = (ask: RegisterAsk): boolean =>
  Object.values(ask).some((value) => value.trim() !== '');

/** What is shown comes to, in one currency; minor units. */
export type RegisterSum = {
  readonly currency: string;
  readonly payments: number;
  readonly paidMinor: bigint;
  readonly refunds: number;
  readonly refundedMinor: bigint;
};

/** How many digits after the point the world's currencies have (ISO 4217). */
const MINOR_DIGITS = [0, 2, 3];

/** What words can be as a sum: in minor units of any currency; none where they are no sum. */
export function typedAmounts(words: string): bigint[] {
  return decimalReadings(words).flatMap((number) => {
    const [whole = '', fraction = ''] = number.split('.');
    if (whole.length > 13) return [];
    return MINOR_DIGITS.flatMap((count) =>
      fraction.length <= count ? [BigInt(`${whole}${fraction.padEnd(count, '0')}`)] : [],
    );
  });
}
