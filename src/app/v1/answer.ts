/** Answers other programs: who comes in by which key, how often, with what, and what was answered before. */
import { randomBytes } from 'node:crypto';
import { NextRequest, NextResponse } from 'next/server';
import { isGivenUp, statusOf } from '@/app/answer';
import { bodyText } from '@/app/body';
import { callerOf } from '@/app/caller';
import { mostAt } from '@/app/limits';
import { mayDo } from '@/core/person/rights';
import { REQUESTS_A_MINUTE } from '@/core/program/key';
import { idFor } from '@/flows/door/id-for';
import { Refusal } from '@/flows/door/refusal';
import { keepAnswered, letGo, takeUp } from '@/flows/program/answers';
import { type Program, programOf, spendRequest, spendWrongKey } from '@/flows/program/keys';
import { checkedInput, Malformed, parsedJson } from '@/input/checked';
import { NothingWritten } from '@/input/program-input';
import { errorTrace, log } from '@/outside/log';
import { endpointAt, type Found } from './endpoints';
import { openApi, problemWords } from './openapi';
import { PROBLEMS, type Problem, problemAnswer, problemOf } from './problem';

/** A problem under way to whoever asked, with what is told beside it. */
class Told extends Error {
  constructor(
    readonly problem: Problem,
    readonly headers: Readonly<Record<string, string>> = {},
  ) {
    super(problem.code);
  }
}
const tell = (code: keyof typeof PROBLEMS, headers?: Readonly<Record<string, string>>): Told =>
  new Told(problemOf(code), headers);

function problemFor(error: unknown): Problem {
  if (error instanceof Refusal) {
    if (error.code === 'prove-again') return problemOf('asks-for-a-person');
    return { code: error.code, status: statusOf(error.code), title: error.message, fields: error.fields };
  }
  if (error instanceof Malformed)
    return { code: 'not-well-formed', status: 400, title: 'What was sent is not well-formed.', fields: error.fields };
  if (isGivenUp(error)) return problemFor(new Refusal('too-slow'));
  const reference = randomBytes(4).toString('hex');
  log.error({ reference, ...errorTrace(error) }, 'a program’s request failed');
  return { code: 'trouble', status: 500, title: `Something went wrong on our side. The reference is ${reference}.` };
}

/** Who comes in, and what is told of how often they may. @throws Told `no-key`, `key-not-good`, `too-many-requests` */
async function admitted(request: NextRequest): Promise<{ program: Program; limits: Record<string, string> }> {
  const challenge = { 'www-authenticate': 'Bearer realm="Dahlia"' };
  const [, key] = /^Bearer +(\S+)$/i.exec(request.headers.get('authorization') ?? '') ?? [];
  if (!key) throw tell('no-key', challenge);
  const program = await programOf(key);
  if (!program) {
    const { refused, seconds } = await spendWrongKey(callerOf(request.headers.get('x-forwarded-for')) ?? 'unknown');
    throw refused ? tell('too-many-requests', { 'retry-after': String(seconds) }) : tell('key-not-good', challenge);
  }
  const { refused, left, seconds } = await spendRequest(program.keyId);
  const limits = {
    'ratelimit-limit': String(REQUESTS_A_MINUTE),
    'ratelimit-remaining': String(left),
    'ratelimit-reset': String(seconds),
  };
  if (refused) throw tell('too-many-requests', { ...limits, 'retry-after': String(seconds) });
  return { program, limits };
}

/** What was given, a change with the rest as it is, and what of it was said. */
async function givenOf(
  request: NextRequest,
  { endpoint, ids }: Found,
  { actor }: Program,
): Promise<{ given: object; said: readonly string[] }> {
  if (endpoint.method === 'GET') return { given: Object.fromEntries(request.nextUrl.searchParams), said: [] };
  const given = parsedJson(await bodyText(request, mostAt(request.nextUrl.pathname)));
  if (typeof given !== 'object' || given === null || Array.isArray(given)) return { given: given as object, said: [] };
  const said = Object.keys(given);
  return { given: endpoint.current ? { ...(await endpoint.current(actor, ids)), ...given } : given, said };
}

