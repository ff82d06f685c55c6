import type { Db, Tx } from './pool';
import { many, maybeOne, run, sql } from './sql';

/** The tasks that the worker knows, with what each is told. */
export type Tasks = {
  'hand-over-message': { businessId: string; messageId: string };
  'settle-payment': { businessId: string; paymentId: string };
  'settle-refund': { businessId: string; refundId: string };
  'charge-due': { businessId: string };
  'run-batch': { businessId: string; batchId: string };
};

/**
 * Adds a job in the transaction that causes it. A second enqueue under the same key is harmless.
 *
 * @param delaySeconds real seconds from now; outside services live in real time, whatever the business's clock says
 */
export async function enqueueJob<Task extends keyof Tasks>(
  tx: Tx,
  task: Task,
  key: string,
  payload: Tasks[Task],
  delaySeconds = 0,
): Promise<void> {
  await run(
    tx,
    sql`select enqueue_job(${task}, ${JSON.stringify(payload)}::jsonb, ${key}, now() + make_interval(secs => ${delaySeconds}))`,
  );
}

/** Tells every listening process, when this transaction commits, that rows of the business have changed. */
export const announce = (tx: Tx, businessId: string): Promise<number> =>
  run(tx, sql`select pg_notify('dahlia_changed', ${businessId})`);

/** Workers say that they are alive; real time, as of the database's clock. */
export const beat = (db: Db, workers: readonly string[]): Promise<number> =>
  run(
    db,
    sql`insert into worker_beats (worker, beaten_at) select worker, now() from unnest(${[...workers]}::text[]) as worker
        on conflict (worker) do update set beaten_at = excluded.beaten_at`,
  );

/** How many seconds ago any worker was last alive; null if none ever was. */
export async function secondsSinceBeat(db: Db): Promise<number | null> {
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
export async function releaseJobsOfTheDead(queue: Db, app: Db, seconds: number): Promise<void> {
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
