import { desk, fileAnswer } from '@/app/answer';
import { StatementInput } from '@/app/input/recurring-input';
import { customerStatementPdf } from '@/flows/records/statement';

export const GET = desk(StatementInput, async (actor, { input, params }) => {
  const asked = { from: input.from ?? '', to: input.to ?? '', currency: input.currency ?? '' };
  return fileAnswer(await customerStatementPdf(actor, params.id ?? '', asked));
});
