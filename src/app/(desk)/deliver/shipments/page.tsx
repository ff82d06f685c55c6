import type { Metadata } from 'next';
import { pageActor } from '@/app/session';
import { shortDate } from '@/core/dates/date-text';
import { measuresOf, weightText } from '@/core/parcel/measure';
import { LOOK_WORDS } from '@/core/parcel/shipment';
import { mayDo } from '@/core/person/rights';
import { handOverNow } from '@/flows/parcel/pick-up';
import { shipmentList } from '@/flows/parcel/shipments';
import { packDesk } from '@/flows/parcel/to-pack';
import { Overview, OverviewPart, OverviewRow } from '@/ui/kit/overview';
import { LabelsBeside } from '@/ui/shipment/labels-beside';
import { NoticeActions } from '@/ui/shipment/notice-actions';
import { PickUpPart } from '@/ui/shipment/pick-up-part';

export const metadata: Metadata = { title: 'Shipments' };

/** While none is open: what needs a look, labels to be printed, and who is not told yet. */
export default async function NoShipmentOpen() {
  const actor = await pageActor('customers');
  const { business, today, looks, rows } = await shipmentList(actor, { under: 'under-way' });
  const { toPrint, toDeclare, settings } = await packDesk(actor, '');
  const handOver = await handOverNow(actor);
  const mayPack = !actor.closed && mayDo(actor, 'pack');
  const notTold = rows.filter(({ parcel }) => parcel.state === 'bought' && parcel.notice !== 'told');
  const day = (on: Parameters<typeof shortDate>[0]) => shortDate(on, business.deskLocale, { weekday: true });
  return (
    <Overview label="Shipments at a glance">
      <OverviewPart name="Needs a look">
        {looks.length === 0 ? (
          <p className="py-3 text-soft">Nothing: all that is under way is as it was promised.</p>
        ) : (
          <ul>
            {looks.map(({ parcel, look }) => (
              <OverviewRow
                key={parcel.id}
                href={`/deliver/shipments/${parcel.id}`}
                name={parcel.recipient.name}
                about={look ? LOOK_WORDS[look] : ''}
                figure={
                  <span className="text-[13.5px]">{parcel.promisedOn ? `promised ${day(parcel.promisedOn)}` : ''}</span>
                }
              />
            ))}
          </ul>
        )}
      </OverviewPart>
      {toPrint.length > 0 && mayPack ? (
        <OverviewPart name="Labels to print">
          <LabelsBeside ids={toPrint} declared={toDeclare} sheet={settings.labelSheet} own={settings.ownLabel} />
        </OverviewPart>
      ) : null}
      {handOver.parcels > 0 || handOver.pickUps.length > 0 ? (
        <OverviewPart name="To hand over">
          <PickUpPart
            words={
              handOver.parcels === 0
                ? 'All is handed over.'
                : `${handOver.parcels === 1 ? 'One parcel' : `${handOver.parcels} parcels`}, ${weightText(handOver.grams, measuresOf(business.country), business.deskLocale)} in all`
            }
            pickUps={handOver.pickUps}
            today={handOver.today}
            mayPack={mayPack && handOver.parcels > 0}
          />
        </OverviewPart>
      ) : null}
      {notTold.length > 0 ? (
        <OverviewPart name="Not told yet">
          <ul>
            {notTold.slice(0, 12).map(({ parcel }) => (
              <OverviewRow
                key={parcel.id}
                href={`/deliver/shipments/${parcel.id}`}
                name={parcel.recipient.name}
                about={parcel.recipient.address.city}
                figure={
                  <span className="text-[13.5px] text-dusk">
                    {parcel.notice === 'held'
                      ? 'held back'
                      : parcel.notice === 'first-scan'
                        ? 'with the first scan'
                        : `${day(parcel.mailOn)}, ${settings.tellAt}`}
                  </span>
                }
              />
            ))}
          </ul>
          {mayPack ? (
            <NoticeActions
              ids={notTold.map(({ parcel }) => parcel.id)}
              notice="several"
              mailOn={notTold[0]?.parcel.mailOn ?? today}
              today={today}
            />
          ) : null}
        </OverviewPart>
      ) : null}
    </Overview>
  );
}
