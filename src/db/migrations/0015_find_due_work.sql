-- What has come due is found by an index over all businesses, so that those with nothing due cost nothing.

create index charges_due on charges (act_at, business_id) where act_at is not null;
create index reminders_due on reminders (remind_on, business_id) where state = 'waiting';
create index businesses_closing on businesses (batches_closed_to, business_id);
drop index plans_waiting;
create index plans_lapsing on plans (lapses_on, business_id, id) where state = 'waiting';

alter table plans
  -- When whoever has the link and does not follow it is reminded.
  add column remind_at timestamptz;
update plans set remind_at = sent_at + make_interval(days => coalesce((charging->>'remindDays')::int, 5))
  from businesses where businesses.business_id = plans.business_id and plans.state = 'waiting' and sent_at is not null;
create index plans_to_remind on plans (remind_at, business_id, id) where state = 'waiting' and reminded_at is null;

alter table charges
  -- The day from which the customer is told of it; null where the plan tells nobody.
  add column notice_on date;
update charges set notice_on = charged_on - (plans.terms->>'noticeDays')::int
  from plans where plans.business_id = charges.business_id and plans.id = charges.plan_id and charges.state = 'upcoming'
    and charges.noticed_at is null and plans.terms->>'noticeDays' is not null;
drop index charges_to_notice;
create index charges_to_notice on charges (notice_on, business_id, id)
  where state = 'upcoming' and noticed_at is null and notice_on is not null;

-- What is looked at once a day: parts of balances that are not paid, cards that expire.
create table daily_looks (
  business_id uuid not null references businesses,
  concern text not null constraint daily_looks_concern_known check (concern in ('parts', 'cards')),
  due_at timestamptz not null,
  primary key (business_id, concern)
);
create index daily_looks_due on daily_looks (due_at, business_id);
select protect_table('daily_looks', 'select, insert, update');
insert into daily_looks (business_id, concern, due_at)
  select distinct business_id, case when pay = 'card' then 'cards' else 'parts' end, now() from plans
  where state = 'active' and (pay = 'card' or invoice_id is not null);

drop function businesses_with_work(timestamptz);
drop function businesses_to_close(timestamptz);
create function work_due(at timestamptz) returns table (business_id uuid, concern text)
  language sql stable security definer set search_path = public, pg_temp
  as $$
    -- Somewhere it is a day later than in UTC for fourteen hours: the index gives those, then each business's own day counts.
    with latest as (select (at at time zone 'UTC' + interval '14 hours')::date as day)
    select distinct i.business_id, 'timed-sending' from invoices i where i.stage = 'draft' and i.send_at <= at
    union all
    select distinct r.business_id, 'recurring' from repeats r join businesses b using (business_id)
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
revoke all on function work_due(timestamptz) from public;
grant execute on function work_due(timestamptz) to dahlia_app;
