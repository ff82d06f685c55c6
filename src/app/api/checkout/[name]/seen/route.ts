import { open } from '@/app/answer';
import { noteRequestSeen } from '@/flows/checkout/checkout-page';
import { RequestSignInput } from '@/input/checkout-input';

export const POST = open(RequestSignInput, ({ input, params }) => noteRequestSeen(params.name ?? '', input.request));
