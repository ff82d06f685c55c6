/** What the clock brings to parcels: notices go out on their day, and the carrier is asked where they are. */
import type { Business } from '@/core/business/business';
import { maySend } from '@/core/business/opening';
import { dateInZone } from '@/core/dates/zone';
import type { MessageKind } from '@/core/message/kinds';
import { type DeliverSettings, noticeAt, type ToldOf } from '@/core/parcel/notice';
import { ENDED, isLate, type ScanLine, stateAfter } from '@/core/parcel/shipment';
import type { TimelineEvent } from '@/core/timeline/timeline';
import { businessById } from '@/db/businesses';
import { deliverSettings } from '@/db/parcel-profiles';
import {
  duePackages,
  insertScans,
  type Parcel,
  type Progress,
  parcelsByIds,
  scansOf,
  updateProgress,
} from '@/db/parcels';
import { type ParcelSale, salesOfParcels } from '@/db/shipments';
import { addLines } from '@/db/timeline';
import type { Context, Writing } from '@/flows/door/operation';
import { queueMessages } from '@/flows/message/queue-message';
import type { Tracked } from '@/outside/carrier';
import { services } from '@/outside/services';
import { LOOK_MS } from './buy-labels';

const AT_ONCE = 100;
/** Without an answer, or with nothing known of it, the carrier is asked again after so long. */
const SILENT_MS = 15 * 60_000;
/** A parcel that lies still is asked about this long, then no more by itself. */
const GIVE_UP_MS = 90 * 86_400_000;

const MAIL: Readonly<Record<ToldOf, MessageKind>> = {
  left: 'parcel-left',
  door: 'parcel-door',
  delivered: 'parcel-delivered',
  late: 'parcel-late',
};

const TROUBLES = ['lost', 'damaged', 'back', 'returned'] as const;
const isTrouble = (state: Parcel['state']): state is (typeof TROUBLES)[number] => TROUBLES.some((one) => one === state);
const isEnded = (state: Parcel['state']): boolean => ENDED.some((one) => one === state);

/** Does what is due of parcels; run again, it does nothing twice. */
export async function followParcels(ctx: Context): Promise<void> {
  for (;;) {
    const due = await ctx.turn((tx) => duePackages(tx, AT_ONCE));
    if (due.length === 0) return;
    const asked = due.filter(
      ({ number, lookAt, state }) => number && !isEnded(state) && lookAt !== null && lookAt <= ctx.now,
    );
    const tracked =
      asked.length === 0
        ? []
        : await services().carrier.scans(
            ctx.businessId,
            asked.map(({ number }) => number),
          );
    const known = new Map(asked.map(({ id }, at) => [id, tracked?.[at] ?? null]));
    await ctx.turn((tx) => record(tx, due, known, new Set(asked.map(({ id }) => id))));
    if (due.length < AT_ONCE) return;
  }
}

async function record(
  tx: Writing,
  found: readonly Parcel[],
  known: ReadonlyMap<string, Tracked | null>,
  asked: ReadonlySet<string>,
): Promise<void> {
  // While the carrier was asked, somebody may have moved a notice, or given a label back.
  const due = await parcelsByIds(
    tx,
    found.map(({ id }) => id),
    true,
  );
  const business = await businessById(tx);
  const settings = await deliverSettings(tx);
  await insertScans(
    tx,
    [...known].flatMap(([parcelId, tracked]) => (tracked?.scans ?? []).map((scan) => ({ ...scan, parcelId }))),
  );
  const all = await scansOf(
    tx,
    due.map(({ id }) => id),
  );
  const changes = due.map((parcel) =>
    progressed(
      parcel,
      all.filter(({ parcelId }) => parcelId === parcel.id),
      { business, settings, now: tx.now, answered: known.get(parcel.id) ?? null, wasAsked: asked.has(parcel.id) },
    ),
  );
  await updateProgress(
    tx,
    changes.map(({ progress }) => progress),
  );
  await addLines(
    tx,
    changes.flatMap(({ progress: { id }, events }) =>
      events.map((event) => ({ of: { parcelId: id }, event, byName: 'Dahlia' })),
    ),
  );
  // Of what nobody was told that it left, nothing further is told.
  const told = changes.flatMap(({ parcel, progress, tells }) =>
    (progress.notice === 'told' ? tells : [])
      .filter((what) => settings.tell[what] && parcel.recipient.email)
      .map((what) => ({ parcel, what })),
  );
  // Nothing leaves a business that has not confirmed its address; what was to be told then is not told later either.
  if (!maySend(business) || told.length === 0) return;
  const sales = await salesOfParcels(
    tx,
    told.map(({ parcel }) => parcel.id),
  );
  await queueMessages(
    tx,
    told.map(({ parcel: { id, recipient, customerId }, what }) => ({
      kind: MAIL[what],
      key: `parcel:${id}:${what}`,
      toName: recipient.name,
      toAddress: recipient.email,
      customerId,
      parcelId: id,
      ...saleOf(sales, id),
    })),
  );
}

