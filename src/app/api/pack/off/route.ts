import { desk } from '@/app/answer';
import { takeOffPaper } from '@/flows/parcel/pack';
import { SomeInput } from '@/input/parcel-input';

export const POST = desk(SomeInput, (actor, { input }) => takeOffPaper(actor, input.ids ?? null));
