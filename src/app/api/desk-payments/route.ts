import { desk } from '@/app/answer';
import { deskQuote, payAtDesk } from '@/flows/payment/desk-payment';
import { DeskPaymentInput, DeskQuoteInput } from '@/input/plan-input';

export const GET = desk(DeskQuoteInput, (actor, { input }) => deskQuote(actor, input));

export const POST = desk(DeskPaymentInput, (actor, { input }) => payAtDesk(actor, input));
