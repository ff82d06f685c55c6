-- Who stands behind a business is shown before money is paid out. Businesses that were there before are known already.

alter table businesses add column verified_at timestamptz;
update businesses set verified_at = created_at;

-- Whoever acts for the business, or holds more than a quarter of it.
create table identity_members (
  business_id uuid not null references businesses,
  id uuid not null,
  place smallint not null,
  name text not null,
  -- Empty while it is not told.
  born text not null constraint identity_members_born_is_a_day check (born ~ '^(\d{4}-\d\d-\d\d)?$'),
  country text not null,
  position text not null,
  share smallint not null constraint identity_members_share_is_percent check (share between 0 and 100),
  acts boolean not null,
  primary key (business_id, id)
);
select protect_table('identity_members', 'select, insert, update, delete');

-- Pictures of documents and faces, encrypted with a key that does not stand here.
create table identity_pictures (
  business_id uuid not null references businesses,
  member_id uuid not null,
  side text not null constraint identity_pictures_side_known check (side in ('front', 'back', 'live')),
  sealed bytea not null,
  made_at timestamptz not null,
  primary key (business_id, member_id, side),
  foreign key (business_id, member_id) references identity_members (business_id, id) on delete cascade
);
select protect_table('identity_pictures', 'select, insert, update, delete');

-- What the office was asked, one after the other; the last one counts.
create table identity_checks (
  business_id uuid not null references businesses,
  id uuid not null,
  state text not null constraint identity_checks_state_known check (state in ('checking', 'asked', 'accepted', 'refused')),
  reason text,
  sent_at timestamptz not null,
  by_name text not null,
  decided_at timestamptz,
  -- When the office is asked next, or the pictures go; null where nothing is left to do.
  act_at timestamptz,
  primary key (business_id, id)
);
create index identity_checks_due on identity_checks (act_at) where act_at is not null;
create unique index identity_checks_one_open on identity_checks (business_id) where state = 'checking';
select protect_table('identity_checks', 'select, insert, update');

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
  $$;

alter table log_entries drop constraint log_entries_kind_known;
alter table log_entries add constraint log_entries_kind_known
  check (kind in ('profile', 'taxes', 'charging', 'tariff', 'partner', 'payouts', 'bank-account', 'vouchers', 'signed-in', 'sign-in-failed',
    'signed-out', 'password', 'signed-up', 'address-confirmed', 'address-changed', 'password-asked', 'sessions-ended', 'invited',
    'invitation-withdrawn', 'joined', 'rights', 'left', 'step-added', 'step-removed', 'recovery-codes', 'recovery-used', 'step-failed',
    'steps-lost', 'steps-kept', 'address-moved', 'access-rules', 'identity', 'identity-seen'));
alter table messages drop constraint messages_kind_known;
alter table messages add constraint messages_kind_known check (kind in (
  'invoice', 'receipt', 'payment-notice', 'reminder', 'changed', 'cancelled', 'credit-note', 'question', 'answer',
  'trial', 'statement', 'notice', 'request', 'order-notice', 'refund', 'gift-letter', 'plan-link', 'plan-reminder',
  'charge-notice', 'charge-refused', 'card-asked', 'own-page', 'plan-ended', 'part-due', 'settings-changed', 'plan-ending', 'plan-over',
  'plan-changed', 'plan-proposed', 'receipt-taken-back', 'approval-asked', 'payout-returned', 'partner-statement', 'partner-page', 'dispute',
  'debit-returned', 'voucher', 'confirm-address', 'password-link', 'password-changed', 'new-sign-in', 'invitation', 'step-changed',
  'lost-steps-link', 'steps-lost', 'codes-tried', 'address-link', 'address-moved', 'identity'));
