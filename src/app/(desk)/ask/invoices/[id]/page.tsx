import type { Metadata, Route } from 'next';
import { redirect } from 'next/navigation';
import { orNotFound } from '@/app/found';
import { pageActor } from '@/app/session';
import { mayDo } from '@/core/person/rights';
import { invoiceSheet } from '@/flows/invoice/invoice-sheet';
import { SaleParcels } from '../../../deliver/sale-parcels';
import { InvoiceSheetView } from './sheet-view';

type Props = { params: Promise<{ id: string }> };

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const { id } = await params;
  const { invoice } = await orNotFound(
    id,
    pageActor().then((actor) => invoiceSheet(actor, id)),
  );
  return { title: `Invoice ${invoice.number ?? ''}` };
}

export default async function InvoicePage({ params }: Props) {
  const actor = await pageActor();
  const { id } = await params;
  const sheet = await orNotFound(id, invoiceSheet(actor, id));
  if (sheet.invoice.stage === 'draft') redirect(`/ask/compose/${id}` as Route);
  const parcels = <SaleParcels actor={actor} saleId={id} locale={sheet.business.deskLocale} />;
  return <InvoiceSheetView sheet={sheet} mayAsk={mayDo(actor, 'ask')} parcels={parcels} />;
}
