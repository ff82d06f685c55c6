import { desk } from '@/app/answer';
import { rehearsedQuote } from '@/flows/checkout/rehearse';
import { QuoteInput } from '@/input/checkout-input';

export const POST = desk(QuoteInput, (actor, { input, params }) => rehearsedQuote(actor, params.id ?? '', input));
