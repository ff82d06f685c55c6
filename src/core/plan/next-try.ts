import { addDays } from '../dates/calendar-date';
import type { RefusalReason } from '../payment/outcome';
import type { Charge, NextTry } from './charge';
import { type ChargingPlace, chargeInstant, todayOf } from './days';
import { afterRefusal, type ChargingPolicy } from './dunning';

/** Soon again after a charge that never reached the processor. */
const SOON_MS = 60_000;

/**
 * When, and with which card, a refused charge is tried next by the business's policy. A day for trying again that has passed already
 * becomes tomorrow.
 *
 * @param usable the customer's cards that are not known to be of no use, in their order
 */
export function nextTry(
  charge: Pick<Charge, 'chargedOn' | 'round' | 'tried'>,
  reason: RefusalReason,
  business: ChargingPlace & { readonly charging: ChargingPolicy },
  { usable, now }: { readonly usable: readonly string[]; readonly now: Date },
): NextTry {
  if (reason === 'never-charged') return { kind: 'soon', at: new Date(now.getTime() + SOON_MS) };
  const next = afterRefusal(business.charging, charge.round, usable, charge.tried);
  if (next.kind === 'other-card') return { ...next, at: now };
  if (next.kind === 'give-up') return next;
  const planned = chargeInstant(business, addDays(charge.chargedOn, next.days));
  const tomorrow = chargeInstant(business, addDays(todayOf(business, now), 1));
  return { kind: 'retry', at: planned <= now ? tomorrow : planned };
}
