-- What is somebody's own: how they write days and numbers, of what they want to hear, by mail or in the browser, and when not.

alter table people
  add column day_way text constraint people_day_way_known check (day_way in ('dmy', 'dots', 'mdy', 'iso')),
  add column number_way text constraint people_number_way_known check (number_way in ('point', 'comma', 'space', 'quote', 'lakh')),
  -- Kind of notice to the ways in which they want it.
  add column notices jsonb not null default '{}',
  -- No mail and no sign in the browser between these, in the business's zone; alike: always.
  add column quiet_from time not null default '00:00',
  add column quiet_to time not null default '00:00';

-- One thing of which one person hears. Its words are the timeline's: what is blanked there is blanked here.
create table news (
  business_id uuid not null references businesses,
  id bigint generated always as identity,
  person_id uuid not null,
  line_id bigint not null,
  at timestamptz not null,
  -- From when on it goes by mail, together with what waits by then; null where it does not (any more).
  mail_at timestamptz,
  in_browser boolean not null,
  -- The mail with which it went.
  message_id uuid,
  seen_at timestamptz,
  primary key (business_id, id),
  constraint news_once unique (business_id, person_id, line_id),
  foreign key (business_id, person_id) references people (business_id, id),
  foreign key (business_id, line_id) references timeline (business_id, id) on delete cascade
);
create index news_to_mail on news (mail_at, business_id) where mail_at is not null;
create index news_of_line on news (business_id, line_id);
create index news_by_time on news (business_id, at);
select protect_table('news', 'select, insert, update, delete');

drop function session_holder(text, bytea, timestamptz, interval);
create function session_holder(begins text, hash bytea, at timestamptz, idle interval)
  returns table (person_id uuid, business_id uuid, name text, role text, extra text[], unused_seconds float8, proved_seconds float8,
    lacks_step boolean, closed boolean, day_way text, number_way text)
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select people.id, people.business_id, people.name, people.role, people.extra, extract(epoch from now() - sessions.used_at)::float8,
      extract(epoch from now() - sessions.proved_at)::float8, businesses.step_required and not has_step(lower(people.email)),
      businesses.closed_at is not null, people.day_way, people.number_way
    from sessions
    join people on people.business_id = sessions.business_id and people.id = sessions.person_id
    join businesses on businesses.business_id = sessions.business_id
    where sessions.business_id = coalesce(business_of(encode(hash, 'hex')), business_of(begins))
      and sessions.token_hash = hash and sessions.expires_at > at and sessions.used_at > now() - idle and people.left_at is null
  $$;
revoke all on function session_holder(text, bytea, timestamptz, interval) from public;
grant execute on function session_holder(text, bytea, timestamptz, interval) to dahlia_app;

-- One way of writing at all desks of a person.
create function set_writing_elsewhere(person uuid, days text, numbers text) returns void
  language sql security definer set search_path = public, pg_temp
  as $$
    update people set day_way = days, number_way = numbers from other_desks(person) other
      where people.business_id = other.business_id and people.id = other.person_id
  $$;
revoke all on function set_writing_elsewhere(uuid, text, text) from public;
grant execute on function set_writing_elsewhere(uuid, text, text) to dahlia_app;

alter table messages drop constraint messages_kind_known;
alter table messages add constraint messages_kind_known check (kind in (
  'invoice', 'receipt', 'payment-notice', 'reminder', 'changed', 'cancelled', 'credit-note', 'question', 'answer',
  'trial', 'statement', 'notice', 'request', 'order-notice', 'refund', 'gift-letter', 'plan-link', 'plan-reminder',
  'charge-notice', 'charge-refused', 'card-asked', 'own-page', 'plan-ended', 'part-due', 'settings-changed', 'plan-ending', 'plan-over',
  'plan-changed', 'plan-proposed', 'receipt-taken-back', 'approval-asked', 'payout-returned', 'partner-statement', 'partner-page', 'dispute',
  'debit-returned', 'voucher', 'confirm-address', 'password-link', 'password-changed', 'new-sign-in', 'invitation', 'step-changed',
  'lost-steps-link', 'steps-lost', 'codes-tried', 'address-link', 'address-moved', 'identity', 'hook-failing', 'business-closed',
  'own-news'));

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
    union all
    -- Who is to be paid out is looked at once a day, when the day before is closed; and what the bank was asked for, until it answers.
    select b.business_id, 'payouts' from businesses b
      where (b.payouts_made_to is null or b.payouts_made_to < (select day from latest))
        and b.batches_closed_to >= (at at time zone b.zone)::date - 1
        and (b.payouts_made_to is null or b.payouts_made_to < (at at time zone b.zone)::date)
    union
    select p.business_id, 'payouts' from payouts p where p.act_at <= at
    union
    select a.business_id, 'payouts' from bank_accounts a where a.act_at <= at
    union
    -- Who stands behind a business is asked for until it is decided; pictures go after their time.
    select c.business_id, 'payouts' from identity_checks c where c.act_at <= at
    union all
    -- Vouchers go out on the day that was chosen, and are over after their last one.
    select distinct v.business_id, 'vouchers' from vouchers v join businesses b using (business_id)
      where v.sent_at is null and v.send_on <= (select day from latest) and v.send_on <= (at at time zone b.zone)::date
    union
    select distinct v.business_id, 'vouchers' from vouchers v join businesses b using (business_id)
      where v.balance_minor > 0 and v.expires_on < (select day from latest) and v.expires_on < (at at time zone b.zone)::date
    union all
    select distinct n.business_id, 'news' from news n where n.mail_at <= work_due.at
  $$;
