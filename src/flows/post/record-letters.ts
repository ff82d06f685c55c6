import { customerById } from '@/db/customers';
import { notice } from '@/documents/mail/letter';
import { statementLetter } from '@/documents/mail/statement-letters';
import { statementPdf } from '@/documents/pdf/draw';
import { found } from '@/flows/door/rights';
import { picturesOf } from '@/flows/file/kept-files';
import { writtenGiftLetter } from '@/flows/records/gifts';
import { loadStatement } from '@/flows/records/statement';
import { services } from '@/outside/services';
import type { Subject, Written } from './subject';

export async function giftMail({ ctx, message }: Subject): Promise<Written> {
  const { details, customerId } = message;
  return writtenGiftLetter(ctx, customerId ?? '', Number(details.from), details.subject ?? '');
}

/** Money settings were changed: to every owner, whoever changed them. */
export const settingsMail = async ({ message, business }: Subject): Promise<Written> => ({
  ...notice({
    seller: business,
    subject: message.details.subject ?? 'Settings were changed',
    lead: business.name,
    sum: message.details.subject ?? '',
    words: message.details.text ?? '',
    link: `${services().publicUrl}/settings/log`,
    open: 'Open the log',
    foot: 'Sent to every owner by Dahlia. If nobody of you did this, change your passwords and write to whoever runs Dahlia for you.',
  }),
  files: [],
});

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
