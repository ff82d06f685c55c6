import type { ReactNode } from 'react';
import { newsHere } from '@/app/desk-news';
import { pageActor } from '@/app/session';
import { deskSetting } from '@/app/setting';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { mayDo } from '@/core/person/rights';
import { hearingSince } from '@/flows/house/changes';
import { myOtherDesks } from '@/flows/house/desks';
import { closedSince } from '@/flows/keeping/closing';
import { businessToday } from '@/flows/payment/payment-list';
import { DeskFrame } from '@/ui/desk-frame';
import { AtDeskProvider } from '@/ui/kit/at-desk';

export default async function DeskLayout({ children }: { children: ReactNode }) {
  const since = hearingSince();
  const actor = await pageActor('own');
  const { business, now } = await businessToday(actor);
  const closed = actor.closed ? await closedSince(actor) : null;
  const day = (on: CalendarDate) => shortDate(on, business.deskLocale, { year: true });
  return (
    <AtDeskProvider value={{ personId: actor.personId, locale: business.deskLocale, currency: business.currency }}>
      <DeskFrame
        house={business.name}
        person={actor.name}
        setting={await deskSetting()}
        locale={business.deskLocale}
        may={{
          see: mayDo(actor, 'see'),
          customers: mayDo(actor, 'customers'),
          ask: !closed && mayDo(actor, 'ask'),
          records: !closed && mayDo(actor, 'records'),
          settings: mayDo(actor, 'settings'),
          people: mayDo(actor, 'people'),
        }}
        since={since}
        desks={await myOtherDesks(actor)}
        news={mayDo(actor, 'see') ? await newsHere(actor, business, now) : null}
      >
        {closed ? (
          <p role="status" className="mx-auto mt-4 max-w-[1180px] bg-ochre-tint px-4 py-2">
            This business was closed on {day(dateInZone(closed.closedAt, business.zone))}. Everything can be looked at
            until it is erased on {day(closed.eraseOn)}; nothing more is written.
          </p>
        ) : null}
        {children}
      </DeskFrame>
    </AtDeskProvider>
  );
}
