import { open } from '@/app/answer';
import { RequestSignInput } from '@/app/input/checkout-input';
import { noteRequestSeen } from '@/flows/checkout/checkout-page';

export const POST = open(RequestSignInput, ({ input, params }) => noteRequestSeen(params.name ?? '', input.request));
