/** The whole of Dahlia, built and running on its own database and ports, as people meet it. */
import { mkdtempSync } from 'node:fs';
import { join, resolve } from 'node:path';
import type { DatabaseUrls } from '@/db/migrate';
import { portFrom } from '../../bin/stack/ports';
import {
  type ProgramName,
  type StackOptions,
  stackEnvironment,
  superviseProgram,
  untilAnswers,
} from '../../bin/stack/programs';
import { DIST } from './built-application';
import { ownDatabase } from './database';

export type Stack = {
  readonly admin: string;
  readonly folder: string;
  readonly web: string;
  readonly standIns: string;
  /** Kills a program on the spot and starts it again; resolves when it answers. */
  readonly killAndRestart: (name: ProgramName) => Promise<void>;
  /** Sends a program a signal, as to stop it for a while. */
  readonly signal: (name: ProgramName, signal: NodeJS.Signals) => void;
  readonly close: () => Promise<void>;
};

const PROGRAMS: readonly ProgramName[] = ['standins', 'web', 'worker'];

/**
 * Starts all programs; this process also gets their settings, so that it can found a business in the same database.
 *
 * @param database where it lives; a copy of the tests' template unless said otherwise
 */
export async function startStack(
  more: Readonly<Record<string, string>> = {},
  database: () => Promise<DatabaseUrls & { admin: string }> = ownDatabase,
): Promise<Stack> {
  const urls = await database();
  // Two files that run side by side do not try for the same ports.
  const apart = 100 * (Number(process.env.VITEST_POOL_ID ?? 1) - 1);
  const folder = mkdtempSync(join(resolve('.data/test'), 'stack-'));
  const options: StackOptions = {
    folder,
    urls,
    webPort: await portFrom(5200 + apart),
    standInPort: await portFrom(5600 + apart),
    smtpPort: await portFrom(5900 + apart),
    distDir: DIST,
    more: {
      LOG_LEVEL: 'info',
      STANDINS_DELAY_MS: '20-60',
      STANDINS_WEBHOOK_DELAY_MS: '400',
      // Who gets no answer is told so by a line that breaks, not by a clock that a busy machine would beat.
      STANDINS_LATE_BREAKS_MS: '1500',
      CARDS_TIMEOUT_MS: '60000',
      ...more,
    },
  };
  const { NODE_ENV: _, ...settings } = stackEnvironment(options);
  // Who sets the clock here and goes on at once is in the new time.
  Object.assign(process.env, settings, { CLOCK_FRESH_MS: '0' });
  const web = `http://localhost:${options.webPort}`;
  const standIns = `http://127.0.0.1:${options.standInPort}`;
  const running = new Map<ProgramName, ReturnType<typeof superviseProgram>>();
  const start = async (name: ProgramName) => {
    running.set(name, superviseProgram(name, options));
    if (name === 'standins') await untilAnswers(`${standIns}/health`);
    if (name === 'web') await untilAnswers(`${web}/api/health`);
  };
  await Promise.all(PROGRAMS.map(start));
  return {
    admin: urls.admin,
    folder,
    web,
    standIns,
    killAndRestart: async (name) => {
      await running.get(name)?.stop('SIGKILL');
      await start(name);
    },
    signal: (name, signal) => void running.get(name)?.program().kill(signal),
    close: async () => {
      const { closePool } = await import('@/db/pool');
      await closePool();
      await Promise.all([...running.values()].map((program) => program.stop('SIGKILL')));
    },
  };
}
