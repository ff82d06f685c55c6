import type { ReactNode } from 'react';
import { pageActor } from '@/app/session';
import { batchList } from '@/flows/day/day-batches';
import { Empty } from '@/ui/kit/empty';
import { ListAndSheet } from '@/ui/list/list-and-sheet';
import { ListGroups } from '@/ui/list/list-group';
import { MoneyTabs } from '../money-tabs';
import { jsonBatch } from './json-batch';

export default async function BatchesLayout({ children }: { children: ReactNode }) {
  const actor = await pageActor();
  const { business, today, rows, next } = await batchList(actor, null);
  return (
    <>
      <MoneyTabs here="Daily closing" />
      <ListAndSheet
        label="Daily closing"
        list={
          rows.length === 0 ? (
            <Empty words="No payment yet. Each day’s card payments make a batch, which the processor pays out; cash, cheques and transfers stand beside it." />
          ) : (
            <ListGroups
              rows={rows.map((row) => jsonBatch(row, business, today))}
              next={next && { key: next, id: next }}
              more="/api/day-batches"
              locale={business.deskLocale}
            />
          )
        }
      >
        {children}
      </ListAndSheet>
    </>
  );
}
