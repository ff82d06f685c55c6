import { desk } from '@/app/answer';
import { OrderInput } from '@/app/input/checkout-input';
import { rehearseOrder } from '@/flows/checkout/rehearse';

export const POST = desk(OrderInput, (actor, { input, params }) =>
  rehearseOrder(actor, params.id ?? '', { ...input, chargedMinor: BigInt(input.chargedMinor) }),
);
