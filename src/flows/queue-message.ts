import { randomUUID } from 'node:crypto';
import { enqueueJob } from '@/db/jobs';
import { insertMessage, type NewMessage } from '@/db/messages';
import type { Tx } from '@/db/pool';

/** What a message needs; the rest is as for an e-mail about an invoice. */
export type Outgoing = Pick<NewMessage, 'kind' | 'key' | 'toName' | 'toAddress'> & Partial<Omit<NewMessage, 'id'>>;

/** Queues a message and the job that hands it over, in the transaction that causes it; false if its key came before. */
export async function queueMessage(tx: Tx, businessId: string, outgoing: Outgoing, now: Date): Promise<boolean> {
  const id = randomUUID();
  const message: NewMessage = {
    id,
    way: 'mail',
    invoiceId: null,
    orderId: null,
    requestId: null,
    customerId: null,
    paymentId: null,
    planId: null,
    details: {},
    ...outgoing,
  };
  if (!(await insertMessage(tx, businessId, message, now))) return false;
  await enqueueJob(tx, 'hand-over-message', `message:${id}`, { businessId, messageId: id });
  return true;
}
