import type { ReactNode } from 'react';
import { pageActor } from '@/app/session';
import { deskSetting } from '@/app/setting';
import { hearingSince } from '@/flows/changes';
import { businessToday } from '@/flows/payment-list';
import { DeskFrame } from '@/ui/desk-frame';

export default async function DeskLayout({ children }: { children: ReactNode }) {
  const since = hearingSince();
  const actor = await pageActor();
  const { business } = await businessToday(actor);
  return (
    <DeskFrame
      house={business.name}
      person={actor.name}
      setting={await deskSetting()}
      mayAsk={actor.role !== 'reader'}
      since={since}
    >
      {children}
    </DeskFrame>
  );
}
