import type { PrintedTerms } from '@/core/invoice/printed';
import type { Db, Tx } from './pool';
import { many, maybeOne, run, sql } from './sql';

/** Terms and conditions with the version in force. */
export type Terms = PrintedTerms & { readonly id: string };

const LATEST = `select distinct on (terms.id) terms.id, terms.name, versions.id as "versionId", versions.version, versions.text
  from terms join terms_versions versions on versions.business_id = terms.business_id and versions.terms_id = terms.id`;

export const termsList = (db: Db, businessId: string): Promise<Terms[]> =>
  many(db, {
    text: `${LATEST} where terms.business_id = $1 and not archived order by terms.id, versions.version desc`,
    values: [businessId],
  });

export const termsById = (db: Db, businessId: string, id: string): Promise<Terms | null> =>
  maybeOne(db, {
    text: `${LATEST} where terms.business_id = $1 and terms.id = $2 order by terms.id, versions.version desc`,
    values: [businessId, id],
  });

export const insertTerms = (tx: Tx, businessId: string, id: string, name: string, at: Date): Promise<number> =>
  run(
    tx,
    sql`insert into terms (id, business_id, name, created_at) values (${id}, ${businessId}, ${name}, ${at})
        on conflict (id) do update set name = excluded.name where terms.business_id = ${businessId}`,
  );

export const insertTermsVersion = (
  tx: Tx,
  businessId: string,
  version: { id: string; termsId: string; version: number; text: string },
  byName: string,
  at: Date,
): Promise<number> =>
  run(
    tx,
    sql`insert into terms_versions (id, business_id, terms_id, version, text, by_name, created_at)
        values (${version.id}, ${businessId}, ${version.termsId}, ${version.version}, ${version.text}, ${byName}, ${at})`,
  );

export const archiveTerms = (tx: Tx, businessId: string, id: string): Promise<number> =>
  run(tx, sql`update terms set archived = true where business_id = ${businessId} and id = ${id}`);
