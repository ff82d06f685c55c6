import { desk } from '@/app/answer';
import { mailStatement } from '@/flows/records/statement';
import { MailStatementInput } from '@/input/recurring-input';

export const POST = desk(MailStatementInput, (actor, { input, params }) =>
  mailStatement(actor, params.id ?? '', {
    from: input.from ?? '',
    to: input.to ?? '',
    currency: input.currency ?? '',
    requestKey: input.requestKey,
    text: input.text,
  }),
);
