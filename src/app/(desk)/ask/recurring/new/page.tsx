import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { askedOf } from '@/app/asked';
import { orNotFound } from '@/app/found';
import { pageActor } from '@/app/session';
import { addDays } from '@/core/dates/calendar-date';
import { monthlyFrom } from '@/core/schedule/typed';
import { invoiceSheet } from '@/flows/invoice/invoice-sheet';
import { FromInput } from '@/input/recurring-input';
import { RecurringForm } from '@/ui/recurring/recurring-form';

export const metadata: Metadata = { title: 'Make an invoice recurring' };

export default async function NewRecurringPage({ searchParams }: { searchParams: Promise<object> }) {
  const actor = await pageActor();
  const { from = '' } = await askedOf(FromInput, searchParams);
  const { invoice, customer, business, today } = await orNotFound(from, invoiceSheet(actor, from));
  if (!customer) redirect('/ask/invoices');
  const what = invoice.paper.title || invoice.paper.lines[0]?.what || 'Invoice';
  return (
    <div className="mx-auto max-w-[860px] px-4 pb-10 pt-4 sm:px-7">
      <article className="sheet px-7 py-5" aria-label="Make an invoice recurring">
        <h1 className="title-screen mb-1">Make it recurring</h1>
        <p className="document mb-5">
          What this invoice says goes to <span className="private">{customer.name}</span> again and again, each time
          with a number of its own.
        </p>
        <RecurringForm
          from={from}
          first={monthlyFrom(addDays(today, 1))}
          firstName={`${what}, ${customer.name}`.slice(0, 80)}
          firstMakes="send"
          files={invoice.paper.files.length}
          locale={business.deskLocale}
        />
      </article>
    </div>
  );
}
