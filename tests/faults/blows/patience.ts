/** Clients that do not give up: what gets no answer is asked again, under the same key. */
import { Refusal } from '@/flows/door/refusal';
import { pause } from '../../support/until';

const TRIES = 2000;

/**
 * Does something until it is done; a rule's no is an answer, anything else is tried again.
 *
 * @param evenRefused begins anew after a no as well, for what several do at once to the same thing
 * @throws Error after very many tries
 */
export async function stubbornly<T>(what: string, work: () => Promise<T>, evenRefused = false): Promise<T> {
  let last: unknown;
  for (let tries = 0; tries < TRIES; tries++) {
    try {
      return await work();
    } catch (error) {
      if (error instanceof Refusal && !evenRefused) throw error;
      last = error;
      await pause(100);
    }
  }
  throw new Error(`${what} never came to an end: ${last instanceof Error ? last.message : String(last)}`);
}

export type Answer = {
  readonly ok: boolean;
  readonly code?: string;
  readonly words?: string;
  readonly value?: { readonly state?: string } | string | null;
};

/** Asks as a page does; null where no answer came. */
export async function asked(web: string, path: string, body?: object, cookie = ''): Promise<Answer | null> {
  try {
    const answer = await fetch(`${web}${path}`, {
      method: body ? 'POST' : 'GET',
      headers: { 'content-type': 'application/json', origin: web, cookie },
      ...(body ? { body: JSON.stringify(body) } : {}),
      signal: AbortSignal.timeout(15_000),
    });
    if (answer.status >= 500) return null;
    return (await answer.json()) as Answer;
  } catch {
    return null;
  }
}

export const stateOf = (answer: Answer | null): string =>
  typeof answer?.value === 'object' && answer.value !== null ? (answer.value.state ?? '') : '';
