/** What falls upon a running Dahlia: programs killed and stopped, the database crashed, cut off and without room, services with bad manners, clocks that jump. */
import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync, rmSync, statfsSync } from 'node:fs';
import { join } from 'node:path';
import pg from 'pg';
import { type ProgramName, startDatabase } from '../../../bin/stack/programs';
import { CARD_MANNERS, type CardManner, MAIL_MANNERS, type MailManner, type Rude } from '../../support/manners';
import type { Stack } from '../../support/stack';
import { pause } from '../../support/until';

export const BLOWS = [
  'kill web',
  'kill worker',
  'kill stand-ins',
  'stop web',
  'stop worker',
  'stop stand-ins',
  'crash database',
  'cut connections',
  'fill disk',
  ...CARD_MANNERS.map((manner) => `cards: ${manner}` as const),
  ...MAIL_MANNERS.map((manner) => `mail: ${manner}` as const),
  'clock forth',
  'clock back',
] as const;
export type Blow = (typeof BLOWS)[number];

/** What blows fall upon. */
export type Under = {
  readonly stack: Stack;
  /** Where the database lives; `disk` is a file system of its own that can be filled, null where this computer allows none. */
  readonly database: { readonly folder: string; readonly disk: string | null };
  readonly cards: Rude<CardManner>;
  readonly mail: Rude<MailManner>;
};

const program: Readonly<Record<string, ProgramName>> = { web: 'web', worker: 'worker', 'stand-ins': 'standins' };

/** Ends the database server on the spot and starts it again. @param folder where it lives */
export async function crashDatabase(folder: string): Promise<void> {
  const pidFile = join(folder, 'pg/postmaster.pid');
  const pid = existsSync(pidFile) ? Number(readFileSync(pidFile, 'utf8').split('\n')[0]) : 0;
  if (pid > 0) {
    try {
      process.kill(pid, 'SIGQUIT');
      for (let waits = 0; waits < 200; waits++) {
        process.kill(pid, 0);
        await pause(20);
      }
    } catch {
      // It is gone.
    }
  }
  await startAgain(folder);
}

/** Starts the server, which may need some tries while what was left of the last one goes away. */
async function startAgain(folder: string): Promise<void> {
  for (let tries = 0; ; tries++) {
    try {
      startDatabase(folder);
      return;
    } catch (error) {
      if (tries === 20) throw error;
      await pause(300);
    }
  }
}

async function cutConnections(admin: string): Promise<void> {
  const client = new pg.Client({ connectionString: admin });
  client.on('error', () => undefined);
  try {
    await client.connect();
    await client.query(
      'select pg_terminate_backend(pid) from pg_stat_activity where pid <> pg_backend_pid() and datname is not null',
    );
  } catch {
    // It has just crashed: nobody is connected.
  } finally {
    await client.end().catch(() => undefined);
  }
}

/** Nothing can be written for a while; afterwards there is room again, and the server goes on or is started. */
async function fillDisk({ folder, disk }: Under['database'], ms: number): Promise<void> {
  if (!disk) return crashDatabase(folder);
  const ballast = join(disk, 'ballast');
  const { bavail, bsize } = statfsSync(disk);
  try {
    execFileSync('fallocate', ['-l', String(Math.max(1, (bavail - 8) * bsize)), ballast], { stdio: 'ignore' });
  } catch {
    // The last pieces were taken by somebody else meanwhile: it is full all the same.
  }
  await pause(ms);
  rmSync(ballast, { force: true });
  await startAgain(folder);
}

const moveClock = async (standIns: string, days: number): Promise<void> => {
  await fetch(`${standIns}/clock`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ advanceDays: days }),
  }).catch(() => undefined);
};

/** Misbehaves in one way for the next so many calls. */
function rudeFor<Manner>(rude: Rude<Manner>, manner: Manner, calls: number): void {
  let left = calls;
  rude.behave(() => (left-- > 0 ? manner : null));
}

/** One blow; resolves when whatever was struck stands again. */
export async function strike(under: Under, blow: Blow, chance: () => number): Promise<void> {
  const { stack } = under;
  const [verb = '', rest = ''] = blow.split(/: | (.*)/).filter(Boolean);
  if (blow.startsWith('cards: ')) return rudeFor(under.cards, rest as CardManner, 1 + Math.floor(chance() * 6));
  if (blow.startsWith('mail: ')) return rudeFor(under.mail, rest as MailManner, 1 + Math.floor(chance() * 4));
  switch (verb) {
    case 'kill':
      return stack.killAndRestart(program[rest] ?? 'web');
    case 'stop': {
      const name = program[rest] ?? 'web';
      stack.signal(name, 'SIGSTOP');
      await pause(200 + chance() * 1500);
      return stack.signal(name, 'SIGCONT');
    }
    case 'crash':
      return crashDatabase(under.database.folder);
    case 'cut':
      return cutConnections(stack.admin);
    case 'fill':
      return fillDisk(under.database, 300 + chance() * 700);
    default:
      // A day on brings what is due; back by a part of it, as a clock that was set wrong.
      return moveClock(stack.standIns, blow === 'clock forth' ? 1 : -chance() * 0.3);
  }
}

/** Everybody behaves again. */
export function makePeace({ cards, mail }: Under): void {
  cards.behave(() => null);
  mail.behave(() => null);
}
