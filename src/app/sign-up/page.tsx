import type { Metadata } from 'next';
import { headers } from 'next/headers';
import Link from 'next/link';
import { redirect } from 'next/navigation';
import { currentActor } from '@/app/session';
import { beginning } from '@/flows/house/sign-up';
import { FrontFrame, FrontSheet } from '@/ui/house/front-frame';
import { SignUpForm } from '@/ui/house/sign-up-form';

export const metadata: Metadata = { title: 'Begin' };

export default async function SignUpPage() {
  if (await currentActor()) redirect('/today');
  const { first, countries } = await beginning((await headers()).get('accept-language') ?? '');
  return (
    <FrontFrame
      aside={
        <Link href="/sign-in" className="link">
          Sign in
        </Link>
      }
    >
      <FrontSheet title="Begin" about="Then your first invoice is half written.">
        <SignUpForm first={first} countries={countries} />
      </FrontSheet>
    </FrontFrame>
  );
}
