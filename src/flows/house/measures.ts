/** How the house is, in figures and in words: for whoever watches over it, and for people who wonder whether it is them. */
import { timingSafeEqual } from 'node:crypto';
import { secondsSinceBeat, waitingJobs } from '@/db/jobs';
import { poolFigures } from '@/db/pool';
import { anybody } from '@/flows/door/operation';
import { METRICS_TYPE, metricsText } from '@/outside/metrics';
import { type Health, health } from './health';

const isKey = (given: string): boolean => {
  const key = Buffer.from(process.env.METRICS_KEY ?? '');
  const asked = Buffer.from(given);
  return key.length > 0 && key.length === asked.length && timingSafeEqual(key, asked);
};

/** Figures for a program that watches; null for whoever does not have the key, or where none is set. */
export const measures = anybody().run(
  async (house, key: string): Promise<{ readonly type: string; readonly text: string } | null> => {
    if (!isKey(key)) return null;
    const parts = await health();
    const jobs = parts.database ? await house.outside(waitingJobs) : [];
    const beat = parts.database ? await house.outside(secondsSinceBeat) : null;
    const { all, idle, waiting } = poolFigures();
    const text = await metricsText([
      {
        name: 'dahlia_part_well',
        help: 'Whether a part is well: 1, or 0.',
        by: 'part',
        values: Object.entries(parts).map(([of, well]) => ({ of, value: well ? 1 : 0 })),
      },
      {
        name: 'dahlia_job_waiting_seconds',
        help: 'For how long the oldest job of a task has waited that could run.',
        by: 'task',
        values: jobs.map(({ task, seconds }) => ({ of: task, value: seconds })),
      },
      {
        name: 'dahlia_worker_silent_seconds',
        help: 'How long ago a worker was last alive.',
        values: beat === null ? [] : [{ value: beat }],
      },
      {
        name: 'dahlia_database_connections',
        help: 'Connections of this program, and requests that wait for one.',
        by: 'state',
        values: [
          { of: 'open', value: all },
          { of: 'idle', value: idle },
          { of: 'waited-for', value: waiting },
        ],
      },
    ]);
    return { type: METRICS_TYPE, text };
  },
);

/** What people notice of each part, in words for when it is not well. */
const NOTICED: Readonly<Record<keyof Health, string>> = {
  database: 'Nothing can be read or written at the moment.',
  worker: 'Mails, charges and payouts go out late.',
  cards: 'Cards cannot be charged at the moment; transfers and everything else work.',
  mail: 'Mails go out late.',
  disk: 'Files may not be taken at the moment.',
  queue: 'Mails, charges and payouts go out late.',
  clock: 'Times shown may be off by a little.',
};

/** What does not work, in words for people; empty where everything does. */
export const noticed = anybody().run(async (): Promise<string[]> => {
  const parts = await health();
  const not = (Object.keys(NOTICED) as (keyof Health)[]).filter((part) => !parts[part]);
  return [...new Set(not.map((part) => NOTICED[part]))];
});
