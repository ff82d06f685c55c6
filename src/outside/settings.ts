/** Every setting that a program reads from its environment, with what it may be: checked before a program serves anybody. */
import { MAIL_ADDRESS } from '@/core/customer/mail-address';

type Check = (value: string) => string | null;

/** A setting: who needs it, and what is wrong with a value, in words. */
type Setting = { readonly needed: readonly ('web' | 'worker')[]; readonly check: Check };

const BOTH = ['web', 'worker'] as const;
const NOBODY: readonly ('web' | 'worker')[] = [];

const address =
  (protocols: readonly string[]): Check =>
  (value) => {
    const url = URL.canParse(value) ? new URL(value) : null;
    return url && protocols.includes(url.protocol)
      ? null
      : `has to be an address that begins with ${protocols.join(' or ')}//`;
  };
const WEB = address(['https:', 'http:']);

const SHORTEST_SECRET = 12;
const secret: Check = (value) =>
  value.length >= SHORTEST_SECRET ? null : `has to have at least ${SHORTEST_SECRET} signs that nobody can guess`;
const some: Check = () => null;
const whole: Check = (value) => (/^[1-9]\d{0,8}$/.test(value) ? null : 'has to be a whole number above 0');

const LOCAL = ['localhost', '127.0.0.1', '[::1]'];
const publicUrl: Check = (value) => {
  const wrong = WEB(value);
  if (wrong) return wrong;
  const { protocol, hostname } = new URL(value);
  return protocol === 'https:' || LOCAL.includes(hostname)
    ? null
    : 'has to begin with https:// outside of this computer';
};

const LEVELS = ['fatal', 'error', 'warn', 'info', 'debug', 'trace', 'silent'];

export const SETTINGS: Readonly<Record<string, Setting>> = {
  DATABASE_URL: { needed: BOTH, check: address(['postgres:', 'postgresql:']) },
  JOBS_DATABASE_URL: { needed: ['worker'], check: address(['postgres:', 'postgresql:']) },
  TICKET_SECRET: { needed: BOTH, check: secret },
  PUBLIC_URL: { needed: BOTH, check: publicUrl },
  CARDS_URL: { needed: BOTH, check: WEB },
  CARDS_API_KEY: { needed: BOTH, check: some },
  CARDS_WEBHOOK_SECRET: { needed: BOTH, check: secret },
  CARDS_TIMEOUT_MS: { needed: NOBODY, check: whole },
  SMTP_URL: { needed: BOTH, check: address(['smtp:', 'smtps:']) },
  MAIL_FROM: {
    needed: BOTH,
    check: (value) => (MAIL_ADDRESS.test(value) ? null : 'has to be a mail address alone'),
  },
  MAIL_WEBHOOK_SECRET: { needed: BOTH, check: secret },
  MESSAGES_URL: { needed: BOTH, check: WEB },
  MESSAGES_API_KEY: { needed: BOTH, check: some },
  BANK_URL: { needed: BOTH, check: WEB },
  BANK_API_KEY: { needed: BOTH, check: some },
  IDENTITY_URL: { needed: BOTH, check: WEB },
  IDENTITY_API_KEY: { needed: BOTH, check: some },
  CARRIER_URL: { needed: BOTH, check: WEB },
  CARRIER_API_KEY: { needed: BOTH, check: some },
  FILES_SECRET: { needed: BOTH, check: secret },
  SEALING_SECRET: { needed: BOTH, check: secret },
  CARD_ATTEMPTS_PER_ADDRESS: { needed: NOBODY, check: whole },
  CARD_ATTEMPTS_PER_INVOICE: { needed: NOBODY, check: whole },
  CARD_ATTEMPTS_PER_OFFER: { needed: NOBODY, check: whole },
  CARD_REFUSALS_PER_ADDRESS: { needed: NOBODY, check: whole },
  CARD_REFUSALS_PER_CARD: { needed: NOBODY, check: whole },
  HOOKS_TIMEOUT_MS: { needed: NOBODY, check: whole },
  METRICS_KEY: { needed: NOBODY, check: secret },
  DATABASE_CONNECTIONS: { needed: NOBODY, check: whole },
  DATABASE_STATEMENT_MS: { needed: NOBODY, check: whole },
  LOG_LEVEL: {
    needed: NOBODY,
    check: (value) => (LEVELS.includes(value) ? null : `has to be one of ${LEVELS.join(', ')}`),
  },
};

/** What belongs to the demo, and would be a hole or a nuisance where people are billed. */
export const DEMO_SETTINGS = [
  'HOOKS_LOCAL',
  'DAHLIA_DEMO',
  'DAHLIA_DEMO_PASSWORD',
  'SAMPLE_SITE_URL',
  'CLOCK_URL',
  'CLOCK_FRESH_MS',
];

/** What is missing or wrong among the settings of a program, a sentence each; none for a program that can start. */
export function settingTroubles(
  program: 'web' | 'worker',
  env: Readonly<Record<string, string | undefined>>,
): string[] {
  const own = Object.entries(SETTINGS).flatMap(([name, { needed, check }]) => {
    const value = env[name];
    if (!value) return needed.includes(program) ? [`${name} is not set.`] : [];
    const wrong = check(value);
    return wrong ? [`${name} ${wrong}.`] : [];
  });
  const served = env.PUBLIC_URL?.startsWith('https:') ?? false;
  const demo = served ? DEMO_SETTINGS.filter((name) => env[name]) : [];
  return [...own, ...demo.map((name) => `${name} belongs to the demo: take it away.`)];
}

/** Ends the program with a sentence for each setting that is missing or wrong. */
export function requireSettings(program: 'web' | 'worker'): void {
  const troubles = settingTroubles(program, process.env);
  if (troubles.length === 0) return;
  process.stderr.write(`${troubles.join('\n')}\nThe README lists the settings.\n`);
  process.exit(1);
}
