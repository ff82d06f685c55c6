/** Measurements of what people feel. Everything runs here, on its own database and ports, and is cleared away again. */
import { randomUUID } from 'node:crypto';
import { mkdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import autocannon from 'autocannon';
import type { Paper } from '@/core/paper/paper';
import type { TallyDocument } from '@/core/tally/document';
import { tally } from '@/core/tally/tally';
import { migrate, prepareDatabase } from '@/db/migrate';
import { startChromium } from '../tests/support/chromium';
import { PASSWORD, PEOPLE } from './demo-data/thistlewood';
import { measureBank } from './measure/bank';
import { measureCharging } from './measure/charging';
import { measureDesigner } from './measure/designer';
import { measureBulk, measureImport, measurePdf } from './measure/documents';
import { measureFuzz, measureHostile } from './measure/hostile';
import { measureLists } from './measure/lists';
import { measureOffers } from './measure/offers';
import { measureParcels } from './measure/parcels';
import { measurePlans } from './measure/plans';
import { measureRegister } from './measure/register';
import { report } from './measure/report';
import { buildApplication } from './stack/build';
import { portFrom } from './stack/ports';
import {
  STAND_IN_TICKETS,
  type StackOptions,
  stackEnvironment,
  startDatabase,
  startProgram,
  stopDatabase,
  stopProgram,
  untilAnswers,
} from './stack/programs';

/** How many invoices the large list has; a million takes some minutes to write. */
const LARGE = Number(process.env.BENCH_INVOICES ?? 1_000_000);
/** How many plans the largest table has. */
const PLANS = Number(process.env.BENCH_PLANS ?? 1_000_000);
const FOLDER = join(process.cwd(), '.data/bench');
const wanted = process.argv.slice(2);
const isWanted = (name: string): boolean => wanted.length === 0 || wanted.some((word) => name.startsWith(word));

function timed(rounds: number, work: () => void): { times: number[]; seconds: number } {
  const begun = performance.now();
  const times = Array.from({ length: rounds }, () => {
    const start = performance.now();
    work();
    return performance.now() - start;
  });
  return { times, seconds: (performance.now() - begun) / 1000 };
}

function measureTally(): void {
  const document: TallyDocument = {
    currency: 'USD',
    pricesIncludeTax: false,
    lines: Array.from({ length: 500 }, (_, at) => ({
      quantity: `${1 + (at % 9)}.25`,
      unitPrice: `${3 + (at % 70)}.475`,
      ...(at % 5 === 0 ? { discount: { percent: '7.5' } } : {}),
      taxes: at % 3 === 0 ? ['a', 'b'] : ['a'],
    })),
    discount: { percent: '10' },
    taxes: [
      { id: 'a', name: 'Sales tax', rate: '8.25', onDelivery: true },
      { id: 'b', name: 'Levy', rate: '1.5', onDelivery: false },
    ],
  };
  timed(50, () => void tally(document));
  const { times, seconds } = timed(500, () => void tally(document));
  report('tally of 500 lines', times, seconds);
}

/** One page under load, so many connections at once. */
async function load(url: string, seconds: number, connections = 16): Promise<autocannon.Result> {
  await autocannon({ url, connections, duration: 2 });
  return autocannon({ url, connections, duration: seconds });
}

// The load generator knows no 95th percentile: the 97.5th stands in its place, which flatters nobody.
const loadLine = (name: string, result: autocannon.Result, more: Readonly<Record<string, number>>): void =>
  void process.stdout.write(
    `${JSON.stringify({ name, n: result.requests.total, seconds: result.duration, rate: Number(result.requests.average.toFixed(1)), p50: result.latency.p50, p95: result.latency.p97_5, p99: result.latency.p99, failed: result.non2xx + result.errors, ...more })}\n`,
  );

/** JavaScript that a page's HTML names, gzipped, in KB. */
async function scriptKilobytes(url: string): Promise<number> {
  const html = await (await fetch(url)).text();
  // Browsers of today leave out what is marked as for those without modules.
  const tags = [...html.matchAll(/<script[^>]+src="([^"]+)"[^>]*>/g)].filter(([tag]) => !/nomodule/i.test(tag));
  const sources = new Set(tags.map((match) => match[1] ?? ''));
  const sizes = await Promise.all(
    [...sources].map(
      async (source) =>
        gzipSync(Buffer.from(await (await fetch(new URL(source, url))).arrayBuffer()), { level: 6 }).length,
    ),
  );
  return Number((sizes.reduce((sum, size) => sum + size, 0) / 1024).toFixed(1));
}

async function measurePages(web: string, link: string): Promise<void> {
  const pages = [
    ['the framework’s bare page', `${web}/bare`],
    ['the customer’s page', `${web}/i/${link}`],
  ] as const;
  for (const [name, url] of pages) loadLine(name, await load(url, 8), { scriptKilobytes: await scriptKilobytes(url) });
}

/** Complete payments through HTTP, eight at once, the stand-in without delay. @param name none while warming up */
async function measurePaying(
  web: string,
  standIns: string,
  links: readonly string[],
  amountMinor: number,
  name: string,
): Promise<void> {
  const { cardToken, fetchedWork } = await import('../tests/support/workshop');
  const tokens = await Promise.all(links.map(() => cardToken(standIns, 'corvid-good')));
  const waiting: { link: string; token: string; work: unknown }[] = [];
  for (const [at, link] of links.entries())
    waiting.push({ link, token: tokens[at] ?? '', work: await fetchedWork(web, `/api/pay/${link}`) });
  const times: number[] = [];
  const begun = performance.now();
  await Promise.all(
    Array.from({ length: 8 }, async () => {
      for (let next = waiting.pop(); next; next = waiting.pop()) {
        const start = performance.now();
        const answer = await fetch(`${web}/api/pay/${next.link}`, {
          method: 'POST',
          headers: { 'content-type': 'application/json', origin: web },
          body: JSON.stringify({ attemptKey: randomUUID(), cardToken: next.token, amountMinor, work: next.work }),
        });
        const said = (await answer.json()) as { value?: { state: string } };
        if (said.value?.state !== 'paid') throw new Error(`Not paid: ${JSON.stringify(said)}`);
        times.push(performance.now() - start);
      }
    }),
  );
  if (name) report(name, times, (performance.now() - begun) / 1000);
}

/** From the key to the new total on the screen, in the browser, with 200 lines. */
async function measureComposer(web: string, draft: string): Promise<void> {
  const { browser, close } = await startChromium();
  const page = await browser.newPage();
  await page.setViewport({ width: 1280, height: 800 });
  await page.goto(`${web}/sign-in`, { waitUntil: 'networkidle2' });
  await page.type('input[type=email]', PEOPLE[0]?.email ?? '');
  await page.type('input[type=password]', PASSWORD);
  await Promise.all([page.waitForNavigation(), page.keyboard.press('Enter')]);
  await page.goto(`${web}/ask/compose/${draft}`, { waitUntil: 'networkidle2' });
  await page.waitForSelector('[data-total]');
  // As text, so that the compiler's own helpers do not reach into the page.
  const times = (await page.evaluate(`(async () => {
    const total = document.querySelector('[data-total]');
    const field = document.querySelector('input[aria-label="Line 100: price of one"]');
    const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set;
    const times = [];
    for (let round = 0; round < 60; round++) {
      const before = total.textContent;
      const start = performance.now();
      set.call(field, String(20 + round) + '.5');
      field.dispatchEvent(new Event('input', { bubbles: true }));
      while (total.textContent === before) await new Promise((next) => { const c = new MessageChannel(); c.port1.onmessage = next; c.port2.postMessage(0); });
      times.push(performance.now() - start);
      await new Promise((next) => setTimeout(next, 30));
    }
    return times;
  })()`)) as number[];
  report('composer with 200 lines, key to total', times, times.reduce((sum, time) => sum + time, 0) / 1000);
  await close();
}

type Running = {
  readonly options: StackOptions;
  readonly admin: string;
  readonly web: string;
  readonly standIns: string;
};

/** The stand-ins, and the application where it is asked for, on a database of their own, cleared away afterwards. */
async function onStack(
  asked: { readonly durable: boolean; readonly web: boolean; readonly more?: Readonly<Record<string, string>> },
  work: (running: Running) => Promise<void>,
): Promise<void> {
  rmSync(FOLDER, { recursive: true, force: true });
  mkdirSync(FOLDER, { recursive: true });
  if (asked.web) buildApplication('.next-test');
  const admin = startDatabase(FOLDER, asked.durable);
  const urls = await prepareDatabase(admin, 'dahlia');
  await migrate(urls, { secret: STAND_IN_TICKETS });
  const options: StackOptions = {
    folder: FOLDER,
    urls,
    webPort: await portFrom(6200),
    standInPort: await portFrom(6600),
    smtpPort: await portFrom(6900),
    distDir: '.next-test',
    more: {
      DAHLIA_DEMO: '1',
      STANDINS_DELAY_MS: '0',
      CARD_ATTEMPTS_PER_ADDRESS: '1000000',
      CARD_ATTEMPTS_PER_OFFER: '1000000',
      CARD_REFUSALS_PER_ADDRESS: '1000000',
      LOG_LEVEL: 'error',
      ...asked.more,
    },
  };
  Object.assign(process.env, stackEnvironment(options));
  const web = `http://localhost:${options.webPort}`;
  const standIns = `http://127.0.0.1:${options.standInPort}`;
  const programs = (asked.web ? (['standins', 'web'] as const) : (['standins'] as const)).map((name) =>
    startProgram(name, options),
  );
  const { closePool } = await import('@/db/pool');
  try {
    await untilAnswers(`${standIns}/health`);
    if (asked.web) await untilAnswers(`${web}/api/health`);
    await work({ options, admin: admin.replace(/\/postgres$/, '/dahlia'), web, standIns });
  } finally {
    await closePool();
    await Promise.all(programs.map((program) => stopProgram(program)));
    stopDatabase(FOLDER);
    rmSync(FOLDER, { recursive: true, force: true });
  }
}

async function measureRunning({ options, admin, web, standIns }: Running): Promise<void> {
  const { foundHouse, keptDraft, plainPaper, sentInvoice } = await import('../tests/support/workshop');
  const { passwordHash } = await import('@/flows/house/password');
  const house = await foundHouse('Bench', await passwordHash(PASSWORD), PEOPLE[0]?.email);
  if (isWanted('pages')) await measurePages(web, (await sentInvoice(house)).link);
  if (isWanted('paying')) {
    const links: string[] = [];
    for (let at = 0; at < 400; at++) links.push((await sentInvoice(house)).link);
    await measurePaying(web, standIns, links.slice(0, 40), 11_000, '');
    await measurePaying(web, standIns, links.slice(40), 11_000, 'paying, 8 at once');
  }
  if (isWanted('composer')) {
    const [line] = plainPaper(house).lines;
    if (!line) throw new Error('No line');
    const paper: Paper = plainPaper(house, {
      lines: Array.from({ length: 200 }, () => ({ ...line, id: randomUUID() })),
      discount: '5%',
    });
    await measureComposer(web, await keptDraft(house, paper));
  }
  if (isWanted('offers'))
    await measureOffers(web, standIns, house, async (name, url, connections) =>
      loadLine(name, await load(url, 8, connections), { scriptKilobytes: await scriptKilobytes(url) }),
    );
  if (isWanted('designer')) await measureDesigner(web, house, PEOPLE[0]?.email ?? '', PASSWORD);
  if (isWanted('plans')) await measurePlans(admin, PLANS);
  if (isWanted('pdf')) await measurePdf();
  if (isWanted('batch')) await measureBulk(1000);
  if (isWanted('import')) await measureImport(100_000);
  if (isWanted('hostile')) await measureHostile(web, house);
  // By name only: it is no measurement.
  if (wanted.includes('fuzz')) {
    // All of it runs, as where it is used: what is sent makes jobs too.
    const worker = startProgram('worker', options);
    await measureFuzz(web, admin, standIns, Number(process.env.FUZZ_SEED ?? 1));
    await stopProgram(worker);
  }
  if (isWanted('lists')) await measureLists(admin, 10_000, LARGE);
}

if (isWanted('tally')) measureTally();
if (isWanted('register')) await onStack({ durable: true, web: false }, ({ admin }) => measureRegister(admin, LARGE));
if (isWanted('bank'))
  await onStack({ durable: true, web: false }, ({ admin, standIns }) => measureBank(admin, standIns));
if (isWanted('parcels')) await onStack({ durable: true, web: false }, ({ admin }) => measureParcels(admin));
if (isWanted('charging'))
  // Nobody hears what the stand-in would tell the application's address: there is none.
  await onStack({ durable: true, web: false, more: { STANDINS_WEBHOOK_DELAY_MS: '86400000' } }, (running) =>
    measureCharging(running, PLANS, {
      start: () => startProgram('worker', running.options),
      stop: (worker) => stopProgram(worker),
    }),
  );
if (
  [
    'pages',
    'paying',
    'composer',
    'offers',
    'designer',
    'plans',
    'pdf',
    'batch',
    'import',
    'hostile',
    'fuzz',
    'lists',
  ].some(isWanted)
)
  await onStack({ durable: false, web: true }, measureRunning);
process.exit(0);
