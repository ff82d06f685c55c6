import { desk } from '@/app/answer';
import { CreditInput } from '@/app/input/follow-input';
import { creditInvoice } from '@/flows/invoice/credit-invoice';

export const POST = desk(CreditInput, async (actor, { input, params }) => ({
  number: await creditInvoice(actor, params.id ?? '', { ...input, amountMinor: BigInt(input.amountMinor) }),
}));
