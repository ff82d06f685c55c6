/** Kills within the process: what a kill is to everybody else, at a step that a seed chooses. */
import pg from 'pg';

/**
 * From one step on nothing more is sent, to the database or outside, and what is open there is rolled back. The step at which it
 * happens may still have been carried out, its answer unheard.
 */
const knife = { stepsLeft: Number.POSITIVE_INFINITY, heard: true, dead: false };

const cut = async <T>(step: () => Promise<T>): Promise<T> => {
  if (knife.dead) throw new Error('killed');
  knife.stepsLeft -= 1;
  if (knife.stepsLeft > 0) return step();
  knife.dead = true;
  // Half of the kills come after the step was taken.
  if (!knife.heard) await step();
  throw new Error('killed');
};

type Call = (...given: unknown[]) => Promise<unknown>;
/** A service outside, and which of its calls can be cut. */
export type Outside = { readonly of: object; readonly calls: readonly string[] };

/**
 * Does some work that is killed at a step, or ends before.
 *
 * @param steps statements to the database and calls outside until the kill @param heard whether the last one's answer is unheard because it was never sent
 * @returns whether it was killed
 */
export async function underTheKnife(
  work: () => Promise<unknown>,
  { steps, heard, outside }: { readonly steps: number; readonly heard: boolean; readonly outside: readonly Outside[] },
): Promise<boolean> {
  const query = Reflect.get(pg.Client.prototype, 'query') as Call;
  const kept = outside.flatMap(({ of, calls }) =>
    calls.map((name) => ({ of, name, call: Reflect.get(of, name) as Call })),
  );
  Object.assign(knife, { stepsLeft: steps, heard, dead: false });
  Reflect.set(pg.Client.prototype, 'query', function cutQuery(this: unknown, ...given: unknown[]) {
    // With a callback it is the driver's own, when it connects.
    return typeof given.at(-1) === 'function' ? query.apply(this, given) : cut(() => query.apply(this, given));
  });
  for (const { of, name, call } of kept)
    Reflect.set(of, name, (...given: unknown[]) => cut(() => call.apply(of, given)));
  try {
    await work();
  } catch (error) {
    if (!knife.dead) throw error;
  } finally {
    Reflect.set(pg.Client.prototype, 'query', query);
    for (const { of, name, call } of kept) Reflect.set(of, name, call);
  }
  return knife.dead;
}
