import type { Db, Tx } from './pool';
import { many, run, sql } from './sql';

/** Which list it is that is kept. */
export type ListKind = 'invoices' | 'payments';

/** What is asked of a list, kept under a name. */
export type SavedList<Ask> = { readonly id: string; readonly name: string; readonly asked: Ask };

export const savedLists = <Ask>(db: Db, list: ListKind): Promise<SavedList<Ask>[]> =>
  many(
    db,
    sql`select id, name, asked from saved_lists where business_id = ${db.businessId} and list = ${list} order by lower(name)`,
  );

/** Keeps a list; one of the same kind and name is replaced. */
export const keepSavedList = <Ask>(tx: Tx, list: ListKind, { id, name, asked }: SavedList<Ask>): Promise<number> =>
  run(
    tx,
    sql`insert into saved_lists (id, business_id, list, name, asked, created_at)
        values (${id}, ${tx.businessId}, ${list}, ${name}, ${JSON.stringify(asked)}, ${tx.now})
        on conflict (business_id, list, lower(name)) do update set asked = excluded.asked, name = excluded.name`,
  );

export const deleteSavedList = (tx: Tx, id: string): Promise<number> =>
  run(tx, sql`delete from saved_lists where business_id = ${tx.businessId} and id = ${id}`);
