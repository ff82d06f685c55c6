/** Runs web and worker for real, after everything that they need was looked at; what is missing or wrong is said in a sentence each. */
import { type ChildProcess, spawn } from 'node:child_process';
import { parseArgs } from 'node:util';
import { databaseTroubles } from '@/db/readiness';
import { settingTroubles } from '@/outside/settings';
import { buildApplication } from './stack/build';

const { port, host, build } = parseArgs({
  options: {
    port: { type: 'string', default: '3000' },
    host: { type: 'string', default: '127.0.0.1' },
    // Only builds: for a container, where settings and database come later.
    build: { type: 'boolean', default: false },
  },
}).values;
const folder = process.env.NEXT_DIST_DIR ?? '.next';

if (build) {
  buildApplication(folder);
  process.exit(0);
}

async function troubles(): Promise<string[]> {
  const settings = [...new Set([...settingTroubles('web', process.env), ...settingTroubles('worker', process.env)])];
  if (settings.length > 0) return [...settings, 'The README lists the settings.'];
  return databaseTroubles(process.env.DATABASE_URL ?? '', process.env.JOBS_DATABASE_URL ?? '');
}

const wrong = await troubles();
if (wrong.length > 0) {
  process.stderr.write(`${wrong.join('\n')}\n`);
  process.exit(1);
}
process.stdout.write('Building the application, if it has changed\n');
buildApplication(folder);

const PROGRAMS = {
  web: ['src/app/front/begin.mjs', '--port', port, '--host', host],
  worker: ['--import', 'tsx', 'src/jobs/worker.ts'],
} as const;

/** A program that ends by itself is started again: at once, then later and later while it goes on ending. */
const PAUSES_MS = [500, 1000, 5000, 15_000, 60_000];
/** Whatever ran so long was well. */
const WELL_MS = 60_000;
const LAST_MS = 8000;

const running = new Map<string, ChildProcess>();
let ending = false;

function start(name: keyof typeof PROGRAMS, tries = 0): void {
  const began = Date.now();
  const child = spawn(process.execPath, [...PROGRAMS[name]], {
    stdio: 'inherit',
    env: { ...process.env, DAHLIA_PROGRAM: name, NODE_ENV: 'production' },
  });
  running.set(name, child);
  child.once('exit', (code, signal) => {
    running.delete(name);
    if (ending) {
      if (running.size === 0) process.exit(0);
      return;
    }
    const next = Date.now() - began > WELL_MS ? 0 : tries + 1;
    const pause = PAUSES_MS[Math.min(next, PAUSES_MS.length - 1)] ?? 0;
    process.stderr.write(`The ${name} program has ended (${signal ?? code}); it is started again in ${pause} ms.\n`);
    setTimeout(() => ending || start(name, next), pause);
  });
}

for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.once(signal, () => {
    ending = true;
    if (running.size === 0) process.exit(0);
    for (const child of running.values()) child.kill('SIGTERM');
    setTimeout(() => process.exit(1), LAST_MS).unref();
  });
start('web');
start('worker');
process.stdout.write(`Dahlia listens at http://${host}:${port}\n`);
