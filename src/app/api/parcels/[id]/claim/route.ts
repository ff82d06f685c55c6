import { desk } from '@/app/answer';
import { claimParcel } from '@/flows/parcel/claims';
import { ClaimInput } from '@/input/parcel-input';

export const POST = desk(ClaimInput, (actor, { input, params }) =>
  claimParcel(actor, params.id ?? '', BigInt(input.minor)),
);
