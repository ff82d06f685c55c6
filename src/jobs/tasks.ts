import type { Task, TaskList } from 'graphile-worker';
import type { Tasks } from '@/db/jobs';
import { doDueWork, everyMinute } from '@/flows/day/due-work';
import { handInAnswer } from '@/flows/dispute/answer-dispute';
import { tellProgram } from '@/flows/hook/tell-program';
import { checkBooks } from '@/flows/house/check-books';
import { runBulk } from '@/flows/invoice/bulk-invoices';
import { settleTopUp } from '@/flows/parcel/balance';
import { settleLabels } from '@/flows/parcel/buy-labels';
import { settleRefund } from '@/flows/payment/refund-payment';
import { settlePayments } from '@/flows/payment/settle-payment';
import { settleCard } from '@/flows/plan/claim-card';
import { handOverMessage } from '@/flows/post/hand-over-message';
import { log } from '@/outside/log';

/** A task of a business, with what it is told: written by us, in the transaction that caused it. */
const of =
  <Name extends keyof Tasks>(_name: Name, work: (payload: Tasks[Name]) => Promise<unknown>): Task =>
  async (payload) => {
    await work(payload as Tasks[Name]);
  };

const dueWork = ({ businessId, concern }: Tasks['due-work']) => doDueWork(businessId, concern);

/** A queue with slots of its own: what fills or stops one leaves the others as they are. */
export type Lane = { readonly slots: number; readonly tasks: TaskList };

/**
 * Lane → task → operation. Every task can run twice. What waits for the card processor, for the mail server, for the carrier, or makes papers by the
 * hundred shares no slot with anything else.
 */
export const LANES = {
  money: {
    slots: 3,
    tasks: {
      'settle-payments': of('settle-payments', ({ businessId, paymentIds }) => settlePayments(businessId, paymentIds)),
      'settle-refund': of('settle-refund', ({ businessId, refundId }) => settleRefund(businessId, refundId)),
      'answer-dispute': of('answer-dispute', ({ businessId, disputeId }) => handInAnswer(businessId, disputeId)),
      'settle-card': of('settle-card', ({ businessId, key }) => settleCard(businessId, key)),
      'due-charges': of('due-charges', dueWork),
    },
  },
  mail: {
    slots: 3,
    tasks: {
      'hand-over-message': of('hand-over-message', ({ businessId, messageId }) =>
        handOverMessage(businessId, messageId),
      ),
    },
  },
  carrier: {
    slots: 2,
    tasks: {
      'buy-labels': of('buy-labels', ({ businessId, parcelIds }) => settleLabels(businessId, parcelIds)),
      'top-up-carrier': of('top-up-carrier', ({ businessId, key }) => settleTopUp(businessId, key)),
    },
  },
  papers: {
    slots: 1,
    tasks: { 'run-batch': of('run-batch', ({ businessId, batchId }) => runBulk(businessId, batchId)) },
  },
  programs: {
    slots: 4,
    tasks: {
      'tell-program': of('tell-program', ({ businessId, deliveryId }) => tellProgram(businessId, deliveryId)),
    },
  },
  house: {
    slots: 2,
    tasks: {
      'due-work': of('due-work', dueWork),
      minute: () => everyMinute(),
      'check-books': async () => {
        for (const trouble of await checkBooks())
          log.error({ ...trouble, off: String(trouble.off) }, 'the books disagree');
      },
    },
  },
} as const satisfies Readonly<Record<string, Lane>>;

/** What has come due every minute; the books every night at three, UTC. A minute that was missed is not made up for: the next one does it. */
export const crontab = '* * * * * minute\n0 3 * * * check-books';
