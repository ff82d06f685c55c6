-- Gift vouchers: bought through offers, owed until they are used, and paid with like money.
-- Good for three years, and on to the end of the last: what most laws that limit it ask for at least.
alter table businesses add column voucher_rule jsonb not null default '{"months": 36, "toYearEnd": true}';

create table vouchers (
  id uuid not null,
  business_id uuid not null references businesses,
  code text not null constraint vouchers_code_whole check (code ~ '^[2-9A-Z]{16}$'),
  order_id uuid not null,
  payment_id uuid not null,
  currency text not null,
  value_minor bigint not null check (value_minor > 0),
  -- What is left of it; what open attempts hold of that stands on their payments.
  balance_minor bigint not null check (balance_minor >= 0),
  blocked boolean not null default false,
  sold_at timestamptz not null,
  expires_on date,
  locale text not null,
  title text not null,
  to_name text not null default '',
  to_email text not null default '',
  from_name text not null default '',
  message text not null default '',
  send_on date,
  sent_at timestamptz,
  primary key (business_id, id),
  foreign key (business_id, order_id) references orders (business_id, id),
  foreign key (business_id, payment_id) references payments (business_id, id)
);
create unique index vouchers_code_unique on vouchers (business_id, code);
create index vouchers_of_order on vouchers (business_id, order_id);
create index vouchers_of_payment on vouchers (business_id, payment_id);
create index vouchers_by_time on vouchers (business_id, sold_at, id);
create index vouchers_to_send on vouchers (send_on) where sent_at is null;
create index vouchers_to_expire on vouchers (expires_on) where balance_minor > 0;
select protect_table('vouchers', 'select, insert, update');

-- All that moved on a voucher; its balance is their sum.
create table voucher_moves (
  id uuid not null,
  business_id uuid not null references businesses,
  voucher_id uuid not null,
  kind text not null constraint voucher_moves_kind_known
    check (kind in ('sold', 'used', 'given-back', 'refunded', 'not-refunded', 'expired', 'extended')),
  minor bigint not null,
  payment_id uuid,
  refund_id uuid,
  at timestamptz not null,
  by_name text not null,
  primary key (business_id, id),
  foreign key (business_id, voucher_id) references vouchers (business_id, id),
  foreign key (business_id, payment_id) references payments (business_id, id),
  foreign key (business_id, refund_id) references refunds (business_id, id)
);
create index voucher_moves_of on voucher_moves (business_id, voucher_id, at, id);
create index voucher_moves_of_refund on voucher_moves (business_id, refund_id) where refund_id is not null;
create index voucher_moves_of_payment on voucher_moves (business_id, payment_id) where payment_id is not null;
select protect_table('voucher_moves', 'select, insert');

alter table payments
  drop constraint payments_method_known,
  add constraint payments_method_known check (method in ('card', 'debit', 'transfer', 'cash', 'cheque', 'other', 'account', 'voucher')),
  add column voucher_id uuid,
  -- The card payment of the same order that it goes along with: both go through, or neither.
  add column beside_id uuid,
  add constraint payments_voucher_id_fkey foreign key (business_id, voucher_id) references vouchers (business_id, id),
  add constraint payments_beside_id_fkey foreign key (business_id, beside_id) references payments (business_id, id),
  add constraint payments_voucher_named check ((method = 'voucher') = (voucher_id is not null));
drop index payments_one_pending_order;
create unique index payments_one_pending_order on payments (business_id, order_id)
  where state = 'pending' and order_id is not null and beside_id is null;
create index payments_beside on payments (business_id, beside_id) where beside_id is not null;
create index payments_of_voucher on payments (business_id, voucher_id) where voucher_id is not null;
alter table refunds
  drop constraint refunds_method_known,
  add constraint refunds_method_known check (method in ('card', 'debit', 'transfer', 'cash', 'cheque', 'other', 'account', 'voucher'));

alter table ledger_postings drop constraint ledger_postings_account_known;
alter table ledger_postings add constraint ledger_postings_account_known check (account in ('receivable', 'revenue', 'tax-payable',
  'processor-clearing', 'processing-fees', 'tips', 'partner-shares', 'partners', 'bank', 'cash', 'cheques', 'other-receipts', 'customer-credit',
  'on-the-way', 'bank-charges', 'outside', 'disputed', 'dispute-losses', 'dispute-fees', 'vouchers', 'expired-vouchers'));
alter table log_entries drop constraint log_entries_kind_known;
alter table log_entries add constraint log_entries_kind_known
  check (kind in ('profile', 'taxes', 'charging', 'tariff', 'partner', 'payouts', 'bank-account', 'vouchers', 'signed-in', 'sign-in-failed',
    'signed-out', 'password'));
alter table messages drop constraint messages_kind_known;
alter table messages add constraint messages_kind_known check (kind in (
  'invoice', 'receipt', 'payment-notice', 'reminder', 'changed', 'cancelled', 'credit-note', 'question', 'answer',
  'trial', 'statement', 'notice', 'request', 'order-notice', 'refund', 'gift-letter', 'plan-link', 'plan-reminder',
  'charge-notice', 'charge-refused', 'card-asked', 'own-page', 'plan-ended', 'part-due', 'settings-changed', 'plan-ending', 'plan-over',
  'plan-changed', 'plan-proposed', 'receipt-taken-back', 'approval-asked', 'payout-returned', 'partner-statement', 'partner-page', 'dispute',
  'debit-returned', 'voucher'));

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
    union all
    -- Vouchers go out on the day that was chosen, and are over after their last one.
    select distinct v.business_id, 'vouchers' from vouchers v join businesses b using (business_id)
      where v.sent_at is null and v.send_on <= (select day from latest) and v.send_on <= (at at time zone b.zone)::date
    union
    select distinct v.business_id, 'vouchers' from vouchers v join businesses b using (business_id)
      where v.balance_minor > 0 and v.expires_on < (select day from latest) and v.expires_on < (at at time zone b.zone)::date
  $$;
