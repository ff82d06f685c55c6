-- What happens to an invoice from sending on: dates to send on, reminders, part payments, changes, credits, questions.

-- By what an invoice is found and sorted beside its customer.
alter table invoices
  add column version integer not null default 1,
  add column send_at timestamptz,
  add column send_with jsonb,
  add column send_by uuid references people,
  add column cancelled_at timestamptz,
  add column terms_accepted jsonb,
  add column origin text not null default 'desk' constraint invoices_origin_known check (origin in ('desk', 'repeat', 'batch')),
  -- Where an invoice stands without regard to today; overdue is derived.
  add column standing text not null generated always as (
    case
      when stage = 'draft' then 'draft'
      when stage = 'cancelled' then 'cancelled'
      when total_minor - credited_minor - paid_minor + refunded_minor <= 0 then 'paid'
      when paid_minor - refunded_minor + credited_minor > 0 then 'part'
      when seen_at is not null then 'seen'
      else 'sent'
    end) stored;
create index invoices_to_send on invoices (send_at) where stage = 'draft' and send_at is not null;
create index invoices_by_due on invoices (business_id, due_on, id) where stage <> 'draft';
create index invoices_by_issue on invoices (business_id, issued_on, id) where stage <> 'draft';
create index invoices_by_total on invoices (business_id, total_minor, id) where stage <> 'draft';
create index invoices_standing_by_due on invoices (business_id, standing, due_on, id);
create index invoices_by_reference on invoices using gin (lower(reference || ' ' || title) gin_trgm_ops) where reference || title <> '';
create index invoices_by_number on invoices (business_id, lower(number) text_pattern_ops) where number is not null;

-- Sums and counts that the list shows, kept by the writing transaction; drafts are few and counted when asked.
create table invoice_sums (
  business_id uuid not null references businesses,
  currency text not null,
  standing text not null,
  -- The due date of what is open; paid and cancelled ones share one row.
  due_on date not null,
  invoices integer not null,
  total_minor bigint not null,
  due_minor bigint not null,
  primary key (business_id, currency, standing, due_on)
);
select protect_table('invoice_sums', 'select, insert, update');
insert into invoice_sums
  select business_id, currency, standing, case when standing in ('paid', 'cancelled') then '-infinity' else due_on end,
    count(*), sum(total_minor), sum(due_minor)
  from invoices where stage <> 'draft' group by 1, 2, 3, 4;
drop table due_by_day;

create function add_to_invoice_sums(one invoices, sign integer) returns void language sql as $$
  insert into invoice_sums as kept (business_id, currency, standing, due_on, invoices, total_minor, due_minor)
  select one.business_id, one.currency, one.standing,
    case when one.standing in ('paid', 'cancelled') then '-infinity'::date else one.due_on end,
    sign, sign * one.total_minor, sign * one.due_minor
  on conflict (business_id, currency, standing, due_on) do update
  set invoices = kept.invoices + excluded.invoices, total_minor = kept.total_minor + excluded.total_minor,
    due_minor = kept.due_minor + excluded.due_minor
$$;
create function keep_invoice_sums() returns trigger language plpgsql as $$
begin
  if tg_op <> 'INSERT' and old.stage <> 'draft' then perform add_to_invoice_sums(old, -1); end if;
  if tg_op <> 'DELETE' and new.stage <> 'draft' then perform add_to_invoice_sums(new, 1); end if;
  return null;
end $$;
create trigger invoices_sums_added after insert or delete on invoices for each row execute function keep_invoice_sums();
create trigger invoices_sums_changed after update on invoices for each row
  when (old.stage <> new.stage or old.currency <> new.currency or old.total_minor <> new.total_minor
    or old.paid_minor <> new.paid_minor or old.refunded_minor <> new.refunded_minor or old.credited_minor <> new.credited_minor
    or old.due_on is distinct from new.due_on or (old.seen_at is null) <> (new.seen_at is null))
  execute function keep_invoice_sums();

-- Finding beside the customer: row-level security would keep the planner from these indexes.
create function invoices_matching(words text, pattern text, amount_minor bigint, most integer) returns setof uuid
  language sql stable security definer set search_path = public, pg_temp
  as $$
    (select id from invoices where business_id = current_business() and number is not null and lower(number) ~>=~ words
      and lower(number) ~<~ (words || chr(1114111))
      order by lower(number) using ~<~ limit most)
    union (select id from invoices where business_id = current_business() and reference || title <> ''
      and lower(reference || ' ' || title) like pattern limit most)
    union (select id from invoices where business_id = current_business() and stage <> 'draft' and total_minor = amount_minor limit most)
  $$;

-- Money that came another way than by card, and tips.
alter table payments
  add column method text not null default 'card' constraint payments_method_known check (method in ('card', 'transfer', 'cash', 'cheque', 'other')),
  add column reference text not null default '',
  add column tip_minor bigint not null default 0 constraint payments_tip_not_negative check (tip_minor >= 0),
  -- While an exclusive attempt is open, no other can be; part payments of several people may be open together.
  add column exclusive boolean not null default true;
