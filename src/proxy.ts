import { randomBytes } from 'node:crypto';
import { type NextRequest, NextResponse } from 'next/server';
import { ASKED_PATH, isFinished, isHandled } from '@/app/addresses';
import { safeHeaders } from '@/app/safe-headers';
import { framingSites } from '@/flows/offer/button';

const CHANGES = new Set(['POST', 'PUT', 'PATCH', 'DELETE']);

/** Signed by the processor, or opened by a key: these have no origin, and no cookie of a person is looked at. */
const WITHOUT_ORIGIN = /^\/(api\/hooks|v1)\//;

function contentPolicy(nonce: string, ancestors: string): string {
  const cards = new URL(process.env.CARDS_URL ?? 'http://invalid').origin;
  // A snippet is tried by sending it to the sample website, where there is one.
  const sample = process.env.SAMPLE_SITE_URL ? new URL(process.env.SAMPLE_SITE_URL).origin : '';
  return [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self' blob:",
    `frame-src 'self' ${cards}`,
    `frame-ancestors ${ancestors}`,
    "base-uri 'none'",
    `form-action 'self' ${sample}`,
    "object-src 'none'",
  ].join('; ');
}

/** A checkout or an order in a frame: `/c/NAME` and `/o/TOKEN` with `framed` in the address. */
const FRAMED = /^\/[co]\/([A-Za-z0-9_-]{3,80})$/;

/** Who may show this page in a frame: nobody but, for checkouts that ask for it, the websites that the business named. */
async function ancestorsOf({ nextUrl: { pathname, searchParams } }: NextRequest): Promise<string> {
  if (pathname.startsWith('/proof/')) return "'self'";
  const framed = searchParams.get('framed') === 'yes' ? FRAMED.exec(pathname)?.[1] : undefined;
  // Where nobody can be asked, nobody may.
  const sites = framed ? await framingSites(framed).catch(() => []) : [];
  return sites.length > 0 ? sites.join(' ') : "'none'";
}

function safe(response: NextResponse): NextResponse {
  for (const [name, value] of Object.entries(safeHeaders())) response.headers.set(name, value);
  return response;
}

const refused = (code: string, words: string, status: number): NextResponse =>
  safe(
    NextResponse.json(
      { ok: false, code, words, fields: [] },
      { status, headers: { 'cache-control': 'private, no-store' } },
    ),
  );

/** The one place where every request passes that the front let through (`src/app/front`): foreign origins may change nothing, and every page gets its content policy. */
export async function proxy(request: NextRequest): Promise<NextResponse> {
  const path = request.nextUrl.pathname;
  if (isFinished(path)) return safe(NextResponse.next());
  if (CHANGES.has(request.method) && !WITHOUT_ORIGIN.test(path)) {
    const own = new URL(process.env.PUBLIC_URL ?? 'http://invalid').origin;
    if (request.headers.get('origin') !== own) {
      const words = `Open Dahlia at ${own} and try again.`;
      return refused('foreign-origin', words, 403);
    }
  }
  if (isHandled(path)) return safe(NextResponse.next());
  const nonce = randomBytes(16).toString('base64');
  const policy = contentPolicy(nonce, await ancestorsOf(request));
  const headers = new Headers(request.headers);
  headers.set('x-nonce', nonce);
  headers.set(ASKED_PATH, path);
  headers.set('content-security-policy', policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set('content-security-policy', policy);
  return safe(response);
}

export const config = { matcher: ['/((?!_next/static/).*)'] };
