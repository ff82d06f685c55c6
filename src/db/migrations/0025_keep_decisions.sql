-- What a person decided about single dates of a plan stands beside its schedule; a plan that is cancelled for the end of the period that is
-- paid for ends on that day; its cards are its own, in an order.
alter table plans
  add column decisions jsonb not null default '{}',
  add column ends_on date,
  add column card_ids uuid[] not null default '{}';
create index plans_ending on plans (ends_on) where ends_on is not null;

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
    select distinct p.business_id, 'lapses' from plans p join businesses b using (business_id)
      where p.ends_on <= (select day from latest) and p.ends_on <= (at at time zone b.zone)::date
    union all
    select d.business_id, d.concern from daily_looks d where d.due_at <= at
    union all
    -- A day is closed a quarter of an hour after midnight, when its last payments are written down.
    select b.business_id, 'closing' from businesses b
      where (b.batches_closed_to is null or b.batches_closed_to < (select day from latest) - 1)
        and (b.batches_closed_to is null
          or b.batches_closed_to < ((at - interval '15 minutes') at time zone b.zone)::date - 1)
  $$;

alter table messages drop constraint messages_kind_known;
alter table messages add constraint messages_kind_known check (kind in (
  'invoice', 'receipt', 'payment-notice', 'reminder', 'changed', 'cancelled', 'credit-note', 'question', 'answer',
  'trial', 'statement', 'notice', 'request', 'order-notice', 'refund', 'gift-letter', 'plan-link', 'plan-reminder',
  'charge-notice', 'charge-refused', 'card-asked', 'own-page', 'plan-ended', 'part-due', 'settings-changed', 'plan-ending', 'plan-over'));
