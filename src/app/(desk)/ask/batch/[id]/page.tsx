import type { Metadata } from 'next';
import { orNotFound } from '@/app/found';
import { pageActor } from '@/app/session';
import { wireMinor } from '@/core/money/money';
import { batchSheet } from '@/flows/batch';
import { businessToday } from '@/flows/payment-list';
import { BatchSheetView } from '@/ui/batch/batch-sheet';
import { AskShelf } from '../../shelf';

export const metadata: Metadata = { title: 'Batch' };

export default async function BatchPage({ params }: { params: Promise<{ id: string }> }) {
  const actor = await pageActor();
  const { id } = await params;
  const { batch, rows } = await orNotFound(id, batchSheet(actor, id));
  const { business } = await businessToday(actor);
  return (
    <>
      <AskShelf here="Batches" />
      <BatchSheetView
        id={id}
        name={batch.name}
        state={batch.state}
        rows={rows.map((row) => ({
          position: row.position,
          customer: row.customer ?? '',
          state: row.state,
          reason: row.reason,
          number: row.number,
          invoiceId: row.invoiceId,
          minor: wireMinor(row.totalMinor),
          currency: row.currency,
        }))}
        locale={business.locale}
        mayAsk={actor.role !== 'reader'}
      />
    </>
  );
}
