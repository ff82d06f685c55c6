-- What the processor holds is paid out: to the business and to each partner, in each currency, to an account that was checked.
alter table ledger_postings drop constraint ledger_postings_account_known;
alter table ledger_postings add constraint ledger_postings_account_known check (account in ('receivable', 'revenue', 'tax-payable',
  'processor-clearing', 'processing-fees', 'tips', 'partner-shares', 'partners', 'bank', 'cash', 'cheques', 'other-receipts', 'customer-credit',
  'on-the-way'));

alter table businesses
  add column payouts jsonb not null default '{"when": {"kind": "weekly", "weekday": 1}, "smallest": {}}',
  add column processor_terms jsonb not null default '{"lag": 1, "reserve": null}',
  -- Up to which day it was looked at who is to be paid out; null before the first.
  add column payouts_made_to date;

-- An account of the business, or of a partner, for one currency.
create table bank_accounts (
  id uuid not null,
  business_id uuid not null references businesses,
  partner_id uuid,
  payee uuid not null generated always as (coalesce(partner_id, business_id)) stored,
  currency text not null constraint bank_accounts_currency_known check (currency ~ '^[A-Z]{3}$'),
  number text not null constraint bank_accounts_number_given check (number <> ''),
  holder text not null,
  state text not null constraint bank_accounts_state_known check (state in ('checking', 'checked', 'refused', 'left')),
  -- The two small sums that are to be typed in, in minor units.
  credits bigint[] not null,
  tries smallint not null default 0,
  reason text not null default '',
  made_at timestamptz not null,
  checked_at timestamptz,
  -- When the bank is to be asked (again) what became of the two.
  act_at timestamptz,
  primary key (business_id, id),
  constraint bank_accounts_partner_id_fkey foreign key (business_id, partner_id) references partners (business_id, id)
);
create unique index bank_accounts_one_checking on bank_accounts (business_id, payee, currency) where state = 'checking';
create unique index bank_accounts_one_checked on bank_accounts (business_id, payee, currency) where state = 'checked';
create index bank_accounts_of_partner on bank_accounts (business_id, partner_id) where partner_id is not null;
create index bank_accounts_to_act on bank_accounts (act_at, business_id) where act_at is not null;
select protect_table('bank_accounts', 'select, insert, update');

-- A number that the bank knew counts as checked for the currency of the business.
insert into bank_accounts (id, business_id, partner_id, currency, number, holder, state, credits, made_at, checked_at)
select gen_random_uuid(), partners.business_id, partners.id, currency, account, partners.name, 'checked', '{}', partners.created_at, partners.created_at
from partners join businesses using (business_id) where account <> '';
alter table partners drop column account, add column statements_to date;

create table payouts (
  id uuid not null,
  business_id uuid not null references businesses,
  partner_id uuid,
  payee uuid not null generated always as (coalesce(partner_id, business_id)) stored,
  number integer not null,
  currency text not null,
  made_on date not null,
  amount_minor bigint not null constraint payouts_amount_positive check (amount_minor > 0),
  carried_minor bigint not null,
  reserved_minor bigint not null,
  released_minor bigint not null,
  -- made: decided; sent: the bank has it; then one of arrived, returned; given-up: a partner got it by hand instead.
  state text not null constraint payouts_state_known check (state in ('made', 'sent', 'arrived', 'returned', 'given-up')),
  account_id uuid not null,
  -- Each way to an account is one transfer with a key of its own.
  attempt smallint not null default 1,
  sent_at timestamptz,
  settled_on date,
  reason text not null default '',
  act_at timestamptz,
  primary key (business_id, id),
  constraint payouts_number_unique unique (business_id, number),
  constraint payouts_account_id_fkey foreign key (business_id, account_id) references bank_accounts (business_id, id),
  constraint payouts_partner_id_fkey foreign key (business_id, partner_id) references partners (business_id, id)
);
create index payouts_by_day on payouts (business_id, made_on, number);
create index payouts_of_payee on payouts (business_id, payee, currency, made_on);
create index payouts_of_partner on payouts (business_id, partner_id) where partner_id is not null;
create index payouts_of_account on payouts (business_id, account_id);
create index payouts_to_act on payouts (act_at, business_id) where act_at is not null;
create index payouts_returned on payouts (business_id, made_on) where state = 'returned';
select protect_table('payouts', 'select, insert, update');

