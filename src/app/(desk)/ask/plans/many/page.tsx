import type { Metadata } from 'next';
import { pageActor } from '@/app/session';
import { mayDo } from '@/core/person/rights';
import { businessToday } from '@/flows/payment/payment-list';
import { ManyPlans } from '@/ui/plan/many-plans';
import { AskTabs } from '../../ask-tabs';

export const metadata: Metadata = { title: 'Plans from a table' };

export default async function ManyPlansPage() {
  const actor = await pageActor();
  const { business } = await businessToday(actor);
  return (
    <>
      <AskTabs here="Billing plans" />
      <ManyPlans locale={business.deskLocale} mayAsk={mayDo(actor, 'ask')} />
    </>
  );
}
