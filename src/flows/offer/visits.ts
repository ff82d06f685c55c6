import { dateInZone } from '@/core/dates/zone';
import { businessById } from '@/db/businesses';
import { addVisits } from '@/db/offers';
import { overAll } from '@/flows/door/operation';
import { errorTrace, log } from '@/outside/log';

const EVERY_MS = 2000;

const counted = new Map<string, { businessId: string; offerId: string; visits: number }>();
let timer: NodeJS.Timeout | null = null;

const writeDown = overAll({ tells: false }).run(async (house): Promise<void> => {
  timer = null;
  const all = [...counted.values()];
  counted.clear();
  for (const { businessId, offerId, visits } of all)
    await house.within(businessId).write(async (tx) => {
      const { zone } = await businessById(tx);
      await addVisits(tx, offerId, dateInZone(tx.now, zone), visits);
    });
});

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
