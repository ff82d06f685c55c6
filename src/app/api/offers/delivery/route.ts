import { desk } from '@/app/answer';
import { jsonMinor } from '@/core/money/money';
import type { DeliveryCase } from '@/core/parcel/proposal';
import { proposeDelivery } from '@/flows/parcel/propose-delivery';
import { ProposeDeliveryInput } from '@/input/parcel-input';

const shown = ({ costMinor, ...one }: DeliveryCase) => ({
  ...one,
  cost: costMinor === null ? null : jsonMinor(costMinor),
});

/** What delivery costs, zone by zone, and which price covers it. */
export const POST = desk(ProposeDeliveryInput, async (actor, { input: { currency, things, zones } }) => ({
  zones: (
    await proposeDelivery(actor, {
      currency,
      zones,
      things: things.map(({ itemId, optionId }) => ({ itemId, optionId: optionId ?? null })),
    })
  ).map(({ zoneId, least, most, unknown, priceMinor, before }) => ({
    zoneId,
    least: least && shown(least),
    most: most && shown(most),
    unknown: unknown.map(shown),
    price: priceMinor === null ? null : jsonMinor(priceMinor),
    before: before && { count: before.count, cost: jsonMinor(before.costMinor) },
  })),
}));
