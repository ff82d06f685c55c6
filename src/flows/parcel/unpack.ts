import { scaledDecimal } from '@/core/money/decimal';
import { addPacked, type Handover, type KeptHandoverLine, updateChargedOn, updateHandoverState } from '@/db/handovers';
import { deleteParcelLines, deleteParcels, onThePaper, type Parcel } from '@/db/parcels';
import type { Tx } from '@/db/pool';

const scaled = (text: string): bigint => scaledDecimal(text, 4, 'bad_quantity', 'quantity');

/** What of a line is in no parcel and was not given back, scaled by 10^4. */
export const unpackedQuantity = ({ quantity, packed, dropped }: KeptHandoverLine): bigint =>
  scaled(quantity) - scaled(packed) - scaled(dropped);

/** Takes parcels that have no label off the paper: what was in them can be packed again. */
export async function takeParcelsOff(tx: Tx, parcels: readonly Parcel[]): Promise<void> {
  const own = parcels.filter(({ state }) => state === 'packing');
  if (own.length === 0) return;
  const back = own.flatMap(({ lines }) =>
    lines.flatMap(({ handoverId, line, quantity }) =>
      handoverId !== null && line !== null ? [{ handoverId, line, quantity: `-${quantity}` }] : [],
    ),
  );
  const handoverIds = [...new Set(back.map(({ handoverId }) => handoverId))];
  await addPacked(tx, back);
  await updateHandoverState(tx, handoverIds, 'open');
  await updateChargedOn(tx, handoverIds, null);
  const ids = own.map(({ id }) => id);
  await deleteParcelLines(tx, ids);
  await deleteParcels(tx, ids);
}

/** The same for whatever parcel something of these is in. */
export async function takeOff(tx: Tx, handovers: readonly Handover[]): Promise<void> {
  if (handovers.length === 0) return;
  const ids = new Set(handovers.map(({ id }) => id));
  const paper = await onThePaper(tx, true);
  await takeParcelsOff(
    tx,
    paper.filter(({ lines }) => lines.some(({ handoverId }) => handoverId !== null && ids.has(handoverId))),
  );
}
