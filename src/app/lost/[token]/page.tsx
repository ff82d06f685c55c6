import type { Metadata } from 'next';
import Link from 'next/link';
import { LOST_DAYS } from '@/core/person/steps';
import { lookAtLostLink } from '@/flows/house/steps/lost';
import { FrontFrame, FrontSheet } from '@/ui/house/front-frame';
import { LostForm } from '@/ui/steps/lost-form';

export const metadata: Metadata = { title: 'Every second step is lost', referrer: 'no-referrer' };

export default async function LostPage({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const link = await lookAtLostLink(token);
  return (
    <FrontFrame>
      {link ? (
        <FrontSheet
          title="Every second step is lost"
          about={
            <>
              For <b className="font-semibold">{link.email}</b>. In {LOST_DAYS} days your password alone is enough, and
              you set up a new one. Until then whoever is signed in as you can stop it.
            </>
          }
        >
          <LostForm token={token} />
        </FrontSheet>
      ) : (
        <FrontSheet
          title="This link is over"
          about="It is good once, for a day, and only the latest one is. Sign in with your password to have another sent."
        >
          <Link href="/sign-in" className="btn btn-go">
            Sign in
          </Link>
        </FrontSheet>
      )}
    </FrontFrame>
  );
}
