import Link from 'next/link';
import type { ReactNode } from 'react';
import { customerRow } from '@/app/rows';
import { pageActor } from '@/app/session';
import { mayDo } from '@/core/person/rights';
import { customersPage } from '@/flows/records/customers';
import { Empty } from '@/ui/kit/empty';
import { ListAndSheet } from '@/ui/list/list-and-sheet';
import { RecordList } from '@/ui/records/record-list';
import { RecordsTabs } from '../records-tabs';

export default async function CustomersLayout({ children }: { children: ReactNode }) {
  const actor = await pageActor();
  const page = await customersPage(actor, { words: '', group: '' });
  return (
    <>
      <RecordsTabs here="Customers" />
      <ListAndSheet
        label="Customers"
        list={
          <RecordList
            first={{ rows: page.rows.map(customerRow), next: page.next }}
            path="/api/customers/page"
            placeholder="Name, address, phone or group"
            none={<Empty words="Nobody on file yet. Customers are added here, on an invoice, or from a file." />}
          >
            {!mayDo(actor, 'records') ? null : (
              <Link href="/records/customers/new" className="link flex-none">
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
