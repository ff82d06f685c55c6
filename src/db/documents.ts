import { createHash } from 'node:crypto';
import type { Db, Tx } from './pool';
import { maybeOne, run, sql } from './sql';

export type DocumentKind = 'invoice' | 'receipt' | 'credit-note' | 'dispute-file';

/** Keeps a document as it goes out; the first one made stays. */
export const insertDocument = (
  tx: Tx,
  kind: DocumentKind,
  subjectId: string,
  version: number,
  bytes: Buffer,
): Promise<number> =>
  run(
    tx,
    sql`insert into documents (business_id, kind, subject_id, version, sha256, bytes, made_at)
        values (${tx.businessId}, ${kind}, ${subjectId}, ${version}, ${createHash('sha256').update(bytes).digest('hex')}, ${bytes}, ${tx.now})
        on conflict (business_id, kind, subject_id, version) do nothing`,
  );

export const documentOf = (
  db: Db,
  kind: DocumentKind,
  subjectId: string,
  version: number,
): Promise<{ bytes: Buffer } | null> =>
  maybeOne(
    db,
    sql`select bytes from documents where business_id = ${db.businessId} and kind = ${kind} and subject_id = ${subjectId}
          and version = ${version}`,
  );
