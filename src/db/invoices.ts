import type { CalendarDate } from '@/core/dates/calendar-date';
import { completePrinted, type PrintedInvoice } from '@/core/invoice/printed';
import type { SendWith } from '@/core/invoice/send-with';
import type { InvoiceStatus } from '@/core/invoice/state';
import { typedDecimal } from '@/core/money/typed';
import type { FileDecision } from '@/core/paper/approval';
import type { Writing } from '@/core/paper/kept-by';
import { completePaper, type Paper } from '@/core/paper/paper';
import type { RefusalReason } from '@/core/payment/outcome';
import type { PaymentMethod } from '@/core/receipt/receipt';
import { customersMatching } from './customers';
import type { Connection, Db, Tx } from './pool';
import { likePattern, many, maybeOne, NONE, records, run, type Statement, sql } from './sql';

/** An invoice whole, as its sheet and its flows need it. Amounts in minor units. */
export type Invoice = InvoiceStatus & {
  readonly id: string;
  readonly number: string | null;
  readonly customerId: string | null;
  readonly currency: string;
  readonly paper: Paper;
  readonly revision: number;
  /** The writing that made a draft what it is; null where it was not a window. */
  readonly keptBy: Writing | null;
  readonly printed: PrintedInvoice | null;
  readonly linkToken: string;
  readonly issuedOn: CalendarDate | null;
  readonly paidMinor: bigint;
  readonly refundedMinor: bigint;
  readonly creditedMinor: bigint;
  readonly sentAt: Date | null;
  readonly seenAt: Date | null;
  readonly settledAt: Date | null;
  readonly changedAt: Date;
  readonly version: number;
  /** A draft that waits to be sent by itself: when, how, and in whose name. */
  readonly sendAt: Date | null;
  readonly sendWith: SendWith | null;
  readonly sendBy: string | null;
  readonly cancelledAt: Date | null;
  /** Which version of the terms the customer accepted, when. */
  readonly termsAccepted: TermsAccepted | null;
};

/** The customer's yes to the terms; `at` an instant in ISO 8601. */
export type TermsAccepted = { readonly versionId: string; readonly version: number; readonly at: string };

const complete = (row: Invoice): Invoice => ({
  ...row,
  paper: completePaper(row.paper),
  printed: row.printed && completePrinted(row.printed),
});

const INVOICE = sql`id, stage, number, customer_id as "customerId", currency, paper, revision, kept_by as "keptBy", printed,
  link_token as "linkToken", issued_on as "issuedOn", due_on as "dueOn", total_minor as "totalMinor",
  paid_minor as "paidMinor", refunded_minor as "refundedMinor", credited_minor as "creditedMinor",
  due_minor as "dueMinor", sent_at as "sentAt", seen_at as "seenAt", seen_at is not null as seen,
  settled_at as "settledAt", changed_at as "changedAt", version, send_at as "sendAt", send_with as "sendWith",
  send_by as "sendBy", cancelled_at as "cancelledAt", terms_accepted as "termsAccepted"`;

/** Invoices by id; those that there are not are left out. */
export async function invoicesByIds(db: Db, ids: readonly string[], lock = false): Promise<Invoice[]> {
  const rows = await many<Invoice>(
    db,
    sql`select ${INVOICE} from invoices where business_id = ${db.businessId} and id = any(${[...ids]}) order by id${lock ? sql` for update` : NONE}`,
  );
  return rows.map(complete);
}

export const invoiceById = async (db: Db, id: string): Promise<Invoice | null> =>
  (await invoicesByIds(db, [id]))[0] ?? null;

/** The same, locked until the transaction ends: whoever pays or changes it waits here. */
export const lockedInvoice = async (tx: Tx, id: string): Promise<Invoice | null> =>
  (await invoicesByIds(tx, [id], true))[0] ?? null;

/** Those of these numbers that an invoice of the business has already. */
export async function numbersTaken(db: Db, numbers: readonly string[]): Promise<Set<string>> {
  const rows = await many<{ number: string }>(
    db,
    sql`select number from invoices where business_id = ${db.businessId} and number = any(${[...numbers]})`,
  );
  return new Set(rows.map(({ number }) => number));
}

/** Which invoice a customer's link opens; null for a draft's and for none. Outside any business. */
export const linkHolder = (db: Connection, token: string): Promise<{ businessId: string; invoiceId: string } | null> =>
  maybeOne(db, sql`select business_id as "businessId", invoice_id as "invoiceId" from link_holder(${token})`);

