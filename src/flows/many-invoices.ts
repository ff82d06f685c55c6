import { ZipFile } from 'yazl';
import { dateInZone } from '@/core/dates/zone';
import { invoiceState } from '@/core/invoice/state';
import { minorDigits } from '@/core/money/currency';
import { decimalText } from '@/core/money/decimal';
import { wireMinor } from '@/core/money/money';
import { businessById } from '@/db/businesses';
import { type Invoice, invoiceById } from '@/db/invoices';
import type { Actor } from '@/db/people';
import { readBusiness } from '@/db/transaction';
import { csvText } from '@/documents/csv/write';
import { invoicesPdf } from '@/documents/pdf/draw';
import { invoiceXml } from '@/documents/ubl/write';
import { services } from '@/outside/services';
import { requireRight } from './access';
import { type File, picturesOf } from './files';
import { cancelInvoice, remindNow } from './follow-invoice';
import { Refusal } from './refusal';

export const MOST_AT_ONCE = 500;

/** What became of each: how many were done, and why the others were not. */
export type ManyResult = {
  readonly done: number;
  readonly refused: readonly { readonly id: string; readonly words: string }[];
};

async function each(ids: readonly string[], work: (id: string) => Promise<void>): Promise<ManyResult> {
  const refused: { id: string; words: string }[] = [];
  for (const id of ids) {
    try {
      await work(id);
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      refused.push({ id, words: error.words });
    }
  }
  return { done: ids.length - refused.length, refused };
}

/** Reminds of many invoices; each that cannot be is named with the reason, and the others are done. */
export const remindMany = (actor: Actor, ids: readonly string[], requestKey: string): Promise<ManyResult> =>
  each(ids, (id) => remindNow(actor, id, requestKey));

/** Cancels many invoices for one reason. */
export const cancelMany = (actor: Actor, ids: readonly string[], reason: string, tell: boolean): Promise<ManyResult> =>
  each(ids, (id) => cancelInvoice(actor, id, reason, tell));

async function sentOf(actor: Actor, ids: readonly string[]): Promise<Invoice[]> {
  requireRight(actor, 'read');
  return readBusiness(actor.businessId, async (db) => {
    const found: Invoice[] = [];
    for (const id of ids) {
      const invoice = await invoiceById(db, actor.businessId, id);
      if (invoice?.printed) found.push(invoice);
    }
    return found;
  });
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
export async function exportMany(actor: Actor, ids: readonly string[], form: 'csv' | 'ubl' | 'pdf'): Promise<File> {
  const invoices = await sentOf(actor, ids);
  if (form === 'ubl') {
    const zip = new ZipFile();
    for (const { printed, paidMinor, refundedMinor, creditedMinor } of invoices) {
      if (!printed) continue;
      const name = `${printed.number.replace(/[^\p{L}\p{N}._-]+/gu, '-')}.xml`;
      zip.addBuffer(Buffer.from(invoiceXml(printed, paidMinor - refundedMinor + creditedMinor)), name);
    }
    zip.end();
    const chunks: Buffer[] = [];
    for await (const chunk of zip.outputStream) chunks.push(chunk as Buffer);
    return { name: 'e-invoices.zip', bytes: Buffer.concat(chunks), type: 'application/zip' };
  }
  if (form === 'pdf') {
    const printed = invoices.flatMap((invoice) => (invoice.printed ? [invoice.printed] : []));
    const pictures = await picturesOf(actor.businessId, printed.find(({ logoId }) => logoId)?.logoId ?? null);
    return { name: 'invoices.pdf', bytes: await invoicesPdf(printed, pictures), type: 'application/pdf' };
  }
  const { zone } = await readBusiness(actor.businessId, (db) => businessById(db, actor.businessId));
  const today = dateInZone(await services().clock.now(), zone);
  const rows = invoices.map((invoice) => {
    const digits = minorDigits(invoice.currency);
    const sum = (minor: bigint) => decimalText(minor, digits);
    return [
      invoice.number ?? '',
      invoiceState(invoice, today),
      invoice.printed?.payer.name ?? '',
      invoice.printed?.reference ?? '',
      invoice.issuedOn ?? '',
      invoice.dueOn ?? '',
      invoice.currency,
      sum(invoice.totalMinor),
      sum(BigInt(wireMinor(BigInt(invoice.printed?.taxTotal ?? 0)))),
      sum(invoice.paidMinor - invoice.refundedMinor),
      sum(invoice.creditedMinor),
      sum(invoice.stage === 'cancelled' ? 0n : invoice.dueMinor),
    ];
  });
  return { name: 'invoices.csv', bytes: Buffer.from(csvText(HEADINGS, rows)), type: 'text/csv' };
}
