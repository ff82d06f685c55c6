import { desk } from '@/app/answer';
import { CheckoutKeyInput } from '@/input/checkout-input';

/** Nothing of a rehearsal is kept, so there is nothing to be asked about. */
export const GET = desk(CheckoutKeyInput, async () => ({ state: 'none' }));
