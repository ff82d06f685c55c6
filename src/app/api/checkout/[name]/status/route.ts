import { open } from '@/app/answer';
import { CheckoutKeyInput } from '@/app/input/checkout-input';
import { checkoutStatus } from '@/flows/checkout/take-order';

export const GET = open(CheckoutKeyInput, ({ input, params }) => checkoutStatus(params.name ?? '', input.checkout));
