import type { CalendarDate } from '@/core/dates/calendar-date';
import { isUsualDay, isUsualMoment } from '@/core/dates/usual';
import type { InvoiceAsk, Sort } from '@/core/invoice/ask';
import { customersMatching } from './customers';
import { type Cursor, INVOICE_ROW, type InvoiceRow, typedTotal } from './invoice-lists';
import type { Connection, Db } from './pool';
import { joined, likePattern, many, type Statement, sql } from './sql';

const KEYS: Readonly<Record<Sort, { column: Statement; type: Statement }>> = {
  due: { column: sql`due_on`, type: sql`date` },
  issued: { column: sql`issued_on`, type: sql`date` },
  total: { column: sql`total_minor`, type: sql`bigint` },
};
const DRAFTS = { column: sql`invoices.changed_at`, type: sql`timestamptz` };

/** How many customers and invoices words may find before the rest is left out: whoever looks for more types on. */
const MOST_CUSTOMERS = 200;
const MOST_INVOICES = 500;

/** The key of a row in an order, for where the next page begins. */
export const searchKey = (ask: Pick<InvoiceAsk, 'sort' | 'state'>, row: InvoiceRow): string =>
  ask.state === 'draft'
    ? row.changedAt.toISOString()
    : ask.sort === 'total'
      ? String(row.totalMinor)
      : ((ask.sort === 'due' ? row.dueOn : row.issuedOn) ?? '');

const FITS = {
  timestamptz: isUsualMoment,
  date: isUsualDay,
  bigint: (key: string) => /^-?\d{1,18}$/.test(key),
} as const;

/** Whether a key is one of the order that is asked for: it comes back from whoever reads on. */
export const isSearchKey = ({ sort, state }: Pick<InvoiceAsk, 'sort' | 'state'>, key: string): boolean =>
  FITS[state === 'draft' ? 'timestamptz' : sort === 'total' ? 'bigint' : 'date'](key);

/** What is asked within: sums in minor units, the day it is today, and the decimal sign of whoever asks. */
export type InvoiceSpan = {
  readonly least: bigint | null;
  readonly most: bigint | null;
  readonly today: CalendarDate;
  readonly sign: '.' | ',';
};

/** The statement of one page of what is asked, so that a test can read its plan. Least and most in minor units. */
export function searchPage(
  businessId: string,
  ask: InvoiceAsk,
  { today, sign, ...sums }: InvoiceSpan,
  limit: number,
  after: Cursor | null,
): Statement {
  const draft = ask.state === 'draft';
  const { column, type } = draft ? DRAFTS : KEYS[ask.sort];
  const descending = draft || ask.descending;
  const wheres: Statement[] = [sql`invoices.business_id = ${businessId}`];
  if (draft) wheres.push(sql`stage = 'draft'`);
  // As the index of the open ones has it; by their three statuses they would be read whole and sorted.
  else if (ask.state === 'overdue') wheres.push(sql`stage = 'sent' and due_minor > 0 and due_on < ${today}`);
  else if (ask.state === 'paid' || ask.state === 'cancelled') wheres.push(sql`status = ${ask.state}`);
  else if (ask.state) wheres.push(sql`status = ${ask.state} and due_on >= ${today}`);
  else wheres.push(sql`stage <> 'draft'`);
  if (ask.words.trim()) {
    const words = ask.words.trim().toLowerCase();
    wheres.push(sql`invoices.id in (
      select i.id from invoices i where i.business_id = ${businessId}
        and i.customer_id = any(array(select ${customersMatching(ask.words, MOST_CUSTOMERS)}))
      union select invoices_matching(${words}, ${likePattern(words)}, ${typedTotal(words, sign)}, ${MOST_INVOICES}))`);
  }
  if (ask.customerId) wheres.push(sql`customer_id = ${ask.customerId}::uuid`);
  if (ask.group)
    wheres.push(
      sql`customer_id in (select id from customers where business_id = ${businessId} and groups @> array[${ask.group}])`,
    );
  if (ask.tradingNameId) wheres.push(sql`invoices.paper ->> 'tradingNameId' = ${ask.tradingNameId}`);
  if (ask.currency) wheres.push(sql`invoices.currency = ${ask.currency}`);
  if (ask.from) wheres.push(sql`issued_on >= ${ask.from}::date`);
  if (ask.to) wheres.push(sql`issued_on <= ${ask.to}::date`);
  if (sums.least !== null) wheres.push(sql`total_minor >= ${sums.least}`);
  if (sums.most !== null) wheres.push(sql`total_minor <= ${sums.most}`);
  if (after)
    wheres.push(
      sql`(${column}, invoices.id) ${descending ? sql`<` : sql`>`} (${after.key}::${type}, ${after.id}::uuid)`,
    );
  const order = descending ? sql`desc` : sql`asc`;
  return sql`select ${INVOICE_ROW} where ${joined(wheres, sql` and `)}
      order by ${column} ${order}, invoices.id ${order} limit ${limit}`;
}

export const searchRows = (db: Connection, ...asked: Parameters<typeof searchPage>): Promise<InvoiceRow[]> =>
  many(db, searchPage(...asked));

/** How many drafts there are and what they come to; they are few, and counted when asked. */
export const draftSums = (db: Db): Promise<{ currency: string; count: number; totalMinor: bigint }[]> =>
  many(
    db,
    sql`select currency, count(*)::int as count, sum(total_minor)::bigint as "totalMinor" from invoices
        where business_id = ${db.businessId} and stage = 'draft' group by currency`,
  );
