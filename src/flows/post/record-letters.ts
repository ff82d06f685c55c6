import { customerById } from '@/db/customers';
import { statementLetter } from '@/documents/mail/letters';
import { statementPdf } from '@/documents/pdf/draw';
import { found } from '@/flows/door/rights';
import { picturesOf } from '@/flows/file/kept-files';
import { writtenGiftLetter } from '@/flows/records/gifts';
import { loadStatement } from '@/flows/records/statement';
import type { Subject, Written } from './subject';

export async function giftMail({ ctx, message }: Subject): Promise<Written> {
  const { details, customerId } = message;
  return writtenGiftLetter(ctx, customerId ?? '', Number(details.from), details.subject ?? '');
}

export async function statementMail({ ctx, message, business }: Subject): Promise<Written> {
  const { from = '', to = '', subject: currency = business.currency, text = '' } = message.details;
  const statement = await ctx.read(async (db) => {
    const customer = found(await customerById(db, message.customerId ?? ''));
    return loadStatement(db, customer, { from, to, currency });
  });
  const bytes = await statementPdf(statement, await picturesOf(ctx, statement.logoId));
  return {
    ...statementLetter(statement, text),
    files: [{ name: `statement-${statement.to}.pdf`, bytes, type: 'application/pdf' }],
  };
}
