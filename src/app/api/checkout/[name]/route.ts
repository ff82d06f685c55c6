import { open } from '@/app/answer';
import { OrderInput } from '@/app/input/checkout-input';
import { takeOrder } from '@/flows/checkout/take-order';

export const POST = open(OrderInput, ({ input, params, address }) =>
  takeOrder(params.name ?? '', { ...input, chargedMinor: BigInt(input.chargedMinor) }, address),
);
