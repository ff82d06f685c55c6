/** A Dahlia under blows: many move money, much breaks, and in the end all books say the same. */
import { execFileSync } from 'node:child_process';
import { mkdirSync, rmSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { migrate, prepareDatabase } from '@/db/migrate';
import { closePool } from '@/db/pool';
import { passwordHash } from '@/flows/house/password';
import { STAND_IN_TICKETS, startDatabase, stopDatabase } from '../../../bin/stack/programs';
import { asSuperuser } from '../../support/database';
import { type CardManner, type MailManner, type Rude, rudeMail, rudeService } from '../../support/manners';
import { placedOffer } from '../../support/offers';
import { planTerms, runningPlan, setClock } from '../../support/plans';
import { seeded } from '../../support/seeded';
import { type Stack, startStack } from '../../support/stack';
import { pause } from '../../support/until';
import { foundHouse } from '../../support/workshop';
import { BLOWS, type Blow, makePeace, strike, type Under } from './blows';
import { type Compared, compared, unfinished } from './compare';
import { MOVEMENTS, type Movement, move, type Target } from './movements';

/** How much is done, and under how many blows. */
export type Plan = {
  readonly blows: number;
  /** Movements that people make; what plans charge by themselves comes on top. */
  readonly movements: number;
  readonly seed: number;
  readonly folder: string;
  readonly say: (words: string) => void;
};

export type Outcome = Compared & {
  readonly blows: Readonly<Record<string, number>>;
  readonly movements: Readonly<Record<string, number>>;
  readonly seconds: number;
  /** Whether the disk was really filled, on a file system of its own. */
  readonly ownDisk: boolean;
};

const PASSWORD = 'hammer and tongs';
const LANES = 8;
const HOUSES = 3;
const PLANS = 12;
const FIRST = '2027-01-04';
const DISK_MEGABYTES = 6000;
/** The database says after so long that it was cut off in the middle of something. */
const CARDS_WAIT_MS = 2500;

/** A small file system for the database alone, which can be filled; null where this computer does not let us make one. */
function ownDisk(folder: string): string | null {
  const [image, disk] = [join(folder, 'disk.image'), join(folder, 'disk')];
  mkdirSync(disk, { recursive: true });
  try {
    execFileSync('truncate', ['-s', `${DISK_MEGABYTES}M`, image], { stdio: 'ignore' });
    execFileSync('mkfs.ext4', ['-q', '-F', '-m', '0', image], { stdio: 'ignore' });
    execFileSync('mount', ['-o', 'loop', image, disk], { stdio: 'ignore' });
    return disk;
  } catch {
    return null;
  }
}

function clearAway(folder: string): void {
  const disk = join(folder, 'disk');
  for (const place of [disk, join(folder, 'database')]) {
    try {
      stopDatabase(place);
    } catch {
      // There was none.
    }
  }
  try {
    execFileSync('umount', [disk], { stdio: 'ignore' });
  } catch {
    // Nor a file system of its own.
  }
  rmSync(folder, { recursive: true, force: true });
}

async function targetsIn(stack: Stack): Promise<Target[]> {
  const targets: Target[] = [];
  for (let at = 0; at < HOUSES; at++) {
    const email = `owner${at}@blows.example`;
    const house = await foundHouse(`Blows ${at}`, await passwordHash(PASSWORD), email);
    const offer = async (more: object) => (await placedOffer(house, { prices: { USD: '40' }, ...more })).called;
    const offers: string[] = [];
    const repeated: string[] = [];
    for (let each = 0; each < 6; each++) offers.push(await offer({}));
    for (let each = 0; each < 3; each++)
      repeated.push(await offer({ repeat: { rhythms: [{ unit: 'month', every: 1 }], once: true, count: null } }));
    for (let each = 0; each < PLANS; each++) {
      const terms = planTerms(house, FIRST, { schedule: { unit: 'day' }, receipts: each % 2 === 0 });
      await runningPlan(house, stack.standIns, terms);
    }
    targets.push({ house, email, password: PASSWORD, offers, repeated });
  }
  return targets;
}

/** Who does what, in an order that the seed gives; three of four movements are payments. */
function movementsOf({ movements, seed }: Plan): Movement[] {
  const chance = seeded(seed);
  const weighted: readonly Movement[] = ['invoice', 'invoice', 'order', 'order', 'invoice', 'order', ...MOVEMENTS];
  return Array.from({ length: movements }, () => weighted[Math.floor(chance() * weighted.length)] ?? 'invoice');
}

/** Each kind of blow as often as the others, in an order that the seed gives. */
function blowsOf({ blows, seed }: Plan): Blow[] {
  const chance = seeded(seed + 1);
  const order: Blow[] = [];
  while (order.length < blows) {
    const round = [...BLOWS];
    while (round.length > 0 && order.length < blows)
      order.push(...round.splice(Math.floor(chance() * round.length), 1));
  }
  return order;
}

const counts = (all: readonly string[]): Record<string, number> => {
  const count: Record<string, number> = {};
  for (const one of all) count[one] = (count[one] ?? 0) + 1;
  return count;
};

/** Moves all that is to be moved while the blows fall, spread over the movements. */
async function underFire(under: Under, targets: readonly Target[], plan: Plan): Promise<void> {
  const movements = movementsOf(plan);
  const blows = blowsOf(plan);
  let begun = 0;
  let ended = 0;
  const failed: unknown[] = [];
  const lane = async (): Promise<void> => {
    for (let at = begun++; at < movements.length && failed.length === 0; at = begun++) {
      const chance = seeded(plan.seed * 7919 + at);
      const target = targets[Math.floor(chance() * targets.length)];
      try {
        if (target) await move(under.stack, target, movements[at] ?? 'invoice', chance);
      } catch (error) {
        failed.push(error);
      }
      ended++;
    }
  };
  const striker = async (): Promise<void> => {
    const chance = seeded(plan.seed + 2);
    for (const [at, blow] of blows.entries()) {
      // So that the last one falls while there is still something to be struck.
      while (ended < (movements.length * at) / blows.length && failed.length === 0) await pause(20);
      if (failed.length > 0) return;
      await pause(chance() * 300);
      await strike(under, blow, chance);
      if (at % 25 === 24) plan.say(`${at + 1} blows, ${ended} movements`);
    }
  };
  await Promise.all([striker(), ...Array.from({ length: LANES }, lane)]);
  if (failed.length > 0) throw failed[0];
}

/** Lets everything come to its end on a clock that goes on. @returns what did not, which should be nothing */
async function settled({ stack }: Under): Promise<string[]> {
  let left: string[] = [];
  for (let looks = 0; looks < 600; looks++) {
    left = await unfinished(stack.admin);
    if (left.length === 0 && looks > 3) return [];
    await asSuperuser(
      stack.admin,
      // What waits for its time is asked for now; outside services live in real time.
      `update graphile_worker._private_jobs set run_at = now() where locked_at is null and run_at > now()`,
    );
    await asSuperuser(stack.admin, `select graphile_worker.add_job('minute')`);
    await pause(500);
  }
  return left.map((what) => `not finished: ${what}`);
}

/** The whole of it; everything is cleared away afterwards. @throws Error where a movement never came to an end */
export async function blowUpon(plan: Plan): Promise<Outcome> {
  const begun = Date.now();
  clearAway(plan.folder);
  mkdirSync(plan.folder, { recursive: true });
  mkdirSync(resolve('.data/test'), { recursive: true });
  const disk = ownDisk(plan.folder);
  const folder = disk ?? join(plan.folder, 'database');
  let standIns = '';
  let smtpPort = 0;
  const cards: Rude<CardManner> = await rudeService(() => standIns, CARDS_WAIT_MS * 2);
  const mail: Rude<MailManner> = await rudeMail(() => smtpPort);
  let stack: Stack | undefined;
  try {
    stack = await startStack(
      {
        STANDINS_DELAY_MS: '0-40',
        CARDS_URL: `http://127.0.0.1:${cards.port}/cards`,
        SMTP_URL: `smtp://127.0.0.1:${mail.port}`,
        CARDS_TIMEOUT_MS: String(CARDS_WAIT_MS),
        CARD_ATTEMPTS_PER_ADDRESS: '1000000',
        CARD_ATTEMPTS_PER_INVOICE: '1000000',
        CARD_ATTEMPTS_PER_OFFER: '1000000',
        CARD_REFUSALS_PER_ADDRESS: '1000000',
        CARD_REFUSALS_PER_CARD: '1000000',
      },
      async () => {
        const server = startDatabase(folder);
        const urls = await prepareDatabase(server, 'dahlia');
        await migrate(urls, { secret: STAND_IN_TICKETS });
        return { ...urls, admin: server.replace(/\/postgres$/, '/dahlia') };
      },
    );
    standIns = stack.standIns;
    smtpPort = Number(process.env.STANDINS_SMTP_PORT);
    const under: Under = { stack, database: { folder, disk }, cards, mail };
    await setClock(stack.standIns, new Date(`${FIRST}T08:00:00Z`));
    const targets = await targetsIn(stack);
    plan.say(`Begun: ${plan.movements} movements, ${plan.blows} blows, seed ${plan.seed}`);
    await underFire(under, targets, plan);
    makePeace(under);
    plan.say('The blows are over; what is under way comes to its end');
    const left = await settled(under);
    const { troubles, counted } = await compared(stack);
    return {
      troubles: [...left, ...troubles],
      counted,
      blows: counts(blowsOf(plan)),
      movements: counts(movementsOf(plan)),
      seconds: Math.round((Date.now() - begun) / 1000),
      ownDisk: disk !== null,
    };
  } finally {
    await stack?.close();
    await closePool();
    await cards.stop();
    await mail.stop();
    clearAway(plan.folder);
  }
}
