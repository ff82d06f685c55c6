import type { CalendarDate } from '@/core/dates/calendar-date';
import type { Pauses } from '@/core/invoice/recurring';
import { completePaper, type Paper } from '@/core/paper/paper';
import type { Schedule } from '@/core/schedule/schedule';
import type { Db, Tx } from './pool';
import { many, maybeOne, run, sql } from './sql';

/** An invoice that comes again; `nextNominal` and `nextOn` are null once there is no further date. */
export type Repeat = {
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

/** One of a repeat's invoices, or why there is none. */
export type RecurringRun = {
  readonly nominal: CalendarDate;
  readonly invoiceId: string | null;
  readonly number: string | null;
  readonly trouble: string | null;
};

const COLUMNS = `repeats.id, repeats.name, repeats.customer_id as "customerId", repeats.paper, repeats.schedule, repeats.makes,
  repeats.state, repeats.pauses, repeats.next_nominal as "nextNominal", repeats.next_on as "nextOn", repeats.by_id as "byId"`;

const whole = <Row extends Repeat>(row: Row): Row => ({ ...row, paper: completePaper(row.paper) });

export async function recurringById(db: Db, id: string, lock = false): Promise<Repeat | null> {
  const row = await maybeOne<Repeat>(db, {
    text: `select ${COLUMNS} from repeats where business_id = $1 and id = $2${lock ? ' for update' : ''}`,
    values: [db.businessId, id],
  });
  return row && whole(row);
}

/** All repeats with their customers' names, those that come next first. */
export async function recurringOf(db: Db): Promise<(Repeat & { customer: string })[]> {
  const rows = await many<Repeat & { customer: string }>(db, {
    text: `select ${COLUMNS}, customers.name as customer from repeats
      join customers on customers.business_id = repeats.business_id and customers.id = repeats.customer_id
      where repeats.business_id = $1
      order by array_position(array['active', 'paused', 'finished'], repeats.state), repeats.next_on nulls last, repeats.id limit 500`,
    values: [db.businessId],
  });
  return rows.map(whole);
}

export const insertRecurring = (tx: Tx, repeat: Repeat): Promise<number> =>
  run(
    tx,
    sql`insert into repeats (id, business_id, name, customer_id, paper, schedule, makes, state, pauses, next_nominal, next_on,
          by_id, created_at, changed_at)
        values (${repeat.id}, ${tx.businessId}, ${repeat.name}, ${repeat.customerId}, ${JSON.stringify(repeat.paper)},
          ${JSON.stringify(repeat.schedule)}, ${repeat.makes}, ${repeat.state}, ${JSON.stringify(repeat.pauses)},
          ${repeat.nextNominal}, ${repeat.nextOn}, ${repeat.byId}, ${tx.now}, ${tx.now})`,
  );

export const updateRecurring = (tx: Tx, repeat: Repeat): Promise<number> =>
  run(
    tx,
    sql`update repeats set name = ${repeat.name}, paper = ${JSON.stringify(repeat.paper)},
          schedule = ${JSON.stringify(repeat.schedule)}, makes = ${repeat.makes}, state = ${repeat.state},
          pauses = ${JSON.stringify(repeat.pauses)}, next_nominal = ${repeat.nextNominal}, next_on = ${repeat.nextOn},
          changed_at = ${tx.now}
        where business_id = ${tx.businessId} and id = ${repeat.id}`,
  );

/** Repeats whose day has come, locked; others who ask at the same time get others. */
export const claimRecurring = (tx: Tx, today: CalendarDate, limit: number): Promise<{ id: string }[]> =>
  many(
    tx,
    sql`select id from repeats where business_id = ${tx.businessId} and state = 'active' and next_on <= ${today}
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
    sql`insert into repeat_runs (business_id, repeat_id, nominal, invoice_id, trouble, ran_at)
        values (${tx.businessId}, ${recurringId}, ${made.nominal}, ${made.invoiceId}, ${made.trouble}, ${tx.now})
        on conflict (business_id, repeat_id, nominal) do nothing`,
  );
  return touched === 1;
}

export const runsOf = (db: Db, recurringId: string): Promise<RecurringRun[]> =>
  many(
    db,
    sql`select nominal, invoice_id as "invoiceId", number, trouble from repeat_runs
        left join invoices on invoices.business_id = repeat_runs.business_id and invoices.id = invoice_id
        where repeat_runs.business_id = ${db.businessId} and repeat_id = ${recurringId} order by nominal desc limit 60`,
  );
