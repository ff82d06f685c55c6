import type { PrintedInvoice } from '@/core/invoice/printed';
import { jsonMinor } from '@/core/money/money';
import { transferCode } from '@/core/words/invoice-wording';
import { invoiceById } from '@/db/invoices';
import { codePng } from '@/documents/code';
import { INVOICE_LINK } from '@/flows/door/links';
import { byLink } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import type { File } from './kept-files';

/** What a banking app reads to pay so much of an invoice, as a picture. @throws Refusal `not-found` where no code is possible */
export const payCode = async (invoice: PrintedInvoice, dueMinor: number): Promise<File> => ({
  name: 'pay-code.png',
  bytes: await codePng(found(transferCode(invoice, dueMinor))),
  type: 'image/png',
});

/** The code of a linked invoice, for what is due of it now. @throws Refusal `not-found` */
export const linkedPayCode = byLink(INVOICE_LINK).run(async (ctx, invoiceId: string): Promise<File> => {
  const invoice = found(await ctx.read((db) => invoiceById(db, invoiceId)));
  return payCode(found(invoice.printed), invoice.stage === 'sent' ? jsonMinor(invoice.dueMinor) : 0);
});
