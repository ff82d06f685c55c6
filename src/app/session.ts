import { cookies } from 'next/headers';
import { redirect } from 'next/navigation';
import { NextResponse } from 'next/server';
import { cache } from 'react';
import type { Actor } from '@/flows/door/rights';
import { actorOf, DEVICE_DAYS } from '@/flows/house/sign-in';

export const SESSION_COOKIE = 'dahlia_session';
/** What a computer carries on which somebody has signed in before. */
export const DEVICE_COOKIE = 'dahlia_device';

/** Who is signed in, or null; asked once a request. */
export const currentActor = cache(async (): Promise<Actor | null> => {
  const token = (await cookies()).get(SESSION_COOKIE)?.value;
  return token ? actorOf(token) : null;
});

/** Who is signed in; a page sends everybody else to sign in. */
export async function pageActor(): Promise<Actor> {
  const actor = await currentActor();
  if (!actor) redirect('/sign-in');
  return actor;
}

/** Answers with a session that has just begun: it goes into a cookie, and what this computer carries into another. */
export function signedInAnswer(
  { token, expiresAt, device }: { readonly token: string; readonly expiresAt: Date; readonly device: string },
  value: unknown = null,
): NextResponse {
  const response = NextResponse.json({ ok: true, value });
  const cookie = {
    httpOnly: true,
    sameSite: 'lax',
    secure: process.env.PUBLIC_URL?.startsWith('https:') ?? true,
    path: '/',
  } as const;
  response.cookies.set(SESSION_COOKIE, token, { ...cookie, expires: expiresAt });
  response.cookies.set(DEVICE_COOKIE, device, { ...cookie, path: '/api/sign-in', maxAge: DEVICE_DAYS * 86_400 });
  return response;
}