export const insertDraft = (tx: Tx, draft: NewDraft): Promise<number> =>
  run(
    tx,
    sql`insert into invoices (id, business_id, currency, paper, link_token, customer_id, total_minor, tax_minor, reference, title,
          revision, origin, created_at, changed_at)
        values (${draft.id}, ${tx.businessId}, ${draft.currency}, ${JSON.stringify(draft.paper)}, ${draft.linkToken},
          ${draft.paper.customerId}, ${draft.totalMinor}, ${draft.taxMinor}, ${draft.paper.reference.trim()},
          ${draft.paper.title.trim()}, ${draft.revision}, ${draft.origin}, ${tx.now}, ${tx.now})`,
  );

/** A draft to be written down; sums in minor units, `revision` 0 for one that nobody has written on. */
export type NewDraft = {
  readonly id: string;
  readonly currency: string;
  readonly paper: Paper;
  readonly linkToken: string;
  readonly totalMinor: bigint;
  readonly taxMinor: bigint;
  readonly revision: number;
  readonly origin: 'desk' | 'repeat' | 'batch' | 'plan';
};

/**
 * Keeps what has been typed over the draft of this revision; true if it was kept.
 *
 * @param draft sums in minor units, for the list; `by` null where it is no window that writes
 */
export async function updateDraft(
  tx: Tx,
  id: string,
  draft: {
    paper: Paper;
    revision: number;
    by: Writing | null;
    currency: string;
    totalMinor: bigint;
    taxMinor: bigint;
  },
): Promise<boolean> {
  const touched = await run(
    tx,
    sql`update invoices set paper = ${JSON.stringify(draft.paper)}, revision = revision + 1,
          kept_by = ${draft.by && JSON.stringify(draft.by)},
          customer_id = ${draft.paper.customerId}, currency = ${draft.currency}, total_minor = ${draft.totalMinor},
          tax_minor = ${draft.taxMinor}, reference = ${draft.paper.reference.trim()}, title = ${draft.paper.title.trim()},
          send_at = null, changed_at = ${tx.now}
        where business_id = ${tx.businessId} and id = ${id} and stage = 'draft' and revision = ${draft.revision}`,
  );
  return touched === 1;
}

export const deleteDraft = (tx: Tx, id: string): Promise<number> =>
  run(tx, sql`delete from invoices where business_id = ${tx.businessId} and id = ${id} and stage = 'draft'`);

/** An invoice as it is issued; sums in minor units. */
export type IssuedInvoice = {
  readonly id: string;
  readonly number: string;
  readonly printed: PrintedInvoice;
  readonly totalMinor: bigint;
  readonly taxMinor: bigint;
};

/** Makes drafts final. */
export const updateSent = (tx: Tx, invoices: readonly IssuedInvoice[]): Promise<number> =>
  run(
    tx,
    sql`update invoices set stage = 'sent', number = given.number, printed = given.printed,
          issued_on = (given.printed->>'issuedOn')::date, due_on = (given.printed->>'dueOn')::date, total_minor = "totalMinor",
          tax_minor = "taxMinor", currency = given.printed->>'currency', reference = given.printed->>'reference',
          title = given.printed->>'title', send_at = null, sent_at = ${tx.now}, changed_at = ${tx.now}
        from jsonb_to_recordset(${records(invoices)}::jsonb)
          as given (id uuid, number text, printed jsonb, "totalMinor" bigint, "taxMinor" bigint)
        where business_id = ${tx.businessId} and invoices.id = given.id and stage = 'draft'`,
  );

/** Writes invoices down that are issued as they are made. */
export const insertSent = (
  tx: Tx,
  invoices: readonly (IssuedInvoice & Pick<NewDraft, 'paper' | 'linkToken' | 'origin'>)[],
): Promise<number> =>
  run(
    tx,
    sql`insert into invoices (id, business_id, stage, number, printed, issued_on, due_on, currency, paper, link_token, customer_id,
          total_minor, tax_minor, reference, title, revision, origin, created_at, sent_at, changed_at)
        select id, ${tx.businessId}, 'sent', number, printed, (printed->>'issuedOn')::date, (printed->>'dueOn')::date,
          printed->>'currency', paper, "linkToken", (paper->>'customerId')::uuid, "totalMinor", "taxMinor",
          printed->>'reference', printed->>'title', 1, origin, ${tx.now}, ${tx.now}, ${tx.now}
        from jsonb_to_recordset(${records(invoices)}::jsonb) as given (id uuid, number text, printed jsonb, paper jsonb,
          "linkToken" text, origin text, "totalMinor" bigint, "taxMinor" bigint)`,
  );

