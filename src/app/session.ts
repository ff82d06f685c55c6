import { cookies } from 'next/headers';
import { redirect } from 'next/navigation';
import { type NextRequest, NextResponse } from 'next/server';
import { cache } from 'react';
import { mayDo, type Right } from '@/core/person/rights';
import type { Actor } from '@/flows/door/rights';
import { DEVICE_DAYS, type SignedIn } from '@/flows/house/enter';
import { actorOf } from '@/flows/house/sign-in';

export const SESSION_COOKIE = 'dahlia_session';
/** What a computer carries on which somebody has signed in before. */
export const DEVICE_COOKIE = 'dahlia_device';

/** The session that a request carries; empty for none. */
export const sessionOf = (request: NextRequest): string => request.cookies.get(SESSION_COOKIE)?.value ?? '';

/** Who is signed in, or null; asked once a request. */
export const currentActor = cache(async (): Promise<Actor | null> => {
  const token = (await cookies()).get(SESSION_COOKIE)?.value;
  return token ? actorOf(token) : null;
});

/**
 * Who is signed in; a page sends everybody else to sign in, whoever lacks the second step that is asked of them to set one up, and
 * whoever may not see what it shows to the first screen, which shows them what they may.
 */
export async function pageActor(right: Right = 'see'): Promise<Actor> {
  const actor = await currentActor();
  if (!actor) redirect('/sign-in');
  if (actor.lacksStep) redirect('/second-step');
  if (!mayDo(actor, right)) redirect('/today');
  return actor;
}

const COOKIE = { httpOnly: true, sameSite: 'lax', path: '/' } as const;
const isSecure = (): boolean => process.env.PUBLIC_URL?.startsWith('https:') ?? true;

/** Answers with a session that has just begun: its secret goes into a cookie. */
export function sessionAnswer(
  { token, expiresAt }: { readonly token: string; readonly expiresAt: Date },
  value: unknown = null,
): NextResponse {
  const response = NextResponse.json({ ok: true, value });
  response.cookies.set(SESSION_COOKIE, token, { ...COOKIE, secure: isSecure(), expires: expiresAt });
  return response;
}

/** The same, and into another cookie what this computer carries from now on. */
export function signedInAnswer({ device, ...session }: SignedIn, value: unknown = null): NextResponse {
  const response = sessionAnswer(session, value);
  const carried = { ...COOKIE, secure: isSecure(), path: '/api/sign-in', maxAge: DEVICE_DAYS * 86_400 };
  response.cookies.set(DEVICE_COOKIE, device, carried);
  return response;
}
