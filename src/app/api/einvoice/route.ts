import { desk } from '@/app/answer';
import { bringInPdf, readEInvoice } from '@/flows/invoice/bring-in-invoice';
import { BringInInput } from '@/input/search-input';

/** The body is the file: an e-invoice to be read, or a PDF that is the document itself. */
export const POST = desk(
  BringInInput,
  async (actor, { input, file }) => {
    const bytes = await file();
    const pdf = bytes.subarray(0, 5).toString('latin1') === '%PDF-';
    return pdf ? bringInPdf(actor, input.name, bytes) : readEInvoice(actor, bytes);
  },
  { from: 'address' },
);
