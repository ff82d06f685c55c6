import { desk } from '@/app/answer';
import { jsonMinor } from '@/core/money/money';
import { findInvoices } from '@/flows/bank/bank-page';
import { FindInvoicesInput } from '@/input/bank-input';

export const GET = desk(FindInvoicesInput, async (actor, { input }) => ({
  rows: (await findInvoices(actor, input.currency, input.words)).map(({ due, ...row }) => ({
    ...row,
    due: jsonMinor(due),
  })),
}));
