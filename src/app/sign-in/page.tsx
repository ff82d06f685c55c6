import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { currentActor } from '@/app/session';
import { demoOffer } from '@/flows/house/demo-people';
import { SignInForm } from '@/ui/sign-in-form';

export const metadata: Metadata = { title: 'Sign in' };

export default async function SignInPage() {
  if (await currentActor()) redirect('/today');
  return <SignInForm offer={await demoOffer()} />;
}
