import type { Metadata } from 'next';
import { ImportItems } from '@/ui/import/import-items';

export const metadata: Metadata = { title: 'Items from a file' };

export default function ImportItemsPage() {
  return <ImportItems />;
}
