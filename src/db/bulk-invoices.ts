import type { OwnWords } from '@/core/invoice/bulk';
import type { SendWith } from '@/core/invoice/send-with';
import { completePaper, type Paper } from '@/core/paper/paper';
import type { Db, Tx } from './pool';
import { many, maybeOne, NONE, records, run, sql } from './sql';

export type BulkInvoices = {
  readonly id: string;
  readonly name: string;
  readonly paper: Paper;
  /** The draft that it was made from, as it was then; null for a sent invoice. */
  readonly draft: { readonly id: string; readonly revision: number } | null;
  readonly sendWith: SendWith;
  readonly state: 'checked' | 'sending' | 'done';
  readonly byId: string;
  readonly createdAt: Date;
};

/** One invoice of many sent at once; the total in minor units as it was checked. */
export type BulkRow = {
  readonly position: number;
  readonly customerId: string | null;
  readonly own: OwnWords;
  readonly totalMinor: bigint;
  readonly currency: string;
  readonly state: 'ready' | 'refused' | 'sent';
  readonly reason: string;
  readonly invoiceId: string | null;
};

export const insertBulk = (tx: Tx, bulk: BulkInvoices): Promise<number> =>
  run(
    tx,
    sql`insert into bulk_invoices (id, business_id, name, paper, draft, send_with, state, by_id, created_at)
        values (${bulk.id}, ${tx.businessId}, ${bulk.name}, ${JSON.stringify(bulk.paper)},
          ${bulk.draft && JSON.stringify(bulk.draft)}, ${JSON.stringify(bulk.sendWith)},
          ${bulk.state}, ${bulk.byId}, ${bulk.createdAt})`,
  );

export const insertBulkRows = (tx: Tx, bulkId: string, rows: readonly Omit<BulkRow, 'invoiceId'>[]): Promise<number> =>
  run(
    tx,
    sql`insert into bulk_rows (business_id, bulk_id, position, customer_id, own, total_minor, currency, state, reason)
      select ${tx.businessId}, ${bulkId}, position, "customerId", own, "totalMinor", currency, state, reason
      from jsonb_to_recordset(${JSON.stringify(rows.map((row) => ({ ...row, totalMinor: String(row.totalMinor) })))}::jsonb) as one (position int, "customerId" uuid, own jsonb, "totalMinor" bigint, currency text,
        state text, reason text)`,
  );

export async function bulkById(db: Db, id: string, lock = false): Promise<BulkInvoices | null> {
  const row = await maybeOne<BulkInvoices>(
    db,
    sql`select id, name, paper, draft, send_with as "sendWith", state, by_id as "byId", created_at as "createdAt"
      from bulk_invoices where business_id = ${db.businessId} and id = ${id}${lock ? sql` for update` : NONE}`,
  );
  return row && { ...row, paper: completePaper(row.paper) };
}

export const updateBulkState = (tx: Tx, id: string, state: BulkInvoices['state']): Promise<number> =>
  run(tx, sql`update bulk_invoices set state = ${state} where business_id = ${tx.businessId} and id = ${id}`);

/** The latest bulk invoices with how far they are. */
export const bulksOf = (
  db: Db,
): Promise<
  (Pick<BulkInvoices, 'id' | 'name' | 'state' | 'createdAt'> & { sent: number; refused: number; rows: number })[]
> =>
  many(
    db,
    sql`select id, name, bulk_invoices.state, created_at as "createdAt",
          count(*) filter (where bulk_rows.state = 'sent')::int as sent,
          count(*) filter (where bulk_rows.state = 'refused')::int as refused, count(*)::int as rows
        from bulk_invoices join bulk_rows on bulk_rows.business_id = bulk_invoices.business_id and bulk_id = id
        where bulk_invoices.business_id = ${db.businessId} group by bulk_invoices.business_id, id order by created_at desc limit 50`,
  );

const ROW = sql`position, bulk_rows.customer_id as "customerId", own, bulk_rows.total_minor as "totalMinor", bulk_rows.currency, bulk_rows.state,
  reason, invoice_id as "invoiceId"`;

export const bulkRows = (
  db: Db,
  bulkId: string,
): Promise<(BulkRow & { customer: string | null; number: string | null })[]> =>
  many(
    db,
    sql`select ${ROW}, customers.name as customer, invoices.number from bulk_rows
      left join customers on customers.business_id = bulk_rows.business_id and customers.id = bulk_rows.customer_id
      left join invoices on invoices.business_id = bulk_rows.business_id and invoices.id = invoice_id
      where bulk_rows.business_id = ${db.businessId} and bulk_id = ${bulkId} order by position`,
  );

/** Rows still to be sent, locked; others who ask at the same time get others. */
export const claimBulkRows = (tx: Tx, bulkId: string, limit: number): Promise<BulkRow[]> =>
  many(
    tx,
    sql`select ${ROW} from bulk_rows where business_id = ${tx.businessId} and bulk_id = ${bulkId} and state = 'ready'
      order by position limit ${limit} for update skip locked`,
  );

/** Notes what became of rows. */
export const updateBulkRows = (
  tx: Tx,
  bulkId: string,
  done: readonly {
    readonly position: number;
    readonly state: BulkRow['state'];
    readonly reason: string;
    readonly invoiceId: string | null;
  }[],
): Promise<number> =>
  run(
    tx,
    sql`update bulk_rows set state = given.state, reason = given.reason, invoice_id = "invoiceId"
        from jsonb_to_recordset(${records(done)}::jsonb) as given (position int, state text, reason text, "invoiceId" uuid)
        where business_id = ${tx.businessId} and bulk_id = ${bulkId} and bulk_rows.position = given.position`,
  );

/** The refused rows are looked at once more. */
export const readyAgain = (tx: Tx, bulkId: string): Promise<number> =>
  run(
    tx,
    sql`update bulk_rows set state = 'ready', reason = ''
        where business_id = ${tx.businessId} and bulk_id = ${bulkId} and state = 'refused' and customer_id is not null`,
  );
