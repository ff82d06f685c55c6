import { desk } from '@/app/answer';
import { MailStatementInput } from '@/app/input/recurring-input';
import { mailStatement } from '@/flows/records/statement';

export const POST = desk(MailStatementInput, (actor, { input, params }) =>
  mailStatement(actor, params.id ?? '', {
    from: input.from ?? '',
    to: input.to ?? '',
    currency: input.currency ?? '',
    requestKey: input.requestKey,
    text: input.text,
  }),
);
