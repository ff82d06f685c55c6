import type { Metadata } from 'next';
import { askedOf } from '@/app/asked';
import { pageActor } from '@/app/session';
import { shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { jsonMinor } from '@/core/money/money';
import { mayDo } from '@/core/person/rights';
import { codeList, latestCodeUses } from '@/flows/offer/codes';
import { businessToday } from '@/flows/payment/payment-list';
import { itemsPage } from '@/flows/records/items';
import { BeginInput } from '@/input/list-input';
import { CodeTable } from '@/ui/code/code-table';
import { Amount } from '@/ui/kit/amount';
import { OverviewPart, OverviewRow } from '@/ui/kit/overview';
import { RecordsTabs } from '../records-tabs';

export const metadata: Metadata = { title: 'Discount codes' };

export default async function CodesPage({ searchParams }: { searchParams: Promise<object> }) {
  const actor = await pageActor();
  const asked = await askedOf(BeginInput, searchParams);
  const { business } = await businessToday(actor);
  const codes = await codeList(actor);
  const { rows } = await itemsPage(actor, '');
  const uses = await latestCodeUses(actor);
  return (
    <>
      <RecordsTabs here="Discount codes" />
      <CodeTable
        codes={codes.map((code) => ({
          ...code,
          amountMinor: code.amountMinor === null ? null : jsonMinor(code.amountMinor),
          leastMinor: jsonMinor(code.leastMinor),
        }))}
        currency={business.currency}
        locale={business.deskLocale}
        items={rows.map(({ id, name }) => ({ id, name }))}
        mayAsk={mayDo(actor, 'records')}
        begins={asked.new === 'yes'}
      >
        {uses.length > 0 ? (
          <div className="mt-9">
            <OverviewPart name="Used last">
              <ul>
                {uses.map(({ paymentId, code, payer, at, paidMinor, currency }) => (
                  <OverviewRow
                    key={paymentId}
                    href={`/money/payments/${paymentId}`}
                    name={payer}
                    about={`${code}, ${shortDate(dateInZone(at, business.zone), business.deskLocale, { weekday: true })}`}
                    figure={
                      <span className="private">
                        <Amount minor={jsonMinor(paidMinor)} currency={currency} locale={business.deskLocale} />
                      </span>
                    }
                  />
                ))}
              </ul>
            </OverviewPart>
          </div>
        ) : null}
      </CodeTable>
    </>
  );
}
