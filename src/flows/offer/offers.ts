import { randomBytes, randomUUID } from 'node:crypto';
import { dateInZone } from '@/core/dates/zone';
import { completeOffer, type Offer, type OfferState, offerFaults, type Placement } from '@/core/offer/offer';
import { isShortAddress, shortAddressSuggestions } from '@/core/offer/short-address';
import { completePage, firstPage, PLACEHOLDER_TITLE, titled } from '@/core/page/page';
import { businessById } from '@/db/businesses';
import {
  deleteUnusedOffer,
  insertOffer,
  insertRevision,
  isAddressTaken,
  namesOf,
  type OfferRow,
  offerById,
  offerRow,
  offerRows,
  type PlacedOffer,
  updateAddress,
  updateOffer,
  updateOfferDraft,
  updateOfferState,
  updatePlaced,
} from '@/db/offers';
import { type OrderRow, orderRows } from '@/db/orders';
import { isTaken } from '@/db/sql';
import { requireCards, requireSending } from '@/flows/door/opening';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { services } from '@/outside/services';
import { forgetPages } from './page-cache';

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
export const offersPage = desk('see').run(
  async (
    ctx,
    placement: Placement,
    words: string,
    after: { key: string; id: string } | null = null,
  ): Promise<{ rows: OfferRow[]; next: { key: string; id: string } | null }> => {
    const rows = await ctx.read((db) => offerRows(db, placement, words, PAGE + 1, after));
    const shown = rows.slice(0, PAGE);
    const last = shown.at(-1);
    return {
      rows: shown,
      next: rows.length > PAGE && last ? { key: last.changedAt.toISOString(), id: last.id } : null,
    };
  },
);

/** An offer with what it brought in and its orders. @throws Refusal `not-found` */
export const offerSheet = desk('see').read(
  async (db, id: string): Promise<{ placed: OfferRow; orders: OrderRow[] }> => {
    return {
      placed: found(await offerRow(db, id)),
      orders: await orderRows(db, id, ORDERS_SHOWN),
    };
  },
);

/** Begins an offer, as a copy of another where one is named. Returns its id. */
export const beginOffer = desk('ask').run(
  async (ctx, placement: Placement, from: string | null = null): Promise<string> => {
    const id = randomUUID();
    await ctx.write(async (tx) => {
      const { currency } = await businessById(tx);
      const source = from ? found(await offerById(tx, from)) : null;
      const offer = completeOffer(source ? source.offer : { currency, kind: placement === 'link' ? 'sum' : 'items' });
      const name = source ? `${source.name} (copy)`.slice(0, 120) : NAMES[placement];
      const publicId = randomBytes(9).toString('base64url').replace(/[-_]/g, 'x');
      const look =
        source?.placement === placement
          ? source.look
          : placement === 'page'
            ? firstPage(offer.title || NAMES.page, offer.description, randomUUID)
            : {};
      await insertOffer(tx, { id, placement, name, publicId, offer, look, sites: source?.sites ?? [] });
      await insertRevision(tx, id, 1, offer, ctx.name);
    });
    return id;
  },
);

const NAMES: Readonly<Record<Placement, string>> = {
  link: 'New payment link',
  page: PLACEHOLDER_TITLE,
  button: 'New button',
};

/**
 * Keeps what an offer says; whoever is just paying is held to what they were quoted. What is not yet right is kept too, but such an
 * offer is not placed, and one that is placed already refuses it.
 *
 * @throws Refusal `offer-not-ready` with the places, `draft-changed-elsewhere`
 */
export const keepOffer = desk('ask').run(
  async (ctx, id: string, revision: number, fields: OfferFields): Promise<{ revision: number }> => {
    return ctx
      .write(async (tx) => {
        const before = found(await offerById(tx, id, true));
        if (before.revision !== revision) throw new Refusal('draft-changed-elsewhere');
        const offer = completeOffer(fields.offer);
        const faults = offerFaults(offer);
        if (before.placedAt && faults.length > 0) throw new Refusal('offer-not-ready', faults);
        const changed = JSON.stringify(offer) !== JSON.stringify(before.offer);
        const next = changed ? revision + 1 : revision;
        const { name, sites } = fields;
        // A page is edited by its designer: the offer's composer gives it its first title only.
        const { accent } = await businessById(tx);
        const look = before.placement === 'page' ? titled(completePage(before.look, accent), offer.title) : fields.look;
        await updateOffer(tx, { id, name, offer, look, sites, revision: next });
        if (changed) await insertRevision(tx, id, next, offer, ctx.name);
        return { revision: next };
      })
      .finally(forgetPages);
  },
);

