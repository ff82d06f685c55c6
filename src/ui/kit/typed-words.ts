import { windowMemory } from './memory';

const nameOf = (form: string): string => `dahlia:typed:${form}`;

/** What was typed into a form in this window and not sent; null for nothing. */
export function typedBefore<Values>(form: string): Partial<Values> | null {
  try {
    return JSON.parse(windowMemory.getItem(nameOf(form)) ?? 'null') as Partial<Values> | null;
  } catch {
    return null;
  }
}

export const keepTyped = (form: string, values: object): void =>
  windowMemory.setItem(nameOf(form), JSON.stringify(values));

export const forgetTyped = (form: string): void => windowMemory.removeItem(nameOf(form));
