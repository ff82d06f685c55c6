/** Parcels go to the carrier: the list that goes with them, and when it comes for them. */
import { type CalendarDate } from '@/core/dates/calendar-date';
import { longDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { handedOverSum } from '@/core/parcel/handover-list';
import { measuresOf, weightText } from '@/core/parcel/measure';
import { spacedNumber } from '@/core/parcel/number';
import { businessById } from '@/db/businesses';
import { insertPickUp, type PickUp, pickUpsFrom, updatePickUp } from '@/db/pick-ups';
import { notHandedOver } from '@/db/shipments';
import { handoverPdf } from '@/documents/pdf/draw';
import { idFor } from '@/flows/door/id-for';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import type { File } from '@/flows/file/kept-files';
import { services } from '@/outside/services';
import { leavesFrom } from './packing-setting';

const MOST = 1000;

/** What has its label and leaves by a day, and when the carrier comes. */
export type HandOver = {
  readonly parcels: number;
  readonly grams: number;
  readonly pickUps: readonly PickUp[];
  readonly today: CalendarDate;
};

export const handOverNow = desk('customers').read(async (db): Promise<HandOver> => {
  const { zone } = await businessById(db);
  const today = dateInZone(db.now, zone);
  const { count, grams } = handedOverSum((await notHandedOver(db, MOST)).map(({ label }) => label?.spec.grams ?? 0));
  return { parcels: count, grams, pickUps: await pickUpsFrom(db, today), today };
});

/** The list of all that has its label and was not scanned yet, in the order of its numbers. @throws Refusal `nothing-to-hand-over` */
export const handoverFile = desk('customers').run(async (ctx): Promise<File> => {
  const { business, parcels } = await ctx.read(async (db) => ({
    business: await businessById(db),
    parcels: await notHandedOver(db, MOST),
  }));
  if (parcels.length === 0) throw new Refusal('nothing-to-hand-over');
  const measures = measuresOf(business.country);
  const weight = (grams: number) => weightText(grams, measures, business.deskLocale);
  const { count, grams } = handedOverSum(parcels.map(({ label }) => label?.spec.grams ?? 0));
  const today = longDate(dateInZone(ctx.now, business.zone), business.deskLocale);
  const bytes = await handoverPdf({
    house: business.name,
    title: `Handed over on ${today}`,
    locale: business.paperLocale,
    sum: `${count === 1 ? 'One parcel' : `${count} parcels`}, ${weight(grams)} in all`,
    rows: parcels.map(({ number, recipient, label }) => ({
      number: spacedNumber(number),
      name: recipient.name,
      where: [recipient.address.city, recipient.address.country].filter(Boolean).join(', '),
      service: label?.serviceName ?? '',
      weight: weight(label?.spec.grams ?? 0),
    })),
  });
  return { name: 'handed-over.pdf', bytes, type: 'application/pdf' };
});

/**
 * Orders the carrier for a day. The press has a key, which is the carrier's too: pressed again after a lost answer, the same order is
 * asked about.
 *
 * @throws Refusal `nothing-to-hand-over`, `carrier-silent`, `no-pick-up` with the carrier's words
 */
export const orderPickUp = desk('pack').run(async (ctx, pressKey: string, on: CalendarDate): Promise<void> => {
  const { business, parcels } = await ctx.read(async (db) => ({
    business: await businessById(db),
    parcels: await notHandedOver(db, MOST),
  }));
  const { count, grams } = handedOverSum(parcels.map(({ label }) => label?.spec.grams ?? 0));
  if (count === 0) throw new Refusal('nothing-to-hand-over');
  const id = idFor(`pick-up ${pressKey}`);
  await ctx.write((tx) => insertPickUp(tx, { id, on, parcels: count, grams: Math.max(1, grams), byName: tx.name }));
  const answer = await services().carrier.pickUp(ctx.businessId, {
    key: id,
    on,
    parcels: count,
    grams,
    from: leavesFrom(business),
  });
  if (!answer) throw new Refusal('carrier-silent');
  const { number, words } = answer;
  await ctx.write((tx) => updatePickUp(tx, id, { state: number ? 'ordered' : 'refused', number, words }));
  if (!number)
    throw new Refusal('no-pick-up', [{ field: 'on', words: `The carrier does not come on that day: ${words}.` }]);
});
