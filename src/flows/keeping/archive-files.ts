/** Papers, files and rows as files of an archive, each made when its turn comes. */

import { creditById } from '@/db/credit-notes';
import { customerPapers, type NamedPaper, type Papers, type TakenPart } from '@/db/customer-data';
import { fileBytes } from '@/db/files';
import { invoiceById } from '@/db/invoices';
import { receiptOfPayment } from '@/db/receipts';
import { type LazyFile, lazyFile, pathPart } from '@/documents/zip';
import type { Context } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { type File, keptCreditPdf, keptInvoicePdf, keptReceiptPdf } from '@/flows/file/kept-files';

/** JSON as other programs read it; whole sums, which JavaScript would round, as numbers all the same. */
export const jsonText = (value: unknown): string =>
  JSON.stringify(value, (_, one: unknown) => (typeof one === 'bigint' ? Number(one) : one), 2);

/** An archive under way: what it is called, and its bytes as they come. */
export type Archive = { readonly name: string; readonly parts: AsyncIterable<Uint8Array> };

/** Papers and files: invoices, credit notes and receipts as they went out, and files as they were handed in. */
export function paperFiles(ctx: Context, { invoices, credits, receipts, files }: Papers): LazyFile[] {
  const pdfs = (folder: string, papers: readonly NamedPaper[], make: (id: string) => Promise<File>): LazyFile[] =>
    papers.map(({ id, name }) =>
      lazyFile(`papers/${folder}/${pathPart(name)}.pdf`, async () => (await make(id)).bytes),
    );
  return [
    ...pdfs('invoices', invoices, async (id) =>
      keptInvoicePdf(ctx, found(await ctx.read((db) => invoiceById(db, id)))),
    ),
    ...pdfs('credit-notes', credits, async (id) => {
      const credit = found(await ctx.read((db) => creditById(db, id)));
      return keptCreditPdf(ctx, id, credit.printed);
    }),
    ...pdfs('receipts', receipts, async (id) =>
      keptReceiptPdf(ctx, found(await ctx.read((db) => receiptOfPayment(db, id)))),
    ),
    ...files.map(({ id, name }) =>
      lazyFile(
        `files/${id.slice(0, 8)}-${pathPart(name)}`,
        async () => found(await ctx.read((db) => fileBytes(db, id))).bytes,
      ),
    ),
  ];
}

/** A customer's rows and papers as files. @param about what is said before all of it */
export async function customerFiles(
  ctx: Context,
  customerId: string,
  { about, parts }: { readonly about: string; readonly parts: readonly TakenPart[] },
): Promise<LazyFile[]> {
  const papers = await ctx.read((db) => customerPapers(db, customerId));
  const data = Object.fromEntries(parts.filter(({ rows }) => rows.length > 0).map(({ name, rows }) => [name, rows]));
  return [
    lazyFile('read-me.txt', async () => about),
    lazyFile('everything.json', async () => jsonText(data)),
    ...paperFiles(ctx, papers),
  ];
}
