import { desk } from '@/app/answer';
import { topUp } from '@/flows/parcel/balance';
import { TopUpInput } from '@/input/parcel-input';

export const POST = desk(TopUpInput, (actor, { input }) => topUp(actor, input.requestKey, BigInt(input.minor)));
