import { desk } from '@/app/answer';
import { orderPickUp } from '@/flows/parcel/pick-up';
import { PickUpInput } from '@/input/parcel-input';

export const POST = desk(PickUpInput, (actor, { input }) => orderPickUp(actor, input.requestKey, input.on));
