import type { Metadata } from 'next';
import Link from 'next/link';
import { lookAtConfirmLink } from '@/flows/house/confirm';
import { ConfirmByLink } from '@/ui/house/confirm-form';
import { FrontFrame, FrontSheet } from '@/ui/house/front-frame';

export const metadata: Metadata = { title: 'Confirm your address', referrer: 'no-referrer' };

export default async function ConfirmPage({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const link = await lookAtConfirmLink(token);
  return (
    <FrontFrame>
      {link ? (
        <FrontSheet
          title="Confirm your address"
          about={
            <>
              <b className="font-semibold">{link.email}</b> is used for <b className="font-semibold">{link.business}</b>
              . Confirm it only if you began there yourself.
            </>
          }
        >
          <ConfirmByLink token={token} />
        </FrontSheet>
      ) : (
        <FrontSheet
          title="This link is over"
          about="It is good once, for a day, and only the latest one is. If the address is confirmed already, nothing is left to do."
        >
          <Link href="/today" className="btn btn-go">
            To the desk
          </Link>
        </FrontSheet>
      )}
    </FrontFrame>
  );
}
