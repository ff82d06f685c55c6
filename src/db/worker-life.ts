import pg from 'pg';
import { beat, releaseJobsOfTheDead } from './jobs';
import { pool } from './pool';

const BEAT_MS = 2000;
const DEAD_AFTER_SECONDS = 12;

/** The queue's own connections, as the role that owns the jobs and sees no business. */
export function queuePool(connections: number): pg.Pool {
  const made = new pg.Pool({ connectionString: process.env.JOBS_DATABASE_URL, max: connections });
  made.on('error', () => undefined);
  made.on('connect', (client) => client.on('error', () => undefined));
  return made;
}

/**
 * Says every two seconds that these workers are alive, and gives back the jobs of those that were killed, which would
 * otherwise wait for hours.
 *
 * @param workers the ids under which jobs are held, as they are now
 */
export function keepAlive(
  queue: pg.Pool,
  workers: () => readonly string[],
  trouble: (error: unknown) => void,
): () => void {
  const turn = async () => {
    await beat(pool(), workers());
    await releaseJobsOfTheDead(queue, pool(), DEAD_AFTER_SECONDS);
  };
  const go = () => void turn().catch(trouble);
  go();
  const timer = setInterval(go, BEAT_MS);
  return () => clearInterval(timer);
}
