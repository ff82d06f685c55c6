import { open } from '@/app/answer';
import { CheckoutKeyInput } from '@/app/input/checkout-input';
import { checkoutStanding } from '@/flows/take-order';

export const GET = open(CheckoutKeyInput, ({ input, params }) => checkoutStanding(params.name ?? '', input.checkout));
