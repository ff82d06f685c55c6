import type { Metadata } from 'next';
import { pageActor } from '@/app/session';
import { wireMinor } from '@/core/money/money';
import { codeList } from '@/flows/codes';
import { itemsPage } from '@/flows/items';
import { businessToday } from '@/flows/payment-list';
import { CodeTable } from '@/ui/code/code-table';
import { RecordsShelf } from '../shelf';

export const metadata: Metadata = { title: 'Discount codes' };

export default async function CodesPage() {
  const actor = await pageActor();
  const { business } = await businessToday(actor);
  const codes = await codeList(actor);
  const { rows } = await itemsPage(actor, '');
  return (
    <>
      <RecordsShelf here="Discount codes" />
      <CodeTable
        codes={codes.map((code) => ({
          ...code,
          amountMinor: code.amountMinor === null ? null : wireMinor(code.amountMinor),
          leastMinor: wireMinor(code.leastMinor),
        }))}
        currency={business.currency}
        locale={business.locale}
        items={rows.map(({ id, name }) => ({ id, name }))}
        mayAsk={actor.role !== 'reader'}
      />
    </>
  );
}
