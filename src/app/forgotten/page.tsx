import type { Metadata } from 'next';
import Link from 'next/link';
import { ForgottenForm } from '@/ui/house/forgotten-form';
import { FrontFrame, FrontSheet } from '@/ui/house/front-frame';

export const metadata: Metadata = { title: 'Forgotten password' };

export default function ForgottenPage() {
  return (
    <FrontFrame
      aside={
        <Link href="/sign-in" className="link">
          Sign in
        </Link>
      }
    >
      <FrontSheet title="Forgotten password" about="Say with which address you sign in.">
        <ForgottenForm />
      </FrontSheet>
    </FrontFrame>
  );
}
