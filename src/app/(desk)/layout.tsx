import type { ReactNode } from 'react';
import { pageActor } from '@/app/session';
import { deskSetting } from '@/app/setting';
import { mayDo } from '@/flows/door/rights';
import { hearingSince } from '@/flows/house/changes';
import { businessToday } from '@/flows/payment/payment-list';
import { DeskFrame } from '@/ui/desk-frame';
import { BusinessLocaleProvider } from '@/ui/kit/business-locale';

export default async function DeskLayout({ children }: { children: ReactNode }) {
  const since = hearingSince();
  const actor = await pageActor();
  const { business } = await businessToday(actor);
  return (
    <BusinessLocaleProvider value={business.locale}>
      <DeskFrame
        house={business.name}
        person={actor.name}
        setting={await deskSetting()}
        mayAsk={mayDo(actor.role, 'ask')}
        since={since}
      >
        {children}
      </DeskFrame>
    </BusinessLocaleProvider>
  );
}
