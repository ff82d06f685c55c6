import type { Metadata } from 'next';
import { OfferSheetPage } from '../../offer-parts/offer-sheet-page';

export const metadata: Metadata = { title: 'Buttons' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <OfferSheetPage id={(await params).id} placement="button" />;
}
