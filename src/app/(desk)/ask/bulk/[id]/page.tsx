import type { Metadata } from 'next';
import { orNotFound } from '@/app/found';
import { pageActor } from '@/app/session';
import { jsonMinor } from '@/core/money/money';
import { mayDo } from '@/core/person/rights';
import { bulkSheet } from '@/flows/invoice/bulk-invoices';
import { businessToday } from '@/flows/payment/payment-list';
import { BulkSheetView } from '@/ui/bulk/bulk-sheet';
import { AskTabs } from '../../ask-tabs';

export const metadata: Metadata = { title: 'Bulk invoices' };

export default async function BulkPage({ params }: { params: Promise<{ id: string }> }) {
  const actor = await pageActor();
  const { id } = await params;
  const { bulk, rows } = await orNotFound(id, bulkSheet(actor, id));
  const { business } = await businessToday(actor);
  return (
    <>
      <AskTabs here="Bulk invoices" />
      <BulkSheetView
        id={id}
        name={bulk.name}
        state={bulk.state}
        rows={rows.map((row) => ({
          position: row.position,
          customer: row.customer ?? '',
          state: row.state,
          reason: row.reason,
          number: row.number,
          invoiceId: row.invoiceId,
          minor: jsonMinor(row.totalMinor),
          currency: row.currency,
        }))}
        locale={business.deskLocale}
        mayAsk={mayDo(actor, 'ask')}
      />
    </>
  );
}
