import type { Db, Tx } from './pool';
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
export const signInCandidate = (db: Db, email: string): Promise<SignInCandidate | null> =>
  maybeOne(
    db,
    sql`select person_id as "personId", business_id as "businessId", password_hash as "passwordHash"
        from sign_in_candidate(${email})`,
  );

/** Whose session this token hash is, if it has not ended. Outside any business. */
export const sessionHolder = (db: Db, tokenHash: Buffer, at: Date): Promise<Actor | null> =>
  maybeOne(
    db,
    sql`select person_id as "personId", business_id as "businessId", name, role from session_holder(${tokenHash}, ${at})`,
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
export const endSession = (tx: Tx, actor: Actor, tokenHash: Buffer, at: Date): Promise<number> =>
  run(
    tx,
    sql`delete from sessions where business_id = ${actor.businessId} and person_id = ${actor.personId}
        and (token_hash = ${tokenHash} or expires_at <= ${at})`,
  );

export const insertPerson = (
  tx: Tx,
  person: { id: string; businessId: string; name: string; email: string; role: Role; passwordHash: string },
  at: Date,
): Promise<number> =>
  run(
    tx,
    sql`insert into people (id, business_id, name, email, role, password_hash, created_at)
        values (${person.id}, ${person.businessId}, ${person.name}, ${person.email}, ${person.role}, ${person.passwordHash}, ${at})`,
  );

export type DemoPerson = {
  readonly name: string;
  readonly email: string;
  readonly role: Role;
  readonly business: string;
};

/** The people whom the demo's sign-in page offers. */
export const demoPeople = (db: Db): Promise<DemoPerson[]> =>
  many(db, sql`select name, email, role, business from demo_people()`);

/** The address with which a person signs in. */
export async function emailOf(db: Db, businessId: string, personId: string): Promise<string> {
  const row = await maybeOne<{ email: string }>(
    db,
    sql`select email from people where business_id = ${businessId} and id = ${personId}`,
  );
  return row?.email ?? '';
}

/** A person by id, for what is done in their name later. */
export const personById = (db: Db, businessId: string, id: string): Promise<{ name: string } | null> =>
  id
    ? maybeOne(db, sql`select name from people where business_id = ${businessId} and id = ${id}`)
    : Promise.resolve(null);
