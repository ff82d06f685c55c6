import type { Metadata } from 'next';
import Link from 'next/link';
import { lookAtAddressLink } from '@/flows/house/new-address';
import { FrontFrame, FrontSheet } from '@/ui/house/front-frame';
import { AgreeForm } from '@/ui/house/new-address';

export const metadata: Metadata = { title: 'Another address', referrer: 'no-referrer' };

export default async function AddressPage({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const link = await lookAtAddressLink(token);
  return (
    <FrontFrame>
      {link ? (
        <FrontSheet
          title="Another address"
          about={
            link.which === 'old-address' ? (
              <>
                From now on sign in with <b className="font-semibold">{link.to}</b> instead of{' '}
                <b className="font-semibold">{link.from}</b>.
              </>
            ) : (
              <>
                From now on sign in with <b className="font-semibold">{link.to}</b>.
              </>
            )
          }
        >
          <AgreeForm token={token} />
        </FrontSheet>
      ) : (
        <FrontSheet
          title="This link is over"
          about="It is good once, for a day, and only the latest one is. If the address is changed already, nothing is left to do."
        >
          <Link href="/today" className="btn btn-go">
            To the desk
          </Link>
        </FrontSheet>
      )}
    </FrontFrame>
  );
}
