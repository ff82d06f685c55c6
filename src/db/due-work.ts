import type { Connection, Tx } from './pool';
import { many, run, sql } from './sql';

/** What the clock can bring to a business: each is looked for, done, and can fail, by itself. */
export const CONCERNS = [
  'timed-sending',
  'recurring',
  'reminders',
  'charges',
  'notices',
  'plan-reminders',
  'lapses',
  'parts',
  'cards',
  'closing',
  'payouts',
  'vouchers',
  'news',
  'parcels',
] as const;
export type Concern = (typeof CONCERNS)[number];

export type DueWork = { readonly businessId: string; readonly concern: Concern };

/** What has come due anywhere by an instant, found by the indexes of what is due. Outside any business. */
export const dueWork = (db: Connection, at: Date): Promise<DueWork[]> =>
  many(db, sql`select business_id as "businessId", concern from due_work(${at}) order by concern, business_id`);

/** Enqueues a job for each of it; one that waits already stays the only one. Outside any business: the database itself does it. */
export const enqueueDueWork = (db: Connection, at: Date): Promise<number> =>
  run(db, sql`select enqueue_due_work(${at})`);

/** Concerns that are looked at once a day rather than when a row of theirs has come due. */
export type DailyConcern = Extract<Concern, 'parts' | 'cards'>;

/** From now on a business is looked at for this, once a day. */
export const beginDailyLook = (tx: Tx, concerns: readonly DailyConcern[]): Promise<number> =>
  run(
    tx,
    sql`insert into daily_looks (business_id, concern, due_at)
        select ${tx.businessId}, concern, ${tx.now} from unnest(${[...concerns]}::text[]) as wanted (concern)
        on conflict (business_id, concern) do nothing`,
  );

/** The next look is at an instant. */
export const setNextLook = (tx: Tx, concern: DailyConcern, at: Date): Promise<number> =>
  run(tx, sql`update daily_looks set due_at = ${at} where business_id = ${tx.businessId} and concern = ${concern}`);
