import type { ActsAs, ExtraRight, Right, Role } from '@/core/person/rights';
import type { Writing } from '@/core/writing/writing';
import type { Connection, Db, Tx } from './pool';
import { many, maybeOne, one, run, sql } from './sql';

/** Somebody signed in: who, of which business, allowed what. */
export type Actor = {
  readonly businessId: string;
  readonly personId: string;
  readonly name: string;
  readonly role: ActsAs;
  readonly extra: readonly (Right | ExtraRight)[];
  /** Since when they last showed who they are, in seconds of the computer's own time. */
  readonly provedSeconds: number;
  /** Whether the business asks for a second step and they have none. */
  readonly lacksStep: boolean;
  /** Whether the business is closed: what is there can be looked at, and nothing more is written. */
  readonly closed: boolean;
  /** How they write days and numbers, where not as the business does. */
  readonly writing?: Writing;
};

export type SignInCandidate = {
  readonly personId: string;
  readonly businessId: string;
  readonly passwordHash: string;
  /** Whether the address is known to be theirs. */
  readonly confirmed: boolean;
};

/**
 * Whoever may sign in with this address, in whichever business: the one person whose it is; while it is nobody's, the latest few who
 * say so. Outside any business.
 */
export const signInCandidates = (db: Connection, email: string): Promise<SignInCandidate[]> =>
  many(
    db,
    sql`select person_id as "personId", business_id as "businessId", password_hash as "passwordHash", confirmed
        from sign_in_candidates(${email})`,
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
    sql`select person_id as "personId", business_id as "businessId", name, role, extra, unused_seconds as "unusedSeconds",
          proved_seconds as "provedSeconds", lacks_step as "lacksStep", closed,
          jsonb_build_object('days', day_way, 'numbers', number_way) as writing
        from session_holder(${begins}, ${hash}, ${at}, make_interval(secs => ${idleSeconds}))`,
  );

/** Notes that a session is used. */
export const touchSession = (tx: Tx, tokenHash: Buffer): Promise<number> =>
  run(tx, sql`update sessions set used_at = now() where business_id = ${tx.businessId} and token_hash = ${tokenHash}`);

/** Notes that whoever has a session has just shown who they are. */
export const noteProved = (tx: Tx, tokenHash: Buffer): Promise<number> =>
  run(
    tx,
    sql`update sessions set proved_at = now() where business_id = ${tx.businessId} and token_hash = ${tokenHash}`,
  );

export async function passwordHashOf(db: Db, personId: string): Promise<string | null> {
  const row = await maybeOne<{ hash: string }>(
    db,
    sql`select password_hash as hash from people where business_id = ${db.businessId} and id = ${personId}`,
  );
  return row?.hash ?? null;
}

/** Gives a person a new password, at all their desks; their sessions at other businesses end. */
export async function updatePassword(tx: Tx, personId: string, passwordHash: string): Promise<void> {
  await run(
    tx,
    sql`update people set password_hash = ${passwordHash} where business_id = ${tx.businessId} and id = ${personId}`,
  );
  await run(tx, sql`select set_password_elsewhere(${personId}, ${passwordHash})`);
}

export const writingOf = (db: Db, personId: string): Promise<Writing> =>
  one(
    db,
    sql`select day_way as days, number_way as numbers from people where business_id = ${db.businessId} and id = ${personId}`,
  );

/** Keeps how a person writes days and numbers, at all their desks. */
export async function updateWriting(tx: Tx, personId: string, { days, numbers }: Writing): Promise<void> {
  await run(
    tx,
    sql`update people set day_way = ${days}, number_way = ${numbers} where business_id = ${tx.businessId} and id = ${personId}`,
  );
  await run(tx, sql`select set_writing_elsewhere(${personId}, ${days}, ${numbers})`);
}

/** Ends every session of a person but one. */
export const endOtherSessions = (tx: Tx, personId: string, keptHash: Buffer): Promise<number> =>
  run(
    tx,
    sql`delete from sessions where business_id = ${tx.businessId} and person_id = ${personId} and token_hash <> ${keptHash}`,
  );

/** Ends the sessions that a person has in other businesses. */
export const endSessionsElsewhere = (tx: Tx, personId: string): Promise<number> =>
  run(tx, sql`select end_sessions_elsewhere(${personId})`);

