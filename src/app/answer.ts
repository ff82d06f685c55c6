import 'reflect-metadata';
import { randomBytes } from 'node:crypto';
import { plainToInstance } from 'class-transformer';
import { isUUID, type ValidationError, validate } from 'class-validator';
import { type NextRequest, NextResponse } from 'next/server';
import { Refusal, type RefusalCode } from '@/flows/door/refusal';
import type { Actor } from '@/flows/door/rights';
import { errorTrace, log } from '@/outside/log';
import { currentActor } from './session';

type Params = Record<string, string>;
type Context = { params: Promise<Params | undefined> };
type Handler = (request: NextRequest, context: Context) => Promise<NextResponse>;
type Shape<Input> = new () => Input;

/** What a handler is given: the checked input, the address's parameters, and where the request came from. */
export type Call<Input> = {
  readonly input: Input;
  readonly params: Params;
  readonly request: NextRequest;
  readonly address: string;
};

const STATUS: Partial<Record<RefusalCode, number>> = {
  'sign-in-failed': 401,
  'not-signed-in': 401,
  'not-allowed': 403,
  'not-found': 404,
  'sign-in-too-often': 429,
  'too-many-attempts': 429,
};

/** No input at all. */
export class Nothing {}

class Malformed extends Error {
  constructor(readonly fields: readonly { field: string; words: string }[]) {
    super('malformed');
  }
}

function fieldsOf(errors: readonly ValidationError[], path = ''): { field: string; words: string }[] {
  return errors.flatMap((error) => [
    ...Object.values(error.constraints ?? {}).map((words) => ({ field: `${path}${error.property}`, words })),
    ...fieldsOf(error.children ?? [], `${path}${error.property}.`),
  ]);
}

/** Where a handler's input stands: in the body of what changes something, else in the address. */
type From = 'body' | 'address';

async function checkedInput<Input extends object>(
  shape: Shape<Input>,
  request: NextRequest,
  from: From,
): Promise<Input> {
  if (shape === (Nothing as unknown)) return new shape();
  const given: unknown =
    request.method === 'GET' || from === 'address'
      ? Object.fromEntries(request.nextUrl.searchParams)
      : await request.text().then((text) => {
          try {
            return text === '' ? {} : JSON.parse(text);
          } catch {
            throw new Malformed([{ field: '', words: 'This is not JSON.' }]);
          }
        });
  if (typeof given !== 'object' || given === null || Array.isArray(given)) {
    throw new Malformed([{ field: '', words: 'An object is needed.' }]);
  }
  const input = plainToInstance(shape, given);
  const errors = await validate(input, { whitelist: true, forbidNonWhitelisted: true, forbidUnknownValues: true });
  if (errors.length > 0) throw new Malformed(fieldsOf(errors));
  return input;
}

/** The nearest trusted word on where a request came from: the last hop that was written down. */
const addressOf = (request: NextRequest): string =>
  request.headers.get('x-forwarded-for')?.split(',').at(-1)?.trim() || 'unknown';

/** Turns whatever was thrown into an answer: a rule's no in words, the unknown as a reference that stands in the log. */
export function troubleAnswer(error: unknown): NextResponse {
  if (error instanceof Refusal) {
    const { code, words, fields } = error;
    return NextResponse.json({ ok: false, code, words, fields }, { status: STATUS[code] ?? 409 });
  }
  if (error instanceof Malformed) {
    const words = error.fields[0]?.words ?? 'Something that was sent cannot be read.';
    return NextResponse.json({ ok: false, code: 'malformed', words, fields: error.fields }, { status: 400 });
  }
  const reference = randomBytes(4).toString('hex');
  log.error({ reference, ...errorTrace(error) }, 'a request failed');
  const words = `Something went wrong on our side. Try again; if it stays, tell us the reference ${reference}.`;
  return NextResponse.json({ ok: false, code: 'trouble', words, fields: [] }, { status: 500 });
}

/** A handler for anybody: checks the input, runs the flow, answers. */
export function open<Input extends object>(
  shape: Shape<Input>,
  work: (call: Call<Input>) => Promise<unknown>,
  from: From = 'body',
): Handler {
  return async (request, context) => {
    try {
      const input = await checkedInput(shape, request, from);
      // A route without parameters is given none.
      const params = (await context.params) ?? {};
      if (params.id !== undefined && !isUUID(params.id)) throw new Refusal('not-found');
      const value = await work({ input, params, request, address: addressOf(request) });
      return value instanceof NextResponse ? value : NextResponse.json({ ok: true, value: value ?? null });
    } catch (error) {
      return troubleAnswer(error);
    }
  };
}

/** A handler for people who are signed in. */
export const desk = <Input extends object>(
  shape: Shape<Input>,
  work: (actor: Actor, call: Call<Input>) => Promise<unknown>,
  from: From = 'body',
): Handler =>
  open(
    shape,
    async (call) => {
      const actor = await currentActor();
      if (!actor) throw new Refusal('not-signed-in');
      return work(actor, call);
    },
    from,
  );

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

const LARGEST_EVENT = 10_000;

/** A handler for events of outside services: whoever signed it is asked by the flow, which answers false where nobody did. */
export const signedHook =
  (hear: (event: { body: string; time: string; signature: string }) => Promise<boolean>) =>
  async (request: NextRequest): Promise<NextResponse> => {
    try {
      const body = await request.text();
      if (body.length > LARGEST_EVENT) return NextResponse.json({ ok: false }, { status: 413 });
      const heard = await hear({
        body,
        time: request.headers.get('x-event-time') ?? '',
        signature: request.headers.get('x-event-signature') ?? '',
      });
      return NextResponse.json({ ok: heard }, { status: heard ? 200 : 401 });
    } catch (error) {
      return troubleAnswer(error);
    }
  };

/** A text to be kept as a file. */
export const textAnswer = (name: string, type: string, text: string): NextResponse =>
  new NextResponse(text, {
    headers: {
      'content-type': `${type}; charset=utf-8`,
      'content-disposition': `attachment; filename="${name}"`,
      'cache-control': 'private, no-store',
      'x-content-type-options': 'nosniff',
    },
  });

/** A letter's HTML part as its reader sees it. */
export const mailAnswer = ({ html }: { readonly html: string }): NextResponse =>
  new NextResponse(html, { headers: { 'content-type': 'text/html; charset=utf-8', 'cache-control': 'no-store' } });

/** In which language and currency a page is wanted, as the address and the visitor's program say. */
export function visitorOf(request: Request): { acceptLanguage: string; lang: string; currency: string } {
  const { searchParams } = new URL(request.url);
  return {
    acceptLanguage: request.headers.get('accept-language') ?? '',
    lang: searchParams.get('lang') ?? '',
    currency: searchParams.get('currency') ?? '',
  };
}

/** A finished page on which nothing runs. @param ancestors who may show it in a frame */
export async function pageAnswer(page: () => Promise<string | null>, ancestors: string): Promise<NextResponse> {
  try {
    const text = await page();
    if (text === null) return new NextResponse('This page is not here (any more).', { status: 404 });
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
