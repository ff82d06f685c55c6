import type { Metadata } from 'next';
import { pageActor } from '@/app/session';
import { businessToday } from '@/flows/payment/payment-list';
import { NewCustomerSheet } from '@/ui/customer/new-customer-sheet';

export const metadata: Metadata = { title: 'A new customer' };

export default async function NewCustomerPage() {
  const { business } = await businessToday(await pageActor());
  return <NewCustomerSheet home={business.country} />;
}
