import type { CalendarDate } from '@/core/dates/calendar-date';
import type { ReminderDay } from '@/core/invoice/reminders';
import type { Db, Tx } from './pool';
import { many, run, sql } from './sql';

export type Reminder = ReminderDay & { readonly state: 'waiting' | 'sent' | 'dropped'; readonly doneAt: Date | null };

/** Puts these waiting reminders in place of the ones that still wait; what was sent or dropped stays. */
export async function replaceReminders(
  tx: Tx,
  businessId: string,
  invoiceId: string,
  days: readonly ReminderDay[],
): Promise<void> {
  await run(
    tx,
    sql`delete from reminders where business_id = ${businessId} and invoice_id = ${invoiceId} and state = 'waiting'`,
  );
  if (days.length === 0) return;
  await run(
    tx,
    sql`insert into reminders (business_id, invoice_id, days_from_due, remind_on)
        select ${businessId}, ${invoiceId}, days, on_day
        from unnest(${days.map(({ offset }) => offset)}::int[], ${days.map(({ on }) => on)}::date[]) as one (days, on_day)
        on conflict (business_id, invoice_id, days_from_due) do nothing`,
  );
}

export const remindersOf = (db: Db, businessId: string, invoiceId: string): Promise<Reminder[]> =>
  many(
    db,
    sql`select days_from_due as "offset", remind_on as "on", state, done_at as "doneAt" from reminders
        where business_id = ${businessId} and invoice_id = ${invoiceId} order by remind_on, days_from_due`,
  );

/** Invoices with a reminder waiting for this day or an earlier one, locked; others who ask at the same time get others. */
export const claimReminders = (
  tx: Tx,
  businessId: string,
  today: CalendarDate,
  limit: number,
): Promise<{ invoiceId: string; offset: number }[]> =>
  many(
    tx,
    sql`select invoice_id as "invoiceId", days_from_due as "offset" from reminders
        where business_id = ${businessId} and state = 'waiting' and remind_on <= ${today}
        order by remind_on, invoice_id, days_from_due limit ${limit} for update skip locked`,
  );

export const updateReminder = (
  tx: Tx,
  businessId: string,
  invoiceId: string,
  offset: number,
  state: 'sent' | 'dropped',
  at: Date,
): Promise<number> =>
  run(
    tx,
    sql`update reminders set state = ${state}, done_at = ${at}
        where business_id = ${businessId} and invoice_id = ${invoiceId} and days_from_due = ${offset} and state = 'waiting'`,
  );

/** Nothing waits any more for an invoice that is paid or cancelled. */
export const dropReminders = (tx: Tx, businessId: string, invoiceId: string, at: Date): Promise<number> =>
  run(
    tx,
    sql`update reminders set state = 'dropped', done_at = ${at}
        where business_id = ${businessId} and invoice_id = ${invoiceId} and state = 'waiting'`,
  );
