import type { ReceiptStyle } from '@/core/business/business';
import type { EInvoice } from '@/core/einvoice/einvoice';
import { eCreditOf } from '@/core/einvoice/of-credit';
import { eInvoiceOf } from '@/core/einvoice/of-invoice';
import { eInvoiceProblems } from '@/core/einvoice/rules';
import type { PrintedInvoice } from '@/core/invoice/printed';
import type { PrintedCredit } from '@/core/refund/printed-credit';
import { wordsOf } from '@/core/words/words';
import { creditById } from '@/db/credit-notes';
import { type DocumentKind, documentOf, insertDocument } from '@/db/documents';
import { fileBytes } from '@/db/files';
import { type Invoice, invoiceById } from '@/db/invoices';
import { type Receipt, receiptByNumber, receiptOfPayment } from '@/db/receipts';
import { creditPdf, invoicePdf, type Picture, type Pictures, receiptPdf } from '@/documents/pdf/draw';
import { eInvoiceXml } from '@/documents/ubl/write';
import { INVOICE_LINK } from '@/flows/door/links';
import { byLink, type Context, desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { pictureSize } from '@/outside/pictures';

/** A file to hand out. */
export type File = { readonly name: string; readonly bytes: Buffer; readonly type: string };

const PDF = 'application/pdf';

/** A number as part of a file's name: only signs that every system takes. */
const safe = (number: string): string => number.replace(/[^\p{L}\p{N}._-]+/gu, '-');

async function pictureOf(ctx: Context, id: string): Promise<Picture | null> {
  const file = await ctx.read((db) => fileBytes(db, id));
  return file && { bytes: file.bytes, ...(await pictureSize(file.bytes)) };
}

/** The pictures on a document, with their sizes in pixels; without those that there are not (any more). */
export async function picturesOf(
  ctx: Context,
  logoId: string | null | undefined,
  style?: Partial<ReceiptStyle>,
): Promise<Pictures> {
  const ids = { logo: logoId, signature: style?.signature?.fileId, seal: style?.seal?.fileId };
  const found: Partial<Record<keyof Pictures, Picture>> = {};
  for (const name of ['logo', 'signature', 'seal'] as const) {
    const id = ids[name];
    const picture = id ? await pictureOf(ctx, id) : null;
    if (picture) found[name] = picture;
  }
  return found;
}

/** The e-invoice that goes along inside the PDF; none where it would break a rule of the standard. */
function wholeXml(printed: PrintedInvoice): Buffer | null {
  const of = eInvoiceOf(printed);
  return eInvoiceProblems(of).length > 0 ? null : Buffer.from(eInvoiceXml(of));
}

/** The invoice's PDF as it went out: made once for each version, then kept. One made elsewhere is its own. */
export async function keptInvoicePdf(ctx: Context, invoice: Invoice): Promise<File> {
  const printed = found(invoice.printed);
  const name = `${wordsOf(printed.locale).invoice.toLowerCase()}-${safe(printed.number)}.pdf`;
  if (printed.elsewhere) {
    const { elsewhere } = printed;
    const file = found(await ctx.read((db) => fileBytes(db, elsewhere)));
    return { name, bytes: file.bytes, type: PDF };
  }
  const make = async () => invoicePdf(printed, await picturesOf(ctx, printed.logoId), wholeXml(printed));
  return { name, bytes: await kept(ctx, 'invoice', invoice.id, printed.version, make), type: PDF };
}

/** The receipt's PDF as it went out. */
export async function keptReceiptPdf(ctx: Context, receipt: Receipt): Promise<File> {
  const { printed } = receipt;
  const make = async () => receiptPdf(printed, await picturesOf(ctx, printed.logoId, printed.style));
  const name = `${wordsOf(printed.locale).receipt.toLowerCase()}-${safe(receipt.number)}.pdf`;
  return { name, bytes: await kept(ctx, 'receipt', receipt.id, printed.version ?? 1, make), type: PDF };
}

/** The receipt of an order's payment, for the desk. */
export const paymentReceiptPdf = desk('see').run(async (ctx, paymentId: string): Promise<File> => {
  const receipt = await ctx.read((db) => receiptOfPayment(db, paymentId));
  return keptReceiptPdf(ctx, found(receipt));
});

/** The credit note's PDF as it went out. */
export async function keptCreditPdf(ctx: Context, id: string, printed: PrintedCredit): Promise<File> {
  const make = async () => creditPdf(printed, await picturesOf(ctx, printed.invoice.logoId));
  const bytes = await kept(ctx, 'credit-note', id, 1, make);
  return { name: `credit-note-${safe(printed.number)}.pdf`, bytes, type: PDF };
}

async function kept(
  ctx: Context,
  kind: DocumentKind,
  subjectId: string,
  version: number,
  make: () => Promise<Buffer>,
): Promise<Buffer> {
  const before = await ctx.read((db) => documentOf(db, kind, subjectId, version));
  if (before) return before.bytes;
  const bytes = await make();
  return ctx.keep(async (tx) => {
    await insertDocument(tx, kind, subjectId, version, bytes);
    // Two at once: the first one stays, and both hand out that one.
    return found(await documentOf(tx, kind, subjectId, version)).bytes;
  });
}

/** The invoice's PDF for the person who has its link. */
export const linkedInvoicePdf = byLink(INVOICE_LINK).run(async (ctx, invoiceId): Promise<File> => {
  const invoice = found(await ctx.read((db) => invoiceById(db, invoiceId)));
  return keptInvoicePdf(ctx, invoice);
});

/** An e-invoice as a file. @throws Refusal `e-invoice-not-whole` with what is missing, where it breaks a rule of the standard */
function xmlFile(of: EInvoice, name: string): File {
  const problems = eInvoiceProblems(of);
  if (problems.length > 0)
    throw new Refusal(
      'e-invoice-not-whole',
      problems.map((words) => ({ field: 'e-invoice', words })),
    );
  return { name: `${name}-${safe(of.number)}.xml`, bytes: Buffer.from(eInvoiceXml(of)), type: 'application/xml' };
}

/** What of an invoice has been paid and credited, minor units. */
const paidOf = ({ paidMinor, refundedMinor, creditedMinor }: Invoice): bigint =>
  paidMinor - refundedMinor + creditedMinor;

const xmlOf = (invoice: Invoice): File => xmlFile(eInvoiceOf(found(invoice.printed), paidOf(invoice)), 'invoice');

/** The invoice as an e-invoice for the person who has its link. */
export const linkedInvoiceXml = byLink(INVOICE_LINK).read(
  async (db, invoiceId): Promise<File> => xmlOf(found(await invoiceById(db, invoiceId))),
);

/** A receipt of the linked invoice, by its number. */
export const linkedReceiptPdf = byLink(INVOICE_LINK).run(
  async (ctx, invoiceId: string, number: string): Promise<File> => {
    const receipt = found(await ctx.read((db) => receiptByNumber(db, invoiceId, number)));
    return keptReceiptPdf(ctx, receipt);
  },
);

/** The sent invoice's PDF for the business. */
export const deskInvoicePdf = desk('see').run(async (ctx, id: string): Promise<File> => {
  const invoice = found(await ctx.read((db) => invoiceById(db, id)));
  return keptInvoicePdf(ctx, invoice);
});

/** The sent invoice as an e-invoice for the business. */
export const deskInvoiceXml = desk('see').run(async (ctx, id: string): Promise<File> => {
  return xmlOf(found(await ctx.read((db) => invoiceById(db, id))));
});

/** A receipt's PDF for the business, by invoice and number. */
export const deskReceiptPdf = desk('see').run(async (ctx, invoiceId: string, number: string): Promise<File> => {
  const receipt = found(await ctx.read((db) => receiptByNumber(db, invoiceId, number)));
  return keptReceiptPdf(ctx, receipt);
});

/** A credit note's PDF for the business. */
export const deskCreditPdf = desk('see').run(async (ctx, id: string): Promise<File> => {
  const credit = found(await ctx.read((db) => creditById(db, id)));
  return keptCreditPdf(ctx, credit.id, credit.printed);
});

/** A credit note as an e-invoice for the business. */
export const deskCreditXml = desk('see').read(async (db, id: string): Promise<File> => {
  const credit = found(await creditById(db, id));
  const invoice = found(await invoiceById(db, credit.invoiceId));
  return xmlFile(eCreditOf(credit.printed, found(invoice.printed)), 'credit-note');
});

/** A file of the business's own: an attachment, the logo, a picture. */
export const deskFile = desk('see').run(async (ctx, id: string): Promise<File> => {
  return found(await ctx.read((db) => fileBytes(db, id)));
});
