import type { Metadata } from 'next';
import { askedOf } from '@/app/asked';
import { pageActor } from '@/app/session';
import { shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { jsonMinor } from '@/core/money/money';
import { mayDo } from '@/core/person/rights';
import { businessToday } from '@/flows/payment/payment-list';
import { partnerList, partnerShares } from '@/flows/records/partners';
import { BeginInput } from '@/input/list-input';
import { Amount } from '@/ui/kit/amount';
import { OverviewPart, OverviewRow } from '@/ui/kit/overview';
import { PartnerTable } from '@/ui/partner/partner-table';
import { RecordsTabs } from '../records-tabs';

export const metadata: Metadata = { title: 'Partners' };

export default async function PartnersPage({ searchParams }: { searchParams: Promise<object> }) {
  const actor = await pageActor();
  const asked = await askedOf(BeginInput, searchParams);
  const { business } = await businessToday(actor);
  const shares = await partnerShares(actor);
  return (
    <>
      <RecordsTabs here="Partners" />
      <PartnerTable
        partners={await partnerList(actor)}
        locale={business.deskLocale}
        mayAsk={mayDo(actor, 'settings')}
        begins={asked.new === 'yes'}
      >
        {shares.length > 0 ? (
          <div className="mt-9">
            <OverviewPart name="Shared last">
              <ul>
                {shares.map(({ paymentId, partner, payer, at, minor, currency }) => (
                  <OverviewRow
                    key={`${paymentId} ${partner}`}
                    href={`/money/payments/${paymentId}`}
                    name={partner}
                    about={`of ${payer}’s payment, ${shortDate(dateInZone(at, business.zone), business.deskLocale, { weekday: true })}`}
                    figure={
                      <span className="private">
                        <Amount minor={jsonMinor(minor)} currency={currency} locale={business.deskLocale} />
                      </span>
                    }
                  />
                ))}
              </ul>
            </OverviewPart>
          </div>
        ) : null}
      </PartnerTable>
    </>
  );
}
