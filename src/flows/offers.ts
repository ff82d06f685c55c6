import { randomBytes, randomUUID } from 'node:crypto';
import { dateInZone } from '@/core/dates/zone';
import { type Offer, type OfferState, offerFaults, type Placement, wholeOffer } from '@/core/offer/offer';
import { isShortAddress, shortAddressSuggestions } from '@/core/offer/short-address';
import { firstPage } from '@/core/page/page';
import { businessById } from '@/db/businesses';
import { announce } from '@/db/jobs';
import {
  deleteUnusedOffer,
  insertOffer,
  insertRevision,
  isAddressTaken,
  type OfferRow,
  offerById,
  offerRow,
  offerRows,
  type PlacedOffer,
  updateAddress,
  updateOffer,
  updateOfferState,
  updatePlaced,
} from '@/db/offers';
import { type OrderRow, orderRows } from '@/db/orders';
import type { Actor } from '@/db/people';
import { inBusiness, outsideBusiness, readBusiness } from '@/db/transaction';
import { services } from '@/outside/services';
import { found, requireRight } from './access';
import { forgetPages } from './hosted-page';
import { Refusal } from './refusal';

export type { OfferRow, OrderRow, PlacedOffer };

const PAGE = 50;
const ORDERS_SHOWN = 60;
const SUGGESTED = 3;

/** Where a payer opens an offer. */
export const offerLink = ({
  address,
  publicId,
  placement,
}: Pick<PlacedOffer, 'address' | 'publicId' | 'placement'>): string =>
  `${services().publicUrl}/${placement === 'page' ? 'p' : 'c'}/${address || publicId}`;

/** What a person writes of an offer. */
export type OfferFields = {
  readonly name: string;
  readonly offer: Partial<Offer>;
  readonly look: Readonly<Record<string, unknown>>;
  readonly sites: readonly string[];
};

/** A page of offers of a kind, last changed first. */
export async function offersPage(
  actor: Actor,
  placement: Placement,
  words: string,
  after: { key: string; id: string } | null = null,
): Promise<{ rows: OfferRow[]; next: { key: string; id: string } | null }> {
  requireRight(actor, 'read');
  const rows = await readBusiness(actor.businessId, (db) =>
    offerRows(db, actor.businessId, placement, words, PAGE + 1, after),
  );
  const shown = rows.slice(0, PAGE);
  const last = shown.at(-1);
  return {
    rows: shown,
    next: rows.length > PAGE && last ? { key: last.changedAt.toISOString(), id: last.id } : null,
  };
}

/** An offer with what it brought in and its orders. @throws Refusal `not-found` */
export function offerSheet(actor: Actor, id: string): Promise<{ placed: OfferRow; orders: OrderRow[] }> {
  requireRight(actor, 'read');
  return readBusiness(actor.businessId, async (db) => ({
    placed: found(await offerRow(db, actor.businessId, id)),
    orders: await orderRows(db, actor.businessId, id, ORDERS_SHOWN),
  }));
}

/** Begins an offer, as a copy of another where one is named. Returns its id. */
export async function beginOffer(actor: Actor, placement: Placement, from: string | null = null): Promise<string> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  const id = randomUUID();
  await inBusiness(actor.businessId, async (tx) => {
    const { currency } = await businessById(tx, actor.businessId);
    const source = from ? found(await offerById(tx, actor.businessId, from)) : null;
    const offer = wholeOffer(source ? source.offer : { currency, kind: placement === 'link' ? 'sum' : 'items' });
    const name = source ? `${source.name} (copy)`.slice(0, 120) : NAMES[placement];
    const publicId = randomBytes(9).toString('base64url').replace(/[-_]/g, 'x');
    const look =
      source?.placement === placement
        ? source.look
        : placement === 'page'
          ? firstPage(offer.title || NAMES.page, offer.description, randomUUID)
          : {};
    await insertOffer(
      tx,
      actor.businessId,
      { id, placement, name, publicId, offer, look, sites: source?.sites ?? [] },
      now,
    );
    await insertRevision(tx, actor.businessId, id, 1, offer, actor.name, now);
    await announce(tx, actor.businessId);
  });
  return id;
}

const NAMES: Readonly<Record<Placement, string>> = {
  link: 'New payment link',
  page: 'New hosted page',
  button: 'New button',
};

/**
 * Keeps what an offer says; whoever is just paying is held to what they were quoted. What is not yet right is kept too, but such an
 * offer is not placed, and one that is placed already refuses it.
 *
 * @throws Refusal `offer-not-ready` with the places, `draft-changed-elsewhere`
 */
