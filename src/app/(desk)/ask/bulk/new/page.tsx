import type { Metadata } from 'next';
import { askedOf } from '@/app/asked';
import { orNotFound } from '@/app/found';
import { customerRow } from '@/app/rows';
import { pageActor } from '@/app/session';
import { invoiceSheet } from '@/flows/invoice/invoice-sheet';
import { customerOverview, customersPage } from '@/flows/records/customers';
import { FromInput } from '@/input/recurring-input';
import { BulkForm } from '@/ui/bulk/bulk-form';

export const metadata: Metadata = { title: 'One invoice to many' };

export default async function NewBulkPage({ searchParams }: { searchParams: Promise<object> }) {
  const actor = await pageActor();
  const { from = '' } = await askedOf(FromInput, searchParams);
  const { invoice, customer } = await orNotFound(from, invoiceSheet(actor, from));
  const [{ groups }, page] = await Promise.all([
    customerOverview(actor),
    customersPage(actor, { words: '', group: '' }),
  ]);
  const lines = invoice.paper.lines.filter(({ what }) => what.trim());
  return (
    <BulkForm
      invoiceId={from}
      customers={{ rows: page.rows.map(customerRow), next: page.next }}
      groups={groups}
      lines={lines.map(({ what }) => what)}
      files={invoice.paper.files.length}
      first={invoice.stage === 'draft' && customer ? { id: customer.id, name: customer.name } : null}
      firstName={invoice.paper.title || lines[0]?.what || 'Bulk invoices'}
    />
  );
}
