/** What is done about a parcel that went wrong: its goods are sent again, or lie in stock again, or nothing more is done. */
import { dateInZone } from '@/core/dates/zone';
import { type Look, lookAt, type Settled } from '@/core/parcel/shipment';
import { businessById } from '@/db/businesses';
import { addPacked, handoversByIds, updateHandoverState } from '@/db/handovers';
import { type Parcel, parcelsByIds, updateSettled } from '@/db/parcels';
import { holdStock } from '@/db/stock';
import { addToTimeline } from '@/db/timeline';
import { desk, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { bringBack, moveStock } from '@/flows/stock/move-stock';
import { reviseWaiting } from '@/flows/stock/wait-for-stock';
import { putFree } from './pack';

/** What needs a look so that its goods can be sent again; what only waits, or was not handed over, is still on its way. */
const SENT_AGAIN: readonly (Look | null)[] = ['lost', 'damaged', 'late', 'returned'];

/** Goods of the items that a parcel was packed with. */
const goodsOf = ({ lines }: Pick<Parcel, 'lines'>) =>
  lines.flatMap(({ itemId, optionId, quantity }) => (itemId ? [{ itemId, optionId, quantity }] : []));

/** The parcel, held, with why it needs a look; its goods are held before it, as everywhere. @throws Refusal `not-found`, `settled-already` */
async function troubled(tx: Writing, id: string): Promise<{ parcel: Parcel; look: Look | null }> {
  await holdStock(tx, goodsOf(found((await parcelsByIds(tx, [id]))[0])));
  const parcel = found((await parcelsByIds(tx, [id], true))[0]);
  if (parcel.settled) throw new Refusal('settled-already');
  const { zone } = await businessById(tx);
  return { parcel, look: lookAt(parcel, dateInZone(tx.now, zone)) };
}

async function settle(tx: Writing, parcel: Parcel, settled: Exclude<Settled, ''>): Promise<void> {
  await updateSettled(tx, parcel.id, settled);
  await addToTimeline(tx, { parcelId: parcel.id }, { kind: 'parcel-settled', how: settled }, tx.name);
}

/**
 * Sends the same goods again: what is of a sale waits to be packed anew, what was sent without one lies on the paper. Of what is lost,
 * damaged or late another is taken from the stock; what came back is sent itself.
 *
 * @throws Refusal `nothing-to-settle`, `settled-already`, `sale-dropped`, `not-found`
 */
export const sendAgain = desk('pack').turn(async (tx, id: string): Promise<void> => {
  const { parcel, look } = await troubled(tx, id);
  if (!SENT_AGAIN.includes(look)) throw new Refusal('nothing-to-settle');
  const goods = goodsOf(parcel);
  const handoverIds = [...new Set(parcel.lines.flatMap(({ handoverId }) => handoverId ?? []))];
  const sales = await handoversByIds(tx, handoverIds, true);
  if (sales.some(({ state }) => state === 'dropped')) throw new Refusal('sale-dropped');
  await settle(tx, parcel, 'sent-again');
  if (look !== 'returned') {
    const why = `Parcel ${parcel.number} ${look === 'late' ? 'did not arrive' : look === 'lost' ? 'was lost' : 'was damaged'}`;
    await moveStock(
      tx,
      goods.map((one) => ({ ...one, kind: 'thrown-away', why })),
    );
  }
  await addPacked(
    tx,
    parcel.lines.flatMap(({ handoverId, line, quantity }) =>
      handoverId !== null && line !== null ? [{ handoverId, line, quantity: `-${quantity}` }] : [],
    ),
  );
  await updateHandoverState(tx, handoverIds, 'open');
  if (handoverIds.length === 0) await putFree(tx, parcel);
  await reviseWaiting(tx, [...new Set(goods.map(({ itemId }) => itemId))]);
});

/** What came back lies in stock again, and is not sent any more. @throws Refusal `nothing-to-settle`, `settled-already`, `not-found` */
export const takeIntoStock = desk('pack').turn(async (tx, id: string): Promise<void> => {
  const { parcel, look } = await troubled(tx, id);
  if (look !== 'returned') throw new Refusal('nothing-to-settle');
  await settle(tx, parcel, 'taken-back');
  const why = `Parcel ${parcel.number} came back`;
  const sales = await handoversByIds(tx, [...new Set(parcel.lines.flatMap(({ handoverId }) => handoverId ?? []))]);
  for (const sale of [null, ...sales]) {
    const lines = parcel.lines.filter(({ handoverId }) => handoverId === (sale?.id ?? null));
    const { invoiceId = null, orderId = null } = sale ?? {};
    await bringBack(tx, goodsOf({ lines }), { why, invoiceId, orderId }, 'seen');
  }
});

/** Nothing more is done about it. @throws Refusal `nothing-to-settle`, `settled-already`, `not-found` */
export const leaveParcel = desk('pack').turn(async (tx, id: string): Promise<void> => {
  const { parcel, look } = await troubled(tx, id);
  if (look === null) throw new Refusal('nothing-to-settle');
  await settle(tx, parcel, 'left');
});
