import { secondsSinceBeat } from '@/db/jobs';
import { anybody } from '@/flows/door/operation';
import { services } from '@/outside/services';

const WORKER_SILENT_SECONDS = 20;

/** Whether each part answers. */
export type Health = {
  readonly database: boolean;
  readonly worker: boolean;
  readonly cards: boolean;
  readonly mail: boolean;
};

const within = (answer: Promise<boolean>): Promise<boolean> =>
  Promise.race([answer.catch(() => false), new Promise<boolean>((resolve) => setTimeout(() => resolve(false), 3000))]);

/** Asks every part at once; none may take longer than three seconds. */
export const health = anybody().run(async (house): Promise<Health> => {
  const { cards, post } = services();
  const beat = house.outside(secondsSinceBeat);
  const [database, worker, processor, mail] = await Promise.all([
    within(beat.then(() => true)),
    within(beat.then((seconds) => seconds !== null && seconds < WORKER_SILENT_SECONDS)),
    within(cards.answers()),
    within(post.answers()),
  ]);
  return { database, worker, cards: processor, mail };
});
