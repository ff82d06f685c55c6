import { desk } from '@/app/answer';
import { Refusal } from '@/flows/door/refusal';
import { MOST_BYTES } from '@/flows/file/store-file';
import { bringInPdf, readEInvoice } from '@/flows/invoice/bring-in-invoice';
import { BringInInput } from '@/input/search-input';

/** The body is the file: an e-invoice to be read, or a PDF that is the document itself. */
export const POST = desk(
  BringInInput,
  async (actor, { input, request }) => {
    if (Number(request.headers.get('content-length') ?? 0) > MOST_BYTES) throw new Refusal('file-too-large');
    const bytes = Buffer.from(await request.arrayBuffer());
    const pdf = bytes.subarray(0, 5).toString('latin1') === '%PDF-';
    return { id: await (pdf ? bringInPdf(actor, input.name, bytes) : readEInvoice(actor, bytes.toString('utf8'))) };
  },
  'address',
);
