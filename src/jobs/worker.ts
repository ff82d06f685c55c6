/** The worker program: runs what the application has enqueued, and says that it is alive. */
import { keepAlive } from '@/db/worker-life';
import { errorTrace, log } from '@/outside/log';
import { startLanes } from './lanes';

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
