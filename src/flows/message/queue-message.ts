import { randomUUID } from 'node:crypto';
import { isOutward } from '@/core/message/kinds';
import { enqueueJobs } from '@/db/jobs';
import { insertMessages, type NewMessage } from '@/db/messages';
import type { Tx } from '@/db/pool';
import { requireSending } from '@/flows/door/opening';

/** What a message needs; the rest is as for an e-mail about an invoice. */
export type Outgoing = Pick<NewMessage, 'kind' | 'key' | 'toName' | 'toAddress'> & Partial<Omit<NewMessage, 'id'>>;

const NOTHING = {
  way: 'mail',
  invoiceId: null,
  orderId: null,
  requestId: null,
  customerId: null,
  paymentId: null,
  planId: null,
  parcelId: null,
  details: {},
} as const;

/**
 * Queues messages and the jobs that hand them over, in the transaction that causes them; how many had keys that were new.
 *
 * @throws Refusal `mail-not-confirmed`
 */
export async function queueMessages(tx: Tx, outgoing: readonly Outgoing[]): Promise<number> {
  if (outgoing.some(({ kind }) => isOutward(kind))) await requireSending(tx);
  const fresh = await insertMessages(
    tx,
    outgoing.map((one) => ({ ...NOTHING, ...one, id: randomUUID() })),
  );
  const { businessId } = tx;
  await enqueueJobs(
    tx,
    fresh.map((messageId) => ({
      task: 'hand-over-message',
      key: `message:${messageId}`,
      payload: { businessId, messageId },
    })),
  );
  return fresh.length;
}

/** Queues one message; false if its key came before. @throws Refusal `mail-not-confirmed` */
export const queueMessage = async (tx: Tx, outgoing: Outgoing): Promise<boolean> =>
  (await queueMessages(tx, [outgoing])) === 1;
