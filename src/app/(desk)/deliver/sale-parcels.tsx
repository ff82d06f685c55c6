import type { Route } from 'next';
import Link from 'next/link';
import { shortDate } from '@/core/dates/date-text';
import { LOOK_WORDS, STATE_WORDS } from '@/core/parcel/shipment';
import type { Actor } from '@/flows/door/rights';
import { parcelsOfSaleAtDesk } from '@/flows/parcel/parcel-page';
import { Stairs } from '@/ui/shipment/stairs';

/** The parcels of a sale, on its sheet: where each is, and the way to it; nothing where nothing is sent. */
export async function SaleParcels({ actor, saleId, locale }: { actor: Actor; saleId: string; locale: string }) {
  const { parcels, waits } = await parcelsOfSaleAtDesk(actor, saleId);
  if (parcels.length === 0 && !waits) return null;
  return (
    <section aria-label="Parcels" className="mt-5 px-[26px]">
      <h2 className="title-section border-b border-ink pb-1 text-[16.5px]">Parcels</h2>
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
      </ul>
    </section>
  );
}
