import { NextResponse } from 'next/server';
import { open } from '@/app/answer';
import { DEVICE_COOKIE, SESSION_COOKIE } from '@/app/session';
import { DEVICE_DAYS, signIn } from '@/flows/house/sign-in';
import { SignInInput } from '@/input/people-input';

export const POST = open(SignInInput, async ({ input, address, request }) => {
  const carried = request.cookies.get(DEVICE_COOKIE)?.value;
  const { token, expiresAt, device } = await signIn(input.email, input.password, address, {
    work: input.work,
    device: carried,
  });
  const response = NextResponse.json({ ok: true, value: null });
  const cookie = {
    httpOnly: true,
    sameSite: 'lax',
    secure: process.env.PUBLIC_URL?.startsWith('https:') ?? true,
    path: '/',
  } as const;
  response.cookies.set(SESSION_COOKIE, token, { ...cookie, expires: expiresAt });
  response.cookies.set(DEVICE_COOKIE, device, { ...cookie, path: '/api/sign-in', maxAge: DEVICE_DAYS * 86_400 });
  return response;
});
