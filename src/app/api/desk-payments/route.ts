import { desk } from '@/app/answer';
import { DeskPaymentInput, DeskQuoteInput } from '@/app/input/plan-input';
import { deskQuote, payAtDesk } from '@/flows/payment/desk-payment';

export const GET = desk(DeskQuoteInput, (actor, { input }) => deskQuote(actor, input));

export const POST = desk(DeskPaymentInput, (actor, { input }) => payAtDesk(actor, input));
