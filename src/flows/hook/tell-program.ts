/** Tells another program of one thing: signed, tried again with growing pauses, given up after three days. */
import { pauseAfter } from '@/core/hook/retry';
import { type Delivery, deliveryById, type Hook, hookById, keepBody, updateDelivery, updateHook } from '@/db/hooks';
import { invoiceById } from '@/db/invoices';
import { enqueueJobs } from '@/db/jobs';
import { orderById } from '@/db/orders';
import { parcelsByIds } from '@/db/parcels';
import { ownersOf } from '@/db/people';
import { planById } from '@/db/plans';
import type { Db } from '@/db/pool';
import { type Context, type Writing, worker } from '@/flows/door/operation';
import { queueMessages } from '@/flows/message/queue-message';
import { realClock } from '@/outside/clock';
import { postEvent, type Told } from '@/outside/hooks';
import { hookSignature, openSecrets } from './secret';

/** What something is about, as another program can find it again. */
async function aboutOf(db: Db, { invoiceId, orderId, planId, parcelId }: Delivery['about']): Promise<object> {
  if (invoiceId) {
    const invoice = await invoiceById(db, invoiceId);
    return { invoice: { id: invoiceId, number: invoice?.number ?? null }, currency: invoice?.currency ?? null };
  }
  if (orderId) {
    const order = await orderById(db, orderId);
    return { order: { id: orderId }, currency: order?.currency ?? null };
  }
  if (parcelId) {
    const [parcel] = await parcelsByIds(db, [parcelId]);
    return { parcel: { id: parcelId, number: parcel?.number ?? null }, currency: parcel?.currency ?? null };
  }
  if (planId) return { plan: { id: planId }, currency: (await planById(db, planId))?.currency ?? null };
  return {};
}

/** The text that is sent: made once, so that every try sends the same. */
const bodyOf = async (db: Db, { eventId, kind, happenedAt, about, details }: Delivery): Promise<string> =>
  JSON.stringify({
    id: eventId,
    kind,
    at: happenedAt.toISOString(),
    business: db.businessId,
    ...(await aboutOf(db, about)),
    details,
  });

const isDone = (told: Told): boolean => 'status' in told && told.status >= 200 && told.status < 300;
const outcomeOf = (told: Told): string => ('status' in told ? String(told.status) : told.trouble);

async function giveUp(tx: Writing, hook: Hook): Promise<void> {
  // Once for each time of silence: what arrives ends it.
  if (hook.toldAt) return;
  await updateHook(tx, { ...hook, toldAt: tx.now });
  const owners = await ownersOf(tx);
  await queueMessages(
    tx,
    owners.map((owner) => ({
      kind: 'hook-failing' as const,
      key: `hook-failing:${hook.id}:${tx.now.getTime()}:${owner.id}`,
      toName: owner.name,
      toAddress: owner.email,
      details: { text: hook.url },
    })),
  );
}

async function note(ctx: Context, id: string, told: Told): Promise<void> {
  await ctx.turn(async (tx) => {
    const now = await deliveryById(tx, id, true);
    const hook = now && (await hookById(tx, now.hookId, true));
    if (now?.state !== 'waiting' || !hook) return;
    const tries = now.tries + 1;
    const outcome = outcomeOf(told);
    if (isDone(told)) {
      await updateDelivery(tx, id, { state: 'done', tries, outcome }, null);
      if (hook.toldAt) await updateHook(tx, { ...hook, toldAt: null });
      return;
    }
    const pause = pauseAfter(tries);
    await updateDelivery(tx, id, { state: pause === null ? 'given-up' : 'waiting', tries, outcome }, pause);
    if (pause === null) return giveUp(tx, hook);
    const payload = { businessId: tx.businessId, deliveryId: id };
    await enqueueJobs(tx, [{ task: 'tell-program', key: `tell:${id}:${tries}`, payload, delaySeconds: pause }]);
  });
}

/**
 * Tells a program what is written down for it. Run again after a stop in the middle it may tell it twice, under the same id: whoever is
 * told has to know what they have heard.
 */
export const tellProgram = worker({ tells: false }).run(async (ctx, id: string): Promise<void> => {
  const open = await ctx.write(async (tx) => {
    const delivery = await deliveryById(tx, id);
    const hook = delivery && (await hookById(tx, delivery.hookId));
    if (delivery?.state !== 'waiting' || !hook) return null;
    if (hook.state !== 'on') {
      await updateDelivery(tx, id, { state: 'given-up', tries: delivery.tries, outcome: 'switched-off' }, null);
      return null;
    }
    return { hook, delivery, body: delivery.body ?? (await keepBody(tx, id, await bodyOf(tx, delivery))) };
  });
  if (!open) return;
  const { hook, delivery, body } = open;
  // By the world's own time: whoever is told looks how old it is.
  const time = Math.floor((await realClock.now()).getTime() / 1000);
  const signatures = openSecrets(hook, ctx.now).map((secret) => hookSignature(secret, time, body));
  const told = await postEvent(
    hook.url,
    { 'x-event-id': delivery.eventId, 'x-event-time': String(time), 'x-event-signature': signatures.join(', ') },
    body,
  );
  await note(await ctx.later(), id, told);
});
