import type { PartnersPart } from '../ledger/movements';
import { RuleError } from '../rule-error';
import { reversals } from '../share/split';

/** Why a card's holder asked their bank for the money back. */
export const DISPUTE_REASONS = [
  'not-recognised',
  'not-received',
  'not-as-described',
  'charged-twice',
  'cancelled',
] as const;
export type DisputeReason = (typeof DISPUTE_REASONS)[number] | 'other';

/** `open`: an answer is wanted; `sending`: one is on its way; `sent`: the bank decides; then one of the two. */
export type DisputeState = 'open' | 'sending' | 'sent' | 'won' | 'lost';
/** What stands in the money's way: neither given back nor lost yet. */
export const UNDECIDED: readonly DisputeState[] = ['open', 'sending', 'sent'];

/** How it was lost: decided so, left without an answer until the last day, or accepted by the business. */
export type LostBy = 'decision' | 'silence' | 'accepted';

/** A dispute as the processor tells of it; minor units of the payment's currency. */
export type ToldDispute = {
  /** How the processor calls it. */
  readonly key: string;
  readonly paymentId: string;
  readonly currency: string;
  readonly amountMinor: bigint;
  readonly feeMinor: bigint;
  readonly reason: DisputeReason;
  readonly openedAt: Date;
  readonly answerBy: Date;
  readonly isAnswered: boolean;
  /** `lostBy` is null for a won one. */
  readonly decided: { readonly lostBy: LostBy | null; readonly feeBackMinor: bigint } | null;
};

/** Who bears a disputed sum where partners have a part of the payment: they their parts, or the business all of it. */
export type DisputeRule = 'partners' | 'business';

/** Whether what is told can be of a payment: in its currency, and of no more than was paid. Anything else is not written down. */
export const canBeOf = (
  told: Pick<ToldDispute, 'currency' | 'amountMinor'>,
  paid: { readonly currency: string; readonly amountMinor: bigint; readonly tipMinor: bigint },
): boolean =>
  told.currency === paid.currency && told.amountMinor >= 1n && told.amountMinor <= paid.amountMinor + paid.tipMinor;

/** What a dispute takes at once, in minor units of the payment's currency. */
export type DisputeTakes = {
  readonly amountMinor: bigint;
  readonly feeMinor: bigint;
  /** Of each partner, in the order of the shares. */
  readonly partners: readonly bigint[];
};

/** A payment as a dispute finds it, in minor units. */
export type Disputed = {
  readonly amountMinor: bigint;
  readonly tipMinor: bigint;
  /** What of the amount went back already, or is being given back. */
  readonly backMinor: bigint;
  readonly shares: readonly { readonly shareMinor: bigint }[];
};

/**
 * What a dispute takes of a payment (`docs/calculation.md` 20): what of it is no tip takes the partners' parts along as giving back
 * that much would, unless the business bears it.
 *
 * @param amountMinor what the bank takes, the tip in it @throws RuleError `bad_input` for nothing, or more than was paid
 */
export function disputeTakes(
  paid: Disputed,
  { amountMinor, feeMinor }: { readonly amountMinor: bigint; readonly feeMinor: bigint },
  rule: DisputeRule,
): DisputeTakes {
  if (amountMinor < 1n || amountMinor > paid.amountMinor + paid.tipMinor || feeMinor < 0n)
    throw new RuleError('bad_input', 'amount: between 1 and what was paid; fee: not below 0');
  const left = paid.amountMinor - paid.backMinor;
  const ofAmount = amountMinor < left ? amountMinor : left;
  const shares = paid.shares.map(({ shareMinor }) => shareMinor);
  const [, taken] = reversals(paid.amountMinor, shares, [paid.backMinor, ofAmount]);
  return { amountMinor, feeMinor, partners: rule === 'business' ? shares.map(() => 0n) : (taken?.partners ?? []) };
}

/** The same as the ledger wants it: partners keep bearing the fee of the payment. */
export const partnersOfDispute = ({ partners }: Pick<DisputeTakes, 'partners'>): PartnersPart => ({
  shareMinor: partners.reduce((sum, minor) => sum + minor, 0n),
  feeMinor: 0n,
});

/** Whether an answer can still be given. */
export const mayAnswer = ({ state, answerBy }: { state: DisputeState; answerBy: Date }, now: Date): boolean =>
  state === 'open' && now < answerBy;
