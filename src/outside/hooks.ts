/** Telling other programs: to addresses of the open network alone, wherever a name leads, and never on to where an answer points. */
import { lookup } from 'node:dns';
import type { LookupFunction } from 'node:net';
import ipaddr from 'ipaddr.js';
import { Agent, request } from 'undici';

/** What came of it: the answer's status, or why there was none. */
export type Told =
  | { readonly status: number }
  | { readonly trouble: 'inner-address' | 'no-such-name' | 'no-answer' | 'not-safe' };

const CONNECT_MS = 5000;
const USUAL_MS = 10_000;
/** Of an answer nothing is read but that it ends. */
const MOST_BYTES = 64 * 1024;

class InnerAddress extends Error {}

/** Whether an address is one of the open network; an IPv4 that is written as an IPv6 is looked at as what it is. */
export const isOpenAddress = (address: string): boolean =>
  ipaddr.isValid(address) && ipaddr.process(address).range() === 'unicast';

/** Whether addresses of this computer are taken: the setting belongs to the demo. */
export const takesLocal = (): boolean => process.env.HOOKS_LOCAL === 'yes';

// Looked at where the connection is made: what a name led to a moment ago may be another address now.
const openLookup: LookupFunction = (name, options, done) => {
  lookup(name, { ...options, all: true }, (error, addresses) => {
    if (error) return done(error, '', 0);
    const inner = addresses.find(({ address }) => !isOpenAddress(address));
    const [first] = addresses;
    if (inner || !first) return done(new InnerAddress(name), '', 0);
    if (options.all) done(null, addresses as never);
    else done(null, first.address, first.family);
  });
};

const kept = globalThis as { dahliaHooks?: Record<'open' | 'local', Agent> };
const agents = (): Record<'open' | 'local', Agent> =>
  (kept.dahliaHooks ??= {
    open: new Agent({
      connect: { timeout: CONNECT_MS, lookup: openLookup },
      maxResponseSize: MOST_BYTES,
      pipelining: 0,
    }),
    local: new Agent({ connect: { timeout: CONNECT_MS }, maxResponseSize: MOST_BYTES, pipelining: 0 }),
  });

function troubleOf(error: unknown): Told {
  const code = String((error as { code?: unknown })?.code ?? '');
  if (error instanceof InnerAddress) return { trouble: 'inner-address' };
  if (code === 'ENOTFOUND' || code === 'EAI_AGAIN') return { trouble: 'no-such-name' };
  if (/CERT|TLS|SSL|SELF_SIGNED|ALTNAME/.test(code)) return { trouble: 'not-safe' };
  return { trouble: 'no-answer' };
}

/** Posts a text. Never throws: what cannot be reached is an outcome too. */
export async function postEvent(url: string, headers: Readonly<Record<string, string>>, body: string): Promise<Told> {
  const local = takesLocal();
  const host = new URL(url).hostname.replace(/^\[|\]$/g, '');
  // A bare address is never looked up.
  if (!local && ipaddr.isValid(host) && !isOpenAddress(host)) return { trouble: 'inner-address' };
  try {
    const answer = await request(url, {
      dispatcher: agents()[local ? 'local' : 'open'],
      method: 'POST',
      headers: { ...headers, 'content-type': 'application/json', 'user-agent': 'Dahlia' },
      body,
      signal: AbortSignal.timeout(Number(process.env.HOOKS_TIMEOUT_MS ?? USUAL_MS)),
    });
    const { statusCode } = answer;
    // What an answer says is nobody's; one that never ends is left.
    answer.body.on('error', () => undefined);
    answer.body.destroy();
    return { status: statusCode };
  } catch (error) {
    return troubleOf(error);
  }
}
