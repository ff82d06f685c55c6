import { putJobBack } from '@/db/jobs';
import { messageById, updateMessage } from '@/db/messages';
import { forgetFailures, noteFailure, type StuckJob, stuckJob } from '@/db/stuck-jobs';
import { desk, worker } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';

/** A job of the queue, as far as this is about it. */
export type FailedJob = Pick<StuckJob, 'key' | 'task' | 'payload' | 'givenUp'>;

/** From so many failures on a person is told: below it, what failed usually passes by itself. */
export const TOLD_FROM = 5;

/** A job has failed. A message that is tried no more counts as one that did not arrive, with that to be read. */
export const noteFailedJob = worker().write(async (tx, job: FailedJob): Promise<void> => {
  if (job.task === 'hand-over-message' && job.givenUp) {
    const message = await messageById(tx, String(job.payload.messageId));
    if (message?.state === 'queued') {
      const trouble = 'It could not be handed over for days, and is tried no more. Send it again.';
      await updateMessage(tx, message.id, { state: 'failed', trouble });
    }
    await forgetFailures(tx, job.key);
    return;
  }
  await noteFailure(tx, job);
});

/** A job that had failed before is done. */
export const noteJobDone = worker({ tells: false }).write(async (tx, key: string): Promise<void> => {
  await forgetFailures(tx, key);
});

/** Begins a job anew that was given up, or failed so often that it waits for its hour. @throws Refusal `not-found` where it is not stuck any more */
export const tryStuckAgain = desk('ask').write(async (tx, key: string): Promise<void> => {
  const job = await stuckJob(tx, key);
  if (!job) throw new Refusal('not-found');
  await forgetFailures(tx, key);
  await putJobBack(tx, job);
});
