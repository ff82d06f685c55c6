/** The demo: database, business, build, programs. Called by bin/demo after everything is installed. */
import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { allowDemoPeople, migrate, prepareDatabase } from '@/db/migrate';
import { PASSWORD, PEOPLE } from './demo-data/thistlewood';
import { buildApplication } from './stack/build';
import { portFrom } from './stack/ports';
import {
  type ProgramName,
  STAND_IN_TICKETS,
  type StackOptions,
  stackEnvironment,
  startDatabase,
  startProgram,
  stopDatabase,
  stopProgram,
  superviseProgram,
  untilAnswers,
} from './stack/programs';

const FOLDER = join(process.cwd(), '.data/demo');
const WANTED = { web: 3000, standIns: 4000, smtp: 4025 };
const loaded = join(FOLDER, 'loaded');
const say = (words: string): void => void process.stdout.write(`${words}\n`);

// Data whose loading was broken off is no use: it is loaded again from the beginning.
if (process.argv.includes('--fresh') || !existsSync(loaded)) {
  if (existsSync(FOLDER)) {
    say('Starting over: the demo’s data is cleared away');
    stopDatabase(FOLDER);
  }
  rmSync(FOLDER, { recursive: true, force: true });
}
mkdirSync(FOLDER, { recursive: true });

const running: { stop: () => Promise<void> }[] = [];
/** Starts a program, and again whenever it ends by itself; that is said. */
const supervised = (name: ProgramName, options: StackOptions): void =>
  void running.push(
    superviseProgram(name, options, () =>
      say(`${name} has ended by itself and is started again: see ${join(FOLDER, 'log')}`),
    ),
  );
let ending = false;
async function end(code: number): Promise<never> {
  if (!ending) {
    ending = true;
    say('\nEnding');
    await Promise.all(running.map((program) => program.stop()));
    stopDatabase(FOLDER);
  }
  process.exit(code);
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.on(signal, () => void end(0));

try {
  say('Starting PostgreSQL');
  const urls = await prepareDatabase(startDatabase(FOLDER), 'dahlia');
  say('Bringing the database up to date');
  await migrate(urls, { secret: STAND_IN_TICKETS });
  await allowDemoPeople(urls);
  const options: StackOptions = {
    folder: FOLDER,
    urls,
    webPort: await portFrom(WANTED.web),
    standInPort: await portFrom(WANTED.standIns),
    smtpPort: await portFrom(WANTED.smtp),
    distDir: '.next',
    more: { DAHLIA_DEMO_PASSWORD: PASSWORD, DAHLIA_DEMO: '1' },
  };
  for (const [wanted, taken] of [
    [WANTED.web, options.webPort],
    [WANTED.standIns, options.standInPort],
    [WANTED.smtp, options.smtpPort],
  ]) {
    if (wanted !== taken) say(`Port ${wanted} is busy: taking ${taken}`);
  }
  const standIns = `http://127.0.0.1:${options.standInPort}`;
  if (!existsSync(loaded)) {
    // The history is played without the processor's delays, and by stand-ins that end with it.
    const hurried = startProgram('standins', { ...options, more: { ...options.more, STANDINS_DELAY_MS: '0' } });
    running.push({ stop: () => stopProgram(hurried) });
    await untilAnswers(`${standIns}/health`);
    execFileSync(process.execPath, ['--import', 'tsx', 'bin/demo-data/load.ts'], {
      env: { ...process.env, ...stackEnvironment(options), LOG_LEVEL: 'warn' },
      stdio: ['ignore', 'inherit', 'inherit'],
    });
    writeFileSync(loaded, new Date().toISOString());
    running.pop();
    await stopProgram(hurried);
  }
  supervised('standins', options);
  await untilAnswers(`${standIns}/health`);
  say('Building the application, if it has changed');
  buildApplication(options.distDir);
  say('Starting web and worker');
  supervised('web', options);
  supervised('worker', options);
  // By the name that people will use.
  await untilAnswers(`http://localhost:${options.webPort}/api/health`);
  say(`
  Dahlia      http://localhost:${options.webPort}
  sign in     ${PEOPLE.map(({ email }) => email).join(', ')}
              password: ${PASSWORD}
  stand-ins   ${standIns}   pretend cards, mailbox, clock
  Ctrl+C ends all of it; bin/demo --fresh starts over.
`);
} catch (error) {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
  await end(1);
}
