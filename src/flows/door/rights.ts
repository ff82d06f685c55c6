import type { Actor, Role } from '@/db/people';
import { Refusal } from './refusal';

export type { Actor, Role };

/**
 * What an operation at the desk needs: `see` looks; `ask` writes and sends what asks for money; `take` takes and charges it;
 * `give-back` pays it back; `records` changes customers and items; `settings` changes what holds for the whole
 * business, and where money goes: bank account, taxes, partners, how plans are charged; `people` decides who may what. Giving back and
 * settings are the owners'.
 */
export const RIGHTS = ['see', 'ask', 'take', 'give-back', 'records', 'settings', 'people'] as const;
export type Right = (typeof RIGHTS)[number];

export const ROLES = ['owner', 'clerk', 'reader'] as const satisfies readonly Role[];

const MAY: Readonly<Record<Role, ReadonlySet<Right>>> = {
  owner: new Set(RIGHTS),
  clerk: new Set(['see', 'ask', 'take', 'records']),
  reader: new Set(['see']),
};

/** Whether a role has a right: the only place that knows. */
export const mayDo = (role: Role, right: Right): boolean => MAY[role].has(right);

/** @throws Refusal `not-found` where there is none: nobody learns whether it exists elsewhere */
export function found<T>(value: T | null | undefined): T {
  if (value === null || value === undefined) throw new Refusal('not-found');
  return value;
}
