import { open } from '@/app/answer';
import { CheckoutKeyInput } from '@/app/input/checkout-input';
import { withdrawOrder } from '@/flows/checkout/take-order';

export const POST = open(CheckoutKeyInput, ({ input, params }) => withdrawOrder(params.name ?? '', input.checkout));
