import type { Metadata, Route } from 'next';
import Link from 'next/link';
import { pageActor } from '@/app/session';
import { shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { bulkList } from '@/flows/invoice/bulk-invoices';
import { businessToday } from '@/flows/payment/payment-list';
import { Empty } from '@/ui/kit/empty';
import { AskTabs } from '../ask-tabs';

export const metadata: Metadata = { title: 'Bulk invoices' };

export default async function BulkListPage() {
  const actor = await pageActor();
  const { business } = await businessToday(actor);
  const all = await bulkList(actor);
  return (
    <>
      <AskTabs here="Bulk invoices" />
      <div className="mx-auto max-w-[920px] px-4 pb-10 sm:px-7">
        <h1 className="title-screen pb-3">Bulk invoices</h1>
        {all.length === 0 ? (
          <Empty words="Nothing was sent to many at once yet. Write an invoice, and choose “Or to many” below who pays." />
        ) : (
          <ul className="border-t border-ink">
            {all.map((bulk) => (
              <li key={bulk.id}>
                <Link
                  href={`/ask/bulk/${bulk.id}` as Route}
                  className="flex items-baseline gap-4 border-b border-rule py-2 hover:bg-wash"
                >
                  <span className="name flex-1 truncate">{bulk.name}</span>
                  <span>
                    {bulk.sent} of {bulk.rows} sent{bulk.refused > 0 ? `, ${bulk.refused} refused` : ''}
                  </span>
                  <span className="text-soft">
                    {shortDate(dateInZone(bulk.createdAt, business.zone), business.deskLocale)}
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
