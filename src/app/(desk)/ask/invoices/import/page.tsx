import type { Metadata } from 'next';
import { ImportInvoices } from '@/ui/import/import-invoices';

export const metadata: Metadata = { title: 'Open invoices from a file' };

export default function ImportInvoicesPage() {
  return <ImportInvoices />;
}
