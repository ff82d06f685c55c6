import { fileById, fileBytes } from '@/db/files';
import { invoiceById } from '@/db/invoices';
import { INVOICE_LINK, SERVED_LINK } from '@/flows/door/links';
import { byLink, type Context, desk } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { signatureOf } from '@/flows/door/signing';
import type { File } from './kept-files';

/** How long an address of a file opens it. */
const SECONDS = 3600;

/** An address under which a file can be fetched for a while without any cookie: it names the file and is signed. */
export function servedPath({ businessId, now }: Pick<Context, 'businessId' | 'now'>, fileId: string): string {
  const of = `${businessId}.${fileId}.${Math.floor(now.getTime() / 1000) + SECONDS}`;
  return `/served/${of}.${signatureOf('served', of)}`;
}

/** The file that a signed address names. @throws Refusal `not-found` for one that is not ours or has lapsed */
export const servedFile = byLink(SERVED_LINK).read(
  async (db, fileId): Promise<File> => found(await fileBytes(db, fileId)),
);

/** Where somebody at the desk fetches a file of the business. */
export const deskFilePath = desk('see').run(async (ctx, id: string): Promise<string> => {
  found(await ctx.read((db) => fileById(db, id)));
  return servedPath(ctx, id);
});

/** Where the customer fetches a file that goes with the linked invoice, or the logo on it. */
export const linkedFilePath = byLink(INVOICE_LINK).run(
  async (ctx, invoiceId: string, fileId: string): Promise<string> => {
    const invoice = found(await ctx.read((db) => invoiceById(db, invoiceId)));
    const { files, logoId } = found(invoice.printed);
    if (logoId !== fileId && !files.some(({ id }) => id === fileId)) found(null);
    return servedPath(ctx, fileId);
  },
);
