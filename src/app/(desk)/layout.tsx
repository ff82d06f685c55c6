import type { ReactNode } from 'react';
import { pageActor } from '@/app/session';
import { deskSetting } from '@/app/setting';
import { mayDo } from '@/core/person/rights';
import { hearingSince } from '@/flows/house/changes';
import { myOtherDesks } from '@/flows/house/desks';
import { businessToday } from '@/flows/payment/payment-list';
import { DeskFrame } from '@/ui/desk-frame';
import { AtDeskProvider } from '@/ui/kit/at-desk';

export default async function DeskLayout({ children }: { children: ReactNode }) {
  const since = hearingSince();
  const actor = await pageActor();
  const { business } = await businessToday(actor);
  return (
    <AtDeskProvider value={{ personId: actor.personId, locale: business.locale, currency: business.currency }}>
      <DeskFrame
        house={business.name}
        person={actor.name}
        setting={await deskSetting()}
        locale={business.locale}
        may={{
          ask: mayDo(actor, 'ask'),
          records: mayDo(actor, 'records'),
          settings: mayDo(actor, 'settings'),
          people: mayDo(actor, 'people'),
        }}
        since={since}
        desks={await myOtherDesks(actor)}
      >
        {children}
      </DeskFrame>
    </AtDeskProvider>
  );
}
