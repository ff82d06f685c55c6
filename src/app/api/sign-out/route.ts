import { NextResponse } from 'next/server';
import { desk, Nothing } from '@/app/answer';
import { SESSION_COOKIE, sessionOf } from '@/app/session';
import { signOut } from '@/flows/house/sign-in';

export const POST = desk(Nothing, async (actor, { request, address }) => {
  await signOut(actor, sessionOf(request), address);
  const response = NextResponse.json({ ok: true, value: null });
  response.cookies.delete(SESSION_COOKIE);
  return response;
});
