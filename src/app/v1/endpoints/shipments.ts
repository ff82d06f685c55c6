import { jsonMinor } from '@/core/money/money';
import { LOOK_WORDS, PARCEL_STATES, SCANS } from '@/core/parcel/shipment';
import {
  type ShipmentRow,
  type ShipmentSheet,
  shipmentCosts,
  shipmentList,
  shipmentSales,
  shipmentSheet,
} from '@/flows/parcel/shipments';
import { NothingWritten, ShipmentsAsked } from '@/input/program-input';
import { BY_MOMENT, cursorOf, cursorText, type Endpoint, get } from '../endpoint';
import { DAY, ID, list, MINOR, MOMENT, object, oneOfWords, orNull, page, type Schema, TEXT, WHOLE } from '../schema';

const SHIPMENT: Readonly<Record<string, Schema>> = {
  id: ID,
  state: oneOfWords(PARCEL_STATES),
  /** Why it needs a look; null where nothing does. */
  look: orNull(oneOfWords(Object.keys(LOOK_WORDS))),
  number: TEXT,
  service: TEXT,
  customerId: orNull(ID),
  recipient: object({
    name: TEXT,
    address: object({ lines: list(TEXT), city: TEXT, region: TEXT, postalCode: TEXT, country: TEXT }),
  }),
  grams: orNull(WHOLE),
  mailOn: DAY,
  promisedOn: orNull(DAY),
  boughtAt: MOMENT,
  scannedAt: orNull(MOMENT),
  endedAt: orNull(MOMENT),
  /** When the customer was told that it left. */
  toldAt: orNull(MOMENT),
  customsForm: TEXT,
  lines: list(object({ what: TEXT, quantity: TEXT, itemId: orNull(ID), optionId: orNull(ID) })),
  sales: list(object({ invoiceId: orNull(ID), orderId: orNull(ID), number: TEXT })),
};

const SHEET = object({
  ...SHIPMENT,
  scans: list(object({ at: MOMENT, scan: oneOfWords(SCANS), place: TEXT, words: TEXT })),
  takenBy: TEXT,
  currency: TEXT,
  postageMinor: orNull(MINOR),
  insuranceMinor: MINOR,
  packagingMinor: MINOR,
  paidForDeliveryMinor: orNull(MINOR),
});

const moment = (at: Date | null): string | null => at?.toISOString() ?? null;

const shown = (parcel: ShipmentRow['parcel'], look: string | null, sales: ShipmentSheet['sales']): object => ({
  id: parcel.id,
  state: parcel.state,
  look,
  number: parcel.number,
  service: parcel.label?.serviceName ?? '',
  customerId: parcel.customerId,
  recipient: {
    name: parcel.recipient.name,
    address: {
      lines: parcel.recipient.address.lines,
      city: parcel.recipient.address.city,
      region: parcel.recipient.address.region,
      postalCode: parcel.recipient.address.postalCode,
      country: parcel.recipient.address.country,
    },
  },
  grams: parcel.label?.spec.grams ?? null,
  mailOn: parcel.mailOn,
  promisedOn: parcel.promisedOn,
  boughtAt: moment(parcel.boughtAt ?? parcel.madeAt),
  scannedAt: moment(parcel.scannedAt),
  endedAt: moment(parcel.endedAt),
  toldAt: moment(parcel.toldAt),
  customsForm: parcel.label?.customsForm ?? '',
  lines: parcel.lines.map(({ what, quantity, itemId, optionId }) => ({ what, quantity, itemId, optionId })),
  sales: sales
    .filter(({ parcelId }) => parcelId === parcel.id)
    .map(({ invoiceId, orderId, number }) => ({ invoiceId, orderId, number })),
});

export const SHIPMENTS: readonly Endpoint[] = [
  get('/shipments', {
    what: 'Parcels that have their label, the latest first, or those in which the words are found',
    right: 'see',
    input: ShipmentsAsked,
    answers: page(object(SHIPMENT)),
    run: async (actor, { input: { under = 'all', words = '', after } }) => {
      const cursor = cursorOf(after, BY_MOMENT);
      const { rows, next } = await shipmentList(
        actor,
        { under, words: words.toLowerCase() },
        cursor && { at: new Date(cursor.key), id: cursor.id },
      );
      const sales = await shipmentSales(
        actor,
        rows.map(({ parcel }) => parcel.id),
      );
      return {
        data: rows.map(({ parcel, look }) => shown(parcel, look, sales)),
        next: cursorText(next && { key: next.at.toISOString(), id: next.id }),
      };
    },
  }),
  get('/shipments/{id}', {
    what: 'A parcel, with every scan and what it cost',
    right: 'see',
    input: NothingWritten,
    answers: SHEET,
    run: async (actor, { ids: [id = ''] }) => {
      const { parcel, look, sales, scans } = await shipmentSheet(actor, id);
      const costs = await shipmentCosts(actor, id);
      return {
        ...shown(parcel, look, sales),
        scans: scans.map(({ at, scan, place, words }) => ({ at: at.toISOString(), scan, place, words })),
        takenBy: parcel.proof?.name ?? '',
        currency: costs.currency,
        postageMinor: costs.rateMinor === null ? null : jsonMinor(costs.rateMinor),
        insuranceMinor: jsonMinor(costs.insuranceMinor),
        packagingMinor: jsonMinor(costs.packagingMinor),
        paidForDeliveryMinor: costs.paidMinor === null ? null : jsonMinor(costs.paidMinor),
      };
    },
  }),
];
