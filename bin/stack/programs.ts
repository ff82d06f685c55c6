/** The programs of a running Dahlia, with what each is told: for the demo, the tests and the measurements alike. */
import { type ChildProcess, execFileSync, spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { createWriteStream, mkdirSync } from 'node:fs';
import { join } from 'node:path';
import type { DatabaseUrls } from '@/db/migrate';

/** Where a stack lives and listens. */
export type StackOptions = {
  readonly folder: string;
  readonly urls: DatabaseUrls;
  readonly webPort: number;
  readonly standInPort: number;
  readonly smtpPort: number;
  readonly distDir: string;
  /** More settings for every program. */
  readonly more?: Readonly<Record<string, string>>;
};

/** So many answers of somebody else, one after the other, are no accident. */
const FOREIGN_ANSWERS = 20;

/** So long a program is left alone after it has ended by itself. */
const RESTART_MS = 500;

/** Names what this process starts, so that nobody else is taken for it. */
const INSTANCE = randomBytes(8).toString('hex');

/** What signs tickets wherever the stand-ins are. */
export const STAND_IN_TICKETS = 'stand-in-tickets';

export type ProgramName = 'web' | 'worker' | 'standins';

/** Every setting of every program. The application is reached by name and the stand-ins by number: two sites for a browser. */
export function stackEnvironment(options: StackOptions): Record<string, string> {
  const { urls, webPort, standInPort, smtpPort } = options;
  const publicUrl = `http://localhost:${webPort}`;
  const standIns = `http://127.0.0.1:${standInPort}`;
  return {
    NODE_ENV: 'production',
    NEXT_TELEMETRY_DISABLED: '1',
    NEXT_DIST_DIR: options.distDir,
    DAHLIA_INSTANCE: INSTANCE,
    DATABASE_URL: urls.app,
    TICKET_SECRET: STAND_IN_TICKETS,
    JOBS_DATABASE_URL: urls.jobs,
    PUBLIC_URL: publicUrl,
    CARDS_URL: `${standIns}/cards`,
    CARDS_API_KEY: 'stand-in-key',
    SAMPLE_SITE_URL: `http://127.0.0.1:${standInPort}/shop`,
    CARDS_WEBHOOK_SECRET: 'stand-in-secret',
    CLOCK_URL: `${standIns}/clock`,
    SMTP_URL: `smtp://127.0.0.1:${smtpPort}`,
    FILES_SECRET: 'stand-in-files-secret',
    HOOKS_LOCAL: 'yes',
    SEALING_SECRET: 'stand-in-sealing-secret',
    METRICS_KEY: 'stand-in-metrics-key',
    MAIL_WEBHOOK_SECRET: 'stand-in-mail-secret',
    MESSAGES_URL: `${standIns}/messages`,
    MESSAGES_API_KEY: 'stand-in-message-key',
    BANK_URL: `${standIns}/bank`,
    BANK_API_KEY: 'stand-in-bank-key',
    IDENTITY_URL: `${standIns}/identity`,
    IDENTITY_API_KEY: 'stand-in-identity-key',
    CARRIER_URL: `${standIns}/carrier`,
    CARRIER_API_KEY: 'stand-in-carrier-key',
    MAIL_FROM: 'post@dahlia.example',
    STANDINS_DIR: join(options.folder, 'standins'),
    STANDINS_PORT: String(standInPort),
    STANDINS_SMTP_PORT: String(smtpPort),
    STANDINS_APP_ORIGINS: publicUrl,
    STANDINS_MAIL_REPORT_URL: `${publicUrl}/api/hooks/mail`,
    STANDINS_WEBHOOK_URL: `${publicUrl}/api/hooks/cards`,
    ...options.more,
  };
}

const COMMANDS: Readonly<Record<ProgramName, (options: StackOptions) => string[]>> = {
  web: ({ webPort }) => ['src/app/front/begin.mjs', '--port', String(webPort)],
  worker: () => ['--import', 'tsx', 'src/jobs/worker.ts'],
  standins: () => ['--import', 'tsx', 'standins/main.ts'],
};

/** Starts one program; what it prints goes to a file beside the data. */
export function startProgram(name: ProgramName, options: StackOptions): ChildProcess {
  mkdirSync(join(options.folder, 'log'), { recursive: true });
  const program = spawn(process.execPath, COMMANDS[name](options), {
    env: { ...process.env, ...stackEnvironment(options), DAHLIA_PROGRAM: name },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  const log = createWriteStream(join(options.folder, 'log', `${name}.log`), { flags: 'a' });
  program.stdout?.pipe(log);
  program.stderr?.pipe(log);
  return program;
}

/**
 * The same, started again whenever it ends by itself, as a service manager does; `stop` ends it for good.
 *
 * @param ended hears of every end that nobody asked for
 */
export function superviseProgram(
  name: ProgramName,
  options: StackOptions,
  ended: () => void = () => undefined,
): { readonly program: () => ChildProcess; readonly stop: (signal?: NodeJS.Signals) => Promise<void> } {
  let stopped = false;
  let program = startProgram(name, options);
  const watch = (): void => {
    program.once('exit', () => {
      if (stopped) return;
      ended();
      setTimeout(() => {
        if (stopped) return;
        program = startProgram(name, options);
        watch();
      }, RESTART_MS);
    });
  };
  watch();
  return {
    program: () => program,
    stop: (signal) => {
      stopped = true;
      return stopProgram(program, signal);
    },
  };
}

/** Who answers at an address: the instance that it names, an empty text where it names none, null where nobody answers. */
async function instanceAt(url: string): Promise<string | null> {
  try {
    const answer = await fetch(url, { signal: AbortSignal.timeout(5000), redirect: 'manual' });
    const said = (await answer.json().catch(() => null)) as { instance?: unknown } | null;
    return typeof said?.instance === 'string' ? said.instance : '';
  } catch {
    return null;
  }
}

/**
 * Waits until our own program answers at an address.
 *
 * @throws Error after `seconds`, and before where another program goes on answering there
 */
export async function untilAnswers(url: string, seconds = 60): Promise<void> {
  let others = 0;
  for (const end = Date.now() + seconds * 1000; Date.now() < end; ) {
    const instance = await instanceAt(url);
    if (instance === INSTANCE) return;
    // Our own may say something else while it begins; whoever goes on doing so is not ours.
    others = instance === null ? 0 : others + 1;
    if (others > FOREIGN_ANSWERS) throw new Error(`Another program answers at ${url}. End it, and start again.`);
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error(`Nobody answers at ${url}`);
}

/** Ends a program: gently, then for good. */
export function stopProgram(program: ChildProcess, signal: NodeJS.Signals = 'SIGTERM'): Promise<void> {
  if (program.exitCode !== null || program.signalCode !== null) return Promise.resolve();
  return new Promise((resolve) => {
    const timer = setTimeout(() => program.kill('SIGKILL'), 6000);
    program.once('exit', () => {
      clearTimeout(timer);
      resolve();
    });
    program.kill(signal);
  });
}

/** Starts PostgreSQL with its data in `folder`; returns the superuser's URL. @param sync off only for what may be lost */
export function startDatabase(folder: string, sync = true): string {
  const env = { ...process.env, DB_DIR: folder, DB_FSYNC: sync ? 'on' : 'off' };
  return execFileSync('bin/db', ['start'], { env, encoding: 'utf8', stdio: ['ignore', 'pipe', 'inherit'] }).trim();
}

/** Stops it. */
export function stopDatabase(folder: string): void {
  execFileSync('bin/db', ['stop'], { env: { ...process.env, DB_DIR: folder }, stdio: 'ignore' });
}
