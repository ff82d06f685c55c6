import { open } from '@/app/answer';
import { checkoutStatus } from '@/flows/checkout/take-order';
import { CheckoutKeyInput } from '@/input/checkout-input';

export const GET = open(CheckoutKeyInput, ({ input, params }) => checkoutStatus(params.name ?? '', input.checkout));
