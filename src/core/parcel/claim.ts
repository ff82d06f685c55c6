import type { Look } from './shipment';

/** Why something is asked of the carrier. */
export const CLAIM_WHYS = ['lost', 'damaged', 'late'] as const;
export type ClaimWhy = (typeof CLAIM_WHYS)[number];

export const isClaimWhy = (look: Look | null): look is ClaimWhy => CLAIM_WHYS.some((one) => one === look);

/**
 * The most that a carrier is asked for a parcel, in minor units of its currency: what it was insured for, and where it was not, or is only
 * late, the postage. Null where nothing can be asked.
 */
export function mostClaimed({
  look,
  insuredMinor,
  rateMinor,
}: {
  readonly look: Look | null;
  readonly insuredMinor: bigint;
  readonly rateMinor: bigint | null;
}): bigint | null {
  if (!isClaimWhy(look)) return null;
  const most = look === 'late' || insuredMinor === 0n ? (rateMinor ?? 0n) : insuredMinor;
  return most > 0n ? most : null;
}

/** How a claim stands: on its way to the carrier, looked at there, paid, or refused. */
export type ClaimState = 'asked' | 'open' | 'paid' | 'refused';

export const CLAIM_WORDS: Readonly<Record<ClaimState, string>> = {
  asked: 'The carrier has not confirmed yet that it is asked.',
  open: 'The carrier looks at it.',
  paid: 'The carrier paid.',
  refused: 'The carrier pays nothing.',
};
