-- Tables and columns under the trade's words (docs/glossary.md): bulk invoices are no batch, and an invoice has a status.
alter table batches rename to bulk_invoices;
alter table batch_rows rename to bulk_rows;
alter table bulk_rows rename column batch_id to bulk_id;
alter table bulk_invoices rename constraint batches_pkey to bulk_invoices_pkey;
alter table bulk_invoices rename constraint batches_state_known to bulk_invoices_state_known;
alter table bulk_invoices rename constraint batches_business_id_fkey to bulk_invoices_business_id_fkey;
alter table bulk_invoices rename constraint batches_by_id_fkey to bulk_invoices_by_id_fkey;
alter index batches_of_business rename to bulk_invoices_of_business;
alter table bulk_rows rename constraint batch_rows_pkey to bulk_rows_pkey;
alter table bulk_rows rename constraint batch_rows_state_known to bulk_rows_state_known;
alter table bulk_rows rename constraint batch_rows_batch_id_fkey to bulk_rows_bulk_id_fkey;
alter table bulk_rows rename constraint batch_rows_business_id_fkey to bulk_rows_business_id_fkey;
alter table bulk_rows rename constraint batch_rows_customer_id_fkey to bulk_rows_customer_id_fkey;
alter table bulk_rows rename constraint batch_rows_invoice_id_fkey to bulk_rows_invoice_id_fkey;
alter index batch_rows_ready rename to bulk_rows_ready;

alter table repeats rename to recurring_invoices;
alter table repeat_runs rename to recurring_runs;
alter table recurring_runs rename column repeat_id to recurring_id;
alter table recurring_invoices rename constraint repeats_pkey to recurring_invoices_pkey;
alter table recurring_invoices rename constraint repeats_makes_known to recurring_invoices_makes_known;
alter table recurring_invoices rename constraint repeats_state_known to recurring_invoices_state_known;
alter table recurring_invoices rename constraint repeats_business_id_fkey to recurring_invoices_business_id_fkey;
alter table recurring_invoices rename constraint repeats_by_id_fkey to recurring_invoices_by_id_fkey;
alter table recurring_invoices rename constraint repeats_customer_id_fkey to recurring_invoices_customer_id_fkey;
alter index repeats_due rename to recurring_invoices_due;
alter index repeats_of_business rename to recurring_invoices_of_business;
alter table recurring_runs rename constraint repeat_runs_pkey to recurring_runs_pkey;
alter table recurring_runs rename constraint repeat_runs_business_id_fkey to recurring_runs_business_id_fkey;
alter table recurring_runs rename constraint repeat_runs_invoice_id_fkey to recurring_runs_invoice_id_fkey;
alter table recurring_runs rename constraint repeat_runs_repeat_id_fkey to recurring_runs_recurring_id_fkey;

create or replace function work_due(at timestamptz) returns table (business_id uuid, concern text)
  language sql stable security definer set search_path = public, pg_temp
  as $$
    -- Somewhere it is a day later than in UTC for fourteen hours: the index gives those, then each business's own day counts.
    with latest as (select (at at time zone 'UTC' + interval '14 hours')::date as day)
    select distinct i.business_id, 'timed-sending' from invoices i where i.stage = 'draft' and i.send_at <= at
    union all
    select distinct r.business_id, 'recurring' from recurring_invoices r join businesses b using (business_id)
      where r.state = 'active' and r.next_on <= (select day from latest) and r.next_on <= (at at time zone b.zone)::date
    union all
    select distinct r.business_id, 'reminders' from reminders r join businesses b using (business_id)
      where r.state = 'waiting' and r.remind_on <= (select day from latest) and r.remind_on <= (at at time zone b.zone)::date
    union all
    select distinct c.business_id, 'charges' from charges c where c.act_at <= at
    union all
    select distinct c.business_id, 'notices' from charges c join businesses b using (business_id)
      where c.state = 'upcoming' and c.noticed_at is null and c.notice_on <= (select day from latest)
        and c.notice_on <= (at at time zone b.zone)::date
    union all
    select distinct p.business_id, 'plan-reminders' from plans p
      where p.state = 'waiting' and p.reminded_at is null and p.remind_at <= at
    union all
    select distinct p.business_id, 'lapses' from plans p join businesses b using (business_id)
      where p.state = 'waiting' and p.lapses_on < (select day from latest) and p.lapses_on < (at at time zone b.zone)::date
    union all
    select d.business_id, d.concern from daily_looks d where d.due_at <= at
    union all
    -- A day is closed a quarter of an hour after midnight, when its last payments are written down.
    select b.business_id, 'closing' from businesses b
      where (b.batches_closed_to is null or b.batches_closed_to < (select day from latest) - 1)
        and (b.batches_closed_to is null
          or b.batches_closed_to < ((at - interval '15 minutes') at time zone b.zone)::date - 1)
  $$;

alter table invoices rename column standing to status;
alter index invoices_standing_by_due rename to invoices_status_by_due;
alter table invoice_sums rename column standing to status;

drop function invoice_sum(uuid, text, text, date, bigint, bigint, integer);
-- What one invoice adds to the sums, or takes away from them.
create function invoice_sum(business_id uuid, currency text, status text, due_on date, total_minor bigint, due_minor bigint, sign integer)
returns invoice_sums language sql immutable as $$
    select business_id, currency, status, case when status in ('paid', 'cancelled') then '-infinity'::date else due_on end,
      sign, sign * total_minor, sign * due_minor
  $$;

create or replace function keep_invoice_sums() returns trigger language plpgsql as $$
declare
  moved invoice_sums[] := '{}';
begin
  if tg_op <> 'DELETE' then
    select moved || array_agg(invoice_sum(business_id, currency, status, due_on, total_minor, due_minor, 1)) into moved
    from added where stage <> 'draft';
  end if;
  if tg_op <> 'INSERT' then
    select moved || array_agg(invoice_sum(business_id, currency, status, due_on, total_minor, due_minor, -1)) into moved
    from removed where stage <> 'draft';
  end if;
  insert into invoice_sums as kept
  select business_id, currency, status, due_on, sum(invoices), sum(total_minor), sum(due_minor)
  from unnest(moved) as one
  group by business_id, currency, status, due_on
  having sum(invoices) <> 0 or sum(total_minor) <> 0 or sum(due_minor) <> 0
  -- In the order of the key, so that no two transactions wait for each other.
  order by business_id, currency, status, due_on
  on conflict (business_id, currency, status, due_on) do update
  set invoices = kept.invoices + excluded.invoices, total_minor = kept.total_minor + excluded.total_minor,
    due_minor = kept.due_minor + excluded.due_minor;
  return null;
end $$;
