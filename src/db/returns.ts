import type { BoughtLabel } from '@/core/parcel/packed';
import type { LookedAt, ReturnReason, ReturnState } from '@/core/parcel/returning';
import type { Db, Tx } from './pool';
import { many, most, NONE, records, run, sql } from './sql';

/** A line that comes back; decimals. */
export type ReturnLine = {
  readonly line: number;
  readonly quantity: string;
  readonly toStock: string;
  readonly thrown: string;
};

/** Goods that a customer sends or brings back. */
export type Return = {
  readonly id: string;
  readonly handoverId: string;
  readonly state: ReturnState;
  readonly reason: ReturnReason;
  readonly words: string;
  readonly fileId: string | null;
  readonly askedAt: Date;
  readonly answer: string;
  readonly answeredBy: string;
  readonly label: BoughtLabel | null;
  /** The label's number at the carrier; empty without one. */
  readonly number: string;
  readonly receivedAt: Date | null;
  readonly receivedBy: string;
  readonly lines: readonly ReturnLine[];
};

const COLUMNS = sql`r.id, r.handover_id as "handoverId", r.state, r.reason, r.words, r.file_id as "fileId", r.asked_at as "askedAt", r.answer,
  r.answered_by as "answeredBy", r.label, r.number, r.received_at as "receivedAt", r.received_by as "receivedBy",
  coalesce((select jsonb_agg(jsonb_build_object('line', l.line, 'quantity', trim_scale(l.quantity)::text, 'toStock', trim_scale(l.to_stock)::text,
      'thrown', trim_scale(l.thrown)::text) order by l.line)
    from return_lines l where l.business_id = r.business_id and l.return_id = r.id), '[]') as lines`;

/** Notes a return, once by its id. */
export async function insertReturn(
  tx: Tx,
  one: Pick<Return, 'id' | 'handoverId' | 'reason' | 'words' | 'fileId'> & {
    readonly lines: readonly Pick<ReturnLine, 'line' | 'quantity'>[];
  },
): Promise<void> {
  const fresh = await run(
    tx,
    sql`insert into returns (business_id, id, handover_id, state, reason, words, file_id, asked_at)
        values (${tx.businessId}, ${one.id}, ${one.handoverId}, 'asked', ${one.reason}, ${one.words}, ${one.fileId}, ${tx.now})
        on conflict (business_id, id) do nothing`,
  );
  if (fresh === 0) return;
  await run(
    tx,
    sql`insert into return_lines (business_id, return_id, line, quantity)
        select ${tx.businessId}, ${one.id}, line, quantity
        from jsonb_to_recordset(${records(one.lines)}::jsonb) as given (line smallint, quantity numeric)`,
  );
}

/** A return by its id; null where there is none. @param hold nobody else changes it until the transaction ends */
export const returnById = async (db: Db, id: string, hold = false): Promise<Return | null> =>
  (
    await many<Return>(
      db,
      sql`select ${COLUMNS} from returns r where r.business_id = ${db.businessId} and r.id = ${id} ${hold ? sql`for update of r` : NONE}`,
    )
  )[0] ?? null;

/** Returns of sales, in the order in which they were asked for. */
export const returnsOf = (db: Db, handoverIds: readonly string[]): Promise<Return[]> =>
  many(
    db,
    sql`select ${COLUMNS} from returns r where r.business_id = ${db.businessId} and r.handover_id = any(${[...handoverIds]}::uuid[])
        order by r.asked_at, r.id`,
  );

/** Returns about which something is to be done, the oldest first. */
export const openReturns = (db: Db, limit: number): Promise<Return[]> =>
  many(
    db,
    sql`select ${COLUMNS} from returns r where r.business_id = ${db.businessId} and r.state in ('asked', 'allowed', 'received')
        order by r.asked_at, r.id limit ${most(limit)}`,
  );

/** What the business answers. */
export const updateAnswered = (
  tx: Tx,
  id: string,
  state: 'allowed' | 'refused',
  answer: string,
  byName: string,
): Promise<number> =>
  run(
    tx,
    sql`update returns set state = ${state}, answer = ${answer}, answered_at = ${tx.now}, answered_by = ${byName}
        where business_id = ${tx.businessId} and id = ${id} and state = 'asked'`,
  );

/** The label that brings it back. */
export const updateReturnLabel = (tx: Tx, id: string, label: BoughtLabel, number: string): Promise<number> =>
  run(
    tx,
    sql`update returns set label = ${JSON.stringify(label)}, number = ${number}
        where business_id = ${tx.businessId} and id = ${id} and label is null`,
  );

/** It came, and was looked at. */
export async function updateReceived(tx: Tx, id: string, looked: readonly LookedAt[], byName: string): Promise<void> {
  await run(
    tx,
    sql`update returns set state = 'received', received_at = ${tx.now}, received_by = ${byName}
        where business_id = ${tx.businessId} and id = ${id} and state = 'allowed'`,
  );
  await run(
    tx,
    sql`update return_lines l set to_stock = given."toStock", thrown = given.thrown
        from jsonb_to_recordset(${records(looked)}::jsonb) as given (line smallint, "toStock" numeric, thrown numeric)
        where l.business_id = ${tx.businessId} and l.return_id = ${id} and l.line = given.line`,
  );
}

export const updateClosed = (tx: Tx, id: string): Promise<number> =>
  run(
    tx,
    sql`update returns set state = 'closed', closed_at = ${tx.now}
        where business_id = ${tx.businessId} and id = ${id} and state in ('allowed', 'received')`,
  );
