import Link from 'next/link';
import type { ReactNode } from 'react';
import { itemRow } from '@/app/rows';
import { pageActor } from '@/app/session';
import { itemsPage } from '@/flows/items';
import { businessToday } from '@/flows/payment-list';
import { Empty } from '@/ui/empty';
import { ListAndSheet } from '@/ui/list/list-and-sheet';
import { RecordList } from '@/ui/records/record-list';
import { RecordsShelf } from '../shelf';

export default async function ItemsLayout({ children }: { children: ReactNode }) {
  const actor = await pageActor();
  const { business } = await businessToday(actor);
  const page = await itemsPage(actor, '');
  return (
    <>
      <RecordsShelf here="Items" />
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
            {actor.role === 'reader' ? null : (
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