export async function keepOffer(
  actor: Actor,
  id: string,
  revision: number,
  fields: OfferFields,
): Promise<{ revision: number }> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  return inBusiness(actor.businessId, async (tx) => {
    const before = found(await offerById(tx, actor.businessId, id, true));
    if (before.revision !== revision) throw new Refusal('draft-changed-elsewhere');
    const offer = wholeOffer(fields.offer);
    const faults = offerFaults(offer);
    if (before.placedAt && faults.length > 0) throw new Refusal('offer-not-ready', faults);
    const changed = JSON.stringify(offer) !== JSON.stringify(before.offer);
    const next = changed ? revision + 1 : revision;
    const { name, sites } = fields;
    // A page is edited by its designer: the offer's composer knows nothing of it.
    const look = before.placement === 'page' ? before.look : fields.look;
    await updateOffer(tx, actor.businessId, { id, name, offer, look, sites, revision: next }, now);
    if (changed) await insertRevision(tx, actor.businessId, id, next, offer, actor.name, now);
    await announce(tx, actor.businessId);
    return { revision: next };
  }).finally(forgetPages);
}

/** Places an offer: from now on its link can be paid. @throws Refusal `offer-not-ready` with the places */
export async function placeOffer(actor: Actor, id: string): Promise<void> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  await inBusiness(actor.businessId, async (tx) => {
    const placed = found(await offerById(tx, actor.businessId, id, true));
    const faults = offerFaults(placed.offer);
    if (faults.length > 0) throw new Refusal('offer-not-ready', faults);
    await updatePlaced(tx, actor.businessId, id, now);
    await announce(tx, actor.businessId);
  });
}

/** Pauses an offer, closes it, or opens it again. Payments that are under way are still taken. */
export async function setOfferState(actor: Actor, id: string, state: OfferState): Promise<void> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  await inBusiness(actor.businessId, async (tx) => {
    found(await offerById(tx, actor.businessId, id, true));
    await updateOfferState(tx, actor.businessId, id, state, now);
    await announce(tx, actor.businessId);
  });
  forgetPages();
}

/** What could be taken for an address, whether it is free, and what is free instead. */
export type AddressAnswer = {
  readonly state: 'free' | 'taken' | 'wrong';
  readonly instead: readonly string[];
};

/** Looks at a short address before it is taken. @param id the offer that wants it: its own address is free to it */
export async function lookAtAddress(actor: Actor, id: string, wanted: string): Promise<AddressAnswer> {
  requireRight(actor, 'ask');
  if (!isShortAddress(wanted)) return { state: 'wrong', instead: [] };
  const { placed, business } = await readBusiness(actor.businessId, async (db) => ({
    placed: found(await offerById(db, actor.businessId, id)),
    business: await businessById(db, actor.businessId),
  }));
  if (placed.address === wanted) return { state: 'free', instead: [] };
  const isTaken = (address: string) => outsideBusiness((db) => isAddressTaken(db, address));
  if (!(await isTaken(wanted))) return { state: 'free', instead: [] };
  const year = Number(dateInZone(await services().clock.now(), business.zone).slice(0, 4));
  const instead: string[] = [];
  for (const one of shortAddressSuggestions(wanted, business.name, year)) {
    if (instead.length < SUGGESTED && !(await isTaken(one))) instead.push(one);
  }
  return { state: 'taken', instead };
}

/** Gives an offer its own short address, or none. @throws Refusal `address-taken`, `address-wrong` */
export async function setAddress(actor: Actor, id: string, address: string): Promise<void> {
  requireRight(actor, 'ask');
  if (address && !isShortAddress(address)) throw new Refusal('address-wrong');
  if (address && (await lookAtAddress(actor, id, address)).state === 'taken') throw new Refusal('address-taken');
  try {
    await inBusiness(actor.businessId, async (tx) => {
      if ((await updateAddress(tx, actor.businessId, id, address)) === 0) throw new Refusal('not-found');
      await announce(tx, actor.businessId);
    });
  } catch (error) {
    if (error instanceof Error && 'constraint' in error && error.constraint === 'offers_address_unique')
      throw new Refusal('address-taken');
    throw error;
  }
}

/** Deletes an offer that was never used. @throws Refusal `offer-in-use` */
export async function deleteOffer(actor: Actor, id: string): Promise<void> {
  requireRight(actor, 'ask');
  await inBusiness(actor.businessId, async (tx) => {
    found(await offerById(tx, actor.businessId, id, true));
    if ((await deleteUnusedOffer(tx, actor.businessId, id)) === 0) throw new Refusal('offer-in-use');
    await announce(tx, actor.businessId);
  });
}
