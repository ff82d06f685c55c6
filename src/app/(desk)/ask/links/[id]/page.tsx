import type { Metadata } from 'next';
import { OfferSheetPage } from '../../offer-parts/offer-sheet-page';

export const metadata: Metadata = { title: 'Payment links' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <OfferSheetPage id={(await params).id} placement="link" />;
}
