import type { Concern } from './due-work';
import type { Connection, Tx } from './pool';
import { many, maybeOne, records, run, sql } from './sql';

/** The tasks that the worker knows, with what each is told. */
export type Tasks = {
  'hand-over-message': { businessId: string; messageId: string };
  'settle-payments': { businessId: string; paymentIds: readonly string[] };
  'answer-dispute': { businessId: string; disputeId: string };
  'settle-refund': { businessId: string; refundId: string };
  'due-work': { businessId: string; concern: Concern };
  'due-charges': { businessId: string; concern: Concern };
  'settle-card': { businessId: string; key: string };
  'buy-labels': { businessId: string; parcelIds: readonly string[] };
  'top-up-carrier': { businessId: string; key: string };
  'run-batch': { businessId: string; batchId: string };
  'tell-program': { businessId: string; deliveryId: string };
};

/** A job to be added: `key` makes a second one harmless, `delaySeconds` are real seconds from now. */
export type NewJob = {
  [Task in keyof Tasks]: {
    readonly task: Task;
    readonly key: string;
    readonly payload: Tasks[Task];
    readonly delaySeconds?: number;
  };
}[keyof Tasks];

/** Adds jobs in the transaction that causes them; outside services live in real time, whatever the business's clock says. */
export const enqueueJobs = (tx: Tx, jobs: readonly NewJob[]): Promise<void> => put(tx, jobs);

/** Puts a job back that was there before, as it was noted. */
export const putJobBack = (
  tx: Tx,
  job: { readonly task: string; readonly key: string; readonly payload: object },
): Promise<void> => put(tx, [job]);

async function put(tx: Tx, jobs: readonly object[]): Promise<void> {
  if (jobs.length === 0) return;
  await run(
    tx,
    sql`select enqueue_job(task, payload, key, now() + make_interval(secs => coalesce("delaySeconds", 0)))
        from jsonb_to_recordset(${records(jobs)}::jsonb) as given (task text, key text, payload jsonb, "delaySeconds" float8)`,
  );
}

/** Workers say that they are alive; real time, as of the database's clock. */
export const beat = (db: Connection, workers: readonly string[]): Promise<number> =>
  run(
    db,
    sql`insert into worker_beats (worker, beaten_at) select worker, now() from unnest(${[...workers]}::text[]) as worker
        on conflict (worker) do update set beaten_at = excluded.beaten_at`,
  );

/** The time at the database. */
export async function databaseTime(db: Connection): Promise<Date> {
  const row = await maybeOne<{ at: Date }>(db, sql`select now() as at`);
  if (!row) throw new Error('The database has no time');
  return row.at;
}

/** For how many seconds the oldest job has waited that could run, by task. Outside any business. */
export const waitingJobs = (db: Connection): Promise<{ task: string; seconds: number }[]> =>
  many(db, sql`select task, seconds from waiting_jobs()`);

/** How many seconds ago any worker was last alive; null if none ever was. */
export async function secondsSinceBeat(db: Connection): Promise<number | null> {
  const row = await maybeOne<{ seconds: number | null }>(
    db,
    sql`select extract(epoch from now() - max(beaten_at))::float8 as seconds from worker_beats`,
  );
  return row?.seconds ?? null;
}

/**
 * Gives back the jobs of workers that have died: whoever holds a job and has not been heard of for `seconds`.
 *
 * @param queue a connection as the jobs role
 */
export async function releaseJobsOfTheDead(queue: Connection, app: Connection, seconds: number): Promise<void> {
  const alive = await many<{ worker: string }>(
    app,
    sql`select worker from worker_beats where beaten_at > now() - make_interval(secs => ${seconds})`,
  );
  await run(
    queue,
    sql`select graphile_worker.force_unlock_workers(array(
          select distinct locked_by from graphile_worker._private_jobs
          where locked_by is not null and locked_at < now() - make_interval(secs => ${seconds})
            and locked_by <> all (${alive.map(({ worker }) => worker)}::text[])))`,
  );
}
