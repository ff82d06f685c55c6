import type { Metadata } from 'next';
import { OfferSheetPage } from '../../offer-parts/offer-sheet-page';

export const metadata: Metadata = { title: 'Hosted pages' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <OfferSheetPage id={(await params).id} placement="page" />;
}
