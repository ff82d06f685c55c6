import { type DeliverSettings, wholeDelivery } from '@/core/parcel/notice';
import type { ParcelProfile, ParcelRule } from '@/core/parcel/profile';
import type { Db, Tx } from './pool';
import { many, one, records, run, sql } from './sql';

/** How the business delivers. */
export const deliverSettings = async (db: Db): Promise<DeliverSettings> => {
  const { kept } = await one<{ kept: Partial<DeliverSettings> }>(
    db,
    sql`select delivering as kept from businesses where business_id = ${db.businessId}`,
  );
  return wholeDelivery(kept);
};

export const updateDeliverSettings = (tx: Tx, settings: DeliverSettings): Promise<number> =>
  run(tx, sql`update businesses set delivering = ${JSON.stringify(settings)} where business_id = ${tx.businessId}`);

/** The profiles in their order. @param all also those that are set aside, since parcels name them */
export const parcelProfiles = async (db: Db, all = false): Promise<ParcelProfile[]> => {
  const rows = await many<{ id: string; name: string; profile: Omit<ParcelProfile, 'id' | 'name'> }>(
    db,
    sql`select id, name, profile from parcel_profiles where business_id = ${db.businessId} and (${all} or not archived)
        order by archived, place, lower(name), id`,
  );
  return rows.map(({ id, name, profile }) => ({ ...profile, id, name }));
};

/** Keeps a profile, new (at the end) or changed. Returns how many rows that were. */
export const keepParcelProfile = (tx: Tx, { id, name, ...profile }: ParcelProfile): Promise<number> =>
  run(
    tx,
    sql`insert into parcel_profiles (business_id, id, place, name, profile)
        values (${tx.businessId}, ${id},
          (select coalesce(max(place), 0) + 1 from parcel_profiles where business_id = ${tx.businessId}), ${name}, ${JSON.stringify(profile)})
        on conflict (business_id, id) do update set name = excluded.name, profile = excluded.profile, archived = false`,
  );

export const archiveParcelProfile = (tx: Tx, id: string): Promise<number> =>
  run(
    tx,
    sql`update parcel_profiles set archived = true where business_id = ${tx.businessId} and id = ${id} and not archived`,
  );

/** The rules in the order in which they are tried. */
export const parcelRules = async (db: Db): Promise<ParcelRule[]> => {
  const rows = await many<{ id: string; rule: Omit<ParcelRule, 'id'> }>(
    db,
    sql`select id, rule from parcel_rules where business_id = ${db.businessId} order by place, id`,
  );
  return rows.map(({ id, rule }) => ({ ...rule, id }));
};

/** Puts rules in place of those there are. */
export async function replaceParcelRules(tx: Tx, rules: readonly ParcelRule[]): Promise<void> {
  await run(tx, sql`delete from parcel_rules where business_id = ${tx.businessId}`);
  const rows = rules.map(({ id, ...rule }, place) => ({ id, place, rule }));
  await run(
    tx,
    sql`insert into parcel_rules (business_id, id, place, rule)
        select ${tx.businessId}, id, place, rule from jsonb_to_recordset(${records(rows)}::jsonb) as given (id uuid, place int, rule jsonb)`,
  );
}