-- What a day brought a payee, once it was counted: in which payout it is, what of it is held back, and in which that was released.
create table payout_days (
  business_id uuid not null references businesses,
  payee uuid not null,
  currency text not null,
  day date not null,
  net_minor bigint not null,
  payout_id uuid,
  held_minor bigint not null default 0 constraint payout_days_held_in_bounds check (held_minor >= 0),
  held_until date,
  released_on date,
  release_payout_id uuid,
  primary key (business_id, payee, currency, day),
  constraint payout_days_payout_id_fkey foreign key (business_id, payout_id) references payouts (business_id, id),
  constraint payout_days_release_payout_id_fkey foreign key (business_id, release_payout_id) references payouts (business_id, id)
);
create index payout_days_of_payout on payout_days (business_id, payout_id) where payout_id is not null;
create index payout_days_released_in on payout_days (business_id, release_payout_id) where release_payout_id is not null;
create index payout_days_not_paid on payout_days (business_id, payee, currency) where payout_id is null;
create index payout_days_held on payout_days (business_id, payee, currency) where held_minor > 0 and release_payout_id is null;
select protect_table('payout_days', 'select, insert, update');

-- What partners were given and what was taken back, each on the day on which it was booked: `by-hand` is what the business paid them
-- itself, `came-back` a payout that was given up for it.
create table partner_movements (
  business_id uuid not null references businesses,
  id uuid not null,
  partner_id uuid not null,
  payment_id uuid,
  payout_id uuid,
  kind text not null constraint partner_movements_kind_known check (kind in ('share', 'reversal', 'by-hand', 'came-back')),
  currency text not null,
  minor bigint not null,
  at timestamptz not null,
  primary key (business_id, id),
  constraint partner_movements_partner_id_fkey foreign key (business_id, partner_id) references partners (business_id, id),
  constraint partner_movements_payment_id_fkey foreign key (business_id, payment_id) references payments (business_id, id),
  constraint partner_movements_payout_id_fkey foreign key (business_id, payout_id) references payouts (business_id, id)
);
create index partner_movements_by_time on partner_movements (business_id, at, id);
create index partner_movements_of_partner on partner_movements (business_id, partner_id, at, id);
create index partner_movements_of_payment on partner_movements (business_id, payment_id) where payment_id is not null;
create index partner_movements_of_payout on partner_movements (business_id, payout_id) where payout_id is not null;
select protect_table('partner_movements', 'select, insert');

insert into partner_movements (business_id, id, partner_id, payment_id, kind, currency, minor, at)
select s.business_id, gen_random_uuid(), s.partner_id, s.payment_id, 'share', p.currency, s.share_minor - s.fee_minor, p.at
from payment_shares s join payments p on p.business_id = s.business_id and p.id = s.payment_id;
-- What was taken back so far, on the day of the latest refund; a void gave the fee back too.
insert into partner_movements (business_id, id, partner_id, payment_id, kind, currency, minor, at)
select s.business_id, gen_random_uuid(), s.partner_id, s.payment_id, 'reversal', p.currency,
  case when p.state = 'voided' then s.fee_minor else 0 end - s.reversed_minor,
  coalesce((select max(r.at) from refunds r where r.business_id = p.business_id and r.payment_id = p.id and r.state = 'done'), p.at)
from payment_shares s join payments p on p.business_id = s.business_id and p.id = s.payment_id
where s.reversed_minor > 0 or p.state = 'voided';

alter table log_entries drop constraint log_entries_kind_known;
alter table log_entries add constraint log_entries_kind_known
  check (kind in ('profile', 'taxes', 'charging', 'tariff', 'partner', 'payouts', 'bank-account', 'signed-in', 'sign-in-failed', 'signed-out', 'password'));

alter table messages drop constraint messages_kind_known;
alter table messages add constraint messages_kind_known check (kind in (
  'invoice', 'receipt', 'payment-notice', 'reminder', 'changed', 'cancelled', 'credit-note', 'question', 'answer',
  'trial', 'statement', 'notice', 'request', 'order-notice', 'refund', 'gift-letter', 'plan-link', 'plan-reminder',
  'charge-notice', 'charge-refused', 'card-asked', 'own-page', 'plan-ended', 'part-due', 'settings-changed', 'plan-ending', 'plan-over',
  'plan-changed', 'plan-proposed', 'receipt-taken-back', 'approval-asked', 'payout-returned', 'partner-statement', 'partner-page'));

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
  $$;
