import type { CalendarDate } from '@/core/dates/calendar-date';
import type { Pauses } from '@/core/invoice/recurring';
import { completePaper, type Paper } from '@/core/paper/paper';
import type { Schedule } from '@/core/schedule/schedule';
import type { Db, Tx } from './pool';
import { many, maybeOne, NONE, run, sql } from './sql';

/** An invoice that comes again; `nextNominal` and `nextOn` are null once there is no further date. */
export type RecurringInvoice = {
  readonly id: string;
  readonly name: string;
  readonly customerId: string;
  readonly paper: Paper;
  readonly schedule: Schedule;
  readonly makes: 'draft' | 'send';
  readonly state: 'active' | 'paused' | 'finished';
  readonly pauses: Pauses;
  readonly nextNominal: CalendarDate | null;
  readonly nextOn: CalendarDate | null;
  readonly byId: string;
};

/** One of the invoices that a recurring one made, or why there is none. */
export type RecurringRun = {
  readonly nominal: CalendarDate;
  readonly invoiceId: string | null;
  readonly number: string | null;
  readonly trouble: string | null;
};

const COLUMNS = sql`recurring_invoices.id, recurring_invoices.name, recurring_invoices.customer_id as "customerId", recurring_invoices.paper, recurring_invoices.schedule, recurring_invoices.makes,
  recurring_invoices.state, recurring_invoices.pauses, recurring_invoices.next_nominal as "nextNominal", recurring_invoices.next_on as "nextOn", recurring_invoices.by_id as "byId"`;

const completed = <Row extends RecurringInvoice>(row: Row): Row => ({ ...row, paper: completePaper(row.paper) });

export async function recurringById(db: Db, id: string, lock = false): Promise<RecurringInvoice | null> {
  const row = await maybeOne<RecurringInvoice>(
    db,
    sql`select ${COLUMNS} from recurring_invoices where business_id = ${db.businessId} and id = ${id}${lock ? sql` for update` : NONE}`,
  );
  return row && completed(row);
}

/** All recurring invoices with their customers' names, those that come next first. */
export async function recurringOf(db: Db): Promise<(RecurringInvoice & { customer: string })[]> {
  const rows = await many<RecurringInvoice & { customer: string }>(
    db,
    sql`select ${COLUMNS}, customers.name as customer from recurring_invoices
      join customers on customers.business_id = recurring_invoices.business_id and customers.id = recurring_invoices.customer_id
      where recurring_invoices.business_id = ${db.businessId}
      order by array_position(array['active', 'paused', 'finished'], recurring_invoices.state), recurring_invoices.next_on nulls last, recurring_invoices.id limit 500`,
  );
  return rows.map(completed);
}

export const insertRecurring = (tx: Tx, recurring: RecurringInvoice): Promise<number> =>
  run(
    tx,
    sql`insert into recurring_invoices (id, business_id, name, customer_id, paper, schedule, makes, state, pauses, next_nominal, next_on,
          by_id, created_at, changed_at)
        values (${recurring.id}, ${tx.businessId}, ${recurring.name}, ${recurring.customerId}, ${JSON.stringify(recurring.paper)},
          ${JSON.stringify(recurring.schedule)}, ${recurring.makes}, ${recurring.state}, ${JSON.stringify(recurring.pauses)},
          ${recurring.nextNominal}, ${recurring.nextOn}, ${recurring.byId}, ${tx.now}, ${tx.now})`,
  );

export const updateRecurring = (tx: Tx, recurring: RecurringInvoice): Promise<number> =>
  run(
    tx,
    sql`update recurring_invoices set name = ${recurring.name}, paper = ${JSON.stringify(recurring.paper)},
          schedule = ${JSON.stringify(recurring.schedule)}, makes = ${recurring.makes}, state = ${recurring.state},
          pauses = ${JSON.stringify(recurring.pauses)}, next_nominal = ${recurring.nextNominal}, next_on = ${recurring.nextOn},
          changed_at = ${tx.now}
        where business_id = ${tx.businessId} and id = ${recurring.id}`,
  );

/** Recurring invoices whose day has come, locked; others who ask at the same time get others. */
export const claimRecurring = (tx: Tx, today: CalendarDate, limit: number): Promise<{ id: string }[]> =>
  many(
    tx,
    sql`select id from recurring_invoices where business_id = ${tx.businessId} and state = 'active' and next_on <= ${today}
        order by next_on, id limit ${limit} for update skip locked`,
  );

/** Notes what became of a date; false if it had been noted before. */
export async function insertRun(
  tx: Tx,
  recurringId: string,
  made: { nominal: CalendarDate; invoiceId: string | null; trouble: string | null },
): Promise<boolean> {
  const touched = await run(
    tx,
    sql`insert into recurring_runs (business_id, recurring_id, nominal, invoice_id, trouble, ran_at)
        values (${tx.businessId}, ${recurringId}, ${made.nominal}, ${made.invoiceId}, ${made.trouble}, ${tx.now})
        on conflict (business_id, recurring_id, nominal) do nothing`,
  );
  return touched === 1;
}

export const runsOf = (db: Db, recurringId: string): Promise<RecurringRun[]> =>
  many(
    db,
    sql`select nominal, invoice_id as "invoiceId", number, trouble from recurring_runs
        left join invoices on invoices.business_id = recurring_runs.business_id and invoices.id = invoice_id
        where recurring_runs.business_id = ${db.businessId} and recurring_id = ${recurringId} order by nominal desc limit 60`,
  );
