import { NextResponse } from 'next/server';
import { desk, Nothing } from '@/app/answer';
import { SESSION_COOKIE } from '@/app/session';
import { leaveBusiness } from '@/flows/house/people';

export const POST = desk(Nothing, async (actor) => {
  await leaveBusiness(actor);
  const response = NextResponse.json({ ok: true, value: null });
  response.cookies.delete(SESSION_COOKIE);
  return response;
});
