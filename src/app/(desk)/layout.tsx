import type { ReactNode } from 'react';
import { pageActor } from '@/app/session';
import { deskSetting } from '@/app/setting';
import { mayDo } from '@/flows/door/rights';
import { hearingSince } from '@/flows/house/changes';
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
          ask: mayDo(actor.role, 'ask'),
          records: mayDo(actor.role, 'records'),
          settings: mayDo(actor.role, 'settings'),
          people: mayDo(actor.role, 'people'),
        }}
        since={since}
      >
        {children}
      </DeskFrame>
    </AtDeskProvider>
  );
}
