import { EventEmitter } from 'node:events';
import { type Job, Logger, type Runner, run, type WorkerEvents } from 'graphile-worker';
import { queuePool } from '@/db/worker-life';
import { noteFailedJob, noteJobDone } from '@/flows/day/stuck-work';
import { errorTrace, log } from '@/outside/log';
import { crontab, LANES } from './tasks';

const businessOf = ({ payload }: Job): string | null =>
  typeof payload === 'object' && payload !== null && 'businessId' in payload ? String(payload.businessId) : null;

// What is being noted of each job: a failure that is written down late must not come after what says that it is done.
const noting = new Map<string, Promise<void>>();

/** Lets the business know, one thing after the other for each job; where even that fails, the log has it. */
function noted(key: string, note: () => Promise<void>): void {
  const turn = (noting.get(key) ?? Promise.resolve())
    .then(note)
    .catch((error) => log.error(errorTrace(error), 'a failed job could not be noted'))
    .finally(() => noting.get(key) === turn && noting.delete(key));
  noting.set(key, turn);
}

function failed(job: Job, error: unknown, givenUp: boolean): void {
  const about = { job: job.id, task: job.task_identifier, attempt: job.attempts, ...errorTrace(error) };
  if (givenUp) log.error(about, 'job given up');
  else log.warn(about, 'job will be tried again');
  const businessId = businessOf(job);
  if (!businessId || !job.key) return;
  const { key } = job;
  const payload = job.payload as Readonly<Record<string, unknown>>;
  noted(key, () => noteFailedJob(businessId, { key, task: job.task_identifier, payload, givenUp }));
}

/** What the log and the business hear of jobs. @param held gets the ids under which jobs are held */
function listening(held: Set<string>): WorkerEvents {
  const events = new EventEmitter() as WorkerEvents;
  // Jobs are held under the id of the pool of workers, not of a single one.
  events.on('pool:create', ({ workerPool }) => held.add(workerPool.id));
  events.on('job:failed', ({ job, error }) => failed(job, error, true));
  events.on('job:error', ({ job, error }) => {
    if (job.attempts < job.max_attempts) failed(job, error, false);
  });
  events.on('job:success', ({ job }) => {
    const businessId = businessOf(job);
    // A job that is put there anew every minute begins to count anew.
    const failedBefore = job.attempts > 1 || job.task_identifier.startsWith('due-');
    const { key } = job;
    if (businessId && key && failedBefore) noted(key, () => noteJobDone(businessId, key));
  });
  return events;
}

/** Lanes that run: the ids under which they hold jobs, their connections, and how to end them. */
export type Running = {
  readonly held: ReadonlySet<string>;
  readonly queue: ReturnType<typeof queuePool>;
  readonly stop: () => Promise<void>;
};

/** Runs what is enqueued, each lane in slots of its own. */
export async function startLanes(): Promise<Running> {
  const lanes = Object.entries(LANES);
  const slots = lanes.reduce((sum, [, lane]) => sum + lane.slots, 0);
  // Beside the slots: each lane listens on one, and the beat needs one.
  const queue = queuePool(slots + lanes.length + 2);
  const held = new Set<string>();
  const events = listening(held);
  const runners: Runner[] = await Promise.all(
    lanes.map(([name, lane]) =>
      run({
        pgPool: queue,
        concurrency: lane.slots,
        pollInterval: 1000,
        taskList: lane.tasks,
        ...(name === 'house' ? { crontab } : {}),
        events,
        noHandleSignals: true,
        logger: new Logger(() => () => undefined),
      }),
    ),
  );
  return {
    held,
    queue,
    stop: async () => {
      await Promise.all(runners.map((runner) => runner.stop()));
    },
  };
}
