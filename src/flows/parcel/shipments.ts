/** Parcels that have their label: where they are, what they cost, what can still be done about them. */
import { randomUUID } from 'node:crypto';
import type { Business } from '@/core/business/business';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { labelVoided } from '@/core/ledger/movements';
import { money } from '@/core/money/money';
import { mostClaimed } from '@/core/parcel/claim';
import { type ParcelCost, totalCost } from '@/core/parcel/cost';
import { noticeAt } from '@/core/parcel/notice';
import { type Look, lookAt, type ScanLine, type WayPlace, wayOf } from '@/core/parcel/shipment';
import type { TimelineLine } from '@/core/timeline/timeline';
import { businessById } from '@/db/businesses';
import { insertMoves } from '@/db/carrier-moves';
import { addPacked, updateChargedOn, updateHandoverState } from '@/db/handovers';
import { insertEntry } from '@/db/ledger';
import { claimOf, type ParcelClaim } from '@/db/parcel-claims';
import { deliverSettings } from '@/db/parcel-profiles';
import { type Parcel, parcelsByIds, scansOf, updateNotice, updatePromised, updateVoided } from '@/db/parcels';
import {
  mailsOfParcel,
  type ParcelSale,
  paymentOfSale,
  type ShipmentCursor,
  type ShipmentsAsked,
  salesOfParcels,
  shipmentRows,
  shipmentsToLookAt,
  underWayCount,
} from '@/db/shipments';
import { addToTimeline, parcelTimeline } from '@/db/timeline';
import { desk, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { atMost } from '@/outside/at-most';
import { services } from '@/outside/services';

const PAGE = 60;
const LOOKED_AT = 30;
/** The carrier is asked of so many one beside the other. */
const AT_ONCE = 8;

/** A shipment as a list shows it. */
export type ShipmentRow = { readonly parcel: Parcel; readonly look: Look | null };

export type ShipmentList = {
  readonly business: Business;
  readonly today: CalendarDate;
  readonly underWay: number;
  /** What needs a look, on the first page of what is under way. */
  readonly looks: readonly ShipmentRow[];
  readonly rows: readonly ShipmentRow[];
  readonly next: ShipmentCursor | null;
};

export const shipmentList = desk('customers').run(
  (ctx, asked: ShipmentsAsked, after: ShipmentCursor | null = null): Promise<ShipmentList> =>
    ctx.read(async (db) => {
      const business = await businessById(db);
      const today = dateInZone(ctx.now, business.zone);
      const withLook = (parcel: Parcel) => ({ parcel, look: lookAt(parcel, today) });
      const rows = await shipmentRows(db, asked, PAGE + 1, after);
      const last = rows[PAGE - 1];
      const looks = after || asked.words ? [] : await shipmentsToLookAt(db, today, LOOKED_AT);
      return {
        business,
        today,
        underWay: await underWayCount(db),
        looks: looks.map(withLook),
        rows: rows.slice(0, PAGE).map(withLook),
        next: rows.length > PAGE && last?.boughtAt ? { at: last.boughtAt, id: last.id } : null,
      };
    }),
);

/** The sales of which something is in shipments. */
export const shipmentSales = desk('customers').read(
  (db, ids: readonly string[]): Promise<ParcelSale[]> => salesOfParcels(db, ids),
);

/** A shipment whole, without what it costs. */
export type ShipmentSheet = {
  readonly business: Business;
  readonly today: CalendarDate;
  readonly now: Date;
  readonly parcel: Parcel;
  readonly look: Look | null;
  readonly sales: readonly ParcelSale[];
  readonly scans: readonly ScanLine[];
  readonly way: readonly WayPlace[];
  readonly mails: Awaited<ReturnType<typeof mailsOfParcel>>;
  readonly lines: readonly TimelineLine[];
  /** When the notice goes out; null where it waits for something else, or is out. */
  readonly tellAt: Date | null;
  readonly canGiveBack: boolean;
  /** The payment by which the first sale in it was paid, which can be given back; null where there is none. */
  readonly paymentId: string | null;
};

const DAY_MS = 86_400_000;

/** Whether the carrier would still take the label back, as far as we know. */
const canGiveBack = ({ state, boughtAt }: Parcel, now: Date): boolean =>
  state === 'bought' && boughtAt !== null && now.getTime() < boughtAt.getTime() + DAY_MS;

/** @throws Refusal `not-found` */
export const shipmentSheet = desk('customers').run(
  (ctx, id: string): Promise<ShipmentSheet> =>
    ctx.read(async (db) => {
      const business = await businessById(db);
      const today = dateInZone(ctx.now, business.zone);
      const parcel = found((await parcelsByIds(db, [id]))[0]);
      if (!parcel.boughtAt) throw new Refusal('not-found');
      const scans = await scansOf(db, [id]);
      const sales = await salesOfParcels(db, [id]);
      const first = sales[0]?.invoiceId ?? sales[0]?.orderId;
      const settings = await deliverSettings(db);
      return {
        business,
        today,
        now: ctx.now,
        parcel,
        look: lookAt(parcel, today),
        sales,
        scans,
        way: wayOf(scans, []),
        mails: await mailsOfParcel(db, id),
        lines: await parcelTimeline(db, id),
        tellAt: parcel.state === 'voided' ? null : noticeAt(parcel, settings, business.zone),
        canGiveBack: canGiveBack(parcel, ctx.now),
        paymentId: first ? await paymentOfSale(db, first) : null,
      };
    }),
);

/** What is asked of the carrier for a shipment, and the most that can be; minor units of the parcel's currency. */
export type ShipmentClaim = { readonly claim: ParcelClaim | null; readonly mostMinor: bigint | null };

export const shipmentClaim = desk('see').read(async (db, id: string): Promise<ShipmentClaim> => {
  const parcel = found((await parcelsByIds(db, [id]))[0]);
  const { zone } = await businessById(db);
  const look = lookAt({ ...parcel, settled: '' }, dateInZone(db.now, zone));
  const insuredMinor = BigInt(parcel.label?.spec.insuredMinor ?? 0);
  return { claim: await claimOf(db, id), mostMinor: mostClaimed({ look, insuredMinor, rateMinor: parcel.rateMinor }) };
});

/** What a shipment cost and what was paid for it. */
export const shipmentCosts = desk('see').read(
  async (db, id: string): Promise<ParcelCost & { readonly totalMinor: bigint | null; readonly currency: string }> => {
    const parcel = found((await parcelsByIds(db, [id]))[0]);
    const cost: ParcelCost = {
      paidMinor: parcel.paidMinor,
      rateMinor: parcel.rateMinor,
      packagingMinor: parcel.packagingMinor ?? 0n,
      insuranceMinor: parcel.insuranceMinor ?? 0n,
    };
    return { ...cost, totalMinor: totalCost(cost), currency: parcel.currency };
  },
);

/**
 * Gives a label back: within a day, and before its first scan. What was in the parcel waits to be packed again.
 *
 * @throws Refusal `label-kept`, `carrier-silent`, `not-found`
 */
export const giveLabelBack = desk('pack').run(async (ctx, id: string): Promise<void> => {
  const parcel = found((await ctx.read((db) => parcelsByIds(db, [id])))[0]);
  if (parcel.state === 'voided') return;
  if (parcel.state !== 'bought') throw new Refusal('label-kept');
  const said = await services().carrier.giveBack(ctx.businessId, parcel.number);
  if (said === null) throw new Refusal('carrier-silent');
  if (said === 'too-late') throw new Refusal('label-kept');
  const later = await ctx.later();
  await later.turn((tx) => recordVoid(tx, id));
});

async function recordVoid(tx: Writing, id: string): Promise<void> {
  const parcel = found((await parcelsByIds(tx, [id], true))[0]);
  if ((await updateVoided(tx, id)) === 0) return;
  const business = await businessById(tx);
  const minor = (parcel.rateMinor ?? 0n) + (parcel.insuranceMinor ?? 0n);
  const key = `void:${parcel.number}`;
  const fresh = await insertMoves(tx, [
    {
      id: randomUUID(),
      key,
      kind: 'void',
      state: 'done',
      parcelId: id,
      currency: parcel.currency,
      minor,
      byName: tx.name,
    },
  ]);
  if (fresh > 0 && minor > 0n)
    await insertEntry(
      tx,
      labelVoided(
        dateInZone(tx.now, business.zone),
        `Label ${parcel.number} given back`,
        money(minor, parcel.currency),
      ),
      { id: randomUUID(), cause: key, invoiceId: null, paymentId: null },
    );
  const back = parcel.lines.flatMap(({ handoverId, line, quantity }) =>
    handoverId !== null && line !== null ? [{ handoverId, line, quantity: `-${quantity}` }] : [],
  );
  const handoverIds = [...new Set(back.map(({ handoverId }) => handoverId))];
  await addPacked(tx, back);
  await updateHandoverState(tx, handoverIds, 'open');
  await updateChargedOn(tx, handoverIds, null);
  const event = { kind: 'label-voided', number: parcel.number } as const;
  await addToTimeline(tx, { parcelId: id }, event, tx.name);
}

/** What is done about the notice of a parcel. */
export type NoticeDeed =
  | { readonly deed: 'move'; readonly mailOn: CalendarDate }
  | { readonly deed: 'hold' | 'send' | 'first-scan' };

/** Writes down what is done about notices; the parcels that were changed. */
async function noteNotices(tx: Writing, ids: readonly string[], deed: NoticeDeed): Promise<Parcel[]> {
  const settings = await deliverSettings(tx);
  const business = await businessById(tx);
  const changed = (await parcelsByIds(tx, ids, true)).filter(
    ({ notice, boughtAt, state }) => notice !== 'told' && boughtAt !== null && state !== 'voided',
  );
  for (const parcel of changed) {
    const mailOn = deed.deed === 'move' ? deed.mailOn : parcel.mailOn;
    const notice = deed.deed === 'hold' ? 'held' : deed.deed === 'first-scan' ? 'first-scan' : 'on-day';
    const dueAt = deed.deed === 'send' ? tx.now : noticeAt({ notice, mailOn }, settings, business.zone);
    const actAt = [dueAt, parcel.lookAt].reduce<Date | null>(
      (first, at) => (at && (!first || at < first) ? at : first),
      null,
    );
    // A moment at which it is to be told, and was not yet: whatever looks at it next tells it.
    await updateNotice(tx, parcel.id, { mailOn, notice, toldAt: deed.deed === 'send' ? tx.now : null, actAt });
    if (deed.deed === 'hold') await addToTimeline(tx, { parcelId: parcel.id }, { kind: 'notice-held' }, tx.name);
    else if (mailOn !== parcel.mailOn) {
      const event = { kind: 'mail-day-moved', from: parcel.mailOn, to: mailOn } as const;
      await addToTimeline(tx, { parcelId: parcel.id }, event, tx.name);
    }
  }
  return changed;
}

/**
 * Moves the mailing date and with it the notice, holds it back, lets the first scan send it, or sends it now; for one or many. Those
 * that were told already, or have no label, stay as they are. The carrier hears of another day; where it does not answer, its promise
 * stays as it was.
 *
 * @returns how many were changed @throws Refusal `told-already` where none could be
 */
export const changeNotices = desk('pack').run(
  async (ctx, ids: readonly string[], deed: NoticeDeed): Promise<number> => {
    const changed = await ctx.turn((tx) => noteNotices(tx, ids, deed));
    if (changed.length === 0) throw new Refusal('told-already');
    if (deed.deed !== 'move') return changed.length;
    const moved = changed.filter(({ state, mailOn }) => state === 'bought' && mailOn !== deed.mailOn);
    const promised = await atMost(AT_ONCE, moved, async ({ id, number }) => {
      const promisedOn = await services().carrier.redate(ctx.businessId, number, deed.mailOn);
      return promisedOn ? [{ id, promisedOn }] : [];
    });
    await ctx.turn((tx) => updatePromised(tx, promised.flat()));
    return changed.length;
  },
);
