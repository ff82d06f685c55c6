/** Asked again: who did not show lately who they are does it once more before what cannot be taken back. */
import type { Money } from '@/core/money/money';
import { askedAboveMinor, asksToGiveBack, isAskedAgain } from '@/core/person/steps';
import { accessRules } from '@/db/access-rules';
import { businessById } from '@/db/businesses';
import type { Tx } from '@/db/pool';
import type { By } from './context';
import { Refusal } from './refusal';

/** @throws Refusal `prove-again` for somebody at the desk; a program and a link are not asked */
export function requireProved({ provedSeconds }: Pick<By, 'provedSeconds'>): void {
  if (provedSeconds !== undefined && isAskedAgain(provedSeconds)) throw new Refusal('prove-again');
}

/** The same before a sum is given back that is above what the business decided. @throws Refusal `prove-again` */
export async function requireProvedToGive(tx: Tx & By, sum: Money): Promise<void> {
  if (tx.provedSeconds === undefined) return;
  const { currency } = await businessById(tx);
  const aboveMinor = askedAboveMinor((await accessRules(tx)).askedAboveMinor, currency);
  if (asksToGiveBack(sum, { currency, aboveMinor })) requireProved(tx);
}
