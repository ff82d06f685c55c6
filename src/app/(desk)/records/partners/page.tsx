import type { Metadata } from 'next';
import { pageActor } from '@/app/session';
import { mayDo } from '@/flows/door/rights';
import { businessToday } from '@/flows/payment/payment-list';
import { partnerList } from '@/flows/records/partners';
import { PartnerTable } from '@/ui/partner/partner-table';
import { RecordsTabs } from '../records-tabs';

export const metadata: Metadata = { title: 'Partners' };

export default async function PartnersPage() {
  const actor = await pageActor();
  const { business } = await businessToday(actor);
  return (
    <>
      <RecordsTabs here="Partners" />
      <PartnerTable
        partners={await partnerList(actor)}
        locale={business.locale}
        mayAsk={mayDo(actor.role, 'settings')}
      />
    </>
  );
}
