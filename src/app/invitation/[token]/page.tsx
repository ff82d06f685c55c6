import type { Metadata } from 'next';
import { cookies } from 'next/headers';
import Link from 'next/link';
import { SESSION_COOKIE } from '@/app/session';
import { holdsText, mayDo, RIGHT_WORDS, RIGHTS } from '@/core/person/rights';
import { lookAtInvitation } from '@/flows/house/people';
import { FrontFrame, FrontSheet } from '@/ui/house/front-frame';
import { InvitationForm } from '@/ui/people/invitation-form';

export const metadata: Metadata = { title: 'An invitation', referrer: 'no-referrer' };

export default async function InvitationPage({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const session = (await cookies()).get(SESSION_COOKIE)?.value ?? '';
  const found = await lookAtInvitation(token, session);
  if (!found)
    return (
      <FrontFrame>
        <FrontSheet
          title="This invitation is over"
          about="It was accepted, withdrawn or sent anew, or its seven days are over. Ask whoever invited you."
        >
          <Link href="/sign-in" className="btn">
            Sign in
          </Link>
        </FrontSheet>
      </FrontFrame>
    );
  const { business, byName, holds, email, who, signsInFirst } = found;
  return (
    <FrontFrame>
      <FrontSheet
        title={business}
        about={
          <>
            {byName} asks you to work with them, as <b className="font-semibold">{email}</b>.
          </>
        }
      >
        <p className="label">{holdsText({ role: holds.role, extra: [] })}: you may</p>
        <ul className="mb-6 mt-1 list-disc pl-5">
          {RIGHTS.filter((right) => mayDo(holds, right)).map((right) => (
            <li key={right}>{RIGHT_WORDS[right]}</li>
          ))}
        </ul>
        {signsInFirst ? (
          <>
            <p className="mb-4">
              You sign in here with this address already. Sign in, and then accept it by one press.
            </p>
            <Link href={`/sign-in?to=${encodeURIComponent(`/invitation/${token}`)}`} className="btn btn-go">
              Sign in first
            </Link>
          </>
        ) : (
          <InvitationForm token={token} email={email} business={business} who={who} />
        )}
      </FrontSheet>
    </FrontFrame>
  );
}