/** The sale that a parcel's message is about too: its first. */
const saleOf = (sales: readonly ParcelSale[], id: string) => {
  const first = sales.find(({ parcelId }) => parcelId === id);
  return { invoiceId: first?.invoiceId ?? null, orderId: first?.orderId ?? null };
};

type Setting = {
  readonly business: Business;
  readonly settings: DeliverSettings;
  readonly now: Date;
  readonly answered: Tracked | null;
  readonly wasAsked: boolean;
};

/** How far a parcel has come, what is told of that, and when it is looked at again. */
function progressed(
  parcel: Parcel,
  scans: readonly ScanLine[],
  { business, settings, now, answered, wasAsked }: Setting,
): { parcel: Parcel; progress: Progress; events: TimelineEvent[]; tells: ToldOf[] } {
  const state = parcel.number && parcel.state !== 'voided' ? stateAfter(scans, parcel.state) : parcel.state;
  const tells: ToldOf[] = [];
  const events: TimelineEvent[] = [];
  const dueAt = noticeAt(parcel, settings, business.zone);
  const isScanned = scans.length > 0;
  let { notice, toldAt } = parcel;
  // What is delivered already need not be told that it left.
  const byScan = notice === 'first-scan' && isScanned;
  const byHand = toldAt !== null;
  if (
    parcel.number &&
    state !== 'voided' &&
    notice !== 'told' &&
    (byHand || byScan || (dueAt !== null && dueAt <= now))
  ) {
    notice = 'told';
    toldAt = now;
    if (!isEnded(state)) tells.push('left');
    events.push({ kind: 'parcel-left', number: parcel.number });
  }
  if (state !== parcel.state) {
    const place = scans.at(-1)?.place ?? '';
    events.push(isTrouble(state) ? { kind: 'parcel-trouble', why: state } : { kind: 'parcel-moved', state, place });
    if (state === 'door') tells.push('door');
    if (state === 'delivered') tells.push('delivered');
  }
  const today = dateInZone(now, business.zone);
  // Told once, on whatever look first finds it so.
  const turnsLate = parcel.lateAt === null && isLate({ state, promisedOn: parcel.promisedOn }, today);
  if (turnsLate) {
    tells.push('late');
    events.push({ kind: 'parcel-trouble', why: 'late' });
  }
  const lookAt = isEnded(state) ? null : nextLook(parcel, { answered, wasAsked, now });
  const stillDue = notice === 'told' ? null : noticeAt({ notice, mailOn: parcel.mailOn }, settings, business.zone);
  const actAt = [lookAt, stillDue].reduce<Date | null>(
    (first, at) => (at && (!first || at < first) ? at : first),
    null,
  );
  return {
    parcel,
    progress: {
      id: parcel.id,
      state,
      notice,
      toldAt,
      lookAt,
      actAt,
      scannedAt: scans.at(-1)?.at ?? parcel.scannedAt,
      lateAt: turnsLate ? now : parcel.lateAt,
      endedAt: isEnded(state) && !parcel.endedAt ? now : parcel.endedAt,
      proof: answered?.proof ?? parcel.proof,
    },
    events,
    tells,
  };
}

function nextLook(
  parcel: Parcel,
  { answered, wasAsked, now }: Pick<Setting, 'answered' | 'wasAsked' | 'now'>,
): Date | null {
  if (!wasAsked) return parcel.lookAt;
  const since = parcel.scannedAt ?? parcel.boughtAt ?? parcel.madeAt;
  if (now.getTime() - since.getTime() > GIVE_UP_MS) return null;
  return new Date(now.getTime() + (answered ? LOOK_MS : SILENT_MS));
}
