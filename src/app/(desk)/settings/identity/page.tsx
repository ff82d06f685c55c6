import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { pageActor } from '@/app/session';
import { shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { CHECK_REASONS } from '@/core/identity/identity';
import { mayDo } from '@/core/person/rights';
import { identityView } from '@/flows/identity/identity';
import { businessToday } from '@/flows/payment/payment-list';
import { IdentityDesk } from '@/ui/identity/identity-desk';

export const metadata: Metadata = { title: 'Who stands behind it' };

export default async function IdentityPage() {
  const actor = await pageActor();
  if (!mayDo(actor, 'people')) notFound();
  const { business } = await businessToday(actor);
  const { members, pictures, check, verifiedAt, missing, countries } = await identityView(actor);
  const day = (at: Date) => shortDate(dateInZone(at, business.zone), business.deskLocale, { year: true });
  return (
    <div className="mx-auto max-w-[760px] px-4 pb-12 pt-6 sm:px-7">
      <article className="sheet px-5 py-6 sm:px-8" aria-label="Who stands behind it">
        <h1 className="title-screen mb-1">Who stands behind {business.name}</h1>
        <IdentityDesk
          me={actor.name}
          country={business.country}
          members={members}
          pictures={pictures}
          missing={missing}
          state={verifiedAt ? 'accepted' : (check?.state ?? null)}
          since={verifiedAt ? day(verifiedAt) : check ? day(check.sentAt) : ''}
          reason={check?.reason && !verifiedAt ? CHECK_REASONS[check.reason] : ''}
          countries={countries}
        />
      </article>
    </div>
  );
}
