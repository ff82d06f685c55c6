/** Cards that the processor keeps: claimed before it is asked, on file in one step with what was agreed, and dropped where that fails. */
import type { KeptCard } from '@/core/plan/shown-card';
import { deleteClaim, insertClaim, lockedClaim, markDropping, noteKeptId } from '@/db/card-claims';
import { isOnFile } from '@/db/cards';
import { enqueueJobs } from '@/db/jobs';
import { paymentById } from '@/db/payments';
import type { Tx } from '@/db/pool';
import { requireCards } from '@/flows/door/opening';
import { type Context, type Writing, worker } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { services } from '@/outside/services';

/** After so many seconds whatever was claimed is on file, or has failed. */
const SETTLE_AFTER_SECONDS = 120;

const settleLater = (tx: Tx, key: string, delaySeconds: number): Promise<void> =>
  enqueueJobs(tx, [
    {
      task: 'settle-card',
      key: `card:${tx.businessId}:${key}`,
      payload: { businessId: tx.businessId, key },
      delaySeconds,
    },
  ]);

/**
 * Claims a card that the processor will be asked to keep.
 *
 * @param key under which it will be asked
 * @param paymentId the payment with which it comes to something or to nothing
 * @throws Refusal `cards-not-open`
 */
export async function claimCard(tx: Tx, key: string, paymentId: string | null = null): Promise<void> {
  await requireCards(tx);
  await insertClaim(tx, { key, keptId: null, paymentId });
  await settleLater(tx, key, SETTLE_AFTER_SECONDS);
}

/** Lets the processor forget a card that is on no file any more: at once, and again until it has answered. */
export async function dropLater(tx: Tx, keptId: string): Promise<string> {
  const key = `drop:${keptId}`;
  await insertClaim(tx, { key, keptId, paymentId: null });
  await settleLater(tx, key, 0);
  return key;
}

const processorKey = (ctx: Context, key: string): string => `${ctx.businessId}.${key}`;

/** Asks the processor to keep what was claimed; null where it does not. */
export async function keepClaimed(ctx: Context, key: string, token: string): Promise<KeptCard | null> {
  const kept = await services().cards.keepCard(token, processorKey(ctx, key));
  if (kept) await ctx.write((tx) => noteKeptId(tx, key, kept.id));
  return kept;
}

/**
 * Brings a claim to its end: a card that is on file stays, any other is dropped at the processor. Does nothing where there is no
 * claim, and waits for a payment that is not decided.
 *
 * @throws Error where the processor does not answer
 */
export async function settleClaim(ctx: Context, key: string): Promise<void> {
  const { cards } = services();
  const at = await ctx.write(async (tx) => {
    const mine = await lockedClaim(tx, key);
    if (!mine) return null;
    const payment = mine.paymentId ? await paymentById(tx, mine.paymentId) : null;
    if (payment?.state === 'pending') {
      await settleLater(tx, key, SETTLE_AFTER_SECONDS);
      return null;
    }
    return mine;
  });
  if (!at) return;
  const found = at.keptId ?? (await cards.keptUnder(processorKey(ctx, key)));
  if (found === null) throw new Error('The card processor does not answer');
  const keptId = found === 'none' ? null : found;
  const stays = await ctx.write(async (tx) => {
    if (keptId && (await isOnFile(tx, keptId))) {
      await deleteClaim(tx, key);
      return true;
    }
    await markDropping(tx, key, keptId);
    return false;
  });
  if (stays) return;
  // A key under which nothing is kept is closed there, so that not even a request on its way can keep something.
  const done = keptId ? await cards.dropCard(keptId) : await cards.closeCardKey(processorKey(ctx, key));
  if (!done) throw new Error('The card processor does not answer');
  await ctx.write((tx) => deleteClaim(tx, key));
}

/** The worker's part, for whatever nobody brought to its end. */
export const settleCard = worker({ tells: false }).run(
  async (ctx, key: string): Promise<void> => settleClaim(ctx, key),
);

/**
 * Lets the processor keep a card and does with it what `file` does, in one transaction: on file with how the customer agreed, or not at
 * all. What `file` leaves aside, or fails to do, is dropped at the processor.
 *
 * @param key makes it one card, however often it is sent
 * @throws Refusal `card-not-kept`, and what `file` throws
 */
export async function withKeptCard<T>(
  ctx: Context,
  { token, key }: { readonly token: string; readonly key: string },
  file: (tx: Writing, kept: KeptCard) => Promise<T>,
): Promise<T> {
  await ctx.write((tx) => claimCard(tx, key));
  try {
    const kept = await keepClaimed(ctx, key, token);
    if (!kept) throw new Refusal('card-not-kept');
    const later = await ctx.later();
    return await later.turn((tx) => file(tx, kept));
  } finally {
    // Where this fails as well, the job does it.
    await settleClaim(ctx, key).catch(() => undefined);
  }
}