export const insertSession = (
  tx: Tx,
  session: {
    tokenHash: Buffer;
    businessId: string;
    personId: string;
    createdAt: Date;
    expiresAt: Date;
    /** Which program, from which network address. */
    agent: string;
    address: string;
    /** Since when its person showed who they are. */
    provedSeconds: number;
  },
): Promise<number> =>
  run(
    tx,
    sql`insert into sessions (token_hash, business_id, person_id, created_at, expires_at, agent, address, proved_at)
        values (${session.tokenHash}, ${session.businessId}, ${session.personId}, ${session.createdAt}, ${session.expiresAt},
          ${session.agent}, ${session.address}, now() - make_interval(secs => ${session.provedSeconds}))`,
  );

/** Where somebody is signed in; `usedAt` is the computer's own time. */
export type Session = {
  readonly tokenHash: Buffer;
  readonly createdAt: Date;
  readonly usedAt: Date;
  readonly agent: string;
  readonly address: string;
};

/** A person's open sessions, the last used first. @param idleSeconds one that was not used for so long has ended */
export const sessionsOf = (db: Db, personId: string, idleSeconds: number): Promise<Session[]> =>
  many(
    db,
    sql`select token_hash as "tokenHash", created_at as "createdAt", used_at as "usedAt", agent, address from sessions
        where business_id = ${db.businessId} and person_id = ${personId} and expires_at > ${db.now}
          and used_at > now() - make_interval(secs => ${idleSeconds})
        order by used_at desc, created_at desc`,
  );

/** Ends one session, and clears away the person's expired ones. */
export const endSession = (tx: Tx, personId: string, tokenHash: Buffer): Promise<number> =>
  run(
    tx,
    sql`delete from sessions where business_id = ${tx.businessId} and person_id = ${personId}
        and (token_hash = ${tokenHash} or expires_at <= ${tx.now})`,
  );

type NewPerson = {
  id: string;
  businessId: string;
  name: string;
  email: string;
  role: Role;
  extra?: readonly ExtraRight[];
  passwordHash: string;
};

/** Writes a person down whose address is known to be theirs, and signs them in to other businesses perhaps. */
export async function insertPerson(tx: Tx, person: NewPerson): Promise<void> {
  await writePerson(tx, person);
  await run(
    tx,
    sql`insert into sign_in_names (email_key, business_id, person_id)
        values (lower(${person.email}), ${person.businessId}, ${person.id})`,
  );
}

/** Writes a person down who has yet to show that the address is theirs. */
export async function insertUnconfirmed(tx: Tx, person: NewPerson): Promise<void> {
  await writePerson(tx, person);
  await run(
    tx,
    sql`insert into unconfirmed_names (email_key, business_id, person_id, created_at)
        values (lower(${person.email}), ${person.businessId}, ${person.id}, ${tx.now})`,
  );
}

/** Whether a person has yet to show that their address is theirs. */
export const isUnconfirmed = async (db: Db, personId: string): Promise<boolean> =>
  (await maybeOne(
    db,
    sql`select 1 as yes from unconfirmed_names where business_id = ${db.businessId} and person_id = ${personId}`,
  )) !== null;

/** Gives a person who has not confirmed theirs another address. */
export async function changeUnconfirmed(tx: Tx, personId: string, email: string): Promise<void> {
  await run(
    tx,
    sql`update unconfirmed_names set email_key = lower(${email}) where business_id = ${tx.businessId} and person_id = ${personId}`,
  );
  await run(tx, sql`update people set email = ${email} where business_id = ${tx.businessId} and id = ${personId}`);
}

/** Makes an address its person's alone; false where it signs in somebody else already. */
export async function claimName(tx: Tx, personId: string, email: string): Promise<boolean> {
  const row = await one<{ claimed: boolean }>(tx, sql`select claim_name(${personId}, ${email}) as claimed`);
  return row.claimed;
}

async function writePerson(tx: Tx, person: NewPerson): Promise<void> {
  await run(
    tx,
    sql`insert into people (id, business_id, name, email, role, extra, password_hash, created_at)
        values (${person.id}, ${person.businessId}, ${person.name}, ${person.email}, ${person.role}, ${[...(person.extra ?? [])]},
          ${person.passwordHash}, ${tx.now})`,
  );
}

/** Ends every session of a person. */
export const endSessionsOf = (tx: Tx, personId: string): Promise<number> =>
  run(tx, sql`delete from sessions where business_id = ${tx.businessId} and person_id = ${personId}`);

export type DemoPerson = {
  readonly name: string;
  readonly email: string;
  readonly role: Role;
  readonly business: string;
};

/** The people whom the demo's sign-in page offers. */
export const demoPeople = (db: Connection): Promise<DemoPerson[]> =>
  many(db, sql`select name, email, role, business from demo_people()`);

/** Somebody of the business, with the address with which they sign in. */
export type Person = { readonly id: string; readonly name: string; readonly email: string };

