import { PDFDocument } from '@cantoo/pdf-lib';
import { decoded } from '@/core/file/decoded';
import { readInvoiceXml } from '../xml/read-invoice';
import { NotAnInvoice } from '../xml/tree';

/**
 * The e-invoice inside a PDF (a hybrid invoice, PDF/A-3); null where there is none, or nothing that can be read as one.
 */
export async function readHybrid(pdf: Uint8Array): Promise<ReturnType<typeof readInvoiceXml> | null> {
  let attached: { name: string; data: Uint8Array }[];
  try {
    attached = (await PDFDocument.load(pdf, { updateMetadata: false, ignoreEncryption: true })).getAttachments();
  } catch {
    return null;
  }
  for (const { name, data } of attached) {
    if (!/\.xml$/i.test(name)) continue;
    try {
      return readInvoiceXml(decoded(data).text);
    } catch (error) {
      if (!(error instanceof NotAnInvoice)) throw error;
    }
  }
  return null;
}
