import { open } from '@/app/answer';
import { QuoteInput } from '@/app/input/checkout-input';
import { checkoutQuote } from '@/flows/checkout/checkout-page';

export const POST = open(QuoteInput, ({ input, params }) => checkoutQuote(params.name ?? '', input));
