import { open } from '@/app/answer';
import { takeOrder } from '@/flows/checkout/take-order';
import { OrderInput } from '@/input/checkout-input';

export const POST = open(OrderInput, ({ input, params, address }) =>
  takeOrder(params.name ?? '', { ...input, chargedMinor: BigInt(input.chargedMinor) }, address),
);
