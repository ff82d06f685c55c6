import type { Metadata, Route } from 'next';
import { redirect } from 'next/navigation';
import { composerOf } from '@/app/composer-props';
import { orGone } from '@/app/found';
import { pageActor } from '@/app/session';
import { invoiceSheet } from '@/flows/invoice/invoice-sheet';
import { Composer } from '@/ui/composer/composer';

export const metadata: Metadata = { title: 'Write an invoice' };

type Props = { params: Promise<{ id: string }>; searchParams: Promise<{ by?: string | string[] }> };

export default async function ComposePage({ params, searchParams }: Props) {
  const actor = await pageActor();
  const { id } = await params;
  const sheet = await orGone(id, invoiceSheet(actor, id), '/ask/invoices');
  if (sheet.invoice.stage !== 'draft') redirect(`/ask/invoices/${id}` as Route);
  const byKey = (await searchParams).by === 'key';
  return <Composer key={id} {...(await composerOf(actor, sheet, null))} byKey={byKey} />;
}
