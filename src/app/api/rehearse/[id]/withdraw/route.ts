import { desk } from '@/app/answer';
import { CheckoutKeyInput } from '@/input/checkout-input';

/** Nothing of a rehearsal is kept, so there is nothing to be withdrawn. */
export const POST = desk(CheckoutKeyInput, async () => ({ state: 'none' }));
