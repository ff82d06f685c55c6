import { completePaper, type Paper } from '@/core/paper/paper';
import type { Db, Tx } from './pool';
import { many, maybeOne, run, sql } from './sql';

/** A paper kept under a name, to start others from. */
export type Template = { readonly id: string; readonly name: string; readonly paper: Paper };

const whole = (row: Template): Template => ({ ...row, paper: completePaper(row.paper) });

export const templatesOf = (db: Db): Promise<{ id: string; name: string }[]> =>
  many(db, sql`select id, name from templates where business_id = ${db.businessId} order by lower(name)`);

export async function templateById(db: Db, id: string): Promise<Template | null> {
  const row = await maybeOne<Template>(
    db,
    sql`select id, name, paper from templates where business_id = ${db.businessId} and id = ${id}`,
  );
  return row && whole(row);
}

/** Keeps a template; one of the same name is replaced. */
export const keepTemplate = (tx: Tx, template: Template): Promise<number> =>
  run(
    tx,
    sql`insert into templates (id, business_id, name, paper, changed_at)
        values (${template.id}, ${tx.businessId}, ${template.name}, ${JSON.stringify(template.paper)}, ${tx.now})
        on conflict (business_id, lower(name)) do update set paper = excluded.paper, name = excluded.name, changed_at = excluded.changed_at`,
  );

export const deleteTemplate = (tx: Tx, id: string): Promise<number> =>
  run(tx, sql`delete from templates where business_id = ${tx.businessId} and id = ${id}`);