drop index payments_one_pending;
create unique index payments_one_pending on payments (business_id, invoice_id) where state = 'pending' and exclusive;
create index payments_pending_of_invoice on payments (business_id, invoice_id) where state = 'pending';

-- Messages of every kind and way; what a person wrote into one, and what the mail server said later.
alter table messages drop constraint messages_kind_known;
alter table messages add constraint messages_kind_known check (kind in (
  'invoice', 'receipt', 'payment-notice', 'reminder', 'changed', 'cancelled', 'credit-note', 'question', 'answer', 'trial', 'statement', 'notice'));
alter table messages drop constraint messages_state_known;
alter table messages add constraint messages_state_known check (state in ('queued', 'handed-over', 'delivered', 'failed', 'bounced'));
alter table messages
  alter column invoice_id drop not null,
  add column customer_id uuid references customers,
  add column way text not null default 'mail' constraint messages_way_known check (way in ('mail', 'text', 'chat')),
  -- Words of a person, the offset of a reminder, the period of a statement.
  add column details jsonb not null default '{}';
drop index messages_failed;
create index messages_failed on messages (business_id, created_at) where state in ('failed', 'bounced');

-- What an invoice said before it was changed.
create table invoice_versions (
  business_id uuid not null references businesses,
  invoice_id uuid not null references invoices,
  version integer not null,
  printed jsonb not null,
  ended_at timestamptz not null,
  by_name text not null,
  primary key (business_id, invoice_id, version)
);
select protect_table('invoice_versions', 'select, insert');

create table credit_notes (
  id uuid primary key,
  business_id uuid not null references businesses,
  invoice_id uuid not null references invoices,
  number text not null,
  currency text not null,
  amount_minor bigint not null constraint credit_notes_amount_positive check (amount_minor > 0),
  tax_minor bigint not null constraint credit_notes_tax_not_negative check (tax_minor >= 0),
  reason text not null,
  printed jsonb not null,
  issued_on date not null,
  created_at timestamptz not null,
  request_key text not null
);
create unique index credit_notes_number_unique on credit_notes (business_id, number);
create unique index credit_notes_request_unique on credit_notes (business_id, request_key);
create index credit_notes_of_invoice on credit_notes (business_id, invoice_id);
select protect_table('credit_notes', 'select, insert');

create table reminders (
  business_id uuid not null references businesses,
  invoice_id uuid not null references invoices,
  days_from_due integer not null,
  remind_on date not null,
  state text not null default 'waiting' constraint reminders_state_known check (state in ('waiting', 'sent', 'dropped')),
  done_at timestamptz,
  primary key (business_id, invoice_id, days_from_due)
);
create index reminders_waiting on reminders (business_id, remind_on) where state = 'waiting';
select protect_table('reminders', 'select, insert, update, delete');

create table approvals (
  id uuid primary key,
  business_id uuid not null references businesses,
  invoice_id uuid not null references invoices,
  file_id uuid not null references files,
  decision text not null constraint approvals_decision_known check (decision in ('approved', 'change')),
  comment text not null,
  by_name text not null,
  sha256 text not null,
  decided_at timestamptz not null
);
create index approvals_of_invoice on approvals (business_id, invoice_id, decided_at);
select protect_table('approvals', 'select, insert');

create table questions (
  id uuid primary key,
  business_id uuid not null references businesses,
  invoice_id uuid not null references invoices,
  text text not null,
  by_name text not null,
  asked_at timestamptz not null,
  answer text,
  answered_by text,
  answered_at timestamptz
);
create index questions_of_invoice on questions (business_id, invoice_id, asked_at);
create index questions_open on questions (business_id, asked_at) where answer is null;
select protect_table('questions', 'select, insert, update');

-- Documents of the new kinds are kept as they went out, an invoice's once for each version.
alter table documents drop constraint documents_kind_known;
alter table documents add constraint documents_kind_known check (kind in ('invoice', 'receipt', 'credit-note'));
alter table documents add column version integer not null default 1;
alter table documents drop constraint documents_pkey;
alter table documents add primary key (business_id, kind, subject_id, version);

create table saved_lists (
  id uuid primary key,
  business_id uuid not null references businesses,
  name text not null,
  asked jsonb not null,
  created_at timestamptz not null
);
create unique index saved_lists_name_unique on saved_lists (business_id, lower(name));
select protect_table('saved_lists', 'select, insert, update, delete');

-- Invoices that come again by themselves.
create table repeats (
  id uuid primary key,
  business_id uuid not null references businesses,
  name text not null,
  customer_id uuid not null references customers,
  paper jsonb not null,
  schedule jsonb not null,
  makes text not null constraint repeats_makes_known check (makes in ('draft', 'send')),
  state text not null constraint repeats_state_known check (state in ('active', 'paused', 'finished')),
  -- Spans in which nothing is made; one date left out is a span of a day.
  pauses jsonb not null default '[]',
  next_nominal date,
  next_on date,
  by_id uuid not null references people,
  created_at timestamptz not null,
  changed_at timestamptz not null
);
create index repeats_due on repeats (next_on) where state = 'active' and next_on is not null;
create index repeats_of_business on repeats (business_id, state, next_on, id);
select protect_table('repeats', 'select, insert, update');

