import type { Metadata, Route } from 'next';
import Link from 'next/link';
import { pageActor } from '@/app/session';
import { shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { batchList } from '@/flows/invoice/bulk-invoices';
import { businessToday } from '@/flows/payment/payment-list';
import { Empty } from '@/ui/empty';
import { AskTabs } from '../ask-tabs';

export const metadata: Metadata = { title: 'Bulk invoices' };

export default async function BatchesPage() {
  const actor = await pageActor();
  const { business } = await businessToday(actor);
  const batches = await batchList(actor);
  return (
    <>
      <AskTabs here="Bulk invoices" />
      <div className="mx-auto max-w-[920px] px-4 pb-10 sm:px-7">
        <h1 className="title-screen pb-3">Bulk invoices</h1>
        {batches.length === 0 ? (
          <Empty words="Nothing was sent to many at once yet. Write an invoice, and choose “Send to many customers”." />
        ) : (
          <ul className="border-t border-ink">
            {batches.map((batch) => (
              <li key={batch.id}>
                <Link
                  href={`/ask/bulk/${batch.id}` as Route}
                  className="flex items-baseline gap-4 border-b border-rule py-2 hover:bg-wash"
                >
                  <span className="name flex-1 truncate">{batch.name}</span>
                  <span>
                    {batch.sent} of {batch.rows} sent{batch.refused > 0 ? `, ${batch.refused} refused` : ''}
                  </span>
                  <span className="text-soft">
                    {shortDate(dateInZone(batch.createdAt, business.zone), business.locale)}
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
