import type { ReceiptStyle } from '@/core/business/business';
import type { PrintedCredit } from '@/core/invoice/credit';
import { wordsOf } from '@/core/words/words';
import { creditById } from '@/db/credit-notes';
import { type DocumentKind, documentOf, insertDocument } from '@/db/documents';
import { fileBytes } from '@/db/files';
import { type Invoice, invoiceById, linkHolder } from '@/db/invoices';
import type { Actor } from '@/db/people';
import { type Receipt, receiptByNumber, receiptOfPayment } from '@/db/receipts';
import { inBusiness, outsideBusiness, readBusiness } from '@/db/transaction';
import { creditPdf, invoicePdf, type Picture, type Pictures, receiptPdf } from '@/documents/pdf/draw';
import { invoiceXml } from '@/documents/ubl/write';
import { pictureSize } from '@/outside/pictures';
import { services } from '@/outside/services';
import { found, requireRight } from './access';

/** A file to hand out. */
export type File = { readonly name: string; readonly bytes: Buffer; readonly type: string };

const PDF = 'application/pdf';

/** A number as part of a file's name: only signs that every system takes. */
const safe = (number: string): string => number.replace(/[^\p{L}\p{N}._-]+/gu, '-');

async function pictureOf(businessId: string, id: string): Promise<Picture | null> {
  const file = await readBusiness(businessId, (db) => fileBytes(db, businessId, id));
  return file && { bytes: file.bytes, ...(await pictureSize(file.bytes)) };
}

/** The pictures on a document, with their sizes in pixels; without those that there are not (any more). */
export async function picturesOf(
  businessId: string,
  logoId: string | null | undefined,
  style?: Partial<ReceiptStyle>,
): Promise<Pictures> {
  const ids = { logo: logoId, signature: style?.signature?.fileId, seal: style?.seal?.fileId };
  const found: Partial<Record<keyof Pictures, Picture>> = {};
  for (const name of ['logo', 'signature', 'seal'] as const) {
    const id = ids[name];
    const picture = id ? await pictureOf(businessId, id) : null;
    if (picture) found[name] = picture;
  }
  return found;
}

/** The invoice's PDF as it went out: made once for each version, then kept. One made elsewhere is its own. */
export async function keptInvoicePdf(businessId: string, invoice: Invoice): Promise<File> {
  const printed = found(invoice.printed);
  const name = `${wordsOf(printed.locale).invoice.toLowerCase()}-${safe(printed.number)}.pdf`;
  if (printed.elsewhere) {
    const { elsewhere } = printed;
    const file = found(await readBusiness(businessId, (db) => fileBytes(db, businessId, elsewhere)));
    return { name, bytes: file.bytes, type: PDF };
  }
  const make = async () => invoicePdf(printed, await picturesOf(businessId, printed.logoId));
  return { name, bytes: await kept(businessId, 'invoice', invoice.id, printed.version, make), type: PDF };
}

/** The receipt's PDF as it went out. */
export async function keptReceiptPdf(businessId: string, receipt: Receipt): Promise<File> {
  const { printed } = receipt;
  const make = async () => receiptPdf(printed, await picturesOf(businessId, printed.logoId, printed.style));
  const name = `${wordsOf(printed.locale).receipt.toLowerCase()}-${safe(receipt.number)}.pdf`;
  return { name, bytes: await kept(businessId, 'receipt', receipt.id, printed.version ?? 1, make), type: PDF };
}

/** The receipt of an order's payment, for the desk. */
export async function paymentReceiptPdf(actor: Actor, paymentId: string): Promise<File> {
  requireRight(actor, 'read');
  const receipt = await readBusiness(actor.businessId, (db) => receiptOfPayment(db, actor.businessId, paymentId));
  return keptReceiptPdf(actor.businessId, found(receipt));
}

