import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { currentActor } from '@/app/session';
import { demoOffer } from '@/flows/house/demo-people';
import { SignInForm } from '@/ui/sign-in-form';

export const metadata: Metadata = { title: 'Sign in' };

/** Nowhere but to an invitation may a link lead whoever signs in. */
const INVITATION = /^\/invitation\/[\w.-]{1,600}$/;

export default async function SignInPage({ searchParams }: { searchParams: Promise<{ to?: string | string[] }> }) {
  const { to } = await searchParams;
  const next = typeof to === 'string' && INVITATION.test(to) ? to : '/today';
  if (await currentActor()) redirect(next as '/today');
  return <SignInForm offer={await demoOffer()} to={next} />;
}
