-- Card payments, receipts, messages, and the ledger in which every movement is posted twice.

create table payments (
  id uuid primary key,
  business_id uuid not null references businesses,
  invoice_id uuid not null references invoices,
  customer_id uuid not null references customers,
  channel text not null constraint payments_channel_known check (channel in ('invoice', 'link', 'page', 'button', 'plan', 'desk')),
  currency text not null,
  amount_minor bigint not null constraint payments_amount_positive check (amount_minor > 0),
  fee_minor bigint not null default 0,
  state text not null constraint payments_state_known check (state in ('pending', 'paid', 'refused')),
  attempt_key text not null,
  sale_id text,
  approval_url text,
  card_scheme text,
  card_last4 text constraint payments_last4_only check (card_last4 ~ '^[0-9]{4}$'),
  reason text,
  started_at timestamptz not null,
  settled_at timestamptz
);
-- The payer's own key: the same click sent twice is one attempt.
create unique index payments_attempt_unique on payments (business_id, attempt_key);
-- Two tabs at once: while one attempt is open, no other can be.
create unique index payments_one_pending on payments (business_id, invoice_id) where state = 'pending';
create index payments_paid on payments (business_id, settled_at, id) where state = 'paid';
create index payments_by_time on payments (business_id, started_at, id);
create index payments_of_invoice on payments (business_id, invoice_id, started_at);
select protect_table('payments', 'select, insert, update');

create table receipts (
  id uuid primary key,
  business_id uuid not null references businesses,
  number text not null,
  payment_id uuid not null references payments,
  invoice_id uuid not null references invoices,
  printed jsonb not null,
  issued_at timestamptz not null
);
create unique index receipts_number_unique on receipts (business_id, number);
create unique index receipts_one_a_payment on receipts (business_id, payment_id);
create index receipts_of_invoice on receipts (business_id, invoice_id);
select protect_table('receipts', 'select, insert');

create table messages (
  id uuid primary key,
  business_id uuid not null references businesses,
  kind text not null constraint messages_kind_known check (kind in ('invoice', 'receipt', 'payment-notice')),
  message_key text not null,
  invoice_id uuid not null references invoices,
  payment_id uuid references payments,
  to_name text not null,
  to_address text not null,
  state text not null constraint messages_state_known check (state in ('queued', 'handed-over', 'failed')),
  trouble text,
  created_at timestamptz not null,
  handed_over_at timestamptz
);
create unique index messages_key_unique on messages (business_id, message_key);
create index messages_of_invoice on messages (business_id, invoice_id, created_at);
create index messages_failed on messages (business_id, created_at) where state = 'failed';
select protect_table('messages', 'select, insert, update');

create table received_by_day (
  business_id uuid not null references businesses,
  currency text not null,
  received_on date not null,
  payments integer not null,
  amount_minor bigint not null,
  primary key (business_id, currency, received_on)
);
select protect_table('received_by_day', 'select, insert, update');

create table ledger_entries (
  id uuid primary key,
  business_id uuid not null references businesses,
  booked_on date not null,
  words text not null,
  cause text not null,
  invoice_id uuid references invoices,
  payment_id uuid references payments,
  booked_at timestamptz not null
);
-- One cause, one entry: booking the same thing again is refused by the database itself.
create unique index ledger_entries_cause_unique on ledger_entries (business_id, cause);
create index ledger_entries_of_invoice on ledger_entries (business_id, invoice_id);
select protect_table('ledger_entries', 'select, insert');

create table ledger_postings (
  business_id uuid not null references businesses,
  entry_id uuid not null references ledger_entries,
  position smallint not null,
  account text not null,
  currency text not null,
  amount_minor bigint not null constraint ledger_postings_amount_not_zero check (amount_minor <> 0),
  primary key (business_id, entry_id, position)
);
create index ledger_postings_of_account on ledger_postings (business_id, account, currency);
select protect_table('ledger_postings', 'select, insert');

create function refuse_unbalanced_entry() returns trigger language plpgsql as $$
begin
  if exists (
    select 1 from ledger_postings
    where business_id = new.business_id and entry_id = new.entry_id
    group by currency having sum(amount_minor) <> 0
  ) then
    raise exception 'ledger entry % does not balance', new.entry_id
      using errcode = 'check_violation', constraint = 'ledger_entries_balance';
  end if;
  return null;
end $$;
create constraint trigger ledger_postings_balance after insert on ledger_postings
  deferrable initially deferred for each row execute function refuse_unbalanced_entry();

create function refuse_empty_entry() returns trigger language plpgsql as $$
begin
  if not exists (select 1 from ledger_postings where business_id = new.business_id and entry_id = new.id) then
    raise exception 'ledger entry % has no postings', new.id
      using errcode = 'check_violation', constraint = 'ledger_entries_not_empty';
  end if;
  return null;
end $$;
create constraint trigger ledger_entries_not_empty after insert on ledger_entries
  deferrable initially deferred for each row execute function refuse_empty_entry();

-- Append-only, whoever asks: corrections are entries of their own.
create function refuse_change() returns trigger language plpgsql as $$
begin
  raise exception 'the ledger is only ever added to' using errcode = 'insufficient_privilege';
end $$;
create trigger ledger_entries_append_only before update or delete or truncate on ledger_entries
  for each statement execute function refuse_change();
create trigger ledger_postings_append_only before update or delete or truncate on ledger_postings
  for each statement execute function refuse_change();

-- All that the customer's page shows, through the unguessable link and in one round trip.
create function payer_view(token text)
  returns table (business_id uuid, invoice_id uuid, printed jsonb, stage text, paid_minor bigint, due_minor bigint,
    zone text, pending jsonb, refused jsonb, receipts jsonb)
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select i.business_id, i.id, i.printed, i.stage, i.paid_minor, i.due_minor, b.zone,
      (select jsonb_build_object('id', p.id, 'approvalUrl', p.approval_url) from payments p
        where p.business_id = i.business_id and p.invoice_id = i.id and p.state = 'pending'),
      (select case when last.state = 'refused' then jsonb_build_object('reason', last.reason, 'at', last.started_at) end
        from (select state, reason, started_at from payments p where p.business_id = i.business_id and p.invoice_id = i.id
          order by started_at desc, id desc limit 1) as last),
      coalesce((select jsonb_agg(jsonb_build_object('number', r.number, 'amountMinor', p.amount_minor, 'at', r.issued_at,
          'card', p.card_scheme || ' ·' || p.card_last4) order by r.issued_at, r.id)
        from receipts r join payments p on p.business_id = r.business_id and p.id = r.payment_id
        where r.business_id = i.business_id and r.invoice_id = i.id), '[]')
    from invoices i join businesses b on b.business_id = i.business_id
    where i.link_token = token and i.stage <> 'draft'
  $$;
