import type { Connection, Db, Tx } from './pool';
import { many, maybeOne, run, sql } from './sql';

export type Role = 'owner' | 'clerk' | 'reader';

/** Somebody signed in: who, of which business, allowed what. */
export type Actor = {
  readonly businessId: string;
  readonly personId: string;
  readonly name: string;
  readonly role: Role;
};

export type SignInCandidate = { readonly personId: string; readonly businessId: string; readonly passwordHash: string };

/** Whoever signs in with this address, in whichever business. Outside any business. */
export const signInCandidate = (db: Connection, email: string): Promise<SignInCandidate | null> =>
  maybeOne(
    db,
    sql`select person_id as "personId", business_id as "businessId", password_hash as "passwordHash"
        from sign_in_candidate(${email})`,
  );

/**
 * Whose session this is, by how its token begins and the hash of the whole, if it has not ended, and for how many seconds nobody used
 * it. Outside any business.
 *
 * @param idleSeconds a session that was not used for so long has ended; the database's own time
 */
export const sessionHolder = (
  db: Connection,
  { begins, hash }: { begins: string; hash: Buffer },
  at: Date,
  idleSeconds: number,
): Promise<(Actor & { readonly unusedSeconds: number }) | null> =>
  maybeOne(
    db,
    sql`select person_id as "personId", business_id as "businessId", name, role, unused_seconds as "unusedSeconds"
        from session_holder(${begins}, ${hash}, ${at}, make_interval(secs => ${idleSeconds}))`,
  );

/** Notes that a session is used. */
export const touchSession = (tx: Tx, tokenHash: Buffer): Promise<number> =>
  run(tx, sql`update sessions set used_at = now() where business_id = ${tx.businessId} and token_hash = ${tokenHash}`);

export async function passwordHashOf(db: Db, personId: string): Promise<string | null> {
  const row = await maybeOne<{ hash: string }>(
    db,
    sql`select password_hash as hash from people where business_id = ${db.businessId} and id = ${personId}`,
  );
  return row?.hash ?? null;
}

export const updatePassword = (tx: Tx, personId: string, passwordHash: string): Promise<number> =>
  run(
    tx,
    sql`update people set password_hash = ${passwordHash} where business_id = ${tx.businessId} and id = ${personId}`,
  );

/** Ends every session of a person but one. */
export const endOtherSessions = (tx: Tx, personId: string, keptHash: Buffer): Promise<number> =>
  run(
    tx,
    sql`delete from sessions where business_id = ${tx.businessId} and person_id = ${personId} and token_hash <> ${keptHash}`,
  );

export const insertSession = (
  tx: Tx,
  session: { tokenHash: Buffer; businessId: string; personId: string; createdAt: Date; expiresAt: Date },
): Promise<number> =>
  run(
    tx,
    sql`insert into sessions (token_hash, business_id, person_id, created_at, expires_at)
        values (${session.tokenHash}, ${session.businessId}, ${session.personId}, ${session.createdAt}, ${session.expiresAt})`,
  );

/** Ends one session, and clears away the person's expired ones. */
export const endSession = (tx: Tx, personId: string, tokenHash: Buffer): Promise<number> =>
  run(
    tx,
    sql`delete from sessions where business_id = ${tx.businessId} and person_id = ${personId}
        and (token_hash = ${tokenHash} or expires_at <= ${tx.now})`,
  );

/** Writes a person down. An address that signs in somebody already, of whatever business, breaks `sign_in_names_pkey`. */
export async function insertPerson(
  tx: Tx,
  person: { id: string; businessId: string; name: string; email: string; role: Role; passwordHash: string },
): Promise<void> {
  await run(
    tx,
    sql`insert into sign_in_names (email_key, business_id, person_id)
        values (lower(${person.email}), ${person.businessId}, ${person.id})`,
  );
  await run(
    tx,
    sql`insert into people (id, business_id, name, email, role, password_hash, created_at)
        values (${person.id}, ${person.businessId}, ${person.name}, ${person.email}, ${person.role}, ${person.passwordHash}, ${tx.now})`,
  );
}

export type DemoPerson = {
  readonly name: string;
  readonly email: string;
  readonly role: Role;
  readonly business: string;
};

/** The people whom the demo's sign-in page offers. */
export const demoPeople = (db: Connection): Promise<DemoPerson[]> =>
  many(db, sql`select name, email, role, business from demo_people()`);

/** The address with which a person signs in. */
export async function emailOf(db: Db, personId: string): Promise<string> {
  const row = await maybeOne<{ email: string }>(
    db,
    sql`select email from people where business_id = ${db.businessId} and id = ${personId}`,
  );
  return row?.email ?? '';
}

/** Everybody who owns the business. */
export const ownersOf = (db: Db): Promise<{ id: string; name: string; email: string }[]> =>
  many(
    db,
    sql`select id, name, email from people where business_id = ${db.businessId} and role = 'owner' order by name, id`,
  );

/** People by id, for what is done in their names later. */
export const peopleByIds = (db: Db, ids: readonly string[]): Promise<{ id: string; name: string }[]> =>
  ids.length === 0
    ? Promise.resolve([])
    : many(db, sql`select id, name from people where business_id = ${db.businessId} and id = any(${[...ids]})`);

/** The same of one person. */
export const personById = async (db: Db, id: string): Promise<{ name: string } | null> =>
  id ? ((await peopleByIds(db, [id]))[0] ?? null) : null;
