/** What has its label: lists of shipments, what is looked for by number or sale, and what they cost. */
import type { CalendarDate } from '@/core/dates/calendar-date';
import { SHIPPED } from '@/core/parcel/shipment';
import { PARCEL_COLUMNS, type Parcel, type ParcelRow, wholeParcels } from './parcels';
import type { Db } from './pool';
import { likePattern, many, most, NONE, one, oneOf, records, type Statement, sql } from './sql';

/** Where a page of shipments ended: when the last label was bought, and its id. */
export type ShipmentCursor = { readonly at: Date; readonly id: string };

/** Which shipments are asked for: by state, by words in names, numbers and what is in them. */
export type ShipmentsAsked = { readonly under: 'all' | 'under-way' | 'ended'; readonly words?: string };

const UNDER_WAY = ['bought', 'moving', 'door', 'waiting', 'damaged', 'back', 'lost', 'returned'] as const;

/** The statement of one page of shipments, the latest first, so that a test can read its plan. */
export const shipmentPage = (
  businessId: string,
  { under, words = '' }: ShipmentsAsked,
  limit: number,
  after: ShipmentCursor | null,
): Statement => {
  const found = words
    .split(/\s+/)
    .filter(Boolean)
    .slice(0, 4)
    .map((word) => sql`and p.search like ${likePattern(word)}`)
    .reduce((all, one) => sql`${all} ${one}`, NONE);
  const state =
    under === 'under-way'
      ? sql`and p.state in ${oneOf(UNDER_WAY)}`
      : under === 'ended'
        ? sql`and p.state in ('delivered', 'voided')`
        : sql`and p.state in ${oneOf([...SHIPPED, 'voided'])}`;
  return sql`select ${PARCEL_COLUMNS} from parcels p where p.business_id = ${businessId} and p.bought_at is not null ${state} ${found}
      ${after ? sql`and (p.bought_at, p.id) < (${after.at}, ${after.id}::uuid)` : NONE}
      order by p.bought_at desc, p.id desc limit ${most(limit)}`;
};

export const shipmentRows = async (
  db: Db,
  asked: ShipmentsAsked,
  limit: number,
  after: ShipmentCursor | null = null,
): Promise<Parcel[]> => wholeParcels(await many<ParcelRow>(db, shipmentPage(db.businessId, asked, limit, after)));

/** Parcels that may need a look: late, lost, damaged, on their way back or back, waiting, not handed over. */
export const shipmentsToLookAt = async (db: Db, today: CalendarDate, limit: number): Promise<Parcel[]> =>
  wholeParcels(
    await many<ParcelRow>(
      db,
      sql`select ${PARCEL_COLUMNS} from parcels p where p.business_id = ${db.businessId} and p.state in ${oneOf(UNDER_WAY)} and p.settled = ''
            and (p.state in ('lost', 'damaged', 'back', 'returned', 'waiting') or p.promised_on < ${today}
              or p.state = 'bought' and p.mail_on < ${today})
          order by p.promised_on, p.id limit ${most(limit)}`,
    ),
  );

/** Parcels that have their label and were not scanned yet, by their numbers. */
export const notHandedOver = async (db: Db, limit: number): Promise<Parcel[]> =>
  wholeParcels(
    await many<ParcelRow>(
      db,
      sql`select ${PARCEL_COLUMNS} from parcels p where p.business_id = ${db.businessId} and p.state = 'bought'
          order by p.number limit ${most(limit)}`,
    ),
  );

/** Parcels in which something of a sale is, that have their label. @param saleId an invoice's or an order's */
export const parcelsOfSale = async (db: Db, saleId: string): Promise<Parcel[]> =>
  wholeParcels(
    await many<ParcelRow>(
      db,
      sql`select ${PARCEL_COLUMNS} from parcels p where p.business_id = ${db.businessId} and p.id in (
            select l.parcel_id from parcel_lines l join handovers h on h.business_id = l.business_id and h.id = l.handover_id
            where l.business_id = ${db.businessId} and (h.invoice_id = ${saleId} or h.order_id = ${saleId}))
          order by p.made_at, p.id`,
    ),
  );

/** A parcel by its number at the carrier; null where there is none. */
export const parcelByNumber = async (db: Db, number: string): Promise<Parcel | null> =>
  wholeParcels(
    await many<ParcelRow>(
      db,
      sql`select ${PARCEL_COLUMNS} from parcels p where p.business_id = ${db.businessId} and p.number = ${number} and p.number <> ''`,
    ),
  )[0] ?? null;

