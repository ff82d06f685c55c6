import { type RefusalCode, refusalWords } from '../../refusal/refusal';

/** Every "no" that somebody who opened a link can meet. */
const MET = [
  'not-found',
  'accept-first',
  'approve-first',
  'already-paid',
  'amount-changed',
  'asked-too-often',
  'authorise-first',
  'card-not-kept',
  'charge-settled',
  'file-not-taken',
  'file-too-large',
  'invoice-not-payable',
  'invoice-not-sent',
  'link-over',
  'no-card',
  'not-a-robot',
  'offer-not-open',
  'order-not-ready',
  'payment-too-large',
  'payment-under-way',
  'plan-ended',
  'plan-not-ready',
  'processor-silent',
  'request-ended',
  'too-many-attempts',
  'voucher-blocked',
  'voucher-currency',
  'voucher-over',
  'voucher-unknown',
  'voucher-used-up',
] as const satisfies readonly RefusalCode[];

/** The codes of answers to somebody who opened a link: what a rule refused, and what did not arrive at all. */
export type TroubleCode = (typeof MET)[number] | 'unreachable' | 'trouble' | 'malformed';

/** What somebody who opened a link reads of them. */
export const troubleEn: Readonly<Record<TroubleCode, string>> = {
  ...(Object.fromEntries(MET.map((code) => [code, refusalWords(code)])) as Record<(typeof MET)[number], string>),
  unreachable: 'No connection. What you typed is kept; try again in a moment.',
  trouble: 'Something went wrong here, not with you. What you typed is kept; try again in a moment.',
  malformed: 'Something typed here cannot be read. Look at it again.',
};
