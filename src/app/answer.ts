import { randomBytes } from 'node:crypto';
import { isUUID } from 'class-validator';
import { type NextRequest, NextResponse } from 'next/server';
import { isUsualDay } from '@/core/dates/usual';
import { passedThrough } from '@/core/offer/passed';
import { Refusal, type RefusalCode } from '@/flows/door/refusal';
import type { Actor } from '@/flows/door/rights';
import { checkedInput, Malformed, parsedJson, type Shape } from '@/input/checked';
import { isStorable } from '@/input/plain';
import { errorTrace, log } from '@/outside/log';
import { bodyFile, bodyText } from './body';
import { callerOf } from './caller';
import { mostAt } from './limits';
import { currentActor } from './session';

type Params = Record<string, string>;
type Context = { params: Promise<Params | undefined> };
type Handler = (request: NextRequest, context: Context) => Promise<NextResponse>;

/** What a handler is given: the checked input, the address's parameters, and where the request came from. */
export type Call<Input> = {
  readonly input: Input;
  readonly params: Params;
  readonly request: NextRequest;
  readonly address: string;
  /** The body as it is, where the input stands in the address. @throws Refusal `file-too-large`, `too-slow` */
  readonly file: () => Promise<Buffer>;
};

const STATUS: Partial<Record<RefusalCode, number>> = {
  'sign-in-failed': 401,
  'work-first': 401,
  'not-signed-in': 401,
  'not-allowed': 403,
  'step-first': 403,
  'prove-again': 403,
  'code-wrong': 401,
  'recovery-wrong': 401,
  'passkey-not-taken': 401,
  'not-found': 404,
  'too-much': 413,
  'file-too-large': 413,
  'sign-in-too-often': 429,
  'too-many-attempts': 429,
  'too-slow': 503,
};

/** With which status a rule’s no is answered. */
export const statusOf = (code: RefusalCode): number => STATUS[code] ?? 409;

/** No input at all. */
export class Nothing {}

/** Where a handler's input stands: in the body of what changes something, else in the address. How much it takes: `limits.ts`. */
export type Takes = { readonly from: 'body' | 'address' };

const TAKES = Symbol('takes');

/** What an exported handler takes, with the class of its input; null for any other value. */
export const takesOf = (handler: unknown): (Takes & { readonly shape: Shape<object> }) | null =>
  typeof handler === 'function' && TAKES in handler
    ? (handler[TAKES] as Takes & { readonly shape: Shape<object> })
    : null;

/** What the address says after its question mark, as input: each name once. */
const ofAddress = (request: NextRequest): object => Object.fromEntries(request.nextUrl.searchParams);

async function inputOf<Input extends object>(
  shape: Shape<Input>,
  request: NextRequest,
  { from }: Takes,
): Promise<Input> {
  if (shape === (Nothing as unknown)) return new shape();
  const inAddress = request.method === 'GET' || from === 'address';
  return checkedInput(
    shape,
    inAddress ? ofAddress(request) : parsedJson(await bodyText(request, mostAt(request.nextUrl.pathname))),
  );
}

const addressOf = (request: NextRequest): string => callerOf(request.headers.get('x-forwarded-for')) ?? 'unknown';

/** What the parameters of addresses are made of; one that is not opens nothing. */
const isParameter = (name: string, value: string): boolean =>
  name === 'id' ? isUUID(value) : name === 'day' ? isUsualDay(value) : value.length <= 1000 && isStorable(value);

async function paramsOf(context: Context): Promise<Params> {
  // A route without parameters is given none.
  const params = (await context.params) ?? {};
  if (!Object.entries(params).every(([name, value]) => isParameter(name, value))) throw new Refusal('not-found');
  return params;
}

/** What a handler answers is kept by nobody and can run nothing, unless it says otherwise itself. */
const kept = (response: NextResponse): NextResponse => {
  if (!response.headers.has('cache-control')) response.headers.set('cache-control', 'private, no-store');
  if (!response.headers.has('content-security-policy')) {
    response.headers.set('content-security-policy', "default-src 'none'; frame-ancestors 'none'; sandbox");
  }
  return response;
};

