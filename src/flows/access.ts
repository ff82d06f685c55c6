import type { Actor, Role } from '@/db/people';

import { Refusal } from './refusal';

export type { Actor };

const MAY: Readonly<Record<Role, readonly ('read' | 'ask')[]>> = {
  owner: ['read', 'ask'],
  clerk: ['read', 'ask'],
  reader: ['read'],
};

/** @throws Refusal `not-allowed` unless the person's role may do this: `ask` is making and sending invoices */
export function requireRight(actor: Actor, right: 'read' | 'ask'): void {
  if (!MAY[actor.role].includes(right)) throw new Refusal('not-allowed');
}

/** @throws Refusal `not-found` where there is none: nobody learns whether it exists elsewhere */
export function found<T>(value: T | null | undefined): T {
  if (value === null || value === undefined) throw new Refusal('not-found');
  return value;
}
