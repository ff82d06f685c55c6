import type { Metadata, Route } from 'next';
import { redirect } from 'next/navigation';
import { composerOf } from '@/app/composer-props';
import { orNotFound } from '@/app/found';
import { pageActor } from '@/app/session';
import { invoiceSheet } from '@/flows/invoice-sheet';
import { Composer } from '@/ui/composer/composer';

export const metadata: Metadata = { title: 'Change an invoice' };

export default async function ChangePage({ params }: { params: Promise<{ id: string }> }) {
  const actor = await pageActor();
  const { id } = await params;
  const sheet = await orNotFound(id, invoiceSheet(actor, id));
  if (sheet.invoice.stage !== 'sent' || actor.role === 'reader') redirect(`/ask/invoices/${id}` as Route);
  return <Composer key={id} {...(await composerOf(actor, sheet, sheet.invoice.version))} />;
}
