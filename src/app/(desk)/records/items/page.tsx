import type { Metadata } from 'next';
import Link from 'next/link';
import { pageActor } from '@/app/session';
import { shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { mayDo } from '@/core/person/rights';
import { businessToday } from '@/flows/payment/payment-list';
import { itemOverview } from '@/flows/records/items';
import { Overview, OverviewPart, OverviewRow } from '@/ui/kit/overview';

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
            Nothing. What has as few left as its item says stands here, the emptiest first.
          </p>
        ) : (
          <ul>
            {low.map(({ itemId, name, option, onHand, lowAt }) => (
              <OverviewRow
                key={`${itemId} ${option}`}
                href={`/records/items/${itemId}`}
                name={name}
                isPrivate={false}
                about={[option, `to be told at ${lowAt}`].filter(Boolean).join(', ')}
                figure={<span className={Number(onHand) <= 0 ? 'text-brick' : 'text-ochre'}>{onHand} left</span>}
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
