import { scaledCount } from '../stock/available';

/** What is given for an item once it is paid: a file, a text, or both. No limit where a number is null. */
export type DigitalGoods = {
  readonly fileId: string | null;
  readonly words: string;
  readonly mostDownloads: number | null;
  /** From the payment on. */
  readonly days: number | null;
};

/** What was given for a line. */
export type DigitalGrant = {
  readonly downloads: number;
  readonly mostDownloads: number | null;
  readonly expiresAt: Date | null;
  readonly endedAt: Date | null;
};

const DAY_MS = 86_400_000;
const ONE = 10_000n;

/** The limits of what is given for so many of an item: as many times the downloads; from now on for its days. @param quantity a decimal */
export function limitsOf(
  { mostDownloads, days }: Pick<DigitalGoods, 'mostDownloads' | 'days'>,
  quantity: string,
  now: Date,
): Pick<DigitalGrant, 'mostDownloads' | 'expiresAt'> {
  const times = (scaledCount(quantity) + ONE - 1n) / ONE;
  return {
    mostDownloads: mostDownloads === null ? null : mostDownloads * Math.max(1, Number(times)),
    expiresAt: days === null ? null : new Date(now.getTime() + days * DAY_MS),
  };
}

/** Whether something can be fetched now: open, fetched as often as it may, over, or ended with its sale. */
export type GrantState = 'open' | 'used-up' | 'over' | 'ended';

export function grantState(grant: DigitalGrant, now: Date): GrantState {
  if (grant.endedAt) return 'ended';
  if (grant.expiresAt && grant.expiresAt <= now) return 'over';
  return grant.mostDownloads !== null && grant.downloads >= grant.mostDownloads ? 'used-up' : 'open';
}
