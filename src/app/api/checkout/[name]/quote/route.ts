import { open } from '@/app/answer';
import { checkoutQuote } from '@/flows/checkout/checkout-page';
import { QuoteInput } from '@/input/checkout-input';

export const POST = open(QuoteInput, ({ input, params }) => checkoutQuote(params.name ?? '', input));
