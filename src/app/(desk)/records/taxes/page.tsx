import type { Metadata } from 'next';
import { pageActor } from '@/app/session';
import { mayDo } from '@/core/person/rights';
import { businessToday } from '@/flows/payment/payment-list';
import { itemClasses } from '@/flows/records/items';
import { taxRules } from '@/flows/records/taxes';
import { TaxTable } from '@/ui/tax/tax-table';
import { RecordsTabs } from '../records-tabs';

export const metadata: Metadata = { title: 'Taxes' };

export default async function TaxesPage() {
  const actor = await pageActor();
  const { business } = await businessToday(actor);
  return (
    <>
      <RecordsTabs here="Taxes" />
      <TaxTable
        rules={await taxRules(actor)}
        classes={await itemClasses(actor)}
        home={business.country}
        mayAsk={mayDo(actor, 'settings')}
      />
    </>
  );
}
