import type { Connection, Db, Tx } from './pool';
import { many, maybeOne, run, sql } from './sql';

/** A job that failed again and again. */
export type StuckJob = {
  readonly key: string;
  readonly task: string;
  readonly payload: Readonly<Record<string, unknown>>;
  readonly failures: number;
  /** Whether it is tried no more. */
  readonly givenUp: boolean;
  readonly firstAt: Date;
};

const STUCK = sql`key, task, payload, failures, given_up as "givenUp", first_at as "firstAt"`;

/** Notes a failure of a job; given up once is given up until somebody tries again. */
export const noteFailure = (tx: Tx, job: Pick<StuckJob, 'key' | 'task' | 'payload' | 'givenUp'>): Promise<number> =>
  run(
    tx,
    sql`insert into stuck_jobs (business_id, key, task, payload, failures, given_up)
        values (${tx.businessId}, ${job.key}, ${job.task}, ${JSON.stringify(job.payload)}::jsonb, 1, ${job.givenUp})
        on conflict (business_id, key) do update set failures = stuck_jobs.failures + 1, last_at = now(),
          given_up = stuck_jobs.given_up or excluded.given_up`,
  );

/** The job is done, or begun anew: nothing is stuck any more. */
export const forgetFailures = (tx: Tx, key: string): Promise<number> =>
  run(tx, sql`delete from stuck_jobs where business_id = ${tx.businessId} and key = ${key}`);

/** What failed so often at least, or was given up; the oldest first. */
export const stuckJobs = (db: Db, failures: number, limit: number): Promise<StuckJob[]> =>
  many(
    db,
    sql`select ${STUCK} from stuck_jobs where business_id = ${db.businessId} and (failures >= ${failures} or given_up)
        order by first_at, key limit ${limit}`,
  );

export const stuckJob = (db: Db, key: string): Promise<StuckJob | null> =>
  maybeOne(db, sql`select ${STUCK} from stuck_jobs where business_id = ${db.businessId} and key = ${key}`);

/** Forgets the failures of all jobs that are done, of whatever business. Outside any business: the database itself does it. */
export const forgetDoneJobs = (db: Connection): Promise<number> => run(db, sql`select forget_done_jobs()`);