/** Adds payments to what was paid on invoices, one row each; sets when each was settled once nothing is due. */
export const updatePaid = (
  tx: Tx,
  paid: readonly { readonly id: string; readonly amountMinor: bigint; readonly at: Date }[],
): Promise<number> =>
  run(
    tx,
    sql`update invoices set paid_minor = paid_minor + "amountMinor", changed_at = at,
          settled_at = case when due_minor <= "amountMinor" then at end
        from jsonb_to_recordset(${records(paid)}::jsonb) as given (id uuid, "amountMinor" bigint, at timestamptz)
        where business_id = ${tx.businessId} and invoices.id = given.id`,
  );

/** Money that had come in has not: the invoice owes it again. Minor units. */
export const updateTakenBack = (tx: Tx, id: string, amountMinor: bigint): Promise<number> =>
  run(
    tx,
    sql`update invoices set paid_minor = paid_minor - ${amountMinor}, changed_at = ${tx.now}, settled_at = null
        where business_id = ${tx.businessId} and id = ${id}`,
  );

/** Sets when a draft goes out by itself, or that it does not; any later change on the paper takes the date away. */
export const updateSendAt = (
  tx: Tx,
  id: string,
  plan: { at: Date; how: SendWith; personId: string } | null,
): Promise<number> =>
  run(
    tx,
    sql`update invoices set send_at = ${plan?.at ?? null}, send_with = ${plan ? JSON.stringify(plan.how) : null},
          send_by = ${plan?.personId ?? null}
        where business_id = ${tx.businessId} and id = ${id} and stage = 'draft'`,
  );

/** Drafts whose time to be sent has come, locked; others who ask at the same time get others. */
export const claimScheduled = (tx: Tx, at: Date, limit: number): Promise<{ id: string }[]> =>
  many(
    tx,
    sql`select id from invoices where business_id = ${tx.businessId} and stage = 'draft' and send_at <= ${at}
        order by send_at, id limit ${limit} for update skip locked`,
  );

/** Gives a sent invoice a new version; what it said before is kept beside it. */
export const updateChanged = (
  tx: Tx,
  id: string,
  changed: { paper: Paper; printed: PrintedInvoice; totalMinor: bigint; taxMinor: bigint },
): Promise<number> =>
  run(
    tx,
    sql`update invoices set paper = ${JSON.stringify(changed.paper)}, printed = ${JSON.stringify(changed.printed)},
          version = ${changed.printed.version}, due_on = ${changed.printed.dueOn}, total_minor = ${changed.totalMinor},
          tax_minor = ${changed.taxMinor}, reference = ${changed.printed.reference}, title = ${changed.printed.title},
          terms_accepted = null, changed_at = ${tx.now},
          settled_at = case when ${changed.totalMinor} - credited_minor - paid_minor + refunded_minor <= 0
            then coalesce(settled_at, ${tx.now}::timestamptz) end
        where business_id = ${tx.businessId} and id = ${id} and stage = 'sent'`,
  );

export const insertVersion = (tx: Tx, invoiceId: string, printed: PrintedInvoice, byName: string): Promise<number> =>
  run(
    tx,
    sql`insert into invoice_versions (business_id, invoice_id, version, printed, ended_at, by_name)
        values (${tx.businessId}, ${invoiceId}, ${printed.version}, ${JSON.stringify(printed)}, ${tx.now}, ${byName})`,
  );

export const updateCancelled = (tx: Tx, id: string): Promise<number> =>
  run(
    tx,
    sql`update invoices set stage = 'cancelled', cancelled_at = ${tx.now}, changed_at = ${tx.now}
        where business_id = ${tx.businessId} and id = ${id} and stage = 'sent'`,
  );

/** Adds a credit; sets when it was settled once nothing is due. */
export const updateCredited = (tx: Tx, id: string, amountMinor: bigint): Promise<number> =>
  run(
    tx,
    sql`update invoices set credited_minor = credited_minor + ${amountMinor}, changed_at = ${tx.now},
          settled_at = case when due_minor <= ${amountMinor} then coalesce(settled_at, ${tx.now}::timestamptz) end
        where business_id = ${tx.businessId} and id = ${id}`,
  );

/** Notes that the customer accepted the terms; the first yes to a version stays. */
export const updateTermsAccepted = (tx: Tx, id: string, accepted: TermsAccepted): Promise<number> =>
  run(
    tx,
    sql`update invoices set terms_accepted = ${JSON.stringify(accepted)}
        where business_id = ${tx.businessId} and id = ${id}
          and (terms_accepted is null or terms_accepted->>'versionId' <> ${accepted.versionId})`,
  );

