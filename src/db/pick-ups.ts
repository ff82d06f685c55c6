import type { CalendarDate } from '@/core/dates/calendar-date';
import type { Db, Tx } from './pool';
import { many, run, sql } from './sql';

/** A day on which the carrier comes. */
export type PickUp = {
  readonly id: string;
  readonly on: CalendarDate;
  readonly parcels: number;
  readonly grams: number;
  readonly state: 'asked' | 'ordered' | 'refused';
  readonly number: string;
  readonly words: string;
  readonly byName: string;
};

/** Notes that it is asked to come, once for its id. */
export const insertPickUp = (
  tx: Tx,
  { id, on, parcels, grams, byName }: Pick<PickUp, 'id' | 'on' | 'parcels' | 'grams' | 'byName'>,
) =>
  run(
    tx,
    sql`insert into pick_ups (business_id, id, pick_up_on, parcels, grams, state, at, by_name)
        values (${tx.businessId}, ${id}, ${on}, ${parcels}, ${grams}, 'asked', ${tx.now}, ${byName}) on conflict do nothing`,
  );

export const updatePickUp = (
  tx: Tx,
  id: string,
  { state, number, words }: Pick<PickUp, 'state' | 'number' | 'words'>,
): Promise<number> =>
  run(
    tx,
    sql`update pick_ups set state = ${state}, number = ${number}, words = ${words}
        where business_id = ${tx.businessId} and id = ${id} and state = 'asked'`,
  );

/** Pick-ups from a day on, the next first; refused ones left out. */
export const pickUpsFrom = (db: Db, on: CalendarDate): Promise<PickUp[]> =>
  many(
    db,
    sql`select id, pick_up_on as on, parcels, grams, state, number, words, by_name as "byName" from pick_ups
        where business_id = ${db.businessId} and pick_up_on >= ${on} and state <> 'refused' order by pick_up_on, at limit 10`,
  );
