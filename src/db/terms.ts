import type { PrintedTerms } from '@/core/invoice/printed';
import type { Db, Tx } from './pool';
import { many, maybeOne, run, sql } from './sql';

/** Terms and conditions with the version in force. */
export type Terms = PrintedTerms & { readonly id: string };

const LATEST = sql`select distinct on (terms.id) terms.id, terms.name, versions.id as "versionId", versions.version, versions.text
  from terms join terms_versions versions on versions.business_id = terms.business_id and versions.terms_id = terms.id`;

export const termsList = (db: Db): Promise<Terms[]> =>
  many(
    db,
    sql`${LATEST} where terms.business_id = ${db.businessId} and not archived order by terms.id, versions.version desc`,
  );

export const termsById = (db: Db, id: string): Promise<Terms | null> =>
  maybeOne(
    db,
    sql`${LATEST} where terms.business_id = ${db.businessId} and terms.id = ${id} order by terms.id, versions.version desc`,
  );

export const insertTerms = (tx: Tx, id: string, name: string): Promise<number> =>
  run(
    tx,
    sql`insert into terms (id, business_id, name, created_at) values (${id}, ${tx.businessId}, ${name}, ${tx.now})
        on conflict (business_id, id) do update set name = excluded.name`,
  );

export const insertTermsVersion = (
  tx: Tx,
  version: { id: string; termsId: string; version: number; text: string },
  byName: string,
): Promise<number> =>
  run(
    tx,
    sql`insert into terms_versions (id, business_id, terms_id, version, text, by_name, created_at)
        values (${version.id}, ${tx.businessId}, ${version.termsId}, ${version.version}, ${version.text}, ${byName}, ${tx.now})`,
  );

export const archiveTerms = (tx: Tx, id: string): Promise<number> =>
  run(tx, sql`update terms set archived = true where business_id = ${tx.businessId} and id = ${id}`);
