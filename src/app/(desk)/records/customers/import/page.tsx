import type { Metadata } from 'next';
import { ImportCustomers } from '@/ui/import/import-customers';

export const metadata: Metadata = { title: 'Customers from a file' };

export default function ImportPage() {
  return <ImportCustomers />;
}
