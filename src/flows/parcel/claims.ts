/** What the carrier is asked to pay for a parcel, and what it says of that: asked once under its key, looked at until it is answered. */
import { randomUUID } from 'node:crypto';
import { dateInZone } from '@/core/dates/zone';
import { claimPaid } from '@/core/ledger/movements';
import { jsonMinor, money } from '@/core/money/money';
import { isClaimWhy, mostClaimed } from '@/core/parcel/claim';
import { lookAt } from '@/core/parcel/shipment';
import { businessById } from '@/db/businesses';
import { insertMoves } from '@/db/carrier-moves';
import { insertEntry } from '@/db/ledger';
import { claimOf, dueClaims, keepClaim, type ParcelClaim, updateClaim } from '@/db/parcel-claims';
import { parcelsByIds } from '@/db/parcels';
import { addToTimeline } from '@/db/timeline';
import { type Context, desk, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import type { ClaimAnswer } from '@/outside/carrier';
import { services } from '@/outside/services';

const HOUR_MS = 3_600_000;
/** The carrier takes days: it is asked every few hours, and sooner where it did not answer at all. */
const LOOK_HOURS = 6;
const SILENT_MS = 15 * 60_000;
const AT_ONCE = 50;

/**
 * Asks the carrier to pay for a parcel that is lost, damaged or late. One that was refused can be asked for again.
 *
 * @param minor in minor units of the parcel's currency @throws Refusal `nothing-to-claim`, `claimed-already`, `amount-not-taken`, `not-found`
 */
export const claimParcel = desk('take').run(async (ctx, id: string, minor: bigint): Promise<void> => {
  await ctx.turn(async (tx) => {
    const business = await businessById(tx);
    const parcel = found((await parcelsByIds(tx, [id], true))[0]);
    // What was sent again is claimed all the same.
    const look = lookAt({ ...parcel, settled: '' }, dateInZone(tx.now, business.zone));
    const most = mostClaimed({
      look,
      insuredMinor: BigInt(parcel.label?.spec.insuredMinor ?? 0),
      rateMinor: parcel.rateMinor,
    });
    if (most === null || !isClaimWhy(look)) throw new Refusal('nothing-to-claim');
    if (minor <= 0n || minor > most) throw new Refusal('amount-not-taken');
    const before = await claimOf(tx, id, true);
    if (before && before.state !== 'refused') throw new Refusal('claimed-already');
    const tries = (before?.tries ?? 0) + 1;
    await keepClaim(tx, {
      parcelId: id,
      key: `claim:${parcel.number}:${tries}`,
      tries,
      why: look,
      currency: parcel.currency,
      askedMinor: minor,
      byName: tx.name,
    });
    const event = { kind: 'claim-asked', why: look, amount: jsonMinor(minor) } as const;
    await addToTimeline(tx, { parcelId: id }, event, tx.name);
  });
  const claim = await ctx.read((db) => claimOf(db, id));
  if (claim) await lookAfter(ctx, claim);
});

/** Looks after the claims that are due; run again, it asks and books nothing twice. */
export async function followClaims(ctx: Context): Promise<void> {
  for (const claim of await ctx.read((db) => dueClaims(db, AT_ONCE))) await lookAfter(ctx, claim);
}

async function lookAfter(ctx: Context, claim: ParcelClaim): Promise<void> {
  const { number } = found((await ctx.read((db) => parcelsByIds(db, [claim.parcelId])))[0]);
  const answer = await services().carrier.claim(ctx.businessId, {
    ...{ key: claim.key, number, why: claim.why, minor: Number(claim.askedMinor) },
  });
  const later = await ctx.later();
  await later.turn((tx) => recordAnswer(tx, claim, number, answer));
}

async function recordAnswer(
  tx: Writing,
  { parcelId, key }: ParcelClaim,
  number: string,
  answer: ClaimAnswer | null,
): Promise<void> {
  const claim = await claimOf(tx, parcelId, true);
  if (claim?.key !== key || claim.state === 'paid' || claim.state === 'refused') return;
  const again = new Date(tx.now.getTime() + (answer ? LOOK_HOURS * HOUR_MS : SILENT_MS));
  if (!answer || answer.outcome === 'open') {
    const state = answer ? 'open' : claim.state;
    await updateClaim(tx, parcelId, { state, paidMinor: null, words: answer?.words ?? '', lookAt: again });
    return;
  }
  if (answer.outcome === 'refused') {
    await updateClaim(tx, parcelId, { state: 'refused', paidMinor: null, words: answer.words, lookAt: null });
    await addToTimeline(tx, { parcelId }, { kind: 'claim-refused', words: answer.words }, 'Dahlia');
    return;
  }
  const minor = BigInt(answer.minor);
  await updateClaim(tx, parcelId, { state: 'paid', paidMinor: minor, words: answer.words, lookAt: null });
  const { currency } = claim;
  await insertMoves(tx, [
    { ...{ id: randomUUID(), key, kind: 'claim', state: 'done', parcelId, currency, minor }, byName: 'Dahlia' },
  ]);
  const business = await businessById(tx);
  if (minor > 0n)
    await insertEntry(
      tx,
      claimPaid(dateInZone(tx.now, business.zone), `The carrier paid for parcel ${number}`, money(minor, currency)),
      { id: randomUUID(), cause: key, invoiceId: null, paymentId: null },
    );
  await addToTimeline(tx, { parcelId }, { kind: 'claim-paid', amount: jsonMinor(minor) }, 'Dahlia');
}
