-- What comes after a parcel went wrong: what is asked of the carrier, and what became of the goods.

alter table parcels
  -- What was done about one that needed a look; empty while nothing was.
  add column settled text not null default '' constraint parcels_settled_known
    check (settled in ('', 'sent-again', 'taken-back', 'left')),
  add column settled_at timestamptz;

-- What the carrier is to pay for a parcel. Under a key of its own at the carrier: asked once, however often it is sent.
create table parcel_claims (
  business_id uuid not null references businesses,
  parcel_id uuid not null,
  key text not null,
  -- How often it was asked: each try has its own key.
  tries smallint not null default 1,
  why text not null constraint parcel_claims_why_known check (why in ('lost', 'damaged', 'late')),
  state text not null constraint parcel_claims_state_known check (state in ('asked', 'open', 'paid', 'refused')),
  currency text not null,
  asked_minor bigint not null constraint parcel_claims_asked_positive check (asked_minor > 0),
  paid_minor bigint constraint parcel_claims_paid_not_negative check (paid_minor >= 0),
  -- What the carrier says of it.
  words text not null default '',
  by_name text not null,
  made_at timestamptz not null,
  answered_at timestamptz,
  look_at timestamptz,
  primary key (business_id, parcel_id),
  constraint parcel_claims_once unique (business_id, key),
  foreign key (business_id, parcel_id) references parcels (business_id, id)
);
create index parcel_claims_due on parcel_claims (look_at) where look_at is not null;
select protect_table('parcel_claims', 'select, insert, update');

alter table carrier_moves drop constraint carrier_moves_kind_known;
alter table carrier_moves add constraint carrier_moves_kind_known check (kind in ('top-up', 'label', 'void', 'claim'));
alter table ledger_postings drop constraint ledger_postings_account_known;
alter table ledger_postings add constraint ledger_postings_account_known check (account in ('receivable', 'revenue', 'tax-payable',
  'processor-clearing', 'processing-fees', 'tips', 'partner-shares', 'partners', 'bank', 'cash', 'cheques', 'other-receipts', 'customer-credit',
  'on-the-way', 'bank-charges', 'outside', 'disputed', 'dispute-losses', 'dispute-fees', 'vouchers', 'expired-vouchers', 'brought-in',
  'carrier-balance', 'postage', 'carrier-claims'));

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
    union all
    -- Parcels: what the carrier is asked about next, and notices whose hour has come.
    select distinct p.business_id, 'parcels' from parcels p where p.act_at <= work_due.at
    union
    select distinct c.business_id, 'parcels' from parcel_claims c where c.look_at <= work_due.at
  $$;
