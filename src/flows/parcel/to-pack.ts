/** What waits to be packed, what lies on the paper, and what that costs. */
import type { Business } from '@/core/business/business';
import type { CustomsProblem } from '@/core/customs/declaration';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import type { ItemGoing } from '@/core/item/item';
import { decimalText } from '@/core/money/decimal';
import { type LotCost, lotCost, type ParcelCost } from '@/core/parcel/cost';
import type { Block, Recipient } from '@/core/parcel/handover';
import { unpackedQuantity } from '@/core/parcel/handover';
import { contentWords } from '@/core/parcel/lot';
import { type DayWarning, type DeliverSettings, dayWarnings } from '@/core/parcel/notice';
import { bareNumber } from '@/core/parcel/number';
import { goingOfLine, isBuyable, type PackingFault, packedOf } from '@/core/parcel/packed';
import { isWeighed, type ParcelProfile } from '@/core/parcel/profile';
import type { ServiceRate, ServiceRefusal } from '@/core/parcel/service';
import { businessById } from '@/db/businesses';
import { carrierBalance } from '@/db/carrier-moves';
import { type Handover, handoverByNumber, handoversByIds, type PackCursor, packHead, toPackRows } from '@/db/handovers';
import { type Parcel } from '@/db/parcels';
import { type ParcelSale, parcelByNumber, salesOfParcels } from '@/db/shipments';
import { desk, type Reading } from '@/flows/door/operation';
import { paperWorkedOut } from './ask-rates';
import { inOwnCurrency } from './packing-setting';

const PAGE = 40;
/** So many labels are printed at once. */
const MOST_PRINTED = 200;

/** A sale that waits to be packed, as a list shows it. */
export type ToPack = {
  readonly id: string;
  readonly name: string;
  readonly number: string;
  readonly what: string;
  readonly city: string;
  readonly readyAt: Date;
  readonly wantedBy: CalendarDate | null;
  readonly block: Block;
  readonly recipient: Recipient;
  readonly wish: string;
  readonly invoiceId: string | null;
  readonly orderId: string | null;
};

/** What is left of a sale, line by line. */
const leftLines = ({ lines }: Handover) =>
  lines.flatMap((line) => {
    const left = unpackedQuantity(line);
    return line.handed === 'posted' && left > 0n ? [{ what: line.what, quantity: decimalText(left, 4) }] : [];
  });

const shown = (handover: Handover, now: Date): ToPack => ({
  id: handover.id,
  name: handover.recipient.name,
  number: handover.number,
  what: contentWords(leftLines(handover)),
  city: [handover.recipient.address.city, handover.recipient.address.region.replace(/^[A-Z]{2}-/, '')]
    .filter(Boolean)
    .join(', '),
  readyAt: handover.readyAt ?? now,
  wantedBy: handover.wantedBy,
  block: handover.block,
  recipient: handover.recipient,
  wish: handover.wish,
  invoiceId: handover.invoiceId,
  orderId: handover.orderId,
});

export type PackPage = { readonly rows: readonly ToPack[]; readonly next: PackCursor | null };

async function pageOf(
  db: Reading,
  asked: { readonly blocked: boolean; readonly words?: string },
  now: Date,
  after: PackCursor | null = null,
): Promise<PackPage> {
  const rows = await toPackRows(db, asked, PAGE + 1, after);
  const last = rows[PAGE - 1];
  return {
    rows: rows.slice(0, PAGE).map((row) => shown(row, now)),
    next: rows.length > PAGE && last?.readyAt ? { at: last.readyAt, id: last.id } : null,
  };
}

/** A further page of what can be packed, or cannot yet; the oldest first. */
export const packPage = desk('customers').run(
  (ctx, asked: { readonly blocked: boolean; readonly words?: string }, after: PackCursor | null): Promise<PackPage> =>
    ctx.read((db) => pageOf(db, asked, ctx.now, after)),
);

/** A parcel on the paper, without what it costs. */
export type PackedRow = {
  readonly parcel: Parcel;
  readonly sales: readonly ParcelSale[];
  readonly what: string;
  readonly profile: ParcelProfile | null;
  readonly grams: number;
  readonly isWeighed: boolean;
  readonly faults: readonly PackingFault[];
  readonly refusedBecause: ServiceRefusal | null;
  readonly serviceName: string;
  readonly promisedOn: CalendarDate | null;
  readonly warnings: readonly DayWarning[];
  readonly isBuyable: boolean;
  /** Whether a border asks what is in it, and what of that is missing. */
  readonly isDeclared: boolean;
  readonly customsProblems: readonly CustomsProblem[];
  /** What the items of its lines say of themselves, line by line. */
  readonly going: readonly (ItemGoing | null)[];
  /** Where its things lie, in the order of the shelves. */
  readonly shelves: readonly { readonly shelf: string; readonly what: string; readonly quantity: string }[];
};

