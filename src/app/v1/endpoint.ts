/** One thing that other programs can do: where, with what, by which right, and what is answered. */
import { isUsualDay, isUsualMoment } from '@/core/dates/usual';
import type { Right } from '@/core/person/rights';
import type { Actor } from '@/flows/door/rights';
import { Malformed } from '@/input/checked';
import type { Shape } from '@/input/form';
import type { Schema } from './schema';

export type Asked<Input> = {
  readonly input: Input;
  /** The ids in the address, in their order. */
  readonly ids: readonly string[];
  /** What was sent, by name: a change has the rest as it was. */
  readonly said: readonly string[];
  /** The same for the same request: what is done once under it is not done twice. */
  readonly requestKey: string;
};

export type Endpoint = {
  readonly method: 'GET' | 'POST' | 'PATCH';
  /** Behind `/v1`; `{id}` stands for an id. */
  readonly path: string;
  readonly what: string;
  readonly right: Right;
  readonly input: Shape<object>;
  readonly answers: Schema;
  readonly status: 200 | 201;
  /** Whether it can be sent again where it is not known what came of it: what it does is done once under its request's key. */
  readonly repeatable: boolean;
  /** What is there, for a change that leaves the rest as it is. */
  readonly current?: (actor: Actor, ids: readonly string[]) => Promise<object>;
  readonly run: (actor: Actor, asked: Asked<never>) => Promise<object>;
};

type Given<Input> = {
  readonly what: string;
  readonly right: Right;
  readonly input: Shape<Input>;
  readonly answers: Schema;
  readonly repeatable?: boolean;
  readonly run: (actor: Actor, asked: Asked<Input>) => Promise<object>;
};

const made = <Input extends object>(
  method: Endpoint['method'],
  path: string,
  status: 200 | 201,
  { repeatable = false, ...given }: Given<Input>,
): Endpoint => ({ method, path, status, repeatable, ...given });

export const get = <Input extends object>(path: string, given: Given<Input>): Endpoint =>
  made('GET', path, 200, { repeatable: true, ...given });

/** Makes something new. */
export const create = <Input extends object>(path: string, given: Given<Input>): Endpoint =>
  made('POST', path, 201, given);

/** Does something with what is there. */
export const act = <Input extends object>(path: string, given: Given<Input>): Endpoint =>
  made('POST', path, 200, { repeatable: true, ...given });

/** Changes some of it; what is left out stays. */
export const change = <Input extends object>(
  path: string,
  { current, ...given }: Given<Input> & { readonly current: NonNullable<Endpoint['current']> },
): Endpoint => ({ ...made('PATCH', path, 200, { repeatable: true, ...given }), current });

/** What was asked for, without what was left out. */
export const saidOf = <Asked extends object>(asked: Asked): { [Name in keyof Asked]?: NonNullable<Asked[Name]> } =>
  Object.fromEntries(Object.entries(asked).filter(([, value]) => value !== undefined)) as never;

/** Where a page ended, as a sign that only we read. */
export type Cursor = { readonly key: string; readonly id: string };

export const cursorText = (cursor: Cursor | null): string | null =>
  cursor && Buffer.from(JSON.stringify([cursor.key, cursor.id])).toString('base64url');

const byAnything = (): boolean => true;
/** Of a list by days, and of one by moments: what only looks like one would end in the database. */
export const BY_DAY = isUsualDay;
export const BY_MOMENT = isUsualMoment;

/** @param key what such a list goes by @throws Malformed for what was not given as `next` */
export function cursorOf(after: string | undefined, by: (key: string) => boolean = byAnything): Cursor | null {
  if (!after) return null;
  try {
    const [key, id] = JSON.parse(Buffer.from(after, 'base64url').toString()) as [unknown, unknown];
    if (
      typeof key === 'string' &&
      key.length <= 200 &&
      by(key) &&
      !key.includes('\u0000') &&
      typeof id === 'string' &&
      /^[0-9a-f-]{36}$/.test(id)
    )
      return { key, id };
  } catch {
    // Said below, as for everything else that is none.
  }
  throw new Malformed([{ field: 'after', words: 'Send what the page before gave as next.' }]);
}