/** The credit note's PDF as it went out. */
export async function keptCreditPdf(businessId: string, id: string, printed: PrintedCredit): Promise<File> {
  const make = async () => creditPdf(printed, await picturesOf(businessId, printed.invoice.logoId));
  const bytes = await kept(businessId, 'credit-note', id, 1, make);
  return { name: `credit-note-${safe(printed.number)}.pdf`, bytes, type: PDF };
}

async function kept(
  businessId: string,
  kind: DocumentKind,
  subjectId: string,
  version: number,
  make: () => Promise<Buffer>,
): Promise<Buffer> {
  const before = await readBusiness(businessId, (db) => documentOf(db, businessId, kind, subjectId, version));
  if (before) return before.bytes;
  const bytes = await make();
  const now = await services().clock.now();
  return inBusiness(businessId, async (tx) => {
    await insertDocument(tx, businessId, kind, subjectId, version, bytes, now);
    // Two at once: the first one stays, and both hand out that one.
    return found(await documentOf(tx, businessId, kind, subjectId, version)).bytes;
  });
}

async function linkedInvoice(link: string): Promise<{ businessId: string; invoice: Invoice }> {
  const { businessId, invoiceId } = found(await outsideBusiness((db) => linkHolder(db, link)));
  return { businessId, invoice: found(await readBusiness(businessId, (db) => invoiceById(db, businessId, invoiceId))) };
}

/** The invoice's PDF for the person who has its link. */
export async function linkedInvoicePdf(link: string): Promise<File> {
  const { businessId, invoice } = await linkedInvoice(link);
  return keptInvoicePdf(businessId, invoice);
}

const xmlOf = (invoice: Invoice): File => {
  const printed = found(invoice.printed);
  return {
    name: `invoice-${safe(printed.number)}.xml`,
    bytes: Buffer.from(invoiceXml(printed)),
    type: 'application/xml',
  };
};

/** The invoice as an e-invoice for the person who has its link. */
export const linkedInvoiceXml = async (link: string): Promise<File> => xmlOf((await linkedInvoice(link)).invoice);

/** A receipt of the linked invoice, by its number. */
export async function linkedReceiptPdf(link: string, number: string): Promise<File> {
  const { businessId, invoiceId } = found(await outsideBusiness((db) => linkHolder(db, link)));
  const receipt = found(await readBusiness(businessId, (db) => receiptByNumber(db, businessId, invoiceId, number)));
  return keptReceiptPdf(businessId, receipt);
}

/** The sent invoice's PDF for the business. */
export async function deskInvoicePdf(actor: Actor, id: string): Promise<File> {
  requireRight(actor, 'read');
  const invoice = found(await readBusiness(actor.businessId, (db) => invoiceById(db, actor.businessId, id)));
  return keptInvoicePdf(actor.businessId, invoice);
}

/** The sent invoice as an e-invoice for the business. */
export async function deskInvoiceXml(actor: Actor, id: string): Promise<File> {
  requireRight(actor, 'read');
  return xmlOf(found(await readBusiness(actor.businessId, (db) => invoiceById(db, actor.businessId, id))));
}

/** A receipt's PDF for the business, by invoice and number. */
export async function deskReceiptPdf(actor: Actor, invoiceId: string, number: string): Promise<File> {
  requireRight(actor, 'read');
  const { businessId } = actor;
  const receipt = found(await readBusiness(businessId, (db) => receiptByNumber(db, businessId, invoiceId, number)));
  return keptReceiptPdf(businessId, receipt);
}

/** A credit note's PDF for the business. */
export async function deskCreditPdf(actor: Actor, id: string): Promise<File> {
  requireRight(actor, 'read');
  const credit = found(await readBusiness(actor.businessId, (db) => creditById(db, actor.businessId, id)));
  return keptCreditPdf(actor.businessId, credit.id, credit.printed);
}

/** A file of the business's own: an attachment, the logo, a picture. */
export async function deskFile(actor: Actor, id: string): Promise<File> {
  requireRight(actor, 'read');
  return found(await readBusiness(actor.businessId, (db) => fileBytes(db, actor.businessId, id)));
}
