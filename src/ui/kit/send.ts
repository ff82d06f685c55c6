import { shownAgain } from './asked-again';

/** What an action answered: what it gives, or why not, in words; `fields` names the places. */
export type Answer<T> =
  | { readonly ok: true; readonly value: T }
  | {
      readonly ok: false;
      readonly code: string;
      readonly words: string;
      readonly fields: readonly { readonly field: string; readonly words: string }[];
    };

const UNREACHABLE: Answer<never> = {
  ok: false,
  code: 'unreachable',
  words: 'No connection. What you typed is kept; try again in a moment.',
  fields: [],
};

/** The server gives up after ninety seconds: a line that says nothing for longer is lost, and nobody waits on it for ever. */
export const LOST_AFTER_MS = 120_000;

/**
 * Sends JSON to one of the application's own addresses; a lost connection is an answer too, never thrown. Where somebody has to show once
 * more who they are, they are asked, and it is sent again.
 */
export async function send<T>(
  method: 'GET' | 'POST' | 'PUT' | 'DELETE',
  path: string,
  body?: unknown,
  options: { keepalive?: boolean; signal?: AbortSignal } = {},
): Promise<Answer<T>> {
  try {
    const response = await fetch(path, {
      method,
      ...(body === undefined ? {} : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
      signal: AbortSignal.timeout(LOST_AFTER_MS),
      ...options,
    });
    const answer = (await response.json()) as Answer<T>;
    if (!answer.ok && answer.code === 'step-first') location.assign('/second-step');
    if (!answer.ok && answer.code === 'prove-again' && (await shownAgain()))
      return await send(method, path, body, options);
    return answer;
  } catch {
    return UNREACHABLE;
  }
}

/** What an answer says is wrong, the first named place before the whole; empty when nothing is. */
export const troubleOf = (
  answer: { ok: true } | { ok: false; words: string; fields: readonly { words: string }[] },
): string => (answer.ok ? '' : (answer.fields[0]?.words ?? answer.words));
