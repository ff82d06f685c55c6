import type { Metadata } from 'next';
import Link from 'next/link';
import { pageActor } from '@/app/session';
import { mayDo } from '@/core/person/rights';
import { businessToday } from '@/flows/payment/payment-list';
import { countList } from '@/flows/stock/stock-desk';
import { Empty } from '@/ui/kit/empty';
import { CountForm } from '@/ui/stock/count-form';
import { DeliverTabs } from '../../deliver-tabs';
import { jsonStock } from '../../json-stock';

export const metadata: Metadata = { title: 'Count the stock' };

export default async function CountPage({ searchParams }: { searchParams: Promise<{ words?: string }> }) {
  const actor = await pageActor('pack');
  const words = String((await searchParams).words ?? '').slice(0, 120);
  const rows = await countList(actor, words);
  const setting = (await businessToday(actor)).business;
  return (
    <>
      <DeliverTabs here="Stock" sums={mayDo(actor, 'see')} />
      <div className="mx-auto max-w-[1180px] px-4 pb-12 pt-5 sm:px-7">
        <p className="mb-3">
          <Link className="link" href="/deliver/stock">
            Stock
          </Link>
        </p>
        {rows.length === 0 ? (
          <Empty words="No stock is kept of anything that could be counted here." />
        ) : (
          <CountForm things={rows.map((row) => jsonStock(row, null, setting))} />
        )}
      </div>
    </>
  );
}
