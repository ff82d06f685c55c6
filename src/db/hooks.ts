/** Programs that are told of what happens, and each thing that they are told. */
import { randomUUID } from 'node:crypto';
import { type HookKind, hookKindOf } from '@/core/hook/events';
import type { TimelineEvent } from '@/core/timeline/timeline';
import { enqueueJobs } from './jobs';
import type { Db, Tx } from './pool';
import { many, maybeOne, NONE, one, records, run, sql } from './sql';

export type Hook = {
  readonly id: string;
  readonly url: string;
  readonly kinds: readonly HookKind[];
  readonly state: 'on' | 'off' | 'removed';
  /** Encrypted. */
  readonly secret: Buffer;
  /** The one before, encrypted, and until when it is good. */
  readonly earlierSecret: Buffer | null;
  readonly earlierUntil: Date | null;
  readonly madeAt: Date;
  readonly byName: string;
  readonly toldAt: Date | null;
};

const HOOK = sql`id, url, kinds, state, secret, earlier_secret as "earlierSecret", earlier_until as "earlierUntil", made_at as "madeAt",
  by_name as "byName", told_at as "toldAt"`;

/** Those that were not removed, in the order in which they were made. */
export const allHooks = (db: Db): Promise<Hook[]> =>
  many(
    db,
    sql`select ${HOOK} from hooks where business_id = ${db.businessId} and state <> 'removed' order by made_at, id`,
  );

/** @param locked held until the transaction ends */
export const hookById = (db: Db, id: string, locked = false): Promise<Hook | null> =>
  maybeOne(
    db,
    sql`select ${HOOK} from hooks where business_id = ${db.businessId} and id = ${id} ${locked ? sql`for update` : NONE}`,
  );

export const insertHook = (tx: Tx, hook: Pick<Hook, 'id' | 'url' | 'kinds' | 'secret' | 'byName'>): Promise<number> =>
  run(
    tx,
    sql`insert into hooks (business_id, id, url, kinds, secret, made_at, by_name)
        values (${tx.businessId}, ${hook.id}, ${hook.url}, ${[...hook.kinds]}, ${hook.secret}, ${tx.now}, ${hook.byName})`,
  );

export const updateHook = (tx: Tx, hook: Hook): Promise<number> =>
  run(
    tx,
    sql`update hooks set url = ${hook.url}, kinds = ${[...hook.kinds]}, state = ${hook.state}, secret = ${hook.secret},
          earlier_secret = ${hook.earlierSecret}, earlier_until = ${hook.earlierUntil}, told_at = ${hook.toldAt}
        where business_id = ${tx.businessId} and id = ${hook.id}`,
  );

/** What something is about, by its ids. */
export type About = {
  readonly invoiceId?: string;
  readonly orderId?: string;
  readonly planId?: string;
  readonly parcelId?: string;
};

export type Delivery = {
  readonly id: string;
  readonly hookId: string;
  readonly eventId: string;
  readonly kind: HookKind | 'test';
  readonly about: About;
  /** The values of the event, as the timeline has them; sums in minor units. */
  readonly details: Readonly<Record<string, unknown>>;
  readonly happenedAt: Date;
  readonly body: string | null;
  readonly state: 'waiting' | 'done' | 'given-up';
  readonly tries: number;
  readonly outcome: string;
  /** By the computer's own time, in which other programs live. */
  readonly triedAt: Date | null;
  readonly nextAt: Date | null;
};

const DELIVERY = sql`id, hook_id as "hookId", event_id as "eventId", kind, about, details, happened_at as "happenedAt", body, state, tries,
  outcome, tried_at as "triedAt", next_at as "nextAt"`;

/** @param locked held until the transaction ends */
export const deliveryById = (db: Db, id: string, locked = false): Promise<Delivery | null> =>
  maybeOne(
    db,
    sql`select ${DELIVERY} from hook_deliveries where business_id = ${db.businessId} and id = ${id} ${locked ? sql`for update` : NONE}`,
  );

/** The latest that a program was told, newest first. */
export const deliveriesOf = (db: Db, hookId: string, most: number): Promise<Delivery[]> =>
  many(
    db,
    sql`select ${DELIVERY} from hook_deliveries where business_id = ${db.businessId} and hook_id = ${hookId}
        order by happened_at desc, id desc limit ${most}`,
  );

/** Writes down what came of a try. The tried and the next moment are the computer's own. */
export async function updateDelivery(
  tx: Tx,
  id: string,
  { state, tries, outcome }: Pick<Delivery, 'state' | 'tries' | 'outcome'>,
  nextSeconds: number | null,
): Promise<void> {
  await run(
    tx,
    sql`update hook_deliveries set state = ${state}, tries = ${tries}, outcome = ${outcome}, tried_at = now(),
          next_at = now() + make_interval(secs => ${nextSeconds}::float8)
        where business_id = ${tx.businessId} and id = ${id}`,
  );
}

/** Keeps what is sent, the first time that it is made; returns what is kept. */
export const keepBody = async (tx: Tx, id: string, body: string): Promise<string> =>
  (
    await one<{ body: string }>(
      tx,
      sql`update hook_deliveries set body = coalesce(body, ${body}) where business_id = ${tx.businessId} and id = ${id} returning body`,
    )
  ).body;

type New = Pick<Delivery, 'hookId' | 'eventId' | 'kind' | 'about' | 'details'>;

/** Writes down what programs are to be told, with the jobs that tell them. */
export async function queueDeliveries(tx: Tx, given: readonly New[]): Promise<void> {
  if (given.length === 0) return;
  const rows = given.map((one) => ({ id: randomUUID(), ...one }));
  await run(
    tx,
    sql`insert into hook_deliveries (business_id, id, hook_id, event_id, kind, about, details, happened_at)
        select ${tx.businessId}, id, "hookId", "eventId", kind, about, details, ${tx.now}
        from jsonb_to_recordset(${records(rows)}::jsonb)
          as given (id uuid, "hookId" uuid, "eventId" uuid, kind text, about jsonb, details jsonb)`,
  );
  await enqueueJobs(
    tx,
    rows.map(({ id }) => ({
      task: 'tell-program' as const,
      key: `tell:${id}:0`,
      payload: { businessId: tx.businessId, deliveryId: id },
    })),
  );
}

/** Tells the programs that want to hear of it what timelines say; with no program there, nothing is written. */
export async function tellPrograms(
  tx: Tx,
  lines: readonly { readonly of: About; readonly event: TimelineEvent }[],
): Promise<void> {
  const told = lines.flatMap(({ of, event }) => {
    const kind = hookKindOf(event);
    return kind ? [{ of, event, kind }] : [];
  });
  if (told.length === 0) return;
  const hooks = await many<Pick<Hook, 'id' | 'kinds'>>(
    tx,
    sql`select id, kinds from hooks where business_id = ${tx.businessId} and state = 'on'`,
  );
  if (hooks.length === 0) return;
  await queueDeliveries(
    tx,
    told.flatMap(({ of, event: { kind: _, ...details }, kind }) => {
      const eventId = randomUUID();
      return hooks
        .filter(({ kinds }) => kinds.includes(kind))
        .map(({ id }) => ({ hookId: id, eventId, kind, about: of, details }));
    }),
  );
}
