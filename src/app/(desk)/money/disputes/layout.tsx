import type { ReactNode } from 'react';
import { pageActor } from '@/app/session';
import { disputeList } from '@/flows/dispute/dispute-sheet';
import { Empty } from '@/ui/kit/empty';
import { ListAndSheet } from '@/ui/list/list-and-sheet';
import { ListGroups } from '@/ui/list/list-group';
import { MoneyTabs } from '../money-tabs';
import { jsonDispute } from './json-dispute';

export default async function DisputesLayout({ children }: { children: ReactNode }) {
  const { business, open, rows, next } = await disputeList(await pageActor());
  const all = [...open, ...rows].map((row) => jsonDispute(row, business));
  return (
    <>
      <MoneyTabs here="Disputes" />
      <ListAndSheet
        label="Disputes"
        list={
          all.length === 0 ? (
            <Empty words="No card’s holder has asked their bank for a payment back." />
          ) : (
            <div className="pt-2">
              <ListGroups rows={all} next={next} more="/api/disputes" locale={business.deskLocale} />
            </div>
          )
        }
      >
        {children}
      </ListAndSheet>
    </>
  );
}
