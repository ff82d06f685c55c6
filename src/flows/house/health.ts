import { databaseTime, secondsSinceBeat, waitingJobs } from '@/db/jobs';
import { anybody } from '@/flows/door/operation';
import { hasRoom } from '@/outside/disk';
import { services } from '@/outside/services';

const WORKER_SILENT_SECONDS = 20;
/** A job that could run and has waited so long means that the queue grows. */
const QUEUE_SLOW_SECONDS = 300;
const CLOCKS_APART_MS = 5000;
/** The card processor's clock is another house's. */
const PROCESSOR_APART_MS = 120_000;
const LONGEST_MS = 3000;
/** Asked more often, the last answer is given: nobody loads the services by asking how they are. */
const FRESH_MS = 2000;

/** Whether each part is well. */
export type Health = {
  readonly database: boolean;
  readonly worker: boolean;
  readonly cards: boolean;
  readonly mail: boolean;
  /** Room where the programs write. */
  readonly disk: boolean;
  /** No job waits for long that could run. */
  readonly queue: boolean;
  /** This computer, the database and the card processor have the same time. */
  readonly clock: boolean;
};

const within = (answer: Promise<boolean>): Promise<boolean> =>
  Promise.race([
    answer.catch(() => false),
    new Promise<boolean>((resolve) => setTimeout(() => resolve(false), LONGEST_MS).unref()),
  ]);

const isNear = (one: Date, apartMs: number): boolean => Math.abs(one.getTime() - Date.now()) <= apartMs;

const asked = anybody().run(async (house): Promise<Health> => {
  const { cards, post } = services();
  const beat = house.outside(secondsSinceBeat);
  const waiting = house.outside(waitingJobs);
  const processor = cards.clock();
  const here = house.outside(databaseTime);
  const [database, worker, cardsWell, mail, disk, queue, clock] = await Promise.all([
    within(beat.then(() => true)),
    within(beat.then((seconds) => seconds !== null && seconds < WORKER_SILENT_SECONDS)),
    within(processor.then((at) => at !== null)),
    within(post.answers()),
    within(hasRoom()),
    within(waiting.then((tasks) => tasks.every(({ seconds }) => seconds < QUEUE_SLOW_SECONDS))),
    within(
      Promise.all([here, processor]).then(
        ([own, other]) => isNear(own, CLOCKS_APART_MS) && (other === null || isNear(other, PROCESSOR_APART_MS)),
      ),
    ),
  ]);
  return { database, worker, cards: cardsWell, mail, disk, queue, clock };
});

let last: { readonly at: number; readonly answer: Promise<Health> } | null = null;

/** Asks every part at once; none may take longer than three seconds. Asked often, the parts are not. */
export const health = anybody().run(async (): Promise<Health> => {
  if (!last || Date.now() - last.at > FRESH_MS) last = { at: Date.now(), answer: asked() };
  return last.answer;
});

/** For tests: what was answered before is not given again. */
export const forgetHealth = (): void => {
  last = null;
};
