import { dateInZone } from '@/core/dates/zone';
import { openSums } from '@/core/invoice/list';
import { byCurrency } from '@/core/money/by-currency';
import { type Business, businessById } from '@/db/businesses';
import { dueByDay } from '@/db/day-sums';
import { type Cursor, type InvoiceRow, invoiceRows, type ListPart } from '@/db/invoice-lists';
import { desk } from '@/flows/door/operation';

const PAGE: Readonly<Record<ListPart, number>> = { open: 40, drafts: 12, settled: 12 };

export type { InvoiceRow };

/** One part of the list with where its next page begins, if there is one. */
export type ListPage = { readonly rows: readonly InvoiceRow[]; readonly next: Cursor | null };

export type InvoiceList = {
  readonly business: Business;
  readonly today: ReturnType<typeof dateInZone>;
  readonly parts: Readonly<Record<ListPart, ListPage>>;
  /** Open sums in the business's own currency, minor units, and in others beside it. */
  readonly sums: ReturnType<typeof openSums>;
  readonly beside: readonly { readonly currency: string; readonly sums: ReturnType<typeof openSums> }[];
};

const keyOf = (part: ListPart, row: InvoiceRow): string =>
  part === 'open'
    ? (row.dueOn ?? '')
    : (part === 'drafts' ? row.changedAt : (row.settledAt ?? row.changedAt)).toISOString();

async function pageOf(
  db: Parameters<typeof invoiceRows>[0],
  part: ListPart,
  after: Cursor | null = null,
): Promise<ListPage> {
  const rows = await invoiceRows(db, part, PAGE[part] + 1, after);
  const shown = rows.slice(0, PAGE[part]);
  const last = shown.at(-1);
  return { rows: shown, next: rows.length > shown.length && last ? { key: keyOf(part, last), id: last.id } : null };
}

/** The first page of each part of the list, and the sums above them. */
export const invoiceList = desk('see').read(async (db): Promise<InvoiceList> => {
  const business = await businessById(db);
  const today = dateInZone(db.now, business.zone);
  const { own, others } = byCurrency(await dueByDay(db), business.currency);
  return {
    business,
    today,
    parts: {
      open: await pageOf(db, 'open'),
      drafts: await pageOf(db, 'drafts'),
      settled: await pageOf(db, 'settled'),
    },
    sums: openSums(own, today),
    beside: [...others].map(([currency, days]) => ({ currency, sums: openSums(days, today) })),
  };
});

/** A further page of one part. */
export const moreInvoices = desk('see').read(async (db, part: ListPart, after: Cursor): Promise<ListPage> => {
  return pageOf(db, part, after);
});
