import type { Metadata } from 'next';
import { pageActor } from '@/app/session';
import { partnerList } from '@/flows/partners';
import { businessToday } from '@/flows/payment-list';
import { PartnerTable } from '@/ui/partner/partner-table';
import { RecordsShelf } from '../shelf';

export const metadata: Metadata = { title: 'Partners' };

export default async function PartnersPage() {
  const actor = await pageActor();
  const { business } = await businessToday(actor);
  return (
    <>
      <RecordsShelf here="Partners" />
      <PartnerTable partners={await partnerList(actor)} locale={business.locale} mayAsk={actor.role !== 'reader'} />
    </>
  );
}
