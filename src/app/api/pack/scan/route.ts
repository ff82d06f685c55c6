import { desk } from '@/app/answer';
import { scannedThing } from '@/flows/parcel/to-pack';
import { ScanInput } from '@/input/parcel-input';

export const GET = desk(ScanInput, (actor, { input }) => scannedThing(actor, input.text));
