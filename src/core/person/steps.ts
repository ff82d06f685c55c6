/** The second step when signing in, and when somebody is asked again. */
import { minorDigits } from '../money/currency';
import type { Money } from '../money/money';

/** How somebody can take their second step. */
export type Way = 'app' | 'passkey' | 'recovery';

/** What somebody has for it. */
export type OwnSteps = {
  readonly hasApp: boolean;
  readonly passkeys: number;
  /** Recovery codes that were not used. */
  readonly codesLeft: number;
  /** Since when they are waited with, by who lost all of them; null where nobody did. */
  readonly lostAt: Date | null;
};

export const NO_STEPS: OwnSteps = { hasApp: false, passkeys: 0, codesLeft: 0, lostAt: null };

/** Whether signing in asks for more than the password. */
export const asksForStep = ({ hasApp, passkeys }: OwnSteps): boolean => hasApp || passkeys > 0;

/** The ways that are open to somebody; none where nothing is asked. */
export const waysOf = (steps: OwnSteps): readonly Way[] =>
  asksForStep(steps)
    ? [
        ...(steps.passkeys > 0 ? (['passkey'] as const) : []),
        ...(steps.hasApp ? (['app'] as const) : []),
        ...(steps.codesLeft > 0 ? (['recovery'] as const) : []),
      ]
    : [];

/** Who lost everything waits so long: time enough for whoever it really is to hear of it and to stop it. */
export const LOST_DAYS = 3;

/** When steps that are lost are taken off. */
export const lostUntil = (lostAt: Date): Date => new Date(lostAt.getTime() + LOST_DAYS * 86_400_000);

/** Whether the steps of who lost them are over. */
export const areOver = ({ lostAt }: OwnSteps, now: Date): boolean => lostAt !== null && lostUntil(lostAt) <= now;

/** Whoever showed who they are is not asked again for so long. */
export const ASKED_SECONDS = 300;

/** Whether somebody has to show once more who they are. @param provedSeconds since they last did, by the computer's own time */
export const isAskedAgain = (provedSeconds: number): boolean => !(provedSeconds >= 0 && provedSeconds <= ASKED_SECONDS);

const USUAL_UNITS = 250n;

/** From which sum on somebody is asked again, in minor units. @param ownMinor what the business decided; null for the usual 250 units */
export const askedAboveMinor = (ownMinor: bigint | null, currency: string): bigint =>
  ownMinor ?? USUAL_UNITS * 10n ** BigInt(minorDigits(currency));

/**
 * Whether giving back a sum asks again. One in another currency always does: what it is worth would depend on a rate that somebody may
 * not have read.
 */
export const asksToGiveBack = (
  sum: Money,
  { currency, aboveMinor }: { readonly currency: string; readonly aboveMinor: bigint },
): boolean => sum.currency !== currency || sum.minor > aboveMinor;
