import { mayDo, type Right } from '@/core/person/rights';
import type { Actor } from '@/db/people';
import type { Connection } from '@/db/pool';
import { outsideBusiness } from '@/db/transaction';
import { type By, Context, clockNow, inNameOf, type Reading, type Writing } from './context';
import type { Link } from './links';
import { requireProved } from './proved';
import { Refusal } from './refusal';

export type { Context, Reading, Writing };
export { inNameOf };

/** How an operation uses the database: one transaction that reads, writes, or writes in turn; or several, with work in between. */
export type Transactions = 'read' | 'write' | 'turn' | 'several';

/** Who may enter, and with what: a right at the desk, a link, the worker for one business, anybody, or the house itself. */
export type Entry =
  | {
      readonly by: 'desk';
      readonly right: Right;
      readonly again: boolean;
      readonly bare: boolean;
      readonly whenClosed: boolean;
    }
  | { readonly by: 'link'; readonly link: string }
  | { readonly by: 'worker' }
  | { readonly by: 'anybody' }
  | { readonly by: 'house' };

export type Needs = { readonly entry: Entry; readonly transactions: Transactions; readonly tells: boolean };

const NEEDS = Symbol('needs');

/** What somebody may do: handlers, actions and jobs call nothing else. */
export type Operation<Args extends unknown[], Result> = ((...args: Args) => Promise<Result>) & {
  readonly [NEEDS]: Needs;
};

/** What an exported value needs where it is an operation; null for anything else. */
export const needsOf = (value: unknown): Needs | null =>
  typeof value === 'function' && NEEDS in value ? (value[NEEDS] as Needs) : null;

const declared = <Args extends unknown[], Result>(
  needs: Needs,
  enter: (...args: Args) => Promise<Result>,
): Operation<Args, Result> => Object.assign(enter, { [NEEDS]: needs });

type Told = {
  /** Whether listening screens hear of what is written; false where none shows it. */
  readonly tells?: boolean;
};

/** The four forms of an operation. `Head` is what a caller hands in first, `Given` what the work gets of it. */
function forms<Head extends unknown[], Given extends unknown[]>(
  entry: Entry,
  { tells = true }: Told,
  enter: (...head: Head) => Promise<[Context, ...Given]>,
  heads: number,
) {
  type Work<Scope, Args extends unknown[], Result> = (scope: Scope, ...args: [...Given, ...Args]) => Promise<Result>;
  const form = <Args extends unknown[], Result>(
    transactions: Transactions,
    run: (context: Context, args: [...Given, ...Args]) => Promise<Result>,
  ) =>
    declared({ entry, transactions, tells }, async (...args: [...Head, ...Args]): Promise<Result> => {
      const head = args.slice(0, heads) as Head;
      const [context, ...given] = await enter(...head);
      return run(context, [...given, ...(args.slice(heads) as Args)]);
    });
  return {
    read: <Args extends unknown[], Result>(work: Work<Reading, Args, Result>) =>
      form<Args, Result>('read', (context, args) => context.read((db) => work(db, ...args))),
    write: <Args extends unknown[], Result>(work: Work<Writing, Args, Result>) =>
      form<Args, Result>('write', (context, args) => context.write((tx) => work(tx, ...args))),
    turn: <Args extends unknown[], Result>(work: Work<Writing, Args, Result>) =>
      form<Args, Result>('turn', (context, args) => context.turn((tx) => work(tx, ...args))),
    run: <Args extends unknown[], Result>(work: Work<Context, Args, Result>) =>
      form<Args, Result>('several', (context, args) => work(context, ...args)),
  };
}

type Asked = Told & {
  /** Whether somebody who did not show lately who they are has to do it once more. */
  readonly again?: boolean;
  /** Whether it stands open to somebody who has yet to set up the second step that their business asks for. */
  readonly bare?: boolean;
  /** Whether it may write where the business is closed. */
  readonly whenClosed?: boolean;
};

/**
 * An operation of people who are signed in and have a right.
 *
 * @throws Refusal `not-allowed`, `step-first`, `prove-again`, in this order and before anything else
 */
export const desk = (right: Right, { again = false, bare = false, whenClosed = false, ...told }: Asked = {}) =>
  forms<[actor: Actor], []>(
    { by: 'desk', right, again, bare, whenClosed },
    told,
    async (actor) => {
      if (!mayDo(actor, right)) throw new Refusal('not-allowed');
      if (actor.lacksStep && !bare) throw new Refusal('step-first');
      if (again) requireProved(actor);
      // Somebody's own way in is theirs, also where the business is closed.
      const locked = actor.closed && !bare && !whenClosed;
      return [new Context(actor.businessId, actor, await clockNow(), told.tells ?? true, locked)];
    },
    1,
  );

const CUSTOMER: By = { name: 'Customer', personId: '' };
const DAHLIA: By = { name: 'Dahlia', personId: '' };

/** An operation of whoever holds a link; the work gets what the link opens. @throws Refusal `not-found` for a link that opens nothing */
export const byLink = <Opened>(link: Link<Opened>, told: Told = {}) =>
  forms<[token: string], [opened: Opened]>(
    { by: 'link', link: link.kind },
    told,
    async (token) => {
      const now = await clockNow();
      const holder = await link.open(token, now);
      if (!holder) throw new Refusal('not-found');
      return [new Context(holder.businessId, CUSTOMER, now, told.tells ?? true), holder.opened];
    },
    1,
  );

/** The same, but null where nothing is found: for a page that says so in its own words. */
export const orNull = <Args extends unknown[], Result>(
  operation: Operation<Args, Result>,
): Operation<Args, Result | null> =>
  declared(operation[NEEDS], async (...args: Args): Promise<Result | null> => {
    try {
      return await operation(...args);
    } catch (error) {
      if (error instanceof Refusal && error.code === 'not-found') return null;
      throw error;
    }
  });

/** An operation of the worker's in one business. */
export const worker = (told: Told = {}) =>
  forms<[businessId: string], []>(
    { by: 'worker' },
    told,
    async (businessId) => [new Context(businessId, DAHLIA, await clockNow(), told.tells ?? true)],
    1,
  );

/** What an operation works with that belongs to no business: the clock, the doors, and the way into one business. */
export type House = {
  readonly now: Date;
  outside<T>(work: (db: Connection) => Promise<T>): Promise<T>;
  within(businessId: string, by?: By): Context;
};

const house = async (tells: boolean): Promise<House> => {
  const now = await clockNow();
  return {
    now,
    outside: outsideBusiness,
    within: (businessId, by = DAHLIA) => new Context(businessId, by, now, tells),
  };
};

const ofHouse =
  (by: 'anybody' | 'house') =>
  (told: Told = {}) => ({
    run: <Args extends unknown[], Result>(work: (house: House, ...args: Args) => Promise<Result>) => {
      const tells = told.tells ?? true;
      return declared({ entry: { by }, transactions: 'several', tells }, async (...args: Args) =>
        work(await house(tells), ...args),
      );
    },
  });

/** An operation of anybody at all: signing in, what an outside service reports, how the house is. */
export const anybody = ofHouse('anybody');

/** An operation of the worker's over all businesses. */
export const overAll = ofHouse('house');
