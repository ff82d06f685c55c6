import { dateInZone } from '@/core/dates/zone';
import { businessById } from '@/db/businesses';
import { addVisits } from '@/db/offers';
import { inBusiness } from '@/db/transaction';
import { errorTrace, log } from '@/outside/log';
import { services } from '@/outside/services';

const EVERY_MS = 2000;

const counted = new Map<string, { businessId: string; offerId: string; visits: number }>();
let timer: NodeJS.Timeout | null = null;

async function writeDown(): Promise<void> {
  timer = null;
  const all = [...counted.values()];
  counted.clear();
  const now = await services().clock.now();
  for (const { businessId, offerId, visits } of all)
    await inBusiness(businessId, async (tx) => {
      const { zone } = await businessById(tx, businessId);
      await addVisits(tx, businessId, offerId, dateInZone(now, zone), visits);
    });
}

/** Counts a visit of an offer's page; many are written down together, and a few are lost if the process ends just then. */
export function countVisit(businessId: string, offerId: string): void {
  const known = counted.get(offerId);
  counted.set(offerId, { businessId, offerId, visits: (known?.visits ?? 0) + 1 });
  timer ??= setTimeout(
    () => void writeDown().catch((error: unknown) => log.error(errorTrace(error), 'visits were not written down')),
    EVERY_MS,
  );
  timer.unref?.();
}
