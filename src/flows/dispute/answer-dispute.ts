import { mayAnswer } from '@/core/dispute/dispute';
import { money } from '@/core/money/money';
import {
  type AddedFile,
  type Dispute,
  disputeById,
  lockedDispute,
  updatePrepared,
  updateSending,
  updateSent,
} from '@/db/disputes';
import { documentOf, insertDocument } from '@/db/documents';
import { fileById } from '@/db/files';
import { enqueueJobs } from '@/db/jobs';
import { paymentById } from '@/db/payments';
import type { Tx } from '@/db/pool';
import { addToTimeline } from '@/db/timeline';
import { desk, type Writing, worker } from '@/flows/door/operation';
import { requireProvedToGive } from '@/flows/door/proved';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { services } from '@/outside/services';
import { answerPdf } from './file-paper';
import { gatherFile } from './gather-file';
import { lookForDisputes } from './hear-disputes';

const ASK_AGAIN_SECONDS = 20;

/** What the business prepares as its answer. */
export type Prepared = {
  readonly words: string;
  readonly fileIds: readonly string[];
  /** Parts of the file that stay out. */
  readonly leftOut: readonly string[];
};

/** Keeps what is prepared, again and again until it is sent. @throws Refusal `dispute-closed`, `not-found` */
export const prepareAnswer = desk('ask').turn(async (tx, id: string, prepared: Prepared): Promise<void> => {
  await requireOpen(tx, id);
  const files: AddedFile[] = [];
  for (const fileId of prepared.fileIds) {
    const { name } = found(await fileById(tx, fileId));
    files.push({ id: fileId, name });
  }
  await updatePrepared(tx, id, { words: prepared.words.trim(), files, leftOut: prepared.leftOut });
});

/** @throws Refusal `dispute-closed` where there is no answer to give any more */
async function requireOpen(tx: Writing, id: string): Promise<Dispute> {
  const dispute = found(await lockedDispute(tx, id));
  if (!mayAnswer(dispute, tx.now)) throw new Refusal('dispute-closed');
  return dispute;
}

/**
 * Sends the answer as it is prepared: the file is made once and kept, then handed in until the processor has it. Pressed twice, it goes once.
 *
 * @throws Refusal `dispute-closed`, `not-found`
 */
export const sendAnswer = desk('ask').run(async (ctx, id: string): Promise<Dispute['state']> => {
  const dispute = found(await ctx.read((db) => disputeById(db, id)));
  if (dispute.state === 'sending') return handInAnswer(ctx.businessId, id);
  if (dispute.state === 'sent') return dispute.state;
  // What is sent is what stood there: worked out before, kept with the step that says that it goes.
  const bytes = await answerPdf(ctx, await gatherFile(ctx, dispute.paymentId));
  const later = await ctx.later();
  await later.turn(async (tx) => {
    const { state } = found(await lockedDispute(tx, id));
    if (state === 'sending' || state === 'sent') return;
    await requireOpen(tx, id);
    await insertDocument(tx, 'dispute-file', id, 1, bytes);
    await goOut(tx, dispute, false);
  });
  return handInAnswer(ctx.businessId, id);
});

/** Accepts the loss instead of answering. @throws Refusal `dispute-closed`, `not-found`, `prove-again` */
export const acceptDispute = desk('give-back').run(async (ctx, id: string): Promise<Dispute['state']> => {
  await ctx.turn(async (tx) => {
    const dispute = found(await lockedDispute(tx, id));
    // Pressed twice: it is on its way, or there.
    if (dispute.accepted) return;
    await requireProvedToGive(tx, money(dispute.amountMinor, dispute.currency));
    await goOut(tx, await requireOpen(tx, id), true);
  });
  return handInAnswer(ctx.businessId, id);
});

async function goOut(
  tx: Writing,
  { id, paymentId }: Pick<Dispute, 'id' | 'paymentId'>,
  accepted: boolean,
): Promise<void> {
  await updateSending(tx, id, tx.name, accepted);
  const { invoiceId, orderId } = found(await paymentById(tx, paymentId));
  const event = { kind: 'dispute-answered', accepted } as const;
  await addToTimeline(tx, invoiceId ?? { orderId: found(orderId) }, event, tx.name);
  await askAgain(tx, id);
}

/** Hands an answer in that is on its way; run again, it does nothing twice: the processor takes one answer to a dispute. */
export const handInAnswer = worker().run(async (ctx, id: string): Promise<Dispute['state']> => {
  const dispute = found(await ctx.read((db) => disputeById(db, id)));
  if (dispute.state !== 'sending') return dispute.state;
  const kept = await ctx.read((db) => documentOf(db, 'dispute-file', id, 1));
  const taken = await services().cards.answerDispute(dispute.key, dispute.accepted ? 'accept' : found(kept).bytes);
  const later = await ctx.later();
  await later.turn(async (tx) => {
    const now = found(await lockedDispute(tx, id));
    if (now.state !== 'sending') return;
    if (taken === null) await askAgain(tx, id);
    else await updateSent(tx, id, taken);
  });
  // Too late, or accepted: what the bank says of it is known at once.
  if (taken !== null) await lookForDisputes(await ctx.later());
  return found(await later.read((db) => disputeById(db, id))).state;
});

const askAgain = (tx: Tx, disputeId: string): Promise<void> =>
  enqueueJobs(tx, [
    {
      task: 'answer-dispute',
      key: `dispute:${disputeId}`,
      payload: { businessId: tx.businessId, disputeId },
      delaySeconds: ASK_AGAIN_SECONDS,
    },
  ]);
