/** The worker program: runs what the application has enqueued, and says that it is alive. */
import { keepAlive } from '@/db/worker-life';
import { errorTrace, log } from '@/outside/log';
import { requireSettings } from '@/outside/settings';
import { startLanes } from './lanes';

requireSettings('worker');
// The proof of the books reads whole tables.
process.env.DATABASE_STATEMENT_MS ??= '900000';

// What the queue's library does not catch (a database that goes away while it notes a failure) leaves jobs held by nobody who works on
// them: the program ends, its jobs are given back, and whoever supervises it starts it again.
process.on('unhandledRejection', (error) => {
  log.fatal(errorTrace(error), 'the worker ends, to be started again');
  process.exit(1);
});

const running = await startLanes();
const stopBeating = keepAlive(
  running.queue,
  () => [...running.held],
  (error) => log.error(errorTrace(error), 'the beat failed'),
);
log.info('worker ready');

for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.once(signal, () => {
    stopBeating();
    const end = () => process.exit(0);
    running.stop().then(end, end);
    // Ctrl+C twice, or a job that hangs: it runs again after the restart.
    setTimeout(end, 5000).unref();
  });
}