export const personWithEmail = (db: Db, personId: string): Promise<Person | null> =>
  maybeOne(db, sql`select id, name, email from people where business_id = ${db.businessId} and id = ${personId}`);

/** Who of the business has an address. */
export const personByEmail = (db: Db, email: string): Promise<(Person & { readonly leftAt: Date | null }) | null> =>
  maybeOne(
    db,
    sql`select id, name, email, left_at as "leftAt" from people where business_id = ${db.businessId} and lower(email) = lower(${email})`,
  );

/** Everybody who owns the business. */
export const ownersOf = (db: Db): Promise<{ id: string; name: string; email: string }[]> =>
  many(
    db,
    sql`select id, name, email from people where business_id = ${db.businessId} and role = 'owner' and left_at is null order by name, id`,
  );

/** Everybody who works here. */
export const everybodyHere = (db: Db): Promise<{ id: string; name: string; email: string }[]> =>
  many(
    db,
    sql`select id, name, email from people where business_id = ${db.businessId} and left_at is null order by name, id`,
  );

/** Everybody who works here, or did. */
export type Colleague = Person & {
  readonly role: Role;
  readonly extra: readonly ExtraRight[];
  readonly createdAt: Date;
  readonly leftAt: Date | null;
  /** When they last used it, in the computer's own time; null while they are signed in nowhere. */
  readonly usedAt: Date | null;
  /** Whether they have a second step when signing in. */
  readonly hasStep: boolean;
};

const COLLEAGUE = sql`id, name, email, role, extra, created_at as "createdAt", left_at as "leftAt",
  (select max(used_at) from sessions where sessions.business_id = people.business_id and person_id = people.id) as "usedAt",
  id in (select people_with_step()) as "hasStep"`;

export const colleagues = (db: Db): Promise<Colleague[]> =>
  many(
    db,
    sql`select ${COLLEAGUE} from people where business_id = ${db.businessId} order by left_at is not null, created_at, id`,
  );

/** One of them, held until the transaction ends. */
export const lockedColleague = (tx: Tx, id: string): Promise<Colleague | null> =>
  maybeOne(tx, sql`select ${COLLEAGUE} from people where business_id = ${tx.businessId} and id = ${id} for update`);

export const updateRights = (
  tx: Tx,
  id: string,
  { role, extra }: { readonly role: Role; readonly extra: readonly ExtraRight[] },
): Promise<number> =>
  run(
    tx,
    sql`update people set role = ${role}, extra = ${[...extra]} where business_id = ${tx.businessId} and id = ${id}`,
  );

/** Notes that somebody is not here any more, and ends their sessions and their way in; what they made keeps their name. */
export async function letGo(tx: Tx, id: string): Promise<void> {
  await run(tx, sql`delete from sign_in_names where business_id = ${tx.businessId} and person_id = ${id}`);
  await run(tx, sql`update people set left_at = ${tx.now} where business_id = ${tx.businessId} and id = ${id}`);
  await endSessionsOf(tx, id);
}

/** Takes somebody back who left: their name, rights and password as they are now. */
export async function takeBack(tx: Tx, id: string, person: Omit<NewPerson, 'id' | 'businessId'>): Promise<void> {
  await run(
    tx,
    sql`insert into sign_in_names (email_key, business_id, person_id) values (lower(${person.email}), ${tx.businessId}, ${id})
        on conflict do nothing`,
  );
  await run(
    tx,
    sql`update people set left_at = null, name = ${person.name}, role = ${person.role}, extra = ${[...(person.extra ?? [])]},
          password_hash = ${person.passwordHash}
        where business_id = ${tx.businessId} and id = ${id}`,
  );
}

/** Where else a person works under the same address. */
export type OtherDesk = {
  readonly businessId: string;
  readonly personId: string;
  readonly business: string;
  readonly role: Role;
};

export const otherDesks = (db: Db, personId: string): Promise<OtherDesk[]> =>
  many(
    db,
    sql`select business_id as "businessId", person_id as "personId", business, role from other_desks(${personId})`,
  );

/** People by id, for what is done in their names later. */
export const peopleByIds = (db: Db, ids: readonly string[]): Promise<{ id: string; name: string }[]> =>
  ids.length === 0
    ? Promise.resolve([])
    : many(db, sql`select id, name from people where business_id = ${db.businessId} and id = any(${[...ids]})`);

/** The same of one person. */
export const personById = async (db: Db, id: string): Promise<{ name: string } | null> =>
  id ? ((await peopleByIds(db, [id]))[0] ?? null) : null;