export type PackDesk = {
  readonly business: Business;
  readonly today: CalendarDate;
  readonly settings: DeliverSettings;
  readonly count: { readonly ready: number; readonly blocked: number };
  readonly ready: PackPage;
  readonly blocked: PackPage;
  readonly paper: readonly PackedRow[];
  readonly profiles: readonly ParcelProfile[];
  /** Labels that nobody printed yet. */
  readonly toPrint: readonly string[];
  /** Those of them that cross a border with a customs form. */
  readonly toDeclare: readonly string[];
};

const wanted = (sales: readonly ParcelSale[]): CalendarDate | null =>
  sales.flatMap(({ wantedBy }) => (wantedBy ? [wantedBy] : [])).sort()[0] ?? null;

/** Everything on the screen To pack that names no sums. */
export const packDesk = desk('customers').run(
  (ctx, words: string): Promise<PackDesk> =>
    ctx.read(async (db) => {
      const { business, table, parcels } = await paperWorkedOut(db);
      const { settings, toPrint, toDeclare, ...count } = await packHead(db, MOST_PRINTED);
      const today = dateInZone(ctx.now, business.zone);
      const sales =
        parcels.length === 0
          ? []
          : await salesOfParcels(
              db,
              parcels.map(({ parcel }) => parcel.id),
            );
      return {
        business,
        today,
        settings,
        count,
        ready: await pageOf(db, { blocked: false, words }, ctx.now),
        blocked: await pageOf(db, { blocked: true, words }, ctx.now),
        profiles: table.profiles,
        toPrint,
        toDeclare,
        paper: parcels.map(({ parcel, packing }) => {
          const own = sales.filter(({ parcelId }) => parcelId === parcel.id);
          return {
            parcel,
            sales: own,
            what: contentWords(parcel.lines),
            profile: packing.profile,
            grams: packing.grams,
            isWeighed: parcel.grams !== null || isWeighed(packedOf(parcel.lines, table.items)),
            faults: packing.faults,
            refusedBecause: packing.refusedBecause,
            serviceName: packing.rate?.name ?? '',
            promisedOn: packing.rate?.promisedOn ?? null,
            warnings: dayWarnings(parcel.mailOn, {
              today,
              mailDays: settings.mailDays,
              wantedBy: wanted(own),
              promisedOn: packing.rate?.promisedOn ?? null,
            }),
            isBuyable: isBuyable(packing),
            isDeclared: packing.declaration !== null,
            customsProblems: packing.customsProblems,
            going: parcel.lines.map((line) => goingOfLine(line, table.items)),
            shelves: parcel.lines
              .map((line) => ({
                shelf: goingOfLine(line, table.items)?.shelf ?? '',
                what: line.what,
                quantity: line.quantity,
              }))
              .sort((one, other) => one.shelf.localeCompare(other.shelf, 'en', { numeric: true })),
          };
        }),
      };
    }),
);

/** What the paper costs, parcel by parcel and in all. */
export type PaperCosts = {
  readonly parcels: Readonly<Record<string, ParcelCost & { readonly rates: readonly ServiceRate[] }>>;
  readonly lot: LotCost;
  /** What goes to the carrier for those that are ready. */
  readonly readyMinor: bigint;
  readonly balanceMinor: bigint;
};

export const paperCosts = desk('see').read(async (db): Promise<PaperCosts> => {
  const { parcels } = await paperWorkedOut(db);
  const packing = parcels.filter(({ parcel }) => parcel.state === 'packing');
  return {
    parcels: Object.fromEntries(
      parcels.map(({ parcel, packing: { cost, answer } }) => [parcel.id, { ...cost, rates: answer?.rates ?? [] }]),
    ),
    lot: lotCost(packing.map((one) => one.packing.cost)),
    readyMinor: lotCost(packing.filter((one) => isBuyable(one.packing)).map((one) => one.packing.cost)).carrierMinor,
    balanceMinor: await carrierBalance(db),
  };
});

/** What was paid for delivery of what waits, in the business's currency; null where it cannot be converted. */
export const deliveryPaid = desk('see').run(
  (ctx, ids: readonly string[]): Promise<Readonly<Record<string, bigint | null>>> =>
    ctx.read(async (db) => {
      const own = await inOwnCurrency(db, await businessById(db), ctx.now);
      const rows = await handoversByIds(db, ids);
      return Object.fromEntries(rows.map(({ id, chargedMinor, currency }) => [id, own(chargedMinor, currency)]));
    }),
);

/** What a scanned or typed number is: a sale that waits or not, or a shipment. */
export type ScannedThing =
  | { readonly kind: 'sale'; readonly id: string; readonly state: Handover['state']; readonly block: Block }
  | { readonly kind: 'parcel'; readonly id: string }
  | { readonly kind: 'unknown' };

/** What a barcode reader, or somebody in a hurry, typed. */
export const scannedThing = desk('customers').read(async (db, text: string): Promise<ScannedThing> => {
  const parcel = await parcelByNumber(db, bareNumber(text));
  if (parcel) return { kind: 'parcel', id: parcel.id };
  const handover = await handoverByNumber(db, text.trim());
  return handover
    ? { kind: 'sale', id: handover.id, state: handover.state, block: handover.block }
    : { kind: 'unknown' };
});
