import type { Happening, TimelineLine } from '@/core/invoice/timeline';
import type { Db, Tx } from './pool';
import { many, run, sql } from './sql';

/** What a line of a timeline is about. */
export type HappenedTo = { readonly invoiceId: string } | { readonly orderId: string } | { readonly planId: string };

/** Adds a line to the timeline of an invoice (by its id), of an order or of a plan. @param byName a person, `Customer` or `Dahlia` */
export const insertHappening = (
  tx: Tx,
  businessId: string,
  subject: string | HappenedTo,
  happening: Happening,
  byName: string,
  at: Date,
): Promise<number> => {
  const { kind, ...details } = happening;
  const to = typeof subject === 'string' ? { invoiceId: subject } : subject;
  return run(
    tx,
    sql`insert into timeline (business_id, invoice_id, order_id, plan_id, at, kind, by_name, details)
        values (${businessId}, ${'invoiceId' in to ? to.invoiceId : null}, ${'orderId' in to ? to.orderId : null}, ${'planId' in to ? to.planId : null},
          ${at}, ${kind}, ${byName}, ${JSON.stringify(details)})`,
  );
};

type Row = { at: Date; kind: string; byName: string; details: object };

const lines = (rows: readonly Row[]): TimelineLine[] =>
  rows.map(({ at, byName, kind, details }) => ({ at, byName, happening: { kind, ...details } as Happening }));

/** An invoice's timeline, latest first. */
export const timelineOf = async (db: Db, businessId: string, invoiceId: string): Promise<TimelineLine[]> =>
  lines(
    await many(
      db,
      sql`select at, kind, by_name as "byName", details from timeline
          where business_id = ${businessId} and invoice_id = ${invoiceId}
          order by at desc, id desc limit 200`,
    ),
  );

/** An order's timeline, latest first. */
export const orderTimeline = async (db: Db, businessId: string, orderId: string): Promise<TimelineLine[]> =>
  lines(
    await many(
      db,
      sql`select at, kind, by_name as "byName", details from timeline
          where business_id = ${businessId} and order_id = ${orderId}
          order by at desc, id desc limit 200`,
    ),
  );

/** A plan's timeline, latest first. */
export const planTimeline = async (db: Db, businessId: string, planId: string): Promise<TimelineLine[]> =>
  lines(
    await many(
      db,
      sql`select at, kind, by_name as "byName", details from timeline
          where business_id = ${businessId} and plan_id = ${planId}
          order by at desc, id desc limit 200`,
    ),
  );
