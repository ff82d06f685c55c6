import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { orGone } from '@/app/found';
import { pageActor } from '@/app/session';
import { clockTime, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { mayDo } from '@/core/person/rights';
import { pageDesign } from '@/flows/checkout/hosted-page';
import { businessToday } from '@/flows/payment/payment-list';
import { PageDesigner } from '@/ui/page/page-designer';

export const metadata: Metadata = { title: 'Design the page' };

export default async function DesignPage({ params }: { params: Promise<{ id: string }> }) {
  const actor = await pageActor();
  const { id } = await params;
  const { placed, page, versions } = await orGone(id, pageDesign(actor, id), '/ask/pages');
  if (!mayDo(actor, 'ask')) redirect(`/ask/pages/${id}`);
  const { business } = await businessToday(actor);
  const { zone, deskLocale: locale } = business;
  return (
    <PageDesigner
      key={id}
      id={id}
      first={page}
      fields={placed.offer.fields}
      currency={placed.offer.currency}
      versions={versions.map(({ version, publishedAt, byName }) => ({
        version,
        byName,
        when: `${shortDate(dateInZone(publishedAt, zone), locale, { weekday: true })} ${clockTime(publishedAt, zone)}`,
      }))}
      published={placed.published}
    />
  );
}
