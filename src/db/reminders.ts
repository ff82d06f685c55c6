import type { CalendarDate } from '@/core/dates/calendar-date';
import type { ReminderDay } from '@/core/invoice/reminders';
import type { Db, Tx } from './pool';
import { many, records, run, sql } from './sql';

export type Reminder = ReminderDay & { readonly state: 'waiting' | 'sent' | 'dropped'; readonly doneAt: Date | null };

/** Puts these waiting reminders of an invoice in place of the ones that still wait; what was sent or dropped stays. */
export async function replaceReminders(tx: Tx, invoiceId: string, days: readonly ReminderDay[]): Promise<void> {
  await run(
    tx,
    sql`delete from reminders where business_id = ${tx.businessId} and invoice_id = ${invoiceId} and state = 'waiting'`,
  );
  await insertReminders(
    tx,
    days.map((day) => ({ invoiceId, ...day })),
  );
}

/** Adds waiting reminders; a day that is there already stays as it is. */
export async function insertReminders(
  tx: Tx,
  reminders: readonly (ReminderDay & { readonly invoiceId: string })[],
): Promise<void> {
  if (reminders.length === 0) return;
  await run(
    tx,
    sql`insert into reminders (business_id, invoice_id, days_from_due, remind_on)
        select ${tx.businessId}, "invoiceId", "offset", "on"
        from jsonb_to_recordset(${records(reminders)}::jsonb) as given ("invoiceId" uuid, "offset" int, "on" date)
        on conflict (business_id, invoice_id, days_from_due) do nothing`,
  );
}

export const remindersOf = (db: Db, invoiceId: string): Promise<Reminder[]> =>
  many(
    db,
    sql`select days_from_due as "offset", remind_on as "on", state, done_at as "doneAt" from reminders
        where business_id = ${db.businessId} and invoice_id = ${invoiceId} order by remind_on, days_from_due`,
  );

/** While a bank debit is under way nobody is reminded: those reminders wait until the day after its outcome is known. */
export const postponeReminders = (tx: Tx, today: CalendarDate, zone: string): Promise<number> =>
  run(
    tx,
    sql`update reminders set remind_on = (under_way.expected_at at time zone ${zone})::date + 1
        from (
          select invoice_id, max(expected_at) as expected_at from payments
          where business_id = ${tx.businessId} and state = 'pending' and expected_at >= ${tx.now} group by invoice_id
        ) as under_way
        where reminders.business_id = ${tx.businessId} and reminders.invoice_id = under_way.invoice_id
          and reminders.state = 'waiting' and remind_on <= ${today}`,
  );

/** Invoices with a reminder waiting for this day or an earlier one, locked; others who ask at the same time get others. */
export const claimReminders = (
  tx: Tx,
  today: CalendarDate,
  limit: number,
): Promise<{ invoiceId: string; offset: number }[]> =>
  many(
    tx,
    sql`select invoice_id as "invoiceId", days_from_due as "offset" from reminders
        where business_id = ${tx.businessId} and state = 'waiting' and remind_on <= ${today}
        order by remind_on, invoice_id, days_from_due limit ${limit} for update skip locked`,
  );

/** The further waiting reminders of these invoices' customers for this day or an earlier one, locked, so that they go together. */
export const claimOthers = (
  tx: Tx,
  today: CalendarDate,
  invoiceIds: readonly string[],
): Promise<{ invoiceId: string; offset: number }[]> =>
  many(
    tx,
    sql`select invoice_id as "invoiceId", days_from_due as "offset" from reminders
        where business_id = ${tx.businessId} and state = 'waiting' and remind_on <= ${today}
          and invoice_id in (
            select other.id from invoices as mine join invoices as other
              on other.business_id = mine.business_id and other.customer_id = mine.customer_id
            where mine.business_id = ${tx.businessId} and mine.id = any(${[...invoiceIds]}))
        order by remind_on, invoice_id, days_from_due for update skip locked`,
  );

/** Notes what became of reminders. */
export const updateReminders = (
  tx: Tx,
  done: readonly { readonly invoiceId: string; readonly offset: number; readonly state: 'sent' | 'dropped' }[],
): Promise<number> =>
  run(
    tx,
    sql`update reminders set state = given.state, done_at = ${tx.now}
        from jsonb_to_recordset(${records(done)}::jsonb) as given ("invoiceId" uuid, "offset" int, state text)
        where business_id = ${tx.businessId} and invoice_id = "invoiceId" and days_from_due = "offset" and reminders.state = 'waiting'`,
  );

/** Reminders that were dropped because an invoice was paid, and whose day is still to come, wait again. */
export const reviveReminders = (tx: Tx, invoiceId: string, today: CalendarDate): Promise<number> =>
  run(
    tx,
    sql`update reminders set state = 'waiting', done_at = null
        where business_id = ${tx.businessId} and invoice_id = ${invoiceId} and state = 'dropped' and remind_on > ${today}`,
  );

/** Nothing waits any more for invoices that are paid or cancelled. */
export const dropReminders = (tx: Tx, invoiceIds: readonly string[]): Promise<number> =>
  run(
    tx,
    sql`update reminders set state = 'dropped', done_at = ${tx.now}
        where business_id = ${tx.businessId} and invoice_id = any(${[...invoiceIds]}) and state = 'waiting'`,
  );
