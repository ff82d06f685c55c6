import { Agent, request } from 'undici';

/** What an outside service answered: its status and the JSON in it, null for an empty answer. */
export type Answered = { readonly status: number; readonly json: unknown };

const CONNECT_MS = 5000;
const MOST_BYTES = 64 * 1024 * 1024;

const kept = globalThis as { dahliaOutside?: Agent };

/** Connections to outside services: what is too slow to connect, or says too much, is cut off. */
const agent = (): Agent =>
  (kept.dahliaOutside ??= new Agent({ connect: { timeout: CONNECT_MS }, maxResponseSize: MOST_BYTES }));

/**
 * Calls an outside service. Not `fetch`, which costs much more for each call (hundreds of sales are sent in a second) and follows
 * redirects: nobody but the address that was set is told anything.
 *
 * @param timeoutMs for the whole, from the first to the last byte
 * @throws Error where no answer came in time, or one that is no JSON
 */
export async function call(
  url: string,
  {
    method = 'GET',
    headers = {},
    body,
    timeoutMs,
  }: {
    readonly method?: 'GET' | 'POST' | 'DELETE';
    readonly headers?: Readonly<Record<string, string>>;
    readonly body?: object | undefined;
    readonly timeoutMs: number;
  },
): Promise<Answered> {
  const answer = await request(url, {
    dispatcher: agent(),
    method,
    headers: { 'content-type': 'application/json', ...headers },
    ...(body ? { body: JSON.stringify(body) } : {}),
    signal: AbortSignal.timeout(timeoutMs),
  });
  const text = await answer.body.text();
  return { status: answer.statusCode, json: text === '' ? null : JSON.parse(text) };
}
