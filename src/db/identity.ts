/** Who stands behind a business: members, their pictures (encrypted), and what the office was asked. */
import type { CheckReason, CheckState, Member, Side } from '@/core/identity/identity';
import type { Db, Tx } from './pool';
import { many, maybeOne, NONE, run, sql } from './sql';

export const identityMembers = (db: Db): Promise<Member[]> =>
  many(
    db,
    sql`select id, name, born, country, position, share, acts from identity_members where business_id = ${db.businessId} order by place`,
  );

/** Writes members in the place of those before; pictures of who stays, stay. */
export async function replaceMembers(tx: Tx, members: readonly Member[]): Promise<void> {
  await run(
    tx,
    sql`delete from identity_members where business_id = ${tx.businessId} and id <> all(${members.map(({ id }) => id)}::uuid[])`,
  );
  for (const [place, { id, name, born, country, position, share, acts }] of members.entries())
    await run(
      tx,
      sql`insert into identity_members (business_id, id, place, name, born, country, position, share, acts)
          values (${tx.businessId}, ${id}, ${place}, ${name}, ${born}, ${country}, ${position}, ${share}, ${acts})
          on conflict (business_id, id) do update set place = excluded.place, name = excluded.name, born = excluded.born,
            country = excluded.country, position = excluded.position, share = excluded.share, acts = excluded.acts`,
    );
}

/** Which pictures there are. */
export type PictureThere = { readonly memberId: string; readonly side: Side };

export const picturesThere = (db: Db): Promise<PictureThere[]> =>
  many(
    db,
    sql`select member_id as "memberId", side from identity_pictures where business_id = ${db.businessId} order by member_id, side`,
  );

/** A picture, encrypted; null where there is none. */
export const sealedPicture = async (db: Db, { memberId, side }: PictureThere): Promise<Buffer | null> =>
  (
    await maybeOne<{ sealed: Buffer }>(
      db,
      sql`select sealed from identity_pictures where business_id = ${db.businessId} and member_id = ${memberId} and side = ${side}`,
    )
  )?.sealed ?? null;

/** Keeps a picture in the place of the one before. */
export const keepPicture = (tx: Tx, { memberId, side }: PictureThere, sealed: Buffer): Promise<number> =>
  run(
    tx,
    sql`insert into identity_pictures (business_id, member_id, side, sealed, made_at)
        values (${tx.businessId}, ${memberId}, ${side}, ${sealed}, ${tx.now})
        on conflict (business_id, member_id, side) do update set sealed = excluded.sealed, made_at = excluded.made_at`,
  );

/** Takes all pictures away for good. */
export const forgetPictures = (tx: Tx): Promise<number> =>
  run(tx, sql`delete from identity_pictures where business_id = ${tx.businessId}`);

/** What the office was asked, and what it said. */
export type IdentityCheck = {
  readonly id: string;
  readonly state: CheckState;
  readonly reason: CheckReason | null;
  readonly sentAt: Date;
  readonly byName: string;
  readonly decidedAt: Date | null;
  readonly actAt: Date | null;
};

/** The last of them; null before the first. @param locked held until the transaction ends */
export const latestCheck = (db: Db, locked = false): Promise<IdentityCheck | null> =>
  maybeOne(
    db,
    sql`select id, state, reason, sent_at as "sentAt", by_name as "byName", decided_at as "decidedAt", act_at as "actAt"
        from identity_checks where business_id = ${db.businessId} order by sent_at desc, id limit 1 ${locked ? sql`for update` : NONE}`,
  );

/** Sends what is told and shown; of what was sent before, nothing is left to do. */
export async function insertCheck(tx: Tx, { id, byName }: Pick<IdentityCheck, 'id' | 'byName'>): Promise<void> {
  await run(
    tx,
    sql`update identity_checks set act_at = null where business_id = ${tx.businessId} and act_at is not null`,
  );
  await run(
    tx,
    sql`insert into identity_checks (business_id, id, state, sent_at, by_name, act_at)
        values (${tx.businessId}, ${id}, 'checking', ${tx.now}, ${byName}, ${tx.now})`,
  );
}

/** How many were sent since a moment. */
export const checksSince = async (db: Db, since: Date): Promise<number> =>
  (
    await maybeOne<{ n: number }>(
      db,
      sql`select count(*)::int as n from identity_checks where business_id = ${db.businessId} and sent_at > ${since}`,
    )
  )?.n ?? 0;

export const updateCheck = (
  tx: Tx,
  id: string,
  { state, reason, decidedAt, actAt }: Pick<IdentityCheck, 'state' | 'reason' | 'decidedAt' | 'actAt'>,
): Promise<number> =>
  run(
    tx,
    sql`update identity_checks set state = ${state}, reason = ${reason}, decided_at = ${decidedAt}, act_at = ${actAt}
        where business_id = ${tx.businessId} and id = ${id}`,
  );
