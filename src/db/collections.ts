import type { Db, Tx } from './pool';
import { likePattern, many, most, NONE, run, sql } from './sql';

/** What was fetched: a line of the sale, and how much of it as a decimal. */
export type CollectedLine = { readonly line: number; readonly quantity: string };

/** Something was handed over at the counter. */
export type Collection = {
  readonly id: string;
  readonly handoverId: string;
  readonly at: Date;
  readonly byName: string;
  readonly name: string;
  /** Their hand as a path in a field of 100 × 40; empty where nobody signed. */
  readonly strokes: string;
  readonly lines: readonly CollectedLine[];
};

/** Notes a collection, once by its id. */
export const insertCollection = (tx: Tx, { id, handoverId, byName, name, strokes, lines }: Omit<Collection, 'at'>) =>
  run(
    tx,
    sql`insert into collections (business_id, id, handover_id, at, by_name, name, strokes, lines)
        values (${tx.businessId}, ${id}, ${handoverId}, ${tx.now}, ${byName}, ${name}, ${strokes}, ${JSON.stringify(lines)})
        on conflict (business_id, id) do nothing`,
  );

/** What of sales was fetched, in the order of time. */
export const collectionsOf = (db: Db, handoverIds: readonly string[]): Promise<Collection[]> =>
  many(
    db,
    sql`select id, handover_id as "handoverId", at, by_name as "byName", name, strokes, lines from collections
        where business_id = ${db.businessId} and handover_id = any(${[...handoverIds]}::uuid[]) order by at, id`,
  );

/** Sales of which something waits to be fetched, the oldest first. */
export const atCounter = async (db: Db, words: string, limit: number): Promise<string[]> =>
  (
    await many<{ id: string }>(
      db,
      sql`select h.id from handovers h where h.business_id = ${db.businessId} and h.counter = 'open'
            ${words ? sql`and (lower(h.number) like ${likePattern(words)} or lower(h.recipient->>'name') like ${likePattern(words)})` : NONE}
          order by h.ready_at, h.id limit ${most(limit)}`,
    )
  ).map(({ id }) => id);

/** Sales of which something was fetched lately, the latest first. */
export const fetchedLately = (
  db: Db,
  limit: number,
): Promise<(Collection & { readonly number: string; readonly recipient: string })[]> =>
  many(
    db,
    sql`select c.id, c.handover_id as "handoverId", c.at, c.by_name as "byName", c.name, c.strokes, c.lines, h.number,
          h.recipient->>'name' as recipient
        from collections c join handovers h on h.business_id = c.business_id and h.id = c.handover_id
        where c.business_id = ${db.businessId} order by c.at desc, c.id limit ${most(limit)}`,
  );
