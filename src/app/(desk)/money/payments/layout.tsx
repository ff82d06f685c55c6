import type { ReactNode } from 'react';
import { pageActor } from '@/app/session';
import { businessToday, paymentPage } from '@/flows/payment/payment-list';
import { Empty } from '@/ui/kit/empty';
import { ListAndSheet } from '@/ui/list/list-and-sheet';
import { ListGroups } from '@/ui/list/list-group';
import { MoneyTabs } from '../money-tabs';
import { jsonPayment } from './json-payment';

export default async function PaymentsLayout({ children }: { children: ReactNode }) {
  const actor = await pageActor();
  const { business, today } = await businessToday(actor);
  const page = await paymentPage(actor, null);
  return (
    <>
      <MoneyTabs here="Payments" />
      <ListAndSheet
        label="Payments"
        list={
          page.rows.length === 0 ? (
            <Empty words="Nothing has come in yet. Payments appear here the moment they are made." />
          ) : (
            <ListGroups
              rows={page.rows.map((row) => jsonPayment(row, business, today))}
              next={page.next}
              more="/api/payments"
              locale={business.locale}
            />
          )
        }
      >
        {children}
      </ListAndSheet>
    </>
  );
}
