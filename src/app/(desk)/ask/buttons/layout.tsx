import type { ReactNode } from 'react';
import { OfferLayout } from '../offer-parts/offer-layout';

export default function Layout({ children }: { children: ReactNode }) {
  return <OfferLayout placement="button">{children}</OfferLayout>;
}
