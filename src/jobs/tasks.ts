import type { TaskList } from 'graphile-worker';
import type { Tasks } from '@/db/jobs';
import { doDueWork, everyMinute } from '@/flows/day/due-work';
import { checkBooks } from '@/flows/house/check-books';
import { runBulk } from '@/flows/invoice/bulk-invoices';
import { settleRefund } from '@/flows/payment/refund-payment';
import { settlePayments } from '@/flows/payment/settle-payment';
import { handOverMessage } from '@/flows/post/hand-over-message';
import { log } from '@/outside/log';

/** Task name → operation. Every task can run twice. */
export const tasks: TaskList = {
  'hand-over-message': (payload) => {
    const { businessId, messageId } = payload as Tasks['hand-over-message'];
    return handOverMessage(businessId, messageId);
  },
  'settle-payments': (payload) => {
    const { businessId, paymentIds } = payload as Tasks['settle-payments'];
    return settlePayments(businessId, paymentIds);
  },
  'settle-refund': async (payload) => {
    const { businessId, refundId } = payload as Tasks['settle-refund'];
    await settleRefund(businessId, refundId);
  },
  'due-work': (payload) => {
    const { businessId, concern } = payload as Tasks['due-work'];
    return doDueWork(businessId, concern);
  },
  'run-batch': (payload) => {
    const { businessId, batchId } = payload as Tasks['run-batch'];
    return runBulk(businessId, batchId);
  },
  minute: () => everyMinute(),
  'check-books': async () => {
    for (const trouble of await checkBooks()) log.error({ ...trouble, off: String(trouble.off) }, 'the books disagree');
  },
};

/** What has come due every minute; the books every night at three, UTC. A minute that was missed is not made up for: the next one does it. */
export const crontab = '* * * * * minute\n0 3 * * * check-books';
