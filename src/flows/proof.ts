import { wireMinor } from '@/core/money/money';
import { invoiceLetter } from '@/documents/mail/letters';
import { invoicePdf } from '@/documents/pdf/draw';
import type { Actor } from './access';
import { deskFile, type File, keptInvoicePdf, picturesOf } from './files';
import { type InvoiceSheet, invoiceSheet, printedOf } from './invoice-sheet';

const dueOf = (sheet: InvoiceSheet): number =>
  sheet.invoice.stage === 'draft' ? printedOf(sheet).total : wireMinor(sheet.invoice.dueMinor);

/** The e-mail as the customer would get it now, made by what makes the customer's. */
export async function proofLetter(actor: Actor, id: string): Promise<{ subject: string; html: string }> {
  const sheet = await invoiceSheet(actor, id);
  const printed = printedOf(sheet);
  const text = sheet.invoice.sendWith?.text || sheet.business.mailTexts[printed.locale.slice(0, 2)];
  // The proof shows the logo from the desk: the customer's address opens only once it is sent.
  const logo = printed.logoId ? `/files/own/${printed.logoId}` : undefined;
  return invoiceLetter(printed, { dueMinor: dueOf(sheet), link: sheet.link, text, logo });
}

/** The PDF as the customer would get it now. */
export async function proofPdf(actor: Actor, id: string): Promise<File> {
  const sheet = await invoiceSheet(actor, id);
  if (sheet.invoice.stage !== 'draft') return keptInvoicePdf(actor.businessId, sheet.invoice);
  const printed = printedOf(sheet);
  if (printed.elsewhere) return deskFile(actor, printed.elsewhere);
  const bytes = await invoicePdf(printed, await picturesOf(actor.businessId, printed.logoId));
  return { name: 'proof.pdf', bytes, type: 'application/pdf' };
}

/** What the customer's page would show now. */
export async function proofPage(actor: Actor, id: string) {
  const sheet = await invoiceSheet(actor, id);
  return { invoice: printedOf(sheet), dueMinor: dueOf(sheet), zone: sheet.business.zone };
}
