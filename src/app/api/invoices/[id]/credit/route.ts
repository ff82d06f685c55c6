import { desk } from '@/app/answer';
import { creditInvoice } from '@/flows/invoice/credit-invoice';
import { CreditInput } from '@/input/follow-input';

export const POST = desk(CreditInput, async (actor, { input, params }) => ({
  number: await creditInvoice(actor, params.id ?? '', { ...input, amountMinor: BigInt(input.amountMinor) }),
}));
