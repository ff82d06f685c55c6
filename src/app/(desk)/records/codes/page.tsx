import type { Metadata } from 'next';
import { askedOf } from '@/app/asked';
import { pageActor } from '@/app/session';
import { jsonMinor } from '@/core/money/money';
import { mayDo } from '@/flows/door/rights';
import { codeList } from '@/flows/offer/codes';
import { businessToday } from '@/flows/payment/payment-list';
import { itemsPage } from '@/flows/records/items';
import { BeginInput } from '@/input/list-input';
import { CodeTable } from '@/ui/code/code-table';
import { RecordsTabs } from '../records-tabs';

export const metadata: Metadata = { title: 'Discount codes' };

export default async function CodesPage({ searchParams }: { searchParams: Promise<object> }) {
  const actor = await pageActor();
  const asked = await askedOf(BeginInput, searchParams);
  const { business } = await businessToday(actor);
  const codes = await codeList(actor);
  const { rows } = await itemsPage(actor, '');
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
        locale={business.locale}
        items={rows.map(({ id, name }) => ({ id, name }))}
        mayAsk={mayDo(actor.role, 'records')}
        begins={asked.new === 'yes'}
      />
    </>
  );
}
