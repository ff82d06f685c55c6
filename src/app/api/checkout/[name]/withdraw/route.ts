import { open } from '@/app/answer';
import { withdrawOrder } from '@/flows/checkout/take-order';
import { CheckoutKeyInput } from '@/input/checkout-input';

export const POST = open(CheckoutKeyInput, ({ input, params }) => withdrawOrder(params.name ?? '', input.checkout));
