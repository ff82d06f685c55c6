import type { Metadata, Route } from 'next';
import Link from 'next/link';
import { pageActor } from '@/app/session';
import { shortDate } from '@/core/dates/date-text';
import { everyWords } from '@/core/invoice/recurring';
import { recurringList } from '@/flows/invoice/recurring';
import { businessToday } from '@/flows/payment/payment-list';
import { Empty } from '@/ui/kit/empty';
import { AskTabs } from '../ask-tabs';

export const metadata: Metadata = { title: 'Recurring invoices' };

export default async function RecurringPage() {
  const actor = await pageActor();
  const { business } = await businessToday(actor);
  const all = await recurringList(actor);
  return (
    <>
      <AskTabs here="Recurring invoices" />
      <div className="mx-auto max-w-[920px] px-4 pb-10 sm:px-7">
        <div className="flex items-baseline gap-4 pb-3">
          <h1 className="title-screen flex-1">Recurring invoices</h1>
          <Link className="link" href="/ask/invoices">
            Invoices
          </Link>
        </div>
        {all.length === 0 ? (
          <Empty words="No recurring invoice yet. Open an invoice, and choose “Make it recurring”." />
        ) : (
          <ul className="border-t border-ink">
            {all.map((repeat) => (
              <li key={repeat.id}>
                <Link
                  href={`/ask/recurring/${repeat.id}` as Route}
                  className="grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-4 border-b border-rule py-2 hover:bg-wash"
                >
                  <span className="min-w-0">
                    <span className="name block truncate">{repeat.name}</span>
                    <span className="block truncate text-soft">
                      <span className="private">{repeat.customer}</span>, {everyWords(repeat.schedule)},{' '}
                      {repeat.makes === 'send' ? 'sent by itself' : 'waits as a draft'}
                    </span>
                  </span>
                  <span className="text-right">
                    {repeat.state === 'active' && repeat.nextOn
                      ? shortDate(repeat.nextOn, business.deskLocale, { weekday: true })
                      : repeat.state === 'paused'
                        ? 'paused'
                        : 'finished'}
                  </span>
                </Link>
              </li>
            ))}
          </ul>
        )}
      </div>
    </>
  );
}
