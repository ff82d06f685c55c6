import Link from 'next/link';
import type { ReactNode } from 'react';
import { itemRow } from '@/app/rows';
import { pageActor } from '@/app/session';
import { mayDo } from '@/core/person/rights';
import { businessToday } from '@/flows/payment/payment-list';
import { itemsPage } from '@/flows/records/items';
import { Empty } from '@/ui/kit/empty';
import { ListAndSheet } from '@/ui/list/list-and-sheet';
import { RecordList } from '@/ui/records/record-list';
import { RecordsTabs } from '../records-tabs';

export default async function ItemsLayout({ children }: { children: ReactNode }) {
  const actor = await pageActor();
  const { business } = await businessToday(actor);
  const page = await itemsPage(actor, '');
  return (
    <>
      <RecordsTabs here="Items" />
      <ListAndSheet
        label="Items"
        list={
          <RecordList
            first={{ rows: page.rows.map((item) => itemRow(item, business.currency)), next: page.next }}
            path="/api/items/page"
            placeholder="Name or code"
            none={
              <Empty words="No items yet. What you sell again and again is kept here, with its price and its stock." />
            }
          >
            {!mayDo(actor, 'records') ? null : (
              <Link href="/records/items/new" className="link flex-none">
                Add
              </Link>
            )}
          </RecordList>
        }
      >
        {children}
      </ListAndSheet>
    </>
  );
}
