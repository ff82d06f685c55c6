import type { TaskList } from 'graphile-worker';
import type { Tasks } from '@/db/jobs';
import { runBatch } from '@/flows/batch';
import { checkBooks } from '@/flows/check-books';
import { handOverMessage } from '@/flows/hand-over-message';
import { everyMinute } from '@/flows/minute';
import { chargeDueJob } from '@/flows/plans/charge-plans';
import { settleRefund } from '@/flows/refund-payment';
import { settlePayment } from '@/flows/settle-payment';
import { errorTrace, log } from '@/outside/log';

/** Task name → flow. Every task can run twice. */
export const tasks: TaskList = {
  'hand-over-message': (payload) => {
    const { businessId, messageId } = payload as Tasks['hand-over-message'];
    return handOverMessage(businessId, messageId);
  },
  'settle-payment': (payload) => {
    const { businessId, paymentId } = payload as Tasks['settle-payment'];
    return settlePayment(businessId, paymentId);
  },
  'settle-refund': async (payload) => {
    const { businessId, refundId } = payload as Tasks['settle-refund'];
    await settleRefund(businessId, refundId);
  },
  'charge-due': (payload) => chargeDueJob((payload as Tasks['charge-due']).businessId),
  'run-batch': (payload) => {
    const { businessId, batchId } = payload as Tasks['run-batch'];
    return runBatch(businessId, batchId);
  },
  minute: () =>
    everyMinute((businessId, error) => log.error({ businessId, ...errorTrace(error) }, 'the minute’s work failed')),
  'check-books': async () => {
    for (const trouble of await checkBooks()) log.error({ ...trouble, off: String(trouble.off) }, 'the books disagree');
  },
};

/** What has come due every minute; the books every night at three, UTC. A minute that was missed is not made up for: the next one does it. */
export const crontab = '* * * * * minute\n0 3 * * * check-books';
