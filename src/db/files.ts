import type { Db, Tx } from './pool';
import { maybeOne, run, sql } from './sql';

export type FilePurpose =
  | 'attachment'
  | 'logo'
  | 'picture'
  | 'document'
  | 'answer'
  | 'seal'
  | 'authorisation'
  | 'digital';

/** A file as kept, without its bytes. */
export type StoredFile = {
  readonly id: string;
  readonly purpose: FilePurpose;
  readonly name: string;
  readonly type: string;
  readonly size: number;
  readonly sha256: string;
};

export const insertFile = (tx: Tx, file: StoredFile & { bytes: Buffer }, byName: string): Promise<number> =>
  run(
    tx,
    sql`insert into files (id, business_id, purpose, name, type, size, sha256, bytes, by_name, created_at)
        values (${file.id}, ${tx.businessId}, ${file.purpose}, ${file.name}, ${file.type}, ${file.size}, ${file.sha256},
          ${file.bytes}, ${byName}, ${tx.now})`,
  );

export const fileById = (db: Db, id: string): Promise<StoredFile | null> =>
  maybeOne(
    db,
    sql`select id, purpose, name, type, size, sha256 from files where business_id = ${db.businessId} and id = ${id}`,
  );

export const fileBytes = (db: Db, id: string): Promise<(StoredFile & { bytes: Buffer }) | null> =>
  maybeOne(
    db,
    sql`select id, purpose, name, type, size, sha256, bytes from files where business_id = ${db.businessId} and id = ${id}`,
  );
