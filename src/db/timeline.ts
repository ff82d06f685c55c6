import type { TimelineEvent, TimelineLine } from '@/core/timeline/timeline';
import { tellPrograms } from './hooks';
import { tellPeople } from './news';
import type { Db, Tx } from './pool';
import { many, records, sql } from './sql';

/** What a line of a timeline is about. */
export type TimelineSubject =
  | { readonly invoiceId: string }
  | { readonly orderId: string }
  | { readonly planId: string }
  | { readonly parcelId: string };

/** A line to be added: `byName` is a person, `Customer` or `Dahlia`. */
export type NewLine = { readonly of: TimelineSubject; readonly event: TimelineEvent; readonly byName: string };

/** Adds lines to timelines, at the moment of the transaction; other programs and people who want to hear of it are told. */
export async function addLines(tx: Tx, lines: readonly NewLine[]): Promise<void> {
  if (lines.length === 0) return;
  const rows = lines.map(({ of, event: { kind, ...details }, byName }) => ({ ...of, kind, byName, details }));
  const added = await many<{ id: bigint; kind: TimelineEvent['kind'] }>(
    tx,
    sql`insert into timeline (business_id, invoice_id, order_id, plan_id, parcel_id, at, kind, by_name, details)
        select ${tx.businessId}, "invoiceId", "orderId", "planId", "parcelId", ${tx.now}, kind, "byName", details
        from jsonb_to_recordset(${records(rows)}::jsonb)
          as given ("invoiceId" uuid, "orderId" uuid, "planId" uuid, "parcelId" uuid, kind text, "byName" text, details jsonb)
        returning id, kind`,
  );
  await tellPrograms(tx, lines);
  await tellPeople(
    tx,
    added.map(({ id, kind }) => ({ lineId: id, event: { kind } })),
  );
}

/** Adds a line to the timeline of an invoice (by its id), of an order or of a plan. */
export const addToTimeline = (
  tx: Tx,
  subject: string | TimelineSubject,
  event: TimelineEvent,
  byName: string,
): Promise<void> =>
  addLines(tx, [{ of: typeof subject === 'string' ? { invoiceId: subject } : subject, event, byName }]);

type Row = { at: Date; kind: string; byName: string; details: object };

const lines = (rows: readonly Row[]): TimelineLine[] =>
  rows.map(({ at, byName, kind, details }) => ({ at, byName, event: { kind, ...details } as TimelineEvent }));

/** An invoice's timeline, latest first. */
export const timelineOf = async (db: Db, invoiceId: string): Promise<TimelineLine[]> =>
  lines(
    await many(
      db,
      sql`select at, kind, by_name as "byName", details from timeline
          where business_id = ${db.businessId} and invoice_id = ${invoiceId}
          order by at desc, id desc limit 200`,
    ),
  );

/** An order's timeline, latest first. */
export const orderTimeline = async (db: Db, orderId: string): Promise<TimelineLine[]> =>
  lines(
    await many(
      db,
      sql`select at, kind, by_name as "byName", details from timeline
          where business_id = ${db.businessId} and order_id = ${orderId}
          order by at desc, id desc limit 200`,
    ),
  );

/** A plan's timeline, latest first. */
export const planTimeline = async (db: Db, planId: string): Promise<TimelineLine[]> =>
  lines(
    await many(
      db,
      sql`select at, kind, by_name as "byName", details from timeline
          where business_id = ${db.businessId} and plan_id = ${planId}
          order by at desc, id desc limit 200`,
    ),
  );

/** A parcel's timeline, latest first. */
export const parcelTimeline = async (db: Db, parcelId: string): Promise<TimelineLine[]> =>
  lines(
    await many(
      db,
      sql`select at, kind, by_name as "byName", details from timeline
          where business_id = ${db.businessId} and parcel_id = ${parcelId}
          order by at desc, id desc limit 200`,
    ),
  );
