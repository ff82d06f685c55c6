import { isHere } from '@/db/businesses';
import { type Concern, dueWork, enqueueDueWork } from '@/db/due-work';
import { forgetDoneJobs } from '@/db/stuck-jobs';
import { fetchStatements } from '@/flows/bank/import-statement';
import { chargeForAWhile } from '@/flows/charging/charge-due';
import { type Context, overAll, worker } from '@/flows/door/operation';
import { mailNews } from '@/flows/house/own-settings';
import { makeDueRecurring } from '@/flows/invoice/recurring';
import { remindDue } from '@/flows/invoice/remind';
import { sendScheduled } from '@/flows/invoice/timed-sending';
import { forgetWhatIsOver } from '@/flows/keeping/forget-over';
import { fetchCarrierStatements } from '@/flows/parcel/carrier-statements';
import { followClaims } from '@/flows/parcel/claims';
import { followParcels } from '@/flows/parcel/follow-parcels';
import { payOutDue } from '@/flows/payout/pay-out-due';
import { askForCards } from '@/flows/plan/ask-for-cards';
import { lapse } from '@/flows/plan/lapse';
import { remindOfParts } from '@/flows/plan/remind-of-parts';
import { remindWaiting } from '@/flows/plan/remind-waiting';
import { tellBefore } from '@/flows/plan/tell-before';
import { lookAfterVouchers } from '@/flows/voucher/due-vouchers';
import { closeDays } from './close-days';

/** What is done about each concern. Whatever is done is marked in the same transaction, so that it happens once. */
const WORK: Readonly<Record<Concern, (ctx: Context) => Promise<unknown>>> = {
  'timed-sending': sendScheduled,
  recurring: makeDueRecurring,
  reminders: remindDue,
  charges: chargeForAWhile,
  notices: tellBefore,
  'plan-reminders': remindWaiting,
  lapses: lapse,
  parts: remindOfParts,
  cards: askForCards,
  // When a day is over, what is over with it is forgotten.
  closing: async (ctx) => {
    await closeDays(ctx);
    await forgetWhatIsOver(ctx);
  },
  vouchers: lookAfterVouchers,
  news: mailNews,
  parcels: async (ctx) => {
    await followParcels(ctx);
    await followClaims(ctx);
    await fetchCarrierStatements(ctx);
  },
  payouts: async (ctx) => {
    await payOutDue(ctx);
    await fetchStatements(ctx);
  },
};

/** What the clock has brought by now, anywhere. */
export const whatIsDue = overAll().run(async (house) => house.outside((db) => dueWork(db, house.now)));

/**
 * Every minute: one job for each business and concern with something due, so that a busy business delays nobody and what is
 * broken breaks by itself. What was noted of jobs that are done since is forgotten.
 */
export const everyMinute = overAll().run(async (house): Promise<void> => {
  await house.outside((db) => enqueueDueWork(db, house.now));
  await house.outside(forgetDoneJobs);
});

/** Does what is due of one concern of a business. */
export const doDueWork = worker().run(async (ctx, concern: Concern): Promise<void> => {
  // One that was erased since this was enqueued has nothing that could be due.
  if (!(await ctx.read(isHere))) return;
  await WORK[concern](ctx);
});
