import { desk } from '@/app/answer';
import { leaveOut } from '@/flows/parcel/pack';
import { LeaveOutInput } from '@/input/parcel-input';

export const POST = desk(LeaveOutInput, (actor, { input, params }) =>
  leaveOut(actor, params.id ?? '', input.out, input.apart),
);
