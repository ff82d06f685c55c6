import { addPacked, type Handover, updateChargedOn, updateHandoverState } from '@/db/handovers';
import { deleteParcelLines, deleteParcels, onThePaper, type Parcel } from '@/db/parcels';
import type { Tx } from '@/db/pool';

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