/** The customer's latest sent invoice, for "same as last time". */
export const lastInvoiceOf = (db: Db, customerId: string): Promise<{ id: string } | null> =>
  maybeOne(
    db,
    sql`select id from invoices where business_id = ${db.businessId} and customer_id = ${customerId} and stage = 'sent'
        order by sent_at desc, id desc limit 1`,
  );

/** Notes the customer's first look; true the first time. */
export async function updateSeen(tx: Tx, id: string): Promise<boolean> {
  const touched = await run(
    tx,
    sql`update invoices set seen_at = ${tx.now} where business_id = ${tx.businessId} and id = ${id} and seen_at is null and stage = 'sent'`,
  );
  return touched === 1;
}

/** One row of the list. */
export type InvoiceRow = InvoiceStatus & {
  readonly reference: string;
  readonly title: string;
  readonly issuedOn: CalendarDate | null;
  readonly sendAt: Date | null;
  readonly id: string;
  readonly number: string | null;
  readonly customer: string | null;
  readonly currency: string;
  readonly changedAt: Date;
  readonly settledAt: Date | null;
};

/** Where a page of the list ended: the sort key and the id of its last row. */
export type Cursor = { readonly key: string; readonly id: string };

/** The columns and joins of a row of the list. */
export const INVOICE_ROW = sql`invoices.id, stage, number, invoices.reference, title, issued_on as "issuedOn", send_at as "sendAt", customers.name as customer, invoices.currency, total_minor as "totalMinor",
    due_minor as "dueMinor", due_on as "dueOn", seen_at is not null as seen, invoices.changed_at as "changedAt", settled_at as "settledAt"
  from invoices left join customers on customers.business_id = invoices.business_id and customers.id = invoices.customer_id`;

/** The three parts of the list, each in the order in which it is read: by due date, latest change first, latest payment first. */
const PARTS = {
  open: { where: sql`stage = 'sent' and due_minor > 0`, key: sql`due_on`, type: sql`date`, descending: false },
  drafts: { where: sql`stage = 'draft'`, key: sql`invoices.changed_at`, type: sql`timestamptz`, descending: true },
  settled: {
    where: sql`stage = 'sent' and due_minor = 0`,
    key: sql`settled_at`,
    type: sql`timestamptz`,
    descending: true,
  },
} as const;

export type ListPart = keyof typeof PARTS;

/** The statement of one page, so that a test can read its plan. */
export function invoicePage(businessId: string, part: ListPart, limit: number, after: Cursor | null): Statement {
  const { where, key, type, descending } = PARTS[part];
  const order = descending ? sql`desc` : sql`asc`;
  const beyond = descending ? sql`<` : sql`>`;
  return sql`select ${INVOICE_ROW} where invoices.business_id = ${businessId} and ${where}
      ${after ? sql`and (${key}, invoices.id) ${beyond} (${after.key}::${type}, ${after.id}::uuid)` : NONE}
      order by ${key} ${order}, invoices.id ${order} limit ${limit}`;
}

/** One page of a part of the list, by key. */
export const invoiceRows = (
  db: Db,
  part: ListPart,
  limit: number,
  after: Cursor | null = null,
): Promise<InvoiceRow[]> => many(db, invoicePage(db.businessId, part, limit, after));

/** A customer's invoices, latest change first. */
export const invoicesOfCustomer = (db: Db, customerId: string, limit: number): Promise<InvoiceRow[]> =>
  many(
    db,
    sql`select ${INVOICE_ROW} where invoices.business_id = ${db.businessId} and customer_id = ${customerId} order by invoices.changed_at desc, invoices.id desc limit ${limit}`,
  );

/** The person's own draft on which nothing was ever typed, if there is one: starting again opens it. */
export const untouchedDraft = (db: Db, byName: string): Promise<{ id: string } | null> =>
  maybeOne(
    db,
    sql`select invoices.id from invoices
        join timeline on timeline.business_id = invoices.business_id and timeline.invoice_id = invoices.id
        where invoices.business_id = ${db.businessId} and stage = 'draft' and revision = 0
          and timeline.kind = 'made' and timeline.by_name = ${byName}
        order by invoices.changed_at desc, invoices.id desc limit 1`,
  );

