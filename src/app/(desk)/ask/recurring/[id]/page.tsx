import type { Metadata } from 'next';
import { orNotFound } from '@/app/found';
import { pageActor } from '@/app/session';
import { mayDo } from '@/core/person/rights';
import { recurringSheet } from '@/flows/invoice/recurring';
import { businessToday } from '@/flows/payment/payment-list';
import { RecurringSheet } from '@/ui/recurring/recurring-sheet';
import { AskTabs } from '../../ask-tabs';

export const metadata: Metadata = { title: 'Recurring invoices' };

export default async function RecurringPage({ params }: { params: Promise<{ id: string }> }) {
  const actor = await pageActor();
  const { id } = await params;
  const { repeat, customer, runs, coming } = await orNotFound(id, recurringSheet(actor, id));
  const { business } = await businessToday(actor);
  const { name, schedule, makes, state } = repeat;
  return (
    <>
      <AskTabs here="Recurring invoices" />
      <div className="mx-auto max-w-[860px] px-4 pb-10 sm:px-7">
        <RecurringSheet
          {...{ id, name, customer, schedule, makes, state, coming, runs }}
          locale={business.deskLocale}
          mayAsk={mayDo(actor, 'ask')}
        />
      </div>
    </>
  );
}
