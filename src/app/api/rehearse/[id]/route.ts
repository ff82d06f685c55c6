import { desk } from '@/app/answer';
import { rehearseOrder } from '@/flows/checkout/rehearse';
import { OrderInput } from '@/input/checkout-input';

export const POST = desk(OrderInput, (actor, { input, params }) =>
  rehearseOrder(actor, params.id ?? '', { ...input, chargedMinor: BigInt(input.chargedMinor) }),
);