create table repeat_runs (
  business_id uuid not null references businesses,
  repeat_id uuid not null references repeats,
  nominal date not null,
  invoice_id uuid references invoices on delete set null,
  trouble text,
  ran_at timestamptz not null,
  primary key (business_id, repeat_id, nominal)
);
select protect_table('repeat_runs', 'select, insert, update');

create table batches (
  id uuid primary key,
  business_id uuid not null references businesses,
  name text not null,
  paper jsonb not null,
  send_with jsonb not null,
  state text not null constraint batches_state_known check (state in ('checked', 'sending', 'done')),
  by_id uuid not null references people,
  created_at timestamptz not null
);
create index batches_of_business on batches (business_id, created_at, id);
select protect_table('batches', 'select, insert, update');

create table batch_rows (
  business_id uuid not null references businesses,
  batch_id uuid not null references batches,
  position integer not null,
  customer_id uuid references customers,
  -- What this one says instead of the batch's paper: quantities and prices by line, texts.
  own jsonb not null default '{}',
  total_minor bigint not null default 0,
  currency text not null default '',
  state text not null constraint batch_rows_state_known check (state in ('ready', 'refused', 'sent')),
  reason text not null default '',
  invoice_id uuid references invoices,
  primary key (business_id, batch_id, position)
);
create index batch_rows_ready on batch_rows (business_id, batch_id, position) where state = 'ready';
select protect_table('batch_rows', 'select, insert, update');

-- For the worker's minute: which businesses have something waiting by this day or instant. Nothing else of them is told.
create function businesses_with_work(at timestamptz) returns table (business_id uuid, zone text)
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select business_id, zone from businesses b
    where exists (select 1 from reminders r where r.business_id = b.business_id and r.state = 'waiting'
        and r.remind_on <= (at at time zone b.zone)::date)
      or exists (select 1 from invoices i where i.stage = 'draft' and i.send_at <= at and i.business_id = b.business_id)
      or exists (select 1 from repeats r where r.state = 'active' and r.next_on <= (at at time zone b.zone)::date
        and r.business_id = b.business_id)
  $$;

drop function payer_view(text);
create function payer_view(token text)
  returns table (business_id uuid, invoice_id uuid, printed jsonb, stage text, paid_minor bigint, due_minor bigint,
    credited_minor bigint, refunded_minor bigint, total_minor bigint, smallest_minor bigint, zone text, terms_accepted jsonb,
    pending jsonb, held_minor bigint, refused jsonb, receipts jsonb, approvals jsonb)
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select i.business_id, i.id, i.printed, i.stage, i.paid_minor, i.due_minor, i.credited_minor, i.refunded_minor, i.total_minor,
      b.smallest_payment_minor, b.zone, i.terms_accepted,
      (select jsonb_build_object('id', p.id, 'approvalUrl', p.approval_url) from payments p
        where p.business_id = i.business_id and p.invoice_id = i.id and p.state = 'pending' and p.exclusive),
      coalesce((select sum(p.amount_minor) from payments p
        where p.business_id = i.business_id and p.invoice_id = i.id and p.state = 'pending'), 0)::bigint,
      (select case when last.state = 'refused' then jsonb_build_object('reason', last.reason, 'at', last.started_at) end
        from (select state, reason, started_at from payments p where p.business_id = i.business_id and p.invoice_id = i.id
          order by started_at desc, id desc limit 1) as last),
      coalesce((select jsonb_agg(jsonb_build_object('number', r.number, 'amountMinor', p.amount_minor, 'tipMinor', p.tip_minor,
          'at', p.settled_at, 'method', p.method, 'card', coalesce(p.card_scheme || ' ·' || p.card_last4, '')) order by r.issued_at, r.id)
        from receipts r join payments p on p.business_id = r.business_id and p.id = r.payment_id
        where r.business_id = i.business_id and r.invoice_id = i.id), '[]'),
      coalesce((select jsonb_agg(one) from (
          select distinct on (a.file_id) a.file_id as "fileId", a.decision, a.by_name as "byName", a.decided_at as at
          from approvals a where a.business_id = i.business_id and a.invoice_id = i.id
          order by a.file_id, a.decided_at desc) as one), '[]')
    from invoices i join businesses b on b.business_id = i.business_id
    where i.link_token = token and i.stage <> 'draft'
  $$;

-- A credit after payment leaves the customer a balance; a payment above what is due stays impossible.
alter table invoices drop constraint invoices_never_overpaid;
alter table invoices add constraint invoices_never_overpaid check (paid_minor - refunded_minor <= total_minor);
alter table invoices add constraint invoices_never_overcredited check (credited_minor <= total_minor);

-- What the mail server reports names the message only.
create function message_holder(message uuid) returns uuid
  language sql stable security definer set search_path = public, pg_temp
  as $$ select business_id from messages where id = message $$;
