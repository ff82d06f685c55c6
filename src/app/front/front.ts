/** What is refused before the framework sees it: addresses that cannot be read, bodies that announce more than is taken, and callers who send nothing else. */
import type { IncomingMessage, OutgoingHttpHeaders, ServerResponse } from 'node:http';
import { isReadable } from '@/app/addresses';
import { callerOf } from '@/app/caller';
import { mostAt, takesFile } from '@/app/limits';
import { safeHeaders } from '@/app/safe-headers';
import { type RefusalCode, refusalWords } from '@/core/refusal/refusal';
import { Allowance } from './allowance';

/** So long the line stays open for whoever still sends, so that the answer is read before it is cut. */
const LINGER_MS = 300;

/** So much that no screen of ours sends is answered at once, and so much a second after that; then it is turned away unread. */
const NONSENSE_AT_ONCE = 20;
const NONSENSE_A_SECOND = 1;

type No = { readonly status: number; readonly code: RefusalCode; readonly wait?: number };
type Head = Pick<IncomingMessage, 'url' | 'headers'>;

/** An address as it came, of which a proxy may send all and a browser sends the path. */
function readAddress(address: string): { readonly pathname: string; readonly search: string } | null {
  try {
    return new URL(address, 'http://invalid');
  } catch {
    return null;
  }
}

const hasBody = (headers: Head['headers']): boolean =>
  headers['transfer-encoding'] !== undefined || Number(headers['content-length'] ?? 0) > 0;

/**
 * Why a request is not passed on; null where it is. A body is measured by what its head says: one without a length is not taken
 * (RFC 9110, 411), since it would be held in memory before its reader could refuse it.
 *
 * @param wait seconds that this caller has to wait, after much that nobody could read
 */
function whyNot({ url = '/', headers }: Head, wait = 0): No | null {
  const address = readAddress(url);
  if (!address || !isReadable(address)) return { status: 400, code: 'address-not-read' };
  // Pages are still shown: somebody else may sit behind the same address.
  if (wait > 0 && hasBody(headers)) return { status: 429, code: 'much-nonsense', wait };
  if (headers['transfer-encoding'] !== undefined) return { status: 411, code: 'length-unknown' };
  if (Number(headers['content-length'] ?? 0) <= mostAt(address.pathname)) return null;
  return { status: 413, code: takesFile(address.pathname) ? 'file-too-large' : 'too-much' };
}

/** Whether an answer is one that our own screens never get: what was sent is of no known form, forged, or far too often the same. */
const isNonsense = (status: number, url = '/'): boolean =>
  // Programs are limited by their keys, and told so in their own form.
  !url.startsWith('/v1/') &&
  ([400, 411, 413, 429].includes(status) || (status === 401 && url.startsWith('/api/hooks/')));

/** Answers, and closes the line where a body still comes: nothing of it is read. */
function refuse(request: IncomingMessage, response: ServerResponse, { status, code, wait }: No): void {
  const body = JSON.stringify({ ok: false, code, words: refusalWords(code), fields: [] });
  const comes = hasBody(request.headers);
  const headers: OutgoingHttpHeaders = {
    'content-type': 'application/json',
    'content-length': Buffer.byteLength(body),
    'cache-control': 'private, no-store',
    'content-security-policy': "default-src 'none'; frame-ancestors 'none'; sandbox",
    ...safeHeaders(),
    ...(wait ? { 'retry-after': String(wait) } : {}),
    ...(comes ? { connection: 'close' } : {}),
  };
  response.writeHead(status, headers);
  if (!comes) return void response.end(body);
  // Ended at once, the line would be reset under the sender's hands, and some lose the answer with it.
  response.write(body);
  setTimeout(() => request.socket.destroy(), LINGER_MS);
}

/** The front of the web program: passes on to the framework what may be for it. */
export class Front {
  readonly #nonsense = new Allowance(NONSENSE_AT_ONCE, NONSENSE_A_SECOND);

  constructor(
    private readonly pass: (request: IncomingMessage, response: ServerResponse) => void,
    /** Milliseconds that only grow. */
    private readonly now: () => number,
  ) {}

  /** @param asks whether the body is sent only once this program says so (RFC 9110, 100) */
  answer(request: IncomingMessage, response: ServerResponse, asks = false): void {
    const { url, headers } = request;
    const forwarded = headers['x-forwarded-for'];
    const caller = callerOf(Array.isArray(forwarded) ? forwarded.at(-1) : forwarded);
    if (caller)
      response.once('close', () => {
        if (isNonsense(response.statusCode, url)) this.#nonsense.spend(caller, this.now());
      });
    const refusal = whyNot(request, caller ? this.#nonsense.secondsToWait(caller, this.now()) : 0);
    if (refusal) refuse(request, response, refusal);
    else {
      if (asks) response.writeContinue();
      this.pass(request, response);
    }
  }
}
