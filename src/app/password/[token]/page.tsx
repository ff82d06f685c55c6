import type { Metadata } from 'next';
import Link from 'next/link';
import { lookAtPasswordLink } from '@/flows/house/forgotten';
import { ChosenPasswordForm } from '@/ui/house/forgotten-form';
import { FrontFrame, FrontSheet } from '@/ui/house/front-frame';

export const metadata: Metadata = { title: 'A new password', referrer: 'no-referrer' };

export default async function PasswordPage({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const link = await lookAtPasswordLink(token);
  return (
    <FrontFrame>
      {link ? (
        <FrontSheet
          title="A new password"
          about={
            <>
              For <b className="font-semibold">{link.email}</b>.
            </>
          }
        >
          <ChosenPasswordForm token={token} email={link.email} />
        </FrontSheet>
      ) : (
        <FrontSheet title="This link is over" about="It is good once, for an hour, and only the latest one is.">
          <Link href="/forgotten" className="btn btn-go">
            Have a new one sent
          </Link>
        </FrontSheet>
      )}
    </FrontFrame>
  );
}
