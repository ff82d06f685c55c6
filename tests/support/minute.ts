import type { Concern } from '@/db/due-work';
import { doDueWork, whatIsDue } from '@/flows/day/due-work';

/** Does what one minute's jobs do, one after the other; tells which of them failed, as the worker's log would. */
export async function playMinute(): Promise<{ businessId: string; concern: Concern; error: unknown }[]> {
  const failed: { businessId: string; concern: Concern; error: unknown }[] = [];
  for (const { businessId, concern } of await whatIsDue())
    await doDueWork(businessId, concern).catch((error: unknown) => failed.push({ businessId, concern, error }));
  return failed;
}