/** What the customer's page shows, read through the link in one query. Amounts in minor units. */
export type PayerView = {
  readonly businessId: string;
  readonly invoiceId: string;
  readonly printed: PrintedInvoice;
  readonly stage: 'sent' | 'cancelled';
  readonly paidMinor: bigint;
  readonly dueMinor: bigint;
  readonly creditedMinor: bigint;
  readonly refundedMinor: bigint;
  readonly totalMinor: bigint;
  /** The currency's smallest payment. */
  readonly smallestMinor: bigint;
  readonly zone: string;
  readonly termsAccepted: TermsAccepted | null;
  /** The open attempt that keeps others out, if there is one. */
  readonly pending: { readonly id: string; readonly approvalUrl: string | null } | null;
  /** What open attempts hold, theirs included. */
  readonly heldMinor: bigint;
  /** Every open attempt, oldest first; `approval` where the holder's bank is asked. */
  readonly underWay: readonly { readonly amountMinor: number; readonly tipMinor: number; readonly approval: boolean }[];
  /** What a plan asks for of it now, part by part, and the parts that it counts as paid. */
  readonly askedMinor: bigint;
  readonly countedMinor: bigint;
  /** The latest attempt, if it was refused. */
  readonly refused: { readonly reason: RefusalReason; readonly at: string } | null;
  readonly receipts: readonly {
    readonly number: string;
    readonly amountMinor: number;
    readonly tipMinor: number;
    readonly at: string;
    readonly method: PaymentMethod;
    readonly card: string;
  }[];
  /** The latest word of each on each file. */
  readonly approvals: readonly FileDecision[];
};

export async function payerView(db: Connection, token: string): Promise<PayerView | null> {
  const view = await maybeOne<PayerView>(
    db,
    sql`select business_id as "businessId", invoice_id as "invoiceId", printed, stage, paid_minor as "paidMinor",
          due_minor as "dueMinor", credited_minor as "creditedMinor", refunded_minor as "refundedMinor",
          total_minor as "totalMinor", smallest_minor as "smallestMinor", zone, terms_accepted as "termsAccepted", pending,
          held_minor as "heldMinor", under_way as "underWay", refused, receipts, approvals, asked_minor as "askedMinor",
          counted_minor as "countedMinor"
        from payer_view(${token})`,
  );
  return view && { ...view, printed: completePrinted(view.printed) };
}

/** The number that is still open and when it is due, for invoices that are late; oldest first. */
export const lateInvoices = (db: Db, today: CalendarDate, limit: number): Promise<InvoiceRow[]> =>
  many(
    db,
    sql`select ${INVOICE_ROW} where invoices.business_id = ${db.businessId} and stage = 'sent' and due_minor > 0 and due_on < ${today}
      order by due_on, invoices.id limit ${limit}`,
  );

/** The largest open invoice of each day from today on, for the names on the horizon. */
export const largestDue = (
  db: Db,
  currency: string,
  from: CalendarDate,
  to: CalendarDate,
): Promise<{ dueOn: CalendarDate; customer: string; invoiceId: string }[]> =>
  many(
    db,
    sql`select distinct on (due_on) due_on as "dueOn", customers.name as customer, invoices.id as "invoiceId"
        from invoices join customers on customers.business_id = invoices.business_id and customers.id = invoices.customer_id
        where invoices.business_id = ${db.businessId} and invoices.currency = ${currency} and stage = 'sent' and due_minor > 0
          and due_on between ${from} and ${to}
        order by due_on, due_minor desc`,
  );

/** A typed sum in minor units of a currency with two digits, for finding by sum; null where the words are none. */
export function typedTotal(words: string): bigint | null {
  const number = typedDecimal(words.trim());
  if (number === null) return null;
  const [whole = '', fraction = ''] = number.split('.');
  return fraction.length <= 2 && whole.length <= 13 ? BigInt(`${whole}${fraction.padEnd(2, '0')}`) : null;
}

export type FoundInvoice = {
  readonly id: string;
  readonly number: string | null;
  readonly customer: string | null;
  readonly stage: string;
};

/** Invoices whose number begins so, or whose customer's name holds these words; latest first, at most 8. */
export function invoicesFound(db: Db, words: string): Promise<FoundInvoice[]> {
  return many(
    db,
    sql`with payers as (
          select id, name from customers
          where business_id = ${db.businessId} and id in (select ${customersMatching(words, 20)}))
        select invoices.id, number, customers.name as customer, stage
        from invoices left join customers on customers.business_id = invoices.business_id and customers.id = customer_id
        where invoices.business_id = ${db.businessId}
          and (customer_id in (select id from payers)
            or invoices.id in (select invoices_matching(${words.toLowerCase()}, ${likePattern(words)}, ${typedTotal(words)}, 20)))
        order by invoices.changed_at desc, invoices.id desc limit 8`,
  );
}
