/** What a customer sees of their parcels, on the page of what they bought; and the desk, on the sheet of the sale. */
import type { CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { unpackedQuantity } from '@/core/parcel/handover';
import { spacedNumber } from '@/core/parcel/number';
import {
  type CustomersFetched,
  type CustomersParcel,
  customerState,
  type Look,
  lookAt,
  type ParcelState,
} from '@/core/parcel/shipment';
import { countText } from '@/core/stock/available';
import { businessById } from '@/db/businesses';
import { type Handover, handoversOfSale } from '@/db/handovers';
import { scansOf } from '@/db/parcels';
import type { Db } from '@/db/pool';
import { parcelsOfSale } from '@/db/shipments';
import { fetchedOf } from '@/flows/counter/collect';
import { INVOICE_LINK, ORDER_LINK } from '@/flows/door/links';
import { byLink, desk } from '@/flows/door/operation';

export type CustomersParcels = {
  readonly parcels: readonly CustomersParcel[];
  readonly counter: CustomersFetched;
  /** Whether something of it is still to leave. */
  readonly restFollows: boolean;
};

async function counterOf(db: Db, handovers: readonly Handover[], zone: string): Promise<CustomersFetched> {
  const whats = new Map(handovers.flatMap(({ id, lines }) => lines.map(({ line, what }) => [`${id} ${line}`, what])));
  return {
    waits: handovers
      .filter(({ counter }) => counter === 'open')
      .flatMap(({ lines }) =>
        lines
          .filter((line) => line.handed === 'collected' && unpackedQuantity(line) > 0n)
          .map((line) => ({ what: line.what, quantity: countText(unpackedQuantity(line)) })),
      ),
    fetched: (await fetchedOf(db, handovers)).map(({ at, name, handoverId, lines }) => ({
      on: dateInZone(at, zone),
      name,
      what: lines.map(({ line }) => whats.get(`${handoverId} ${line}`) ?? ''),
    })),
  };
}

async function parcelsFor(db: Db, saleId: string, now: Date): Promise<CustomersParcels> {
  const parcels = (await parcelsOfSale(db, saleId)).filter(({ state }) => state !== 'voided');
  const { zone } = await businessById(db);
  const handovers = await handoversOfSale(db, saleId);
  const counter = await counterOf(db, handovers, zone);
  if (parcels.length === 0) return { parcels: [], counter, restFollows: false };
  const today = dateInZone(now, zone);
  const scans = await scansOf(
    db,
    parcels.map(({ id }) => id),
  );
  const own = new Set(handovers.map(({ id }) => id));
  return {
    counter,
    parcels: parcels.map((parcel) => {
      const state = customerState(parcel, parcel.notice === 'told', today);
      const isTold = state !== 'packed';
      const last = scans.filter(({ parcelId, place }) => parcelId === parcel.id && place !== '').at(-1);
      return {
        state,
        // Sales that go along in the same parcel are somebody's own matter, even where it is the same somebody.
        lines: parcel.lines
          .filter(({ handoverId }) => handoverId !== null && own.has(handoverId))
          .map(({ what, quantity }) => ({ what, quantity })),
        number: isTold ? spacedNumber(parcel.number) : '',
        service: isTold ? (parcel.label?.serviceName ?? '') : '',
        promisedOn: isTold ? parcel.promisedOn : null,
        arrivedOn: parcel.state === 'delivered' && last ? dateInZone(last.at, zone) : null,
        takenBy: parcel.state === 'delivered' ? (parcel.proof?.name ?? '') : '',
        lastPlace: isTold ? (last?.place ?? '') : '',
      };
    }),
    restFollows: handovers.some(({ lines }) =>
      lines.some((line) => line.handed === 'posted' && unpackedQuantity(line) > 0n),
    ),
  };
}

/** The parcels of an invoice, by its link. */
export const parcelsByInvoice = byLink(INVOICE_LINK).run((ctx, invoiceId: string) =>
  ctx.read((db) => parcelsFor(db, invoiceId, ctx.now)),
);

/** The parcels of an order, by its link. */
export const parcelsByOrder = byLink(ORDER_LINK).run((ctx, orderId: string) =>
  ctx.read((db) => parcelsFor(db, orderId, ctx.now)),
);

/** A sale's parcel on its sheet at the desk. */
export type SaleParcel = {
  readonly id: string;
  readonly state: ParcelState;
  readonly look: Look | null;
  readonly number: string;
  readonly promisedOn: CalendarDate | null;
  readonly mailOn: CalendarDate;
};

/** Who fetched what of a sale, with their hand; and whether something waits at the counter. */
export type SaleFetched = {
  readonly waits: boolean;
  readonly fetched: readonly {
    readonly id: string;
    readonly on: CalendarDate;
    readonly name: string;
    readonly strokes: string;
    readonly byName: string;
  }[];
};

/** The parcels of a sale, and whether something of it waits to be packed. */
export const parcelsOfSaleAtDesk = desk('see').run(
  (
    ctx,
    saleId: string,
  ): Promise<{ readonly parcels: readonly SaleParcel[]; readonly waits: boolean; readonly counter: SaleFetched }> =>
    ctx.read(async (db) => {
      const { zone } = await businessById(db);
      const today = dateInZone(ctx.now, zone);
      const parcels = (await parcelsOfSale(db, saleId)).filter(({ state }) => state !== 'voided');
      const handovers = await handoversOfSale(db, saleId);
      return {
        parcels: parcels.map((parcel) => ({
          id: parcel.id,
          state: parcel.state,
          look: parcel.boughtAt ? lookAt(parcel, today) : null,
          number: spacedNumber(parcel.number),
          promisedOn: parcel.promisedOn,
          mailOn: parcel.mailOn,
        })),
        waits: handovers.some(({ state }) => state === 'open'),
        counter: {
          waits: handovers.some(({ counter }) => counter === 'open'),
          fetched: (await fetchedOf(db, handovers)).map(({ id, at, name, strokes, byName }) => ({
            ...{ id, name, strokes, byName },
            on: dateInZone(at, zone),
          })),
        },
      };
    }),
);
