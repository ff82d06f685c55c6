import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { pageActor } from '@/app/session';
import { shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { jsonMinor } from '@/core/money/money';
import { holdsText, mayDo } from '@/core/person/rights';
import { accessView } from '@/flows/house/access-rules';
import { peopleView } from '@/flows/house/people';
import { businessToday } from '@/flows/payment/payment-list';
import { PeopleDesk } from '@/ui/people/people-desk';

export const metadata: Metadata = { title: 'People' };

export default async function PeoplePage() {
  const actor = await pageActor();
  if (!mayDo(actor, 'people')) notFound();
  const { business, now } = await businessToday(actor);
  const { people, invitations } = await peopleView(actor);
  const access = await accessView(actor);
  const day = (at: Date) =>
    shortDate(dateInZone(at, business.zone), business.deskLocale, { weekday: true, year: true });
  return (
    <div className="mx-auto max-w-[860px] px-4 pb-12 pt-4 sm:px-7">
      <article className="sheet px-5 py-6 sm:px-8" aria-label="People">
        <PeopleDesk
          people={people.map(({ id, name, email, role, extra, leftAt, usedAt, hasStep }) => ({
            id,
            name,
            email,
            role,
            extra,
            words: holdsText({ role, extra }),
            left: leftAt ? `left ${day(leftAt)}` : '',
            used: usedAt && !leftAt ? `last here ${day(usedAt)}` : '',
            step: leftAt ? '' : hasStep ? 'with a second step' : 'password alone',
            isMe: id === actor.personId,
          }))}
          access={{ ...access, aboveMinor: jsonMinor(access.aboveMinor) }}
          invited={invitations.map(({ id, email, role, extra, goodUntil }) => ({
            id,
            email,
            words: holdsText({ role, extra }),
            until: goodUntil > now ? `good until ${day(goodUntil)}` : 'over: send it again',
            isOver: goodUntil <= now,
          }))}
        />
      </article>
    </div>
  );
}
