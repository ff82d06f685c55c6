-- Customers, taxes, invoices and the numbers given to them.

create table customers (
  id uuid primary key,
  business_id uuid not null references businesses,
  name text not null constraint customers_name_given check (name <> ''),
  email text not null default '',
  phone text not null default '',
  address text[] not null default '{}',
  created_at timestamptz not null
);
create index customers_by_name on customers (business_id, lower(name), id);
create index customers_found on customers using gin ((lower(name || ' ' || email)) gin_trgm_ops);
select protect_table('customers', 'select, insert, update');

create table taxes (
  id uuid primary key,
  business_id uuid not null references businesses,
  name text not null,
  rate numeric(7, 4) not null constraint taxes_rate_in_range check (rate between 0 and 100),
  on_delivery boolean not null default false,
  position integer not null
);
create index taxes_in_order on taxes (business_id, position);
select protect_table('taxes', 'select, insert, update');

-- One row a series; locked while a number is taken, so that numbers have no gaps.
create table counters (
  business_id uuid not null references businesses,
  series text not null,
  next_number bigint not null constraint counters_positive check (next_number > 0),
  primary key (business_id, series)
);
select protect_table('counters', 'select, insert, update');

create table invoices (
  id uuid primary key,
  business_id uuid not null references businesses,
  stage text not null default 'draft' constraint invoices_stage_known check (stage in ('draft', 'sent', 'cancelled')),
  number text,
  customer_id uuid references customers,
  currency text not null,
  paper jsonb not null,
  revision integer not null default 0,
  printed jsonb,
  link_token text not null,
  issued_on date,
  due_on date,
  total_minor bigint not null default 0,
  tax_minor bigint not null default 0,
  paid_minor bigint not null default 0,
  refunded_minor bigint not null default 0,
  credited_minor bigint not null default 0,
  due_minor bigint not null generated always as (greatest(total_minor - credited_minor - paid_minor + refunded_minor, 0)) stored,
  sent_at timestamptz,
  seen_at timestamptz,
  settled_at timestamptz,
  created_at timestamptz not null,
  changed_at timestamptz not null,
  constraint invoices_sent_whole check (
    stage = 'draft' or (number is not null and printed is not null and customer_id is not null
      and issued_on is not null and due_on is not null and sent_at is not null)),
  constraint invoices_never_overpaid check (paid_minor - refunded_minor <= total_minor - credited_minor),
  constraint invoices_amounts_not_negative check (total_minor >= 0 and tax_minor >= 0 and paid_minor >= 0 and refunded_minor >= 0 and credited_minor >= 0)
);
create unique index invoices_number_unique on invoices (business_id, number);
create unique index invoices_link_unique on invoices (link_token);
create index invoices_open on invoices (business_id, due_on, id) where stage = 'sent' and due_minor > 0;
create index invoices_drafts on invoices (business_id, changed_at, id) where stage = 'draft';
create index invoices_settled on invoices (business_id, settled_at, id) where stage = 'sent' and due_minor = 0;
create index invoices_of_customer on invoices (business_id, customer_id, id);
select protect_table('invoices', 'select, insert, update, delete');

-- The customer's link carries no business: this door turns an unguessable token into the one invoice it opens.
create function link_holder(token text)
  returns table (business_id uuid, invoice_id uuid)
  language sql stable security definer set search_path = public, pg_temp
  as $$ select invoices.business_id, invoices.id from invoices where link_token = token and stage <> 'draft' $$;

-- Who did what, when: never changed, only added to.
create table timeline (
  id bigint generated always as identity primary key,
  business_id uuid not null references businesses,
  invoice_id uuid not null references invoices on delete cascade,
  at timestamptz not null,
  kind text not null,
  by_name text not null,
  details jsonb not null default '{}'
);
create index timeline_of_invoice on timeline (business_id, invoice_id, at, id);
select protect_table('timeline', 'select, insert');

-- Files as they went out: an invoice's or a receipt's PDF, never made twice differently.
create table documents (
  business_id uuid not null references businesses,
  kind text not null constraint documents_kind_known check (kind in ('invoice', 'receipt')),
  subject_id uuid not null,
  sha256 text not null,
  bytes bytea not null,
  made_at timestamptz not null,
  primary key (business_id, kind, subject_id)
);
select protect_table('documents', 'select, insert');

-- What is due, by day: kept by the writing transaction, so that screens never sum a million rows.
create table due_by_day (
  business_id uuid not null references businesses,
  currency text not null,
  due_on date not null,
  invoices integer not null,
  due_minor bigint not null,
  primary key (business_id, currency, due_on)
);
select protect_table('due_by_day', 'select, insert, update');
