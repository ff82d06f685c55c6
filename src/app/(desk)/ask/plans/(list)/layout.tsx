import type { Route } from 'next';
import Link from 'next/link';
import type { ReactNode } from 'react';
import { jsonPlan } from '@/app/json-plan';
import { pageActor } from '@/app/session';
import { mayDo } from '@/core/person/rights';
import { businessToday } from '@/flows/payment/payment-list';
import { planList } from '@/flows/plan/plan-list';
import { Empty } from '@/ui/kit/empty';
import { ListAndSheet } from '@/ui/list/list-and-sheet';
import { PlanList } from '@/ui/plan/plan-list';
import { AskTabs } from '../../ask-tabs';

export default async function PlansLayout({ children }: { children: ReactNode }) {
  const actor = await pageActor();
  const { business, today } = await businessToday(actor);
  const { rows, counts } = await planList(actor, '', '');
  return (
    <>
      <AskTabs here="Billing plans" />
      <ListAndSheet
        label="Billing plans"
        list={
          <>
            <div className="flex h-[34px] items-center gap-4">
              <b className="flex-1 font-semibold">Billing plans</b>
              {!mayDo(actor, 'ask') ? null : (
                <>
                  <Link className="link" href={'/ask/plans/many' as Route}>
                    From a table
                  </Link>
                  <Link className="link" href={'/ask/plans/compose' as Route}>
                    New plan
                  </Link>
                </>
              )}
            </div>
            {rows.length === 0 ? (
              <Empty words="No plan yet. A plan charges a card on file again and again: a membership, or a balance in parts." />
            ) : (
              <PlanList
                rows={rows.map((row) => jsonPlan(row, business, today))}
                counts={counts}
                locale={business.deskLocale}
              />
            )}
          </>
        }
      >
        {children}
      </ListAndSheet>
    </>
  );
}
