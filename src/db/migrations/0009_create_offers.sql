-- Offers placed as links, pages and buttons, what is ordered through them, and what their prices lean on.

create table offers (
  id uuid primary key,
  business_id uuid not null references businesses,
  placement text not null constraint offers_placement_known check (placement in ('link', 'page', 'button')),
  name text not null constraint offers_name_given check (name <> ''),
  -- Opaque, for everybody: it stands in links, pages and snippets, and names neither the business nor a price.
  public_id text not null,
  address text,
  state text not null default 'open' constraint offers_state_known check (state in ('open', 'paused', 'closed')),
  definition jsonb not null,
  revision integer not null default 1,
  -- A page's blocks and theme while they are edited, or what a button looks like.
  look jsonb not null default '{}',
  -- The version of a page that visitors see; null while there is none.
  published integer,
  -- Origins whose pages may show the checkout in a frame.
  sites text[] not null default '{}',
  placed_at timestamptz,
  created_at timestamptz not null,
  changed_at timestamptz not null
);
create unique index offers_public_id_unique on offers (public_id);
create unique index offers_address_unique on offers (address) where address is not null;
create index offers_by_change on offers (business_id, placement, changed_at, id);
select protect_table('offers', 'select, insert, update, delete');

-- What an offer said at each revision: a quote is held to the one it was given for.
create table offer_revisions (
  business_id uuid not null references businesses,
  offer_id uuid not null references offers on delete cascade,
  revision integer not null,
  definition jsonb not null,
  kept_at timestamptz not null,
  by_name text not null,
  primary key (business_id, offer_id, revision)
);
select protect_table('offer_revisions', 'select, insert, delete');

create table page_versions (
  business_id uuid not null references businesses,
  offer_id uuid not null references offers on delete cascade,
  version integer not null,
  look jsonb not null,
  published_at timestamptz not null,
  by_name text not null,
  primary key (business_id, offer_id, version)
);
select protect_table('page_versions', 'select, insert, delete');

-- What each offer has brought in, kept by the writing transaction.
create table offer_sums (
  business_id uuid not null references businesses,
  offer_id uuid not null references offers on delete cascade,
  currency text not null,
  orders integer not null,
  paid_minor bigint not null,
  refunded_minor bigint not null default 0,
  primary key (business_id, offer_id, currency)
);
select protect_table('offer_sums', 'select, insert, update');

create table offer_visits (
  business_id uuid not null references businesses,
  offer_id uuid not null references offers on delete cascade,
  visited_on date not null,
  visits integer not null,
  primary key (business_id, offer_id, visited_on)
);
select protect_table('offer_visits', 'select, insert, update');

create table discount_codes (
  id uuid primary key,
  business_id uuid not null references businesses,
  code text not null,
  code_key text not null,
  note text not null default '',
  percent numeric(7, 4) constraint discount_codes_percent_in_range check (percent between 0 and 100),
  amount_minor bigint constraint discount_codes_amount_positive check (amount_minor > 0),
  currency text not null,
  valid_from date,
  valid_to date,
  least_minor bigint not null default 0,
  most_uses integer constraint discount_codes_uses_positive check (most_uses > 0),
  most_each integer constraint discount_codes_each_positive check (most_each > 0),
  item_ids uuid[] not null default '{}',
  archived boolean not null default false,
  uses integer not null default 0,
  created_at timestamptz not null,
  constraint discount_codes_one_kind check (num_nonnulls(percent, amount_minor) = 1)
);
create unique index discount_codes_key_unique on discount_codes (business_id, code_key) where not archived;
create index discount_codes_by_time on discount_codes (business_id, created_at, id);
select protect_table('discount_codes', 'select, insert, update');

create table code_sums (
  business_id uuid not null references businesses,
  code_id uuid not null references discount_codes,
  currency text not null,
  uses integer not null,
  discount_minor bigint not null,
  paid_minor bigint not null,
  primary key (business_id, code_id, currency)
);
select protect_table('code_sums', 'select, insert, update');

-- A prefilled request: the same offer for one person, with some of it filled in.
create table requests (
  id uuid primary key,
  business_id uuid not null references businesses,
  offer_id uuid not null references offers,
  to_name text not null,
  to_address text not null default '',
  filled jsonb not null,
  locked boolean not null,
  way text not null constraint requests_way_known check (way in ('mail', 'text', 'chat', 'link')),
  words text not null default '',
  state text not null constraint requests_state_known check (state in ('sent', 'seen', 'paid', 'withdrawn')),
  by_name text not null,
  sent_at timestamptz not null,
  seen_at timestamptz,
  ended_at timestamptz
);
create index requests_of_offer on requests (business_id, offer_id, sent_at, id);
select protect_table('requests', 'select, insert, update');

create table orders (
  id uuid primary key,
  business_id uuid not null references businesses,
  offer_id uuid not null references offers,
  revision integer not null,
  -- Made by the payer's page: the same checkout is one order, however often it is sent.
  checkout_key uuid not null,
  -- Opens the payer's own page of this order.
  token text not null,
  reference text not null,
  state text not null constraint orders_state_known check (state in ('pending', 'paid', 'refused')),
  request_id uuid references requests,
  customer_id uuid references customers,
  payer_email text not null,
  currency text not null,
  total_minor bigint not null constraint orders_total_positive check (total_minor > 0),
  code_id uuid references discount_codes,
  definition jsonb not null,
  choice jsonb not null,
  printed jsonb not null,
  started_at timestamptz not null,
  settled_at timestamptz
);
create unique index orders_checkout_unique on orders (business_id, offer_id, checkout_key);
create unique index orders_token_unique on orders (token);
create unique index orders_reference_unique on orders (business_id, reference);
create index orders_of_offer on orders (business_id, offer_id, started_at, id);
create index orders_taken on orders (business_id, offer_id) where state in ('pending', 'paid');
create index orders_with_code on orders (business_id, code_id, lower(payer_email)) where state in ('pending', 'paid') and code_id is not null;
create index orders_of_customer on orders (business_id, customer_id, id) where customer_id is not null;
select protect_table('orders', 'select, insert, update');

