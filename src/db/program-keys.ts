/** Keys by which other programs come in, and what was answered to their requests. */
import type { ExtraRight, Role } from '@/core/person/rights';
import type { KeyRight } from '@/core/program/key';
import type { Connection, Db, Tx } from './pool';
import { many, maybeOne, run, sql } from './sql';

export type ProgramKey = {
  readonly id: string;
  readonly name: string;
  readonly rights: readonly KeyRight[];
  readonly byName: string;
  readonly madeAt: Date;
  readonly goodUntil: Date;
  readonly endedAt: Date | null;
  /** When a program last came in by it, in the computer's own time; null for never. */
  readonly usedAt: Date | null;
};

const KEY = sql`k.id, k.name, k.rights, p.name as "byName", k.made_at as "madeAt", k.good_until as "goodUntil", k.ended_at as "endedAt",
  k.used_at as "usedAt" from program_keys k join people p on p.business_id = k.business_id and p.id = k.person_id`;

/** Those that were not ended, the newest first. */
export const keysOpen = (db: Db): Promise<ProgramKey[]> =>
  many(
    db,
    sql`select ${KEY} where k.business_id = ${db.businessId} and k.ended_at is null order by k.made_at desc, k.id`,
  );

export const keyById = (db: Db, id: string): Promise<ProgramKey | null> =>
  maybeOne(db, sql`select ${KEY} where k.business_id = ${db.businessId} and k.id = ${id}`);

export const insertKey = (
  tx: Tx,
  key: Pick<ProgramKey, 'id' | 'name' | 'rights' | 'goodUntil'> & {
    readonly secretHash: Buffer;
    readonly personId: string;
  },
): Promise<number> =>
  run(
    tx,
    sql`insert into program_keys (business_id, id, name, rights, secret_hash, person_id, made_at, good_until)
        values (${tx.businessId}, ${key.id}, ${key.name}, ${[...key.rights]}, ${key.secretHash}, ${key.personId}, ${tx.now}, ${key.goodUntil})`,
  );

export const endKeyAt = (tx: Tx, id: string): Promise<number> =>
  run(
    tx,
    sql`update program_keys set ended_at = ${tx.now} where business_id = ${tx.businessId} and id = ${id} and ended_at is null`,
  );

/** Notes that a key is used. */
export const touchKey = (tx: Tx, id: string): Promise<number> =>
  run(tx, sql`update program_keys set used_at = now() where business_id = ${tx.businessId} and id = ${id}`);

/** Whose key this is, and what it and whoever made it may. */
export type KeyHolder = {
  readonly businessId: string;
  readonly keyId: string;
  readonly name: string;
  readonly rights: readonly string[];
  readonly personId: string;
  readonly role: Role;
  readonly extra: readonly ExtraRight[];
  readonly closed: boolean;
  readonly unusedSeconds: number | null;
};

/** By how a key begins and the hash of the whole, if it is good. Outside any business. */
export const keyHolder = (
  db: Connection,
  { begins, hash }: { readonly begins: string; readonly hash: Buffer },
  at: Date,
): Promise<KeyHolder | null> =>
  maybeOne(
    db,
    sql`select business_id as "businessId", key_id as "keyId", name, rights, person_id as "personId", role, extra, closed,
          unused_seconds as "unusedSeconds" from key_holder(${begins}, ${hash}, ${at})`,
  );

/** What was answered to a request; `status` null while it is worked on, or where it was broken off. */
export type ProgramAnswer = {
  readonly fingerprint: Buffer;
  readonly status: number | null;
  readonly body: unknown;
  readonly begunAt: Date;
};
export type RequestKey = { readonly keyId: string; readonly requestKey: string };

/** Writes down that a request has begun; false where one under its key was there before. */
export const beginAnswer = async (tx: Tx, of: RequestKey, fingerprint: Buffer): Promise<boolean> =>
  (await run(
    tx,
    sql`insert into program_answers (business_id, key_id, request_key, fingerprint, begun_at)
        values (${tx.businessId}, ${of.keyId}, ${of.requestKey}, ${fingerprint}, ${tx.now})
        on conflict (business_id, key_id, request_key) do nothing`,
  )) === 1;

export const answerOf = (db: Db, of: RequestKey): Promise<ProgramAnswer | null> =>
  maybeOne(
    db,
    sql`select fingerprint, status, body, begun_at as "begunAt" from program_answers
        where business_id = ${db.businessId} and key_id = ${of.keyId} and request_key = ${of.requestKey}`,
  );

export const keepAnswer = (tx: Tx, of: RequestKey, status: number, body: unknown): Promise<number> =>
  run(
    tx,
    sql`update program_answers set status = ${status}, body = ${JSON.stringify(body)}::jsonb
        where business_id = ${tx.businessId} and key_id = ${of.keyId} and request_key = ${of.requestKey}`,
  );

/** Forgets a request that came to nothing: it may be sent again. */
export const dropAnswer = (tx: Tx, of: RequestKey): Promise<number> =>
  run(
    tx,
    sql`delete from program_answers where business_id = ${tx.businessId} and key_id = ${of.keyId} and request_key = ${of.requestKey}`,
  );

/** Forgets the answers of before an instant. */
export const forgetAnswers = (tx: Tx, before: Date): Promise<number> =>
  run(tx, sql`delete from program_answers where business_id = ${tx.businessId} and begun_at < ${before}`);

/** Empties what was answered, since somebody of whom it may tell is forgotten; that it was answered stays. */
export const emptyAnswers = (tx: Tx): Promise<number> =>
  run(tx, sql`update program_answers set body = null where business_id = ${tx.businessId} and body is not null`);
