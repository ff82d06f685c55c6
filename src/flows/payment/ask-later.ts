import { enqueueJobs } from '@/db/jobs';
import type { Tx } from '@/db/pool';

/** After this many seconds the worker asks about a payment that nobody has heard of since. */
const ASK_AFTER_SECONDS = 20;

/** Lets the worker ask about payments in a while, in one job. @param key a second one under it is harmless */
export async function askAboutLater(
  tx: Tx,
  paymentIds: readonly string[],
  { key = `settle:${paymentIds[0]}`, seconds = ASK_AFTER_SECONDS }: { key?: string; seconds?: number } = {},
): Promise<void> {
  if (paymentIds.length === 0) return;
  const payload = { businessId: tx.businessId, paymentIds };
  await enqueueJobs(tx, [{ task: 'settle-payments', key, payload, delaySeconds: seconds }]);
}
