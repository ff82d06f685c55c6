import { desk } from '@/app/answer';
import { leaveParcel, sendAgain, takeIntoStock } from '@/flows/parcel/settle-parcel';
import { ParcelDeedInput } from '@/input/parcel-input';

const DEEDS = { 'send-again': sendAgain, 'take-into-stock': takeIntoStock, leave: leaveParcel } as const;

export const POST = desk(ParcelDeedInput, (actor, { input, params }) => DEEDS[input.deed](actor, params.id ?? ''));
