import { randomUUID } from 'node:crypto';
import type { RefundAsk, RefundWish } from '@/flows/payment/refund-payment';

/** What a person asks to be given back, to the card unless said otherwise. */
export const back = (wish: RefundWish, more: Partial<RefundAsk> = {}): RefundAsk => ({
  wish,
  method: 'card',
  reference: '',
  owedAgain: false,
  reason: 'A mistake',
  aside: {},
  requestKey: randomUUID(),
  ...more,
});

/** The same of a sum in minor units. */
export const backOf = (amountMinor: bigint, more: Partial<RefundAsk> = {}): RefundAsk =>
  back({ by: 'sum', amountMinor }, more);