const told = (body: object, status: number): NextResponse => kept(NextResponse.json(body, { status }));

/** Whether the database gave it up: it took longer than a statement may. */
export const isGivenUp = (error: unknown): boolean =>
  typeof error === 'object' && error !== null && 'code' in error && error.code === '57014';

/** Turns whatever was thrown into an answer: a rule's no in words, the unknown as a reference that stands in the log. */
export function troubleAnswer(error: unknown): NextResponse {
  if (error instanceof Refusal) {
    const { code, words, fields } = error;
    return told({ ok: false, code, words, fields }, statusOf(code));
  }
  if (error instanceof Malformed) {
    const words = error.fields[0]?.words ?? 'Something that was sent cannot be read.';
    return told({ ok: false, code: 'malformed', words, fields: error.fields }, 400);
  }
  if (isGivenUp(error)) return troubleAnswer(new Refusal('too-slow'));
  const reference = randomBytes(4).toString('hex');
  log.error({ reference, ...errorTrace(error) }, 'a request failed');
  const words = `Something went wrong on our side. Try again; if it stays, tell us the reference ${reference}.`;
  return told({ ok: false, code: 'trouble', words, fields: [] }, 500);
}

/** How long an answer may be waited for; what the database does for it ends sooner by its own limit. */
const LONGEST_MS = 90_000;

function withinTime<T>(work: Promise<T>): Promise<T> {
  let timer: NodeJS.Timeout | undefined;
  const over = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(new Refusal('too-slow')), LONGEST_MS);
  });
  return Promise.race([work, over]).finally(() => clearTimeout(timer));
}

/** Lets in by `admit` before anything of the body is read, checks the input, runs the flow, answers. */
function handler<Input extends object, Admitted>(
  shape: Shape<Input>,
  admit: () => Promise<Admitted>,
  work: (admitted: Admitted, call: Call<Input>) => Promise<unknown>,
  { from = 'body' }: Partial<Takes>,
): Handler {
  const answered = async (request: NextRequest, context: Context): Promise<NextResponse> => {
    const admitted = await admit();
    const params = await paramsOf(context);
    const input = await inputOf(shape, request, { from });
    const file = () => bodyFile(request, mostAt(request.nextUrl.pathname));
    const value = await withinTime(work(admitted, { input, params, request, address: addressOf(request), file }));
    return value instanceof NextResponse ? value : NextResponse.json({ ok: true, value: value ?? null });
  };
  const handle: Handler = (request, context) => answered(request, context).then(kept, troubleAnswer);
  return Object.assign(handle, { [TAKES]: { from, shape } });
}

/** A handler for anybody. */
export const open = <Input extends object>(
  shape: Shape<Input>,
  work: (call: Call<Input>) => Promise<unknown>,
  takes: Partial<Takes> = {},
): Handler =>
  handler(
    shape,
    async () => null,
    (_nobody, call) => work(call),
    takes,
  );

async function whoIsSignedIn(): Promise<Actor> {
  const actor = await currentActor();
  if (!actor) throw new Refusal('not-signed-in');
  return actor;
}

/** A handler for people who are signed in. */
export const desk = <Input extends object>(
  shape: Shape<Input>,
  work: (actor: Actor, call: Call<Input>) => Promise<unknown>,
  takes: Partial<Takes> = {},
): Handler => handler(shape, whoIsSignedIn, work, takes);

/** Kinds that a browser shows by itself and that can run nothing. */
const SHOWN = /^(application\/pdf|image\/(png|jpeg))$/;

/** A file to look at or to keep. What is no PDF and no picture is kept, never shown; nothing in any of them can run. */
export const fileAnswer = (file: { name: string; bytes: Buffer; type: string }): NextResponse =>
  new NextResponse(new Uint8Array(file.bytes), {
    headers: {
      'content-type': file.type,
      'content-disposition': `${SHOWN.test(file.type) ? 'inline' : 'attachment'}; filename*=UTF-8''${encodeURIComponent(file.name)}`,
      'cache-control': 'private, no-store',
      'x-content-type-options': 'nosniff',
      'cross-origin-resource-policy': 'same-origin',
      'content-security-policy': `default-src 'none'; style-src 'unsafe-inline'; frame-ancestors 'self'${file.type === 'application/pdf' ? '' : '; sandbox'}`,
    },
  });

