import { completeOffer, type Offer, type OfferState, type Placement } from '@/core/offer/offer';
import type { Connection, Db, Tx } from './pool';
import { likePattern, many, maybeOne, NONE, one, run, type Statement, sql } from './sql';

/** An offer with where it is placed. `address` is its own short address, empty for none; `look` a page's or button's. */
export type PlacedOffer = {
  readonly id: string;
  readonly placement: Placement;
  readonly name: string;
  readonly publicId: string;
  readonly address: string;
  readonly state: OfferState;
  readonly offer: Offer;
  readonly revision: number;
  readonly look: Readonly<Record<string, unknown>>;
  readonly published: number | null;
  readonly sites: readonly string[];
  readonly placedAt: Date | null;
  readonly createdAt: Date;
  readonly changedAt: Date;
  /** What is edited of it and not kept yet, where it is placed already. */
  readonly draft: OfferDraft | null;
};

/** An offer as it is edited beside what is placed; `revision` is the one that was edited. */
export type OfferDraft = Pick<PlacedOffer, 'name' | 'offer' | 'look' | 'sites'> & { readonly revision: number };

type Kept = Omit<PlacedOffer, 'offer'> & { definition: Partial<Offer> };

const OFFER = sql`offers.id, offers.placement, offers.name, offers.public_id as "publicId", coalesce(offers.address, '') as address,
  offers.state, offers.definition, offers.revision, offers.look, offers.published, offers.sites, offers.placed_at as "placedAt",
  offers.created_at as "createdAt", offers.changed_at as "changedAt", offers.draft`;

const whole = <Row extends Kept>({ definition, ...row }: Row): Omit<Row, 'definition'> & { offer: Offer } => ({
  ...row,
  offer: completeOffer(definition),
  ...(row.draft ? { draft: { ...row.draft, offer: completeOffer(row.draft.offer) } } : {}),
});

/** Whom an offer's public id or short address belongs to; null where it opens nothing. */
export const offerHolder = (db: Connection, called: string): Promise<{ businessId: string; offerId: string } | null> =>
  maybeOne(db, sql`select business_id as "businessId", offer_id as "offerId" from offer_holder(${called})`);

export async function offerById(db: Db, id: string, lock = false): Promise<PlacedOffer | null> {
  const row = await maybeOne<Kept>(
    db,
    sql`select ${OFFER} from offers where business_id = ${db.businessId} and id = ${id}${lock ? sql` for update` : NONE}`,
  );
  return row && whole(row);
}

/** What an offer said at a revision; null where there is none. */
export async function offerRevision(db: Db, offerId: string, revision: number): Promise<Offer | null> {
  const row = await maybeOne<{ definition: Partial<Offer> }>(
    db,
    sql`select definition from offer_revisions
        where business_id = ${db.businessId} and offer_id = ${offerId} and revision = ${revision}`,
  );
  return row && completeOffer(row.definition);
}

const insertName = (tx: Tx, name: string, offerId: string): Promise<number> =>
  run(tx, sql`insert into offer_names (name, business_id, offer_id) values (${name}, ${tx.businessId}, ${offerId})`);

export async function insertOffer(
  tx: Tx,
  offer: Pick<PlacedOffer, 'id' | 'placement' | 'name' | 'publicId' | 'offer' | 'look' | 'sites'>,
): Promise<void> {
  await insertName(tx, offer.publicId, offer.id);
  await run(
    tx,
    sql`insert into offers (id, business_id, placement, name, public_id, definition, look, sites, created_at, changed_at)
        values (${offer.id}, ${tx.businessId}, ${offer.placement}, ${offer.name}, ${offer.publicId},
          ${JSON.stringify(offer.offer)}, ${JSON.stringify(offer.look)}, ${[...offer.sites]}, ${tx.now}, ${tx.now})`,
  );
}

/** Writes what an offer says; the revision goes up with each writing that changes it. */
export const updateOffer = (
  tx: Tx,
  offer: Pick<PlacedOffer, 'id' | 'name' | 'offer' | 'look' | 'sites' | 'revision'>,
): Promise<number> =>
  run(
    tx,
    sql`update offers set name = ${offer.name}, definition = ${JSON.stringify(offer.offer)}, look = ${JSON.stringify(offer.look)},
          sites = ${[...offer.sites]}, revision = ${offer.revision}, changed_at = ${tx.now}, draft = null
        where business_id = ${tx.businessId} and id = ${offer.id}`,
  );

