import { desk } from '@/app/answer';
import { buyLabels } from '@/flows/parcel/buy-labels';
import { BuyInput } from '@/input/parcel-input';

export const POST = desk(BuyInput, (actor, { input: { ids, expectedMinor } }) =>
  buyLabels(actor, ids ?? null, expectedMinor === undefined || expectedMinor === null ? null : BigInt(expectedMinor)),
);
