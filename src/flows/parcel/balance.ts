/** Money at the carrier: put there once, known there, and in the ledger. */
import { randomUUID } from 'node:crypto';
import type { Business } from '@/core/business/business';
import { dateInZone } from '@/core/dates/zone';
import { carrierToppedUp } from '@/core/ledger/movements';
import { money } from '@/core/money/money';
import { businessById } from '@/db/businesses';
import {
  type CarrierMove,
  carrierBalance,
  insertMoves,
  latestMoves,
  lockedMove,
  updateMoveState,
} from '@/db/carrier-moves';
import { enqueueJobs } from '@/db/jobs';
import { insertEntry } from '@/db/ledger';
import { parcelsByIds } from '@/db/parcels';
import { desk, worker } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { services } from '@/outside/services';

/** The most that is put there at once, in hundredths of the main unit: a slip of the finger is no fortune. */
const MOST_MINOR = 2_000_000n;
const MOVES = 14;

/** What there is at the carrier by what went through, and what moved it last. */
export type CarrierAccount = {
  readonly business: Business;
  readonly balanceMinor: bigint;
  readonly moves: readonly CarrierMove[];
  /** By a move's parcel: whom it is for. */
  readonly whom: ReadonlyMap<string, string>;
};

export const carrierAccount = desk('see').read(async (db): Promise<CarrierAccount> => {
  const moves = await latestMoves(db, MOVES);
  const parcels = await parcelsByIds(
    db,
    moves.flatMap(({ parcelId }) => parcelId ?? []),
  );
  return {
    business: await businessById(db),
    balanceMinor: await carrierBalance(db),
    moves,
    whom: new Map(parcels.map(({ id, recipient }) => [id, recipient.name])),
  };
});

/**
 * Puts money on the balance. The press has a key: pressed twice it is put there once.
 *
 * @param minor in minor units of the business's currency
 * @throws Refusal `amount-not-taken` for no sum, or more than is put there at once
 */
export const topUp = desk('give-back').turn(async (tx, pressKey: string, minor: bigint): Promise<void> => {
  if (minor <= 0n || minor > MOST_MINOR) throw new Refusal('amount-not-taken');
  const business = await businessById(tx);
  const key = `top-up:${pressKey}`;
  const fresh = await insertMoves(tx, [
    {
      id: randomUUID(),
      key,
      kind: 'top-up',
      state: 'asked',
      parcelId: null,
      currency: business.currency,
      minor,
      byName: tx.name,
    },
  ]);
  if (fresh === 0) return;
  await enqueueJobs(tx, [
    { task: 'top-up-carrier', key: `carrier:${key}`, payload: { businessId: tx.businessId, key } },
  ]);
});

/** The worker’s part: the carrier takes it up under its key, and then it is booked. */
export const settleTopUp = worker().run(async (ctx, key: string): Promise<void> => {
  const { business, move } = await ctx.turn(async (tx) => ({
    business: await businessById(tx),
    move: found(await lockedMove(tx, key)),
  }));
  if (move.state !== 'asked') return;
  const answer = await services().carrier.topUp(ctx.businessId, key, business.currency, Number(move.minor));
  if (!answer) throw new Error('the carrier did not answer');
  const later = await ctx.later();
  await later.turn(async (tx) => {
    const held = await lockedMove(tx, key);
    if (held?.state !== 'asked') return;
    await updateMoveState(tx, key, 'done');
    await insertEntry(
      tx,
      carrierToppedUp(
        dateInZone(tx.now, business.zone),
        'Balance at the carrier topped up',
        money(held.minor, held.currency),
      ),
      { id: randomUUID(), cause: key, invoiceId: null, paymentId: null },
    );
  });
});