/**
 * Keeps what is edited of an offer that is placed beside it: payers go on reading what is placed. What is edited of an older revision gives
 * way to whoever kept the newer one.
 *
 * @throws Refusal `draft-changed-elsewhere`
 */
export const keepOfferDraft = desk('ask').write(
  async (tx, id: string, revision: number, fields: OfferFields): Promise<void> => {
    const before = found(await offerById(tx, id, true));
    if (before.revision !== revision) throw new Refusal('draft-changed-elsewhere');
    const offer = completeOffer(fields.offer);
    const { name, look, sites } = fields;
    await updateOfferDraft(tx, id, { name, look, sites, offer, revision });
  },
);

/** Throws away what is edited of an offer and not kept. */
export const discardOfferDraft = desk('ask').write(async (tx, id: string): Promise<void> => {
  found(await offerById(tx, id, true));
  await updateOfferDraft(tx, id, null);
});

/** Places an offer: from now on its link can be paid. @throws Refusal `offer-not-ready` with the places */
export const placeOffer = desk('ask').write(async (tx, id: string): Promise<void> => {
  const placed = found(await offerById(tx, id, true));
  const faults = offerFaults(placed.offer);
  if (faults.length > 0) throw new Refusal('offer-not-ready', faults);
  const business = await businessById(tx);
  await requireSending(tx, business);
  await requireCards(tx, business);
  await updatePlaced(tx, id);
});

/** Pauses an offer, closes it, or opens it again. Payments that are under way are still taken. */
export const setOfferState = desk('ask').run(async (ctx, id: string, state: OfferState): Promise<void> => {
  await ctx.write(async (tx) => {
    found(await offerById(tx, id, true));
    await updateOfferState(tx, id, state);
  });
  forgetPages();
});

/** What could be taken for an address, whether it is free, and what is free instead. */
export type AddressAnswer = {
  readonly state: 'free' | 'taken' | 'wrong';
  readonly instead: readonly string[];
};

/** Looks at a short address before it is taken. @param id the offer that wants it: its own address is free to it */
export const lookAtAddress = desk('ask').run(async (ctx, id: string, wanted: string): Promise<AddressAnswer> => {
  if (!isShortAddress(wanted)) return { state: 'wrong', instead: [] };
  const { own, business } = await ctx.read(async (db) => {
    found(await offerById(db, id));
    return { own: await namesOf(db, id), business: await businessById(db) };
  });
  // Also one that it had before.
  if (own.includes(wanted)) return { state: 'free', instead: [] };
  const isTaken = (address: string) => ctx.outside((db) => isAddressTaken(db, address));
  if (!(await isTaken(wanted))) return { state: 'free', instead: [] };
  const year = Number(dateInZone(ctx.now, business.zone).slice(0, 4));
  const instead: string[] = [];
  for (const one of shortAddressSuggestions(wanted, business.name, year)) {
    if (instead.length < SUGGESTED && !(await isTaken(one))) instead.push(one);
  }
  return { state: 'taken', instead };
});

/** Gives an offer its own short address, or none. @throws Refusal `address-taken`, `address-wrong` */
export const setAddress = desk('ask').run(async (ctx, id: string, address: string): Promise<void> => {
  if (address && !isShortAddress(address)) throw new Refusal('address-wrong');
  if (address && (await lookAtAddress(ctx.actor, id, address)).state === 'taken') throw new Refusal('address-taken');
  try {
    await ctx.write(async (tx) => {
      if (!(await updateAddress(tx, id, address))) throw new Refusal('not-found');
    });
  } catch (error) {
    if (isTaken(error, 'offer_names')) throw new Refusal('address-taken');
    throw error;
  }
});

/** Deletes an offer that was never used. @throws Refusal `offer-in-use` */
export const deleteOffer = desk('ask').write(async (tx, id: string): Promise<void> => {
  found(await offerById(tx, id, true));
  if ((await deleteUnusedOffer(tx, id)) === 0) throw new Refusal('offer-in-use');
});
