import { desk, fileAnswer } from '@/app/answer';
import { StatementInput } from '@/app/input/repeat-input';
import { customerStatementPdf } from '@/flows/statement';

export const GET = desk(StatementInput, async (actor, { input, params }) => {
  const asked = { from: input.from ?? '', to: input.to ?? '', currency: input.currency ?? '' };
  return fileAnswer(await customerStatementPdf(actor, params.id ?? '', asked));
});
