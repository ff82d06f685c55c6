/** The worker program: runs what the application has enqueued. */
import { EventEmitter } from 'node:events';
import { Logger, run, type WorkerEvents } from 'graphile-worker';
import { keepAlive, queuePool } from '@/db/worker-life';
import { errorTrace, log } from '@/outside/log';
import { crontab, tasks } from './tasks';

const concurrency = Number(process.env.WORKER_CONCURRENCY ?? 4);
const queue = queuePool(concurrency + 3);
const events = new EventEmitter() as WorkerEvents;
const workers = new Set<string>();
// Jobs are held under the id of the pool of workers, not of a single one.
events.on('pool:create', ({ workerPool }) => workers.add(workerPool.id));
events.on('job:failed', ({ job, error }) => {
  log.error({ job: job.id, task: job.task_identifier, attempt: job.attempts, ...errorTrace(error) }, 'job given up');
});
events.on('job:error', ({ job, error }) => {
  log.warn(
    { job: job.id, task: job.task_identifier, attempt: job.attempts, ...errorTrace(error) },
    'job will be tried again',
  );
});

const runner = await run({
  pgPool: queue,
  concurrency,
  pollInterval: 1000,
  taskList: tasks,
  crontab,
  events,
  noHandleSignals: true,
  logger: new Logger(() => () => undefined),
});
const stopBeating = keepAlive(
  queue,
  () => [...workers],
  (error) => log.error(errorTrace(error), 'the beat failed'),
);
log.info('worker ready');

for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.once(signal, () => {
    stopBeating();
    const end = () => process.exit(0);
    runner.stop().then(end, end);
    // Ctrl+C twice, or a job that hangs: it runs again after the restart.
    setTimeout(end, 5000).unref();
  });
}
