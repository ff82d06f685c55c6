import type { Metadata } from 'next';
import { pageActor } from '@/app/session';
import { PasswordForm } from '@/ui/profile/password-form';

export const metadata: Metadata = { title: 'Your password' };

export default async function YouPage() {
  await pageActor();
  return (
    <div className="mx-auto max-w-[560px] px-4 pb-10 pt-6 sm:px-7">
      <article className="sheet px-7 py-6" aria-label="Your password">
        <h1 className="title-screen mb-1">Your password</h1>
        <p className="document mb-5">
          With a new password you stay signed in here; everywhere else your sessions end at once.
        </p>
        <PasswordForm />
      </article>
    </div>
  );
}
