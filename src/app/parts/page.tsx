import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { PartsSheet } from '@/ui/parts/parts-sheet';

export const metadata: Metadata = { title: 'Parts' };

/** Every part of the design system in all its states; in the demo only. */
export default function PartsPage() {
  if (!process.env.DAHLIA_DEMO) notFound();
  return <PartsSheet />;
}
