import type { Metadata } from 'next';
import { askedOf } from '@/app/asked';
import { pageActor } from '@/app/session';
import { mayDo } from '@/flows/door/rights';
import { businessToday } from '@/flows/payment/payment-list';
import { partnerList } from '@/flows/records/partners';
import { BeginInput } from '@/input/list-input';
import { PartnerTable } from '@/ui/partner/partner-table';
import { RecordsTabs } from '../records-tabs';

export const metadata: Metadata = { title: 'Partners' };

export default async function PartnersPage({ searchParams }: { searchParams: Promise<object> }) {
  const actor = await pageActor();
  const asked = await askedOf(BeginInput, searchParams);
  const { business } = await businessToday(actor);
  return (
    <>
      <RecordsTabs here="Partners" />
      <PartnerTable
        partners={await partnerList(actor)}
        locale={business.locale}
        mayAsk={mayDo(actor.role, 'settings')}
        begins={asked.new === 'yes'}
      />
    </>
  );
}