/** What was given, as the endpoint's class has it. @throws Malformed */
async function checked({ input }: Found['endpoint'], given: object): Promise<object> {
  if (input !== NothingWritten) return checkedInput(input, given);
  const [strange] = typeof given === 'object' && given !== null ? Object.keys(given) : [''];
  // A class without a rule has nothing that could be checked.
  if (strange !== undefined || Array.isArray(given))
    throw new Malformed([{ field: (strange ?? '').slice(0, 200), words: 'Nothing is taken here.' }]);
  return {};
}

type Outcome = { readonly status: number; readonly body: unknown };

/** Does what is asked under a key of the request: once, with its answer given again. */
async function once(
  { actor, keyId }: Program,
  found: Found,
  requestKey: string,
  given: object,
  work: (requestKey: string) => Promise<object>,
): Promise<Outcome> {
  const { endpoint } = found;
  const of = { keyId, requestKey };
  const path = endpoint.path.replace('{id}', found.ids[0] ?? '');
  const before = await takeUp(actor, of, JSON.stringify([endpoint.method, path, given]));
  if (before.kind === 'other') throw tell('other-request');
  if (before.kind === 'again') return { status: before.status, body: before.body };
  if (before.kind === 'unknown' && !endpoint.repeatable) throw tell('outcome-unknown');
  try {
    const body = await work(idFor(`${keyId} ${requestKey}`));
    await keepAnswered(actor, of, endpoint.status, body);
    return { status: endpoint.status, body };
  } catch (error) {
    // A no is no answer to be kept: what was in the way may be gone next time.
    if (error instanceof Refusal || error instanceof Malformed) await letGo(actor, of);
    throw error;
  }
}

async function outcomeOf(request: NextRequest, found: Found, program: Program): Promise<Outcome> {
  const { endpoint, ids } = found;
  const { actor } = program;
  // Before anything of the body is read; what was done is shown, so whoever does something may look too.
  if (!mayDo(actor, endpoint.right) || !mayDo(actor, 'see')) throw new Refusal('not-allowed');
  const { given, said } = await givenOf(request, found, program);
  const input = (await checked(endpoint, given)) as never;
  const work = (requestKey: string) => endpoint.run(actor, { input, ids, said, requestKey });
  const requestKey = request.headers.get('idempotency-key');
  if (requestKey === null || endpoint.method !== 'POST')
    return { status: endpoint.status, body: await work(crypto.randomUUID()) };
  if (!/^[\x21-\x7e]{1,200}$/.test(requestKey)) throw tell('request-key');
  return once(program, found, requestKey, given, work);
}

const SAFE = {
  'cache-control': 'private, no-store',
  'content-security-policy': "default-src 'none'; frame-ancestors 'none'; sandbox",
  'x-content-type-options': 'nosniff',
} as const;

/** What anybody may read: the description, and what a problem is. */
function openAnswer(method: string, path: string): NextResponse | null {
  if (method !== 'GET') return null;
  if (path === '/openapi.json')
    return NextResponse.json(openApi(process.env.PUBLIC_URL ?? ''), {
      headers: { ...SAFE, 'cache-control': 'public, max-age=300' },
    });
  const [, code] = /^\/problems\/([a-z-]{1,60})$/.exec(path) ?? [];
  const words = code ? problemWords(code) : null;
  return words ? NextResponse.json({ type: `/v1/problems/${code}`, title: words }, { headers: SAFE }) : null;
}

/** Answers a request of another program. @param path behind `/v1` */
export async function programAnswer(request: NextRequest, path: string): Promise<NextResponse> {
  const open = openAnswer(request.method, path);
  if (open) return open;
  let limits: Record<string, string> = {};
  try {
    const entered = await admitted(request);
    limits = entered.limits;
    const found = endpointAt(request.method, path);
    if ('methods' in found)
      throw found.methods.length === 0
        ? tell('not-there')
        : tell('no-such-method', { allow: [...new Set(found.methods)].join(', ') });
    const { status, body } = await outcomeOf(request, found, entered.program);
    return NextResponse.json(body ?? {}, { status, headers: { ...SAFE, ...limits } });
  } catch (error) {
    if (error instanceof Told) return problemAnswer(error.problem, { ...SAFE, ...limits, ...error.headers });
    return problemAnswer(problemFor(error), { ...SAFE, ...limits });
  }
}
