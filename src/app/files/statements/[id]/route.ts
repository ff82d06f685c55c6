import { desk, fileAnswer } from '@/app/answer';
import { customerStatementPdf } from '@/flows/records/statement';
import { StatementInput } from '@/input/recurring-input';

export const GET = desk(StatementInput, async (actor, { input, params }) => {
  const asked = { from: input.from ?? '', to: input.to ?? '', currency: input.currency ?? '' };
  return fileAnswer(await customerStatementPdf(actor, params.id ?? '', asked));
});