/** Keeps what is edited beside what is placed; null throws it away. */
export const updateOfferDraft = (tx: Tx, id: string, draft: OfferDraft | null): Promise<number> =>
  run(
    tx,
    sql`update offers set draft = ${draft ? JSON.stringify(draft) : null} where business_id = ${tx.businessId} and id = ${id}`,
  );

export const insertRevision = (
  tx: Tx,
  offerId: string,
  revision: number,
  offer: Offer,
  byName: string,
): Promise<number> =>
  run(
    tx,
    sql`insert into offer_revisions (business_id, offer_id, revision, definition, kept_at, by_name)
        values (${tx.businessId}, ${offerId}, ${revision}, ${JSON.stringify(offer)}, ${tx.now}, ${byName})
        on conflict (business_id, offer_id, revision) do nothing`,
  );

export const updateOfferState = (tx: Tx, id: string, state: OfferState): Promise<number> =>
  run(
    tx,
    sql`update offers set state = ${state}, changed_at = ${tx.now} where business_id = ${tx.businessId} and id = ${id}`,
  );

export const updatePlaced = (tx: Tx, id: string): Promise<number> =>
  run(
    tx,
    sql`update offers set placed_at = coalesce(placed_at, ${tx.now}) where business_id = ${tx.businessId} and id = ${id}`,
  );

/**
 * Gives an offer its short address, or takes it away with an empty one; false for no offer. An address that it had goes on leading to it: it
 * may be in print. A taken one breaks `offer_names_pkey`.
 */
export async function updateAddress(tx: Tx, id: string, address: string): Promise<boolean> {
  const done = await run(
    tx,
    sql`update offers set address = ${address || null} where business_id = ${tx.businessId} and id = ${id}`,
  );
  if (done === 0) return false;
  if (address && !(await namesOf(tx, id)).includes(address)) await insertName(tx, address, id);
  return true;
}

/** Every name under which an offer is opened: its public id, its short address, and those it had. */
export async function namesOf(db: Db, id: string): Promise<string[]> {
  const rows = await many<{ name: string }>(
    db,
    sql`select name from offer_names where business_id = ${db.businessId} and offer_id = ${id} order by name`,
  );
  return rows.map(({ name }) => name);
}

/** Whether somebody, of whatever business, has this short address. */
export async function isAddressTaken(db: Connection, address: string): Promise<boolean> {
  return (await one<{ taken: boolean }>(db, sql`select address_taken(${address}) as taken`)).taken;
}

/** Deletes an offer that nobody ever used; 0 where something hangs on it. */
export const deleteUnusedOffer = (tx: Tx, id: string): Promise<number> =>
  run(
    tx,
    sql`with gone as (delete from offers where business_id = ${tx.businessId} and id = ${id}
            and not exists (select 1 from orders where orders.business_id = ${tx.businessId} and orders.offer_id = ${id})
            and not exists (select 1 from requests where requests.business_id = ${tx.businessId} and requests.offer_id = ${id})
          returning id)
        delete from offer_names using gone where business_id = ${tx.businessId} and offer_id = gone.id`,
  );

/** What an offer has brought in, in one currency; minor units. */
export type OfferSum = {
  readonly currency: string;
  readonly orders: number;
  readonly paidMinor: number;
  readonly refundedMinor: number;
};

/** An offer with what it has brought in, and who came to see it. */
export type OfferRow = PlacedOffer & { readonly sums: readonly OfferSum[]; readonly visits: number };

const ROW = sql`${OFFER},
  coalesce((select jsonb_agg(jsonb_build_object('currency', s.currency, 'orders', s.orders, 'paidMinor', s.paid_minor,
      'refundedMinor', s.refunded_minor) order by s.paid_minor desc)
    from offer_sums s where s.business_id = offers.business_id and s.offer_id = offers.id), '[]') as sums,
  coalesce((select sum(v.visits) from offer_visits v where v.business_id = offers.business_id and v.offer_id = offers.id), 0)::int as visits`;

/** The statement of one page of offers of a kind, last changed first, so that a test can read its plan. */
export function offerPage(
  businessId: string,
  placement: Placement,
  words: string,
  limit: number,
  after: { key: string; id: string } | null,
): Statement {
  return sql`select ${ROW} from offers where business_id = ${businessId} and placement = ${placement}
      ${words.trim() ? sql`and lower(name || ' ' || coalesce(address, '')) like ${likePattern(words.trim())}` : NONE}
      ${after ? sql`and (changed_at, id) < (${after.key}::timestamptz, ${after.id}::uuid)` : NONE}
      order by changed_at desc, id desc limit ${limit}`;
}

