import type { Route } from 'next';
import Link from 'next/link';
import { shortDate } from '@/core/dates/date-text';
import { LOOK_WORDS, STATE_WORDS } from '@/core/parcel/shipment';
import { mayDo } from '@/core/person/rights';
import { thingsOfSale } from '@/flows/digital/grants';
import type { Actor } from '@/flows/door/rights';
import { parcelsOfSaleAtDesk } from '@/flows/parcel/parcel-page';
import { GiveAgain } from '@/ui/shipment/given-again';
import { Hand } from '@/ui/shipment/hand';
import { Stairs } from '@/ui/shipment/stairs';

/** The parcels of a sale, on its sheet: where each is, and the way to it; nothing where nothing is sent. */
export async function SaleParcels({ actor, saleId, locale }: { actor: Actor; saleId: string; locale: string }) {
  const { parcels, waits, counter } = await parcelsOfSaleAtDesk(actor, saleId);
  const things = await thingsOfSale(actor, saleId, locale);
  if (parcels.length + things.length + counter.fetched.length === 0 && !waits && !counter.waits) return null;
  return (
    <section aria-label="Delivery" className="mt-5 px-[26px]">
      <h2 className="title-section border-b border-ink pb-1 text-[16.5px]">Delivery</h2>
      <ul>
        {parcels.map((parcel) => (
          <li
            key={parcel.id}
            className="grid min-h-10 grid-cols-[32px_minmax(0,1fr)_auto] items-center border-b border-rule"
          >
            <Stairs state={parcel.state} look={parcel.look} size={22} />
            <Link
              className="document hover:underline"
              href={(parcel.number ? `/deliver/shipments/${parcel.id}` : '/deliver/pack') as Route}
            >
              {parcel.look ? LOOK_WORDS[parcel.look] : STATE_WORDS[parcel.state]}
              {parcel.number ? <span className="small ml-2 text-soft">{parcel.number}</span> : null}
            </Link>
            <span className="small text-soft">
              {parcel.promisedOn
                ? `for ${shortDate(parcel.promisedOn, locale, { weekday: true })}`
                : `leaves ${shortDate(parcel.mailOn, locale, { weekday: true })}`}
            </span>
          </li>
        ))}
        {waits ? (
          <li className="flex min-h-10 items-center border-b border-rule">
            <Link className="document hover:underline" href={'/deliver/pack' as Route}>
              {parcels.length > 0 ? 'The rest waits to be packed' : 'Waits to be packed'}
            </Link>
          </li>
        ) : null}
        {counter.fetched.map(({ id, on, name, strokes, byName }) => (
          <li
            key={id}
            className="grid min-h-10 grid-cols-[minmax(0,1fr)_92px] items-center gap-3 border-b border-rule py-1"
          >
            <span className="document">
              Fetched by <span className="private">{name}</span>
              <span className="small ml-2 text-soft">
                {shortDate(on, locale, { weekday: true })}, handed over by {byName}
              </span>
            </span>
            <Hand name={name} strokes={strokes} />
          </li>
        ))}
        {counter.waits ? (
          <li className="flex min-h-10 items-center border-b border-rule">
            <Link className="document hover:underline" href={'/deliver/counter' as Route}>
              {counter.fetched.length > 0 ? 'The rest waits at the counter' : 'Waits at the counter'}
            </Link>
          </li>
        ) : null}
        {things.map(({ id, what, state, left, until }) => (
          <li key={id} className="flex min-h-10 flex-wrap items-center gap-x-3 border-b border-rule py-1">
            <span className="document min-w-0 flex-1">{what}</span>
            <span className="small text-soft">
              {state === 'open'
                ? [left === null ? 'can be downloaded' : `${left} downloads left`, until ? `until ${until}` : '']
                    .filter(Boolean)
                    .join(', ')
                : state === 'over'
                  ? 'its days are over'
                  : 'no downloads left'}
            </span>
            {mayDo(actor, 'ask') && !actor.closed && (left !== null || until) ? (
              <GiveAgain saleId={saleId} grantId={id} />
            ) : null}
          </li>
        ))}
      </ul>
    </section>
  );
}
