import type { Metadata } from 'next';
import { pageActor } from '@/app/session';
import { businessToday } from '@/flows/payment-list';
import { ManyPlans } from '@/ui/plan/many-plans';
import { AskShelf } from '../../shelf';

export const metadata: Metadata = { title: 'Plans from a table' };

export default async function ManyPlansPage() {
  const actor = await pageActor();
  const { business } = await businessToday(actor);
  return (
    <>
      <AskShelf here="Billing plans" />
      <ManyPlans locale={business.locale} mayAsk={actor.role !== 'reader'} />
    </>
  );
}
