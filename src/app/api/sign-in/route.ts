import { NextResponse } from 'next/server';
import { open } from '@/app/answer';
import { SESSION_COOKIE } from '@/app/session';
import { signIn } from '@/flows/house/sign-in';
import { SignInInput } from '@/input/people-input';

export const POST = open(SignInInput, async ({ input, address }) => {
  const { token, expiresAt } = await signIn(input.email, input.password, address);
  const response = NextResponse.json({ ok: true, value: null });
  response.cookies.set(SESSION_COOKIE, token, {
    httpOnly: true,
    sameSite: 'lax',
    secure: process.env.PUBLIC_URL?.startsWith('https:') ?? true,
    path: '/',
    expires: expiresAt,
  });
  return response;
});
