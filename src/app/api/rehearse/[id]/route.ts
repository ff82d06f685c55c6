import { desk } from '@/app/answer';
import { CHOICE_BODY } from '@/app/body';
import { rehearseOrder } from '@/flows/checkout/rehearse';
import { OrderInput } from '@/input/checkout-input';

export const POST = desk(
  OrderInput,
  (actor, { input, params }) =>
    rehearseOrder(actor, params.id ?? '', { ...input, chargedMinor: BigInt(input.chargedMinor) }),
  { most: CHOICE_BODY },
);
