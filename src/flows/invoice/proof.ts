import { smallestPayment } from '@/core/business/business';
import { cardsOpen } from '@/core/business/opening';
import { takenBy } from '@/core/invoice/printed';
import { jsonMinor } from '@/core/money/money';
import { payable } from '@/core/payment/part-payment';
import { invoiceLetter } from '@/documents/mail/invoice-letters';
import { invoicePdf } from '@/documents/pdf/draw';
import { desk } from '@/flows/door/operation';
import { deskFile, type File, keptInvoicePdf, picturesOf } from '@/flows/file/kept-files';
import { payCode } from '@/flows/file/pay-code';
import { type InvoiceSheet, invoiceSheet, printedOf } from './invoice-sheet';

const dueOf = (sheet: InvoiceSheet): number =>
  sheet.invoice.stage === 'draft' ? printedOf(sheet).total : jsonMinor(sheet.invoice.dueMinor);

/** The e-mail as the customer would get it now, made by what makes the customer's. */
export const proofLetter = desk('see').run(async (ctx, id: string): Promise<{ subject: string; html: string }> => {
  const sheet = await invoiceSheet(ctx.actor, id);
  const printed = printedOf(sheet);
  const text = sheet.invoice.sendWith?.text || sheet.business.mailTexts[printed.locale.slice(0, 2)];
  // The proof shows the logo from the desk: the customer's address opens only once it is sent.
  const logo = printed.logoId ? `/files/own/${printed.logoId}` : undefined;
  return invoiceLetter(printed, { dueMinor: dueOf(sheet), link: sheet.link, text, logo });
});

/** The PDF as the customer would get it now. */
export const proofPdf = desk('see').run(async (ctx, id: string): Promise<File> => {
  const sheet = await invoiceSheet(ctx.actor, id);
  if (sheet.invoice.stage !== 'draft') return keptInvoicePdf(ctx, sheet.invoice);
  const printed = printedOf(sheet);
  if (printed.elsewhere) return deskFile(ctx.actor, printed.elsewhere);
  const bytes = await invoicePdf(printed, await picturesOf(ctx, printed.logoId));
  return { name: 'proof.pdf', bytes, type: 'application/pdf' };
});

/** What the customer's page would show now. */
export const proofPage = desk('see').run(async (ctx, id: string) => {
  const sheet = await invoiceSheet(ctx.actor, id);
  const invoice = printedOf(sheet);
  const dueMinor = dueOf(sheet);
  const { ways } = invoice;
  const may = payable({
    total: BigInt(dueMinor),
    parts: ways.parts,
    ...(ways.parts && ways.firstMinor > 0 && ways.firstMinor <= dueMinor
      ? { firstPayment: { amount: BigInt(ways.firstMinor) } }
      : {}),
    smallest: smallestPayment(sheet.business, invoice.currency),
  });
  return {
    invoice,
    dueMinor,
    payable: may,
    zone: sheet.business.zone,
    takes: takenBy(ways, cardsOpen(sheet.business)),
  };
});

/** The payment code that the customer's page would show now. @throws Refusal `not-found` where there would be none */
export const proofPayCode = desk('see').run(async (ctx, id: string): Promise<File> => {
  const sheet = await invoiceSheet(ctx.actor, id);
  return payCode(printedOf(sheet), dueOf(sheet));
});
