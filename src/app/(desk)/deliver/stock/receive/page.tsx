import type { Metadata } from 'next';
import Link from 'next/link';
import { pageActor } from '@/app/session';
import { mayDo } from '@/core/person/rights';
import { businessToday } from '@/flows/payment/payment-list';
import { stockPage } from '@/flows/stock/stock-desk';
import { ReceiveForm } from '@/ui/stock/receive-form';
import { DeliverTabs } from '../../deliver-tabs';
import { jsonStock } from '../../json-stock';

export const metadata: Metadata = { title: 'Receive goods' };

/** With `?words=` and `id=` it begins with one thing, and with how many of it are to be ordered. */
export default async function ReceivePage({
  searchParams,
}: {
  searchParams: Promise<{ words?: string; id?: string }>;
}) {
  const actor = await pageActor('pack');
  const { words = '', id = '' } = await searchParams;
  const setting = (await businessToday(actor)).business;
  const { rows } = words ? await stockPage(actor, { words: words.slice(0, 120) }, null) : { rows: [] };
  const begun = rows.map((row) => jsonStock(row, null, setting)).filter((row) => row.id === id);
  const sums = mayDo(actor, 'see');
  return (
    <>
      <DeliverTabs here="Stock" sums={sums} />
      <div className="mx-auto max-w-[1180px] px-4 pb-12 pt-5 sm:px-7">
        <p className="mb-3">
          <Link className="link" href="/deliver/stock">
            Stock
          </Link>
        </p>
        <ReceiveForm
          begun={begun.map((one) => ({ ...one, order: one.order || '1' }))}
          sums={sums}
          mayFile={mayDo(actor, 'ask')}
        />
      </div>
    </>
  );
}
