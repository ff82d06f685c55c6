import { desk } from '@/app/answer';
import { decideEntry } from '@/flows/parcel/carrier-statements';
import { CarrierEntryInput } from '@/input/carrier-input';

export const POST = desk(CarrierEntryInput, (actor, { input: { month, key, deed } }) =>
  decideEntry(actor, month, key, deed),
);
