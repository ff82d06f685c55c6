import { jsonShipment } from '@/app/(desk)/deliver/json-pack';
import { desk } from '@/app/answer';
import { putFreeParcel } from '@/flows/parcel/pack';
import { shipmentList } from '@/flows/parcel/shipments';
import { FreeParcelInput, ShipmentPageInput } from '@/input/parcel-input';

export const GET = desk(ShipmentPageInput, async (actor, { input: { under = 'under-way', words = '', key, id } }) => {
  const after = key && id ? { at: new Date(key), id } : null;
  const list = await shipmentList(actor, { under, words }, after);
  return {
    rows: list.rows.map((row) => jsonShipment(row, list)),
    next: list.next && { key: list.next.at.toISOString(), id: list.next.id },
  };
});

export const POST = desk(FreeParcelInput, async (actor, { input: { customerId, lines, recipient } }) => ({
  id: await putFreeParcel(actor, {
    customerId: customerId ?? null,
    recipient,
    lines: lines.map(({ what, itemId, optionId, quantity, valueMinor }) => ({
      what,
      quantity,
      itemId: itemId ?? null,
      optionId: optionId ?? null,
      valueMinor: BigInt(valueMinor),
    })),
  }),
}));