/** Leads to another address of ours. */
export const redirectAnswer = (path: string): NextResponse =>
  new NextResponse(null, { status: 302, headers: { location: path, 'cache-control': 'private, no-store' } });

/** A handler for events of outside services: whoever signed it is asked by the flow, which answers false where nobody did. */
export const signedHook =
  (hear: (event: { body: string; time: string; signature: string }) => Promise<boolean>) =>
  async (request: NextRequest): Promise<NextResponse> => {
    try {
      const body = await bodyText(request, mostAt(request.nextUrl.pathname));
      const heard = await hear({
        body,
        time: request.headers.get('x-event-time') ?? '',
        signature: request.headers.get('x-event-signature') ?? '',
      });
      return told({ ok: heard }, heard ? 200 : 401);
    } catch (error) {
      return troubleAnswer(error);
    }
  };

const keptAs = (name: string, type: string): Record<string, string> => ({
  'content-type': type.startsWith('text/') || type === 'application/json' ? `${type}; charset=utf-8` : type,
  'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
  'cache-control': 'private, no-store',
  'x-content-type-options': 'nosniff',
});

/** A text to be kept as a file. */
export const textAnswer = (name: string, type: string, text: string): NextResponse =>
  new NextResponse(text, { headers: keptAs(name, type) });

/** The same, part by part as they come: what is read is never held whole, and stops where nobody reads on. */
export function streamAnswer(name: string, type: string, parts: AsyncIterable<string | Uint8Array>): NextResponse {
  const reading = parts[Symbol.asyncIterator]();
  const encoder = new TextEncoder();
  const body = new ReadableStream<Uint8Array>({
    pull: async (controller) => {
      const { done, value } = await reading.next();
      if (done) controller.close();
      else controller.enqueue(typeof value === 'string' ? encoder.encode(value) : value);
    },
    cancel: async () => {
      await reading.return?.();
    },
  });
  return new NextResponse(body, { headers: keptAs(name, type) });
}

/** A letter's HTML part as its reader sees it. */
export const mailAnswer = ({ html }: { readonly html: string }): NextResponse =>
  new NextResponse(html, {
    headers: {
      'content-type': 'text/html; charset=utf-8',
      'cache-control': 'private, no-store',
      'content-security-policy':
        "default-src 'none'; img-src 'self' data:; style-src 'unsafe-inline'; base-uri 'none'; form-action 'none'; frame-ancestors 'self'",
    },
  });

/** In which language and currency a page is wanted, as the address and the visitor's program say. */
export function visitorOf(request: Request): {
  acceptLanguage: string;
  lang: string;
  currency: string;
  passed: Record<string, string>;
} {
  const { searchParams } = new URL(request.url);
  return {
    acceptLanguage: request.headers.get('accept-language') ?? '',
    lang: searchParams.get('lang') ?? '',
    currency: searchParams.get('currency') ?? '',
    passed: passedThrough(Object.fromEntries(searchParams)),
  };
}

/** A finished page on which nothing runs. @param ancestors who may show it in a frame */
export async function pageAnswer(page: () => Promise<string | null>, ancestors: string): Promise<NextResponse> {
  try {
    const text = await page();
    if (text === null) return kept(new NextResponse('This page is not here (any more).', { status: 404 }));
    return new NextResponse(text, {
      headers: {
        'content-type': 'text/html; charset=utf-8',
        'cache-control': 'private, no-store',
        'content-security-policy': `default-src 'none'; img-src 'self' data:; font-src 'self'; style-src 'unsafe-inline'; form-action 'self'; base-uri 'none'; frame-ancestors ${ancestors}`,
        'referrer-policy': 'same-origin',
        'x-content-type-options': 'nosniff',
      },
    });
  } catch (error) {
    return troubleAnswer(error);
  }
}
