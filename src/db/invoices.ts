import type { CalendarDate } from '@/core/dates/calendar-date';
import { completePrinted, type PrintedInvoice } from '@/core/invoice/printed';
import type { SendWith } from '@/core/invoice/send-with';
import type { InvoiceStatus } from '@/core/invoice/state';
import type { Writing } from '@/core/paper/kept-by';
import { completePaper, type Paper } from '@/core/paper/paper';
import type { Connection, Db, Tx } from './pool';
import { many, maybeOne, NONE, records, run, sql } from './sql';

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

/** Notes that more was paid than was due. */
export const addOverpaid = (tx: Tx, id: string, moreMinor: bigint): Promise<number> =>
  run(
    tx,
    sql`update invoices set overpaid_minor = overpaid_minor + ${moreMinor} where business_id = ${tx.businessId} and id = ${id}`,
  );

/** A customer's invoices in one currency on which they have something to their credit, oldest first. Minor units. */
export const invoicesWithCredit = (
  db: Db,
  customerId: string,
  currency: string,
): Promise<{ id: string; number: string; creditMinor: bigint }[]> =>
  many(
    db,
    sql`select id, number, (paid_minor - refunded_minor + credited_minor - total_minor)::bigint as "creditMinor" from invoices
        where business_id = ${db.businessId} and customer_id = ${customerId} and currency = ${currency}
          and stage = 'sent' and total_minor - credited_minor - paid_minor + refunded_minor < 0 order by issued_on, id`,
  );

/** Money that had come in went back; what it paid is owed again as far as no credit note took it off. Minor units. */
export const updateInvoiceRefunded = (tx: Tx, id: string, amountMinor: bigint): Promise<number> =>
  run(
    tx,
    sql`update invoices set refunded_minor = refunded_minor + ${amountMinor}, changed_at = ${tx.now},
          settled_at = case when total_minor - credited_minor - paid_minor + refunded_minor + ${amountMinor} <= 0 then settled_at end
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

/** The draft that was last written on. */
export const latestDraft = (db: Db): Promise<{ id: string } | null> =>
  maybeOne(
    db,
    sql`select id from invoices where business_id = ${db.businessId} and stage = 'draft' order by changed_at desc, id desc limit 1`,
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
