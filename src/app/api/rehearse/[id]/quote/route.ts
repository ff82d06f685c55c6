import { desk } from '@/app/answer';
import { QuoteInput } from '@/app/input/checkout-input';
import { rehearsedQuote } from '@/flows/checkout/rehearse';

export const POST = desk(QuoteInput, (actor, { input, params }) => rehearsedQuote(actor, params.id ?? '', input));