-- What pays for an order instead of an invoice.
alter table payments
  alter column invoice_id drop not null,
  alter column customer_id drop not null,
  add column order_id uuid references orders,
  add column refunded_minor bigint not null default 0,
  add constraint payments_one_subject check (num_nonnulls(invoice_id, order_id) = 1),
  add constraint payments_paid_by_customer check (state <> 'paid' or customer_id is not null),
  add constraint payments_refunded_in_bounds check (refunded_minor between 0 and amount_minor + tip_minor);
alter table payments drop constraint payments_state_known;
alter table payments add constraint payments_state_known check (state in ('pending', 'paid', 'refused', 'voided'));
create unique index payments_one_pending_order on payments (business_id, order_id) where state = 'pending' and order_id is not null;
create index payments_of_order on payments (business_id, order_id, started_at) where order_id is not null;
alter table receipts
  alter column invoice_id drop not null,
  add column order_id uuid references orders,
  add constraint receipts_one_subject check (num_nonnulls(invoice_id, order_id) = 1);
alter table messages
  add column order_id uuid references orders,
  add column request_id uuid references requests;
create index messages_of_order on messages (business_id, order_id, created_at) where order_id is not null;
alter table messages drop constraint messages_kind_known;
alter table messages add constraint messages_kind_known check (kind in (
  'invoice', 'receipt', 'payment-notice', 'reminder', 'changed', 'cancelled', 'credit-note', 'question', 'answer', 'trial', 'statement', 'notice',
  'request', 'order-notice', 'refund'));
alter table ledger_entries add column order_id uuid references orders;
alter table timeline
  alter column invoice_id drop not null,
  add column order_id uuid references orders,
  add constraint timeline_one_subject check (num_nonnulls(invoice_id, order_id) = 1);
create index timeline_of_order on timeline (business_id, order_id, at, id) where order_id is not null;
alter table stock_promises
  alter column invoice_id drop not null,
  add column order_id uuid references orders;
create index stock_promises_of_order on stock_promises (business_id, order_id) where order_id is not null;

-- Money given back: written down before the processor hears of it, under a key that makes it one refund.
create table refunds (
  id uuid primary key,
  business_id uuid not null references businesses,
  payment_id uuid not null references payments,
  kind text not null constraint refunds_kind_known check (kind in ('refund', 'void')),
  amount_minor bigint not null constraint refunds_amount_positive check (amount_minor > 0),
  reason text not null,
  state text not null constraint refunds_state_known check (state in ('pending', 'done', 'refused')),
  request_key uuid not null,
  by_name text not null,
  started_at timestamptz not null,
  settled_at timestamptz
);
create unique index refunds_request_unique on refunds (business_id, request_key);
create index refunds_of_payment on refunds (business_id, payment_id, started_at);
select protect_table('refunds', 'select, insert, update');

-- Rates of exchange against the euro, as imported.
create table rates (
  business_id uuid not null references businesses,
  rated_on date not null,
  currency text not null,
  per_euro numeric(20, 10) not null constraint rates_positive check (per_euro > 0),
  source text not null,
  primary key (business_id, rated_on, currency)
);
select protect_table('rates', 'select, insert, update');

create table partners (
  id uuid primary key,
  business_id uuid not null references businesses,
  name text not null constraint partners_name_given check (name <> ''),
  email text not null default '',
  -- Their share account at the bank.
  account text not null default '',
  archived boolean not null default false,
  created_at timestamptz not null
);
create index partners_of_business on partners (business_id, lower(name), id);
select protect_table('partners', 'select, insert, update');

-- Who got what of a payment; what refunds took back of it.
create table payment_shares (
  business_id uuid not null references businesses,
  payment_id uuid not null references payments,
  position smallint not null,
  partner_id uuid not null references partners,
  share_minor bigint not null,
  fee_minor bigint not null,
  reversed_minor bigint not null default 0,
  primary key (business_id, payment_id, position)
);
create index payment_shares_of_partner on payment_shares (business_id, partner_id);
select protect_table('payment_shares', 'select, insert, update');

alter table businesses
  -- Signs what the business's own website is told when a payer comes back to it.
  add column signing_secret text not null default replace(gen_random_uuid()::text || gen_random_uuid()::text, '-', ''),
  -- Registration data, statement for donations, signature and seal on receipts.
  add column receipt_style jsonb not null default '{}';

alter table files drop constraint files_purpose_known;
alter table files add constraint files_purpose_known check (purpose in (
  'attachment', 'logo', 'picture', 'document', 'answer', 'seal'));

-- Two more doors: an offer by what stands in its address, an order by the payer's own token.
create function offer_holder(called text) returns table (business_id uuid, offer_id uuid)
  language sql stable security definer set search_path = public, pg_temp
  as $$ select offers.business_id, offers.id from offers where public_id = called or address = called limit 1 $$;
create function order_holder(opened text) returns table (business_id uuid, order_id uuid)
  language sql stable security definer set search_path = public, pg_temp
  as $$ select orders.business_id, orders.id from orders where token = opened $$;
-- Whether a short address is taken, by anybody.
create function address_taken(wanted text) returns boolean
  language sql stable security definer set search_path = public, pg_temp
  as $$ select exists (select 1 from offers where address = wanted or public_id = wanted) $$;
