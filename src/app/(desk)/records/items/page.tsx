import type { Metadata } from 'next';
import Link from 'next/link';
import { pageActor } from '@/app/session';
import { shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { mayDo } from '@/core/person/rights';
import { businessToday } from '@/flows/payment/payment-list';
import { itemOverview } from '@/flows/records/items';
import { Overview, OverviewPart, OverviewRow } from '@/ui/kit/overview';
import { stockHref } from '@/ui/stock/shown';

export const metadata: Metadata = { title: 'Items' };

/** While no item is chosen: what runs out, and the newest. */
export default async function NoItemOpen() {
  const actor = await pageActor();
  const { low, newest } = await itemOverview(actor);
  const { business } = await businessToday(actor);
  return (
    <Overview label="Items at a glance">
      <OverviewPart name="Running out">
        {low.length === 0 ? (
          <p className="py-3 text-soft">
            Nothing. Of what has as few left as its item says, it stands here how many to order.
          </p>
        ) : (
          <ul>
            {low.map(({ itemId, optionId, name, option, available, order }) => (
              <OverviewRow
                key={`${itemId} ${option}`}
                href={stockHref({ itemId, optionId })}
                name={name}
                isPrivate={false}
                about={[option, `order ${order}`].filter(Boolean).join(', ')}
                figure={<span className={Number(available) <= 0 ? 'text-brick' : 'text-ochre'}>{available} left</span>}
              />
            ))}
          </ul>
        )}
      </OverviewPart>
      {newest.length > 0 ? (
        <OverviewPart name="Added last">
          <ul>
            {newest.map(({ id, name, createdAt }) => (
              <OverviewRow
                key={id}
                href={`/records/items/${id}`}
                name={name}
                isPrivate={false}
                about=""
                figure={
                  <span className="font-sans text-[13px] text-soft">
                    {shortDate(dateInZone(createdAt, business.zone), business.deskLocale, { year: true })}
                  </span>
                }
              />
            ))}
          </ul>
        </OverviewPart>
      ) : null}
      {mayDo(actor, 'records') ? (
        <p className="mt-6">
          <Link className="link" href="/records/items/import">
            Import from a file
          </Link>
        </p>
      ) : null}
    </Overview>
  );
}
