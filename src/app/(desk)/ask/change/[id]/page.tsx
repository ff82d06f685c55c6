import type { Metadata, Route } from 'next';
import { redirect } from 'next/navigation';
import { composerOf } from '@/app/composer-props';
import { orNotFound } from '@/app/found';
import { pageActor } from '@/app/session';
import { mayDo } from '@/core/person/rights';
import { invoiceSheet } from '@/flows/invoice/invoice-sheet';
import { Composer } from '@/ui/composer/composer';

export const metadata: Metadata = { title: 'Edit an invoice' };

export default async function ChangePage({ params }: { params: Promise<{ id: string }> }) {
  const actor = await pageActor();
  const { id } = await params;
  const sheet = await orNotFound(id, invoiceSheet(actor, id));
  if (sheet.invoice.stage !== 'sent' || !mayDo(actor, 'ask')) redirect(`/ask/invoices/${id}` as Route);
  return <Composer key={id} {...(await composerOf(actor, sheet, sheet.invoice.version))} />;
}
