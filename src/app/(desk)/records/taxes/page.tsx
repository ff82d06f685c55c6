import type { Metadata } from 'next';
import { pageActor } from '@/app/session';
import { businessToday } from '@/flows/payment-list';
import { taxRules } from '@/flows/taxes';
import { TaxTable } from '@/ui/tax/tax-table';
import { RecordsShelf } from '../shelf';

export const metadata: Metadata = { title: 'Taxes' };

export default async function TaxesPage() {
  const actor = await pageActor();
  const { business } = await businessToday(actor);
  return (
    <>
      <RecordsShelf here="Taxes" />
      <TaxTable rules={await taxRules(actor)} home={business.country} mayAsk={actor.role !== 'reader'} />
    </>
  );
}
