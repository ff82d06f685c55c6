import { dateInZone } from '@/core/dates/zone';
import { eInvoiceOf } from '@/core/einvoice/of-invoice';
import { eInvoiceProblems } from '@/core/einvoice/rules';
import { invoiceState } from '@/core/invoice/state';
import { jsonMinor } from '@/core/money/money';
import { businessById } from '@/db/businesses';
import { type Invoice, invoiceById } from '@/db/invoices';
import type { Db } from '@/db/pool';
import { csvText, sumCell } from '@/documents/csv/write';
import { invoicesPdf } from '@/documents/pdf/draw';
import { eInvoiceXml } from '@/documents/ubl/write';
import { zipOf } from '@/documents/zip';
import { each, type ManyResult } from '@/flows/door/many';
import { desk } from '@/flows/door/operation';
import { type File, picturesOf } from '@/flows/file/kept-files';
import { noteExport } from '@/flows/log/log';
import { cancelInvoice } from './cancel-invoice';
import { remindTogether } from './remind';

/** Reminds of many invoices, each customer in one mail; each that cannot be is named with the reason, and the others are done. */
export const remindMany = desk('ask').run(
  async (ctx, ids: readonly string[], requestKey: string): Promise<ManyResult> => {
    const refused = await remindTogether(ctx.actor, ids, requestKey);
    return { done: ids.length - refused.length, refused };
  },
);

/** Cancels many invoices for one reason. */
export const cancelMany = desk('ask').run(
  async (ctx, ids: readonly string[], reason: string, tell: boolean): Promise<ManyResult> =>
    each(ids, (id) => cancelInvoice(ctx.actor, id, reason, tell)),
);

async function sentOf(db: Db, ids: readonly string[]): Promise<Invoice[]> {
  const found: Invoice[] = [];
  for (const id of ids) {
    const invoice = await invoiceById(db, id);
    if (invoice?.printed) found.push(invoice);
  }
  return found;
}

const HEADINGS = [
  'Number',
  'State',
  'Customer',
  'Reference',
  'Issued',
  'Due',
  'Currency',
  'Total',
  'Tax',
  'Paid',
  'Credited',
  'Still due',
];

/** Many invoices in one file: their figures as CSV, each as an e-invoice in a zip, or all of them to be printed. */
export const exportMany = desk('see').run(
  async (ctx, ids: readonly string[], form: 'csv' | 'ubl' | 'pdf'): Promise<File> => {
    const invoices = await ctx.read((db) => sentOf(db, ids));
    await ctx.keep((tx) => noteExport(tx, `Invoices, ${invoices.length}`, ''));
    if (form === 'ubl') {
      const files: { name: string; bytes: Buffer }[] = [];
      const leftOut: string[] = [];
      for (const { printed, paidMinor, refundedMinor, creditedMinor } of invoices) {
        if (!printed) continue;
        const name = `${printed.number.replace(/[^\p{L}\p{N}._-]+/gu, '-')}.xml`;
        const of = eInvoiceOf(printed, paidMinor - refundedMinor + creditedMinor);
        const problems = eInvoiceProblems(of);
        if (problems.length === 0) files.push({ name, bytes: Buffer.from(eInvoiceXml(of)) });
        else leftOut.push(`${printed.number}: ${problems.join(' ')}`);
      }
      // What is missing where: so nobody takes the zip for all of them.
      if (leftOut.length > 0) files.push({ name: 'left-out.txt', bytes: Buffer.from(`${leftOut.join('\n')}\n`) });
      return { name: 'e-invoices.zip', bytes: await zipOf(files), type: 'application/zip' };
    }
    if (form === 'pdf') {
      const printed = invoices.flatMap((invoice) => (invoice.printed ? [invoice.printed] : []));
      const pictures = await picturesOf(ctx, printed.find(({ logoId }) => logoId)?.logoId ?? null);
      return { name: 'invoices.pdf', bytes: await invoicesPdf(printed, pictures), type: 'application/pdf' };
    }
    const { zone } = await ctx.read((db) => businessById(db));
    const today = dateInZone(ctx.now, zone);
    const rows = invoices.map((invoice) => {
      const sum = (minor: bigint) => sumCell(minor, invoice.currency);
      return [
        invoice.number ?? '',
        invoiceState(invoice, today),
        invoice.printed?.payer.name ?? '',
        invoice.printed?.reference ?? '',
        invoice.issuedOn ?? '',
        invoice.dueOn ?? '',
        invoice.currency,
        sum(invoice.totalMinor),
        sum(BigInt(jsonMinor(BigInt(invoice.printed?.taxTotal ?? 0)))),
        sum(invoice.paidMinor - invoice.refundedMinor),
        sum(invoice.creditedMinor),
        sum(invoice.stage === 'cancelled' ? 0n : invoice.dueMinor),
      ];
    });
    return { name: 'invoices.csv', bytes: Buffer.from(csvText(HEADINGS, rows)), type: 'text/csv' };
  },
);