export async function offerRows(
  db: Db,
  placement: Placement,
  words: string,
  limit: number,
  after: { key: string; id: string } | null = null,
): Promise<OfferRow[]> {
  const rows = await many<Kept & { sums: OfferSum[]; visits: number }>(
    db,
    offerPage(db.businessId, placement, words, limit, after),
  );
  return rows.map(whole);
}

/** One offer with its sums. */
export async function offerRow(db: Db, id: string): Promise<OfferRow | null> {
  const row = await maybeOne<Kept & { sums: OfferSum[]; visits: number }>(
    db,
    sql`select ${ROW} from offers where business_id = ${db.businessId} and id = ${id}`,
  );
  return row && whole(row);
}

/** Adds payments to what their offer has brought in: of orders, and later ones where they are repeated. */
export const addToOfferSums = (
  tx: Tx,
  offerId: string,
  currency: string,
  paidMinor: bigint,
  count: number = 1,
): Promise<number> =>
  run(
    tx,
    sql`insert into offer_sums as kept (business_id, offer_id, currency, orders, paid_minor)
        values (${tx.businessId}, ${offerId}, ${currency}, ${count}, ${paidMinor})
        on conflict (business_id, offer_id, currency) do update
        set orders = kept.orders + excluded.orders, paid_minor = kept.paid_minor + excluded.paid_minor`,
  );

export const addRefundedToOffer = (tx: Tx, offerId: string, currency: string, refundedMinor: bigint): Promise<number> =>
  run(
    tx,
    sql`update offer_sums set refunded_minor = refunded_minor + ${refundedMinor}
        where business_id = ${tx.businessId} and offer_id = ${offerId} and currency = ${currency}`,
  );

/** Counts visits of a page on a day. */
export const addVisits = (tx: Tx, offerId: string, on: string, visits: number): Promise<number> =>
  run(
    tx,
    sql`insert into offer_visits as kept (business_id, offer_id, visited_on, visits)
        values (${tx.businessId}, ${offerId}, ${on}, ${visits})
        on conflict (business_id, offer_id, visited_on) do update set visits = kept.visits + excluded.visits`,
  );

/** The origins that may frame an offer's checkout, or the order behind a token. */
export async function sitesOf(db: Connection, called: string): Promise<string[]> {
  const row = await maybeOne<{ sites: string[] }>(db, sql`select sites from framing_sites(${called})`);
  return row?.sites ?? [];
}
/** Keeps how a page looks while it is edited. */
export const updateLook = (tx: Tx, id: string, look: object): Promise<number> =>
  run(
    tx,
    sql`update offers set look = ${JSON.stringify(look)}, changed_at = ${tx.now}
        where business_id = ${tx.businessId} and id = ${id} and placement = 'page'`,
  );

/** A published version of a page. */
export type PageVersion = {
  readonly version: number;
  readonly look: Readonly<Record<string, unknown>>;
  readonly publishedAt: Date;
  readonly byName: string;
};

export const pageVersions = (db: Db, offerId: string): Promise<PageVersion[]> =>
  many(
    db,
    sql`select version, look, published_at as "publishedAt", by_name as "byName" from page_versions
        where business_id = ${db.businessId} and offer_id = ${offerId} order by version desc limit 100`,
  );

export const pageVersion = (db: Db, offerId: string, version: number): Promise<PageVersion | null> =>
  maybeOne(
    db,
    sql`select version, look, published_at as "publishedAt", by_name as "byName" from page_versions
        where business_id = ${db.businessId} and offer_id = ${offerId} and version = ${version}`,
  );

/** Keeps what a page shows as its next version, and shows that from now on. Returns the version. */
export async function publishPage(
  tx: Tx,
  offerId: string,
  look: Readonly<Record<string, unknown>>,
  byName: string,
): Promise<number> {
  const { version } = await one<{ version: number }>(
    tx,
    sql`insert into page_versions (business_id, offer_id, version, look, published_at, by_name)
        select ${tx.businessId}, ${offerId}, coalesce(max(version), 0) + 1, ${JSON.stringify(look)}::jsonb, ${tx.now}, ${byName}
        from page_versions where business_id = ${tx.businessId} and offer_id = ${offerId}
        returning version`,
  );
  await run(
    tx,
    sql`update offers set published = ${version}, changed_at = ${tx.now} where business_id = ${tx.businessId} and id = ${offerId}`,
  );
  return version;
}
