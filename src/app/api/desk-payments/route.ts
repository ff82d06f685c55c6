import { desk } from '@/app/answer';
import { DeskPaymentInput } from '@/app/input/plan-input';
import { payAtDesk } from '@/flows/plans/desk-payment';

export const POST = desk(DeskPaymentInput, (actor, { input }) => payAtDesk(actor, input));
