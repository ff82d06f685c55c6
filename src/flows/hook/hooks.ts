/** Which programs are told of what, by which secret; and what each was told. */
import { randomUUID } from 'node:crypto';
import { hookAddressProblem } from '@/core/hook/address';
import { ALL_HOOK_KINDS, HOOK_KINDS, type HookKind } from '@/core/hook/events';
import { BOTH_SECRETS_HOURS } from '@/core/hook/retry';
import {
  allHooks,
  type Delivery,
  deliveriesOf,
  deliveryById,
  type Hook,
  hookById,
  insertHook,
  queueDeliveries,
  updateDelivery,
  updateHook,
} from '@/db/hooks';
import { enqueueJobs } from '@/db/jobs';
import { countAttempt, type Limit } from '@/db/limits';
import { desk, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { noteSettings } from '@/flows/log/log';
import { takesLocal } from '@/outside/hooks';
import { newSecret, sealedSecret } from './secret';

/** A program that is told, without its secret. */
export type HookShown = Pick<Hook, 'id' | 'url' | 'kinds' | 'madeAt' | 'byName' | 'earlierUntil'> & {
  readonly isOn: boolean;
  /** Whether nothing has arrived there for three days. */
  readonly isSilent: boolean;
};
export type DeliveryShown = Omit<Delivery, 'hookId'>;

const shown = ({ id, url, kinds, madeAt, byName, earlierUntil, state, toldAt }: Hook): HookShown => ({
  id,
  url,
  kinds,
  madeAt,
  byName,
  earlierUntil,
  isOn: state === 'on',
  isSilent: toldAt !== null,
});

const LATEST = 40;

/** Everything that is told, and the latest of each. */
export const hooksView = desk('settings').read(
  async (db): Promise<{ readonly hook: HookShown; readonly deliveries: readonly DeliveryShown[] }[]> => {
    const view = [];
    for (const hook of await allHooks(db))
      view.push({ hook: shown(hook), deliveries: await deliveriesOf(db, hook.id, LATEST) });
    return view;
  },
);

/** What a program is told of, and where. */
export type HookAsk = { readonly url: string; readonly kinds: readonly HookKind[] };

function requireAddress({ url }: HookAsk): string {
  const words = hookAddressProblem(url, takesLocal());
  if (words) throw new Refusal('hook-address', [{ field: 'url', words }]);
  return new URL(url.trim()).href;
}

const called = (kinds: readonly HookKind[]): string =>
  kinds.length === ALL_HOOK_KINDS.length ? 'everything' : kinds.map((kind) => HOOK_KINDS[kind]).join('; ');

const noteHook = (tx: Writing, url: string, from: string, to: string): Promise<void> =>
  noteSettings(tx, 'hooks', from === to ? [] : [{ what: url, from, to }]);

const MOST_HOOKS = 10;

/** Tells a further program. @returns its secret, told this once @throws Refusal `hook-address`, `hooks-enough`, `prove-again` */
export const addHook = desk('settings', { again: true }).turn(
  async (tx, ask: HookAsk): Promise<{ readonly id: string; readonly secret: string }> => {
    const url = requireAddress(ask);
    if ((await allHooks(tx)).length >= MOST_HOOKS) throw new Refusal('hooks-enough');
    const id = randomUUID();
    const secret = newSecret();
    await insertHook(tx, { id, url, kinds: ask.kinds, secret: sealedSecret(id, secret), byName: tx.name });
    await noteHook(tx, url, '', called(ask.kinds));
    return { id, secret };
  },
);

async function here(tx: Writing, id: string): Promise<Hook> {
  const hook = found(await hookById(tx, id, true));
  if (hook.state === 'removed') throw new Refusal('not-found');
  return hook;
}

/** Changes where and of what a program is told, and whether it is. @throws Refusal `hook-address`, `not-found`, `prove-again` */
export const changeHook = desk('settings', { again: true }).turn(
  async (tx, id: string, ask: HookAsk & { readonly isOn: boolean }): Promise<void> => {
    const url = requireAddress(ask);
    const before = await here(tx, id);
    const after: Hook = { ...before, url, kinds: ask.kinds, state: ask.isOn ? 'on' : 'off' };
    await updateHook(tx, after);
    const words = (hook: Hook) => `${hook.url}: ${hook.state === 'on' ? called(hook.kinds) : 'switched off'}`;
    await noteHook(tx, url, words(before), words(after));
  },
);

/** Tells a program no more. @throws Refusal `not-found`, `prove-again` */
export const removeHook = desk('settings', { again: true }).turn(async (tx, id: string): Promise<void> => {
  const hook = await here(tx, id);
  await updateHook(tx, { ...hook, state: 'removed', earlierSecret: null, earlierUntil: null });
  await noteHook(tx, hook.url, called(hook.kinds), 'removed');
});

/** A new secret; the one before is good beside it for a day. @returns it, told this once @throws Refusal `not-found`, `prove-again` */
export const changeSecret = desk('settings', { again: true }).turn(async (tx, id: string): Promise<string> => {
  const hook = await here(tx, id);
  const secret = newSecret();
  const earlierUntil = new Date(tx.now.getTime() + BOTH_SECRETS_HOURS * 3_600_000);
  await updateHook(tx, { ...hook, secret: sealedSecret(id, secret), earlierSecret: hook.secret, earlierUntil });
  await noteHook(tx, hook.url, 'secret', 'another secret');
  return secret;
});

const BY_HAND: Limit = { name: 'hook-by-hand', attempts: 60, seconds: 3600 };

/** Tells a program something once more, as often as it takes anew. @throws Refusal `not-found`, `asked-too-often` */
export const tellAgain = desk('settings').run(async (ctx, deliveryId: string): Promise<void> => {
  if ((await countAttempt(BY_HAND, ctx.businessId)) > 0) throw new Refusal('asked-too-often');
  await ctx.turn(async (tx) => {
    const delivery = found(await deliveryById(tx, deliveryId, true));
    await here(tx, delivery.hookId);
    await updateDelivery(tx, deliveryId, { state: 'waiting', tries: 0, outcome: delivery.outcome }, 0);
    const payload = { businessId: tx.businessId, deliveryId };
    await enqueueJobs(tx, [{ task: 'tell-program', key: `tell:${deliveryId}:again`, payload }]);
  });
});

/** Tells a program something that did not happen, for trying it out. @throws Refusal `not-found`, `asked-too-often` */
export const tellTest = desk('settings').run(async (ctx, id: string): Promise<void> => {
  if ((await countAttempt(BY_HAND, ctx.businessId)) > 0) throw new Refusal('asked-too-often');
  await ctx.turn(async (tx) => {
    await here(tx, id);
    const details = { words: 'Nothing has happened: this is a test.' };
    await queueDeliveries(tx, [{ hookId: id, eventId: randomUUID(), kind: 'test', about: {}, details }]);
  });
});