/** The sales of which something is in parcels: their numbers, and what was their link. */
export type ParcelSale = {
  readonly parcelId: string;
  readonly invoiceId: string | null;
  readonly orderId: string | null;
  readonly number: string;
  readonly linkToken: string;
  readonly chargedMinor: bigint;
  readonly currency: string;
  readonly wantedBy: CalendarDate | null;
  readonly wish: string;
  /** The offer that was ordered by; null for an invoice. */
  readonly offer: { readonly id: string; readonly name: string } | null;
};

export const salesOfParcels = (db: Db, parcelIds: readonly string[]): Promise<ParcelSale[]> =>
  many(
    db,
    sql`select distinct on (l.parcel_id, h.id) l.parcel_id as "parcelId", h.invoice_id as "invoiceId", h.order_id as "orderId", h.number,
          coalesce(i.link_token, o.token, '') as "linkToken", h.charged_minor as "chargedMinor", h.currency,
          h.wanted_by as "wantedBy", h.wish,
          case when f.id is null then null else jsonb_build_object('id', f.id, 'name', f.name) end as offer
        from parcel_lines l join handovers h on h.business_id = l.business_id and h.id = l.handover_id
          left join invoices i on i.business_id = h.business_id and i.id = h.invoice_id
          left join orders o on o.business_id = h.business_id and o.id = h.order_id
          left join offers f on f.business_id = o.business_id and f.id = o.offer_id
        where l.business_id = ${db.businessId} and l.parcel_id = any(${[...parcelIds]}::uuid[])
        order by l.parcel_id, h.id`,
  );

/** The payment of a sale, of those that can be given back; null where there is none. @param saleId an invoice's or an order's */
export const paymentOfSale = async (db: Db, saleId: string): Promise<string | null> =>
  (
    await many<{ id: string }>(
      db,
      sql`select id from payments where business_id = ${db.businessId} and (invoice_id = ${saleId} or order_id = ${saleId})
            and state = 'paid' and refunded_minor < amount_minor + tip_minor order by settled_at desc, id limit 1`,
    )
  )[0]?.id ?? null;

/** How many shipments are not at the door yet. */
export const underWayCount = async (db: Db): Promise<number> =>
  (
    await one<{ count: number }>(
      db,
      sql`select count(*)::int as count from parcels where business_id = ${db.businessId} and state in ${oneOf(UNDER_WAY)}`,
    )
  ).count;

/** The latest notices of parcels: what was told, to whom, and how that stands. */
export const mailsOfParcel = (
  db: Db,
  parcelId: string,
): Promise<{ kind: string; toAddress: string; state: string; at: Date }[]> =>
  many(
    db,
    sql`select kind, to_address as "toAddress", state, created_at as at from messages
        where business_id = ${db.businessId} and parcel_id = ${parcelId} order by created_at`,
  );

/** Which parcels have these numbers at the carrier. */
export const parcelIdsByNumbers = (db: Db, numbers: readonly string[]): Promise<{ id: string; number: string }[]> =>
  many(
    db,
    sql`select id, number from parcels where business_id = ${db.businessId} and number <> '' and number = any(${[...numbers]}::text[])`,
  );

/** What parcels to a zone cost: how many, and what all of them came to, in minor units of the business's currency. */
export type SentBefore = { readonly zoneId: string; readonly count: number; readonly costMinor: bigint };

/**
 * What was paid for parcels to zones since a day, packing and insurance with it. Zones without a parcel are left out.
 *
 * @param zones each with its countries; one without any takes all that none of `named` is
 */
export const sentBefore = (
  db: Db,
  zones: readonly {
    readonly zoneId: string;
    readonly countries: readonly string[];
    readonly named: readonly string[];
  }[],
  since: CalendarDate,
): Promise<SentBefore[]> =>
  many(
    db,
    sql`select z."zoneId", count(*)::int as count, sum(p.rate_minor + p.insurance_minor + p.packaging_minor)::bigint as "costMinor"
        from jsonb_to_recordset(${records(zones)}::jsonb) as z ("zoneId" text, countries jsonb, named jsonb)
          join parcels p on p.business_id = ${db.businessId} and p.bought_at >= ${since}::date and p.state <> 'voided'
            and p.rate_minor is not null
            and case when z.countries = '[]' then not (z.named ? (p.recipient #>> '{address,country}'))
              else z.countries ? (p.recipient #>> '{address,country}') end
        group by z."zoneId"`,
  );
