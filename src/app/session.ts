import { cookies } from 'next/headers';
import { redirect } from 'next/navigation';
import { cache } from 'react';
import type { Actor } from '@/flows/door/rights';
import { actorOf } from '@/flows/house/sign-in';

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
