import type { Actor } from '@/db/people';
import { Refusal } from './refusal';

export type { Actor };

/** @throws Refusal `not-found` where there is none: nobody learns whether it exists elsewhere */
export function found<T>(value: T | null | undefined): T {
  if (value === null || value === undefined) throw new Refusal('not-found');
  return value;
}
