import type { ExtraRight, Role } from '@/core/person/rights';
import type { Db, Tx } from './pool';
import { many, maybeOne, run, sql } from './sql';

/** Somebody who is asked to work here. `nonce` is what the link of the latest mail is worked out from. */
export type Invitation = {
  readonly id: string;
  readonly email: string;
  readonly role: Role;
  readonly extra: readonly ExtraRight[];
  readonly byName: string;
  readonly nonce: string;
  readonly madeAt: Date;
  readonly goodUntil: Date;
  readonly state: 'open' | 'accepted' | 'withdrawn';
};

const INVITATION = sql`id, email, role, extra, by_name as "byName", nonce, made_at as "madeAt", good_until as "goodUntil", state`;

/** Writes an invitation down. One to an address that is invited already breaks `invitations_open_unique`. */
export const insertInvitation = (tx: Tx, one: Omit<Invitation, 'madeAt' | 'state'>): Promise<number> =>
  run(
    tx,
    sql`insert into invitations (id, business_id, email, role, extra, by_name, nonce, made_at, good_until)
        values (${one.id}, ${tx.businessId}, ${one.email}, ${one.role}, ${[...one.extra]}, ${one.byName}, ${one.nonce}, ${tx.now},
          ${one.goodUntil})`,
  );

export const openInvitations = (db: Db): Promise<Invitation[]> =>
  many(
    db,
    sql`select ${INVITATION} from invitations where business_id = ${db.businessId} and state = 'open' order by made_at, id`,
  );

export const invitationById = (db: Db, id: string): Promise<Invitation | null> =>
  maybeOne(db, sql`select ${INVITATION} from invitations where business_id = ${db.businessId} and id = ${id}`);

/** The same, held until the transaction ends. */
export const lockedInvitation = (tx: Tx, id: string): Promise<Invitation | null> =>
  maybeOne(
    tx,
    sql`select ${INVITATION} from invitations where business_id = ${tx.businessId} and id = ${id} for update`,
  );

/** A new link and a new week; the link of before is good no longer. */
export const renewInvitation = (tx: Tx, id: string, nonce: string, goodUntil: Date): Promise<number> =>
  run(
    tx,
    sql`update invitations set nonce = ${nonce}, good_until = ${goodUntil} where business_id = ${tx.businessId} and id = ${id}`,
  );

export const endInvitation = (tx: Tx, id: string, state: 'accepted' | 'withdrawn'): Promise<number> =>
  run(tx, sql`update invitations set state = ${state} where business_id = ${tx.businessId} and id = ${id}`);
