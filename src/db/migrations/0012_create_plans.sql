-- Cards on file with their authorisations, billing plans, and every charge of them.

create table cards (
  id uuid primary key,
  business_id uuid not null references businesses,
  customer_id uuid not null references customers,
  -- The name under which the processor keeps it; its number is nowhere of ours.
  kept_id text not null,
  scheme text not null,
  last4 text not null constraint cards_last4_only check (last4 ~ '^[0-9]{4}$'),
  -- The last month in which it is good.
  expires text not null constraint cards_expires_month check (expires ~ '^[0-9]{4}-[0-9]{2}$'),
  fingerprint text not null,
  -- The order in which a customer's cards are tried.
  position smallint not null,
  state text not null constraint cards_state_known check (state in ('good', 'refusing', 'removed')),
  -- Why it is of no use any more.
  trouble text,
  added_at timestamptz not null,
  added_by text not null,
  -- For which expiry its holder was asked for another.
  asked_for text not null default ''
);
create unique index cards_kept_unique on cards (business_id, kept_id);
create index cards_of_customer on cards (business_id, customer_id, position, id);
create index cards_expiring on cards (business_id, expires, id) where state = 'good';
select protect_table('cards', 'select, insert, update');

-- What customers agree to, never changed: a new wording is a new version.
create table authorisation_texts (
  business_id uuid not null references businesses,
  version integer not null,
  text text not null,
  created_at timestamptz not null,
  by_name text not null,
  primary key (business_id, version)
);
select protect_table('authorisation_texts', 'select, insert');

create table plans (
  id uuid primary key,
  business_id uuid not null references businesses,
  customer_id uuid not null references customers,
  number text not null,
  state text not null constraint plans_state_known check (state in ('draft', 'waiting', 'active', 'paused', 'finished', 'cancelled')),
  terms jsonb not null,
  name text not null,
  kind text not null constraint plans_kind_known check (kind in ('membership', 'instalments')),
  pay text not null constraint plans_pay_known check (pay in ('card', 'invoice')),
  currency text not null,
  memo text not null default '',
  reference text not null default '',
  link_token text not null,
  pauses jsonb not null default '[]',
  starts_on date,
  -- The whole balance, where its parts are charged.
  invoice_id uuid references invoices,
  order_id uuid references orders,
  charged_minor bigint not null default 0,
  charged_count integer not null default 0,
  -- Null for a plan without an end.
  planned_minor bigint,
  planned_count integer,
  next_on date,
  refused_count integer not null default 0,
  sent_at timestamptz,
  reminded_at timestamptz,
  -- A plan that waits for its card is given up after this day.
  lapses_on date,
  revision integer not null default 0,
  -- Who made it; null for one that a payer began by an offer.
  by_id uuid references people,
  created_at timestamptz not null,
  changed_at timestamptz not null,
  ended_at timestamptz
);
create unique index plans_link_unique on plans (link_token);
create unique index plans_number_unique on plans (business_id, number);
create index plans_by_state on plans (business_id, state, next_on, id);
create index plans_by_change on plans (business_id, changed_at, id);
create index plans_of_customer on plans (business_id, customer_id, id);
create index plans_of_invoice on plans (business_id, invoice_id) where invoice_id is not null;
create index plans_waiting on plans (business_id, lapses_on, id) where state = 'waiting';
select protect_table('plans', 'select, insert, update, delete');

create table authorisations (
  id uuid primary key,
  business_id uuid not null references businesses,
  customer_id uuid not null references customers,
  card_id uuid references cards,
  -- Null where it is for single purchases.
  plan_id uuid references plans,
  how text not null constraint authorisations_how_known check (how in ('drawn', 'ticked', 'telephone', 'paper')),
  -- What was agreed to, filled in, and the version of its wording.
  text text not null,
  text_version integer not null,
  given_by text not null,
  taken_by text not null,
  -- Where it was given: a network address, or the desk.
  given_from text not null,
  -- The signature or the signed paper.
  file_id uuid references files,
  given_at timestamptz not null,
  withdrawn_at timestamptz,
  withdrawn_by text
);
create index authorisations_of_customer on authorisations (business_id, customer_id, given_at, id);
create index authorisations_of_plan on authorisations (business_id, plan_id) where plan_id is not null;
select protect_table('authorisations', 'select, insert, update');

create table charges (
  id uuid primary key,
  business_id uuid not null references businesses,
  plan_id uuid not null references plans,
  customer_id uuid not null references customers,
  part text not null constraint charges_part_known check (part in ('deposit', 'period')),
  nominal date not null,
  charged_on date not null,
  amount_minor bigint not null constraint charges_amount_not_negative check (amount_minor >= 0),
  currency text not null,
  reasons jsonb not null default '[]',
  state text not null constraint charges_state_known check (state in ('upcoming', 'charging', 'billed', 'charged', 'refused', 'skipped')),
  -- Why it was skipped or taken as paid.
  words text not null default '',
  -- When the worker deals with it next; null where nothing is to be done or a person is waited for.
  act_at timestamptz,
  round smallint not null default 0,
  attempts smallint not null default 0,
  -- The cards that this round has tried, and the one to be tried next where it is not the first.
  tried uuid[] not null default '{}',
  card_id uuid references cards,
  last_reason text,
  invoice_id uuid references invoices,
  payment_id uuid references payments,
  settled_at timestamptz,
  noticed_at timestamptz,
  carried_at timestamptz,
  carried_by text
);
-- A date of a plan is charged once, whoever writes it down.
create unique index charges_date_unique on charges (business_id, plan_id, part, nominal);
create index charges_to_act on charges (business_id, act_at, id) where act_at is not null;
create index charges_by_day on charges (business_id, charged_on, id);
create index charges_of_plan on charges (business_id, plan_id, charged_on, id);
create index charges_of_invoice on charges (business_id, invoice_id) where invoice_id is not null;
create index charges_refused on charges (business_id, charged_on, id) where state = 'refused';
create index charges_not_carried on charges (business_id, charged_on, id) where state = 'charged' and carried_at is null;
create index charges_to_notice on charges (business_id, charged_on, id) where state = 'upcoming' and noticed_at is null;
select protect_table('charges', 'select, insert, update, delete');

alter table payments add column charge_id uuid references charges;
create index payments_of_charge on payments (business_id, charge_id, started_at) where charge_id is not null;

alter table messages add column plan_id uuid references plans;
alter table messages drop constraint messages_kind_known;
alter table messages add constraint messages_kind_known check (kind in (
  'invoice', 'receipt', 'payment-notice', 'reminder', 'changed', 'cancelled', 'credit-note', 'question', 'answer', 'trial', 'statement', 'notice',
  'request', 'order-notice', 'refund', 'gift-letter', 'plan-link', 'plan-reminder', 'charge-notice', 'charge-refused', 'card-asked', 'own-page', 'plan-ended'));
create index messages_of_plan on messages (business_id, plan_id, created_at) where plan_id is not null;

alter table timeline add column plan_id uuid references plans on delete cascade;
alter table timeline drop constraint timeline_one_subject;
alter table timeline add constraint timeline_one_subject check (num_nonnulls(invoice_id, order_id, plan_id) = 1);
create index timeline_of_plan on timeline (business_id, plan_id, at, id) where plan_id is not null;

alter table businesses
  -- How plans are charged; what is not said is as usual.
  add column charging jsonb not null default '{}';

alter table files drop constraint files_purpose_known;
alter table files add constraint files_purpose_known check (purpose in (
  'attachment', 'logo', 'picture', 'document', 'answer', 'seal', 'authorisation'));

-- The customer's link to a plan carries no business.
create function plan_holder(token text) returns table (business_id uuid, plan_id uuid)
  language sql stable security definer set search_path = public, pg_temp
  as $$ select plans.business_id, plans.id from plans where link_token = token and state <> 'draft' $$;

create or replace function businesses_with_work(at timestamptz) returns table (business_id uuid, zone text)
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select business_id, zone from businesses b
    where exists (select 1 from reminders r where r.business_id = b.business_id and r.state = 'waiting'
        and r.remind_on <= (at at time zone b.zone)::date)
      or exists (select 1 from invoices i where i.stage = 'draft' and i.send_at <= at and i.business_id = b.business_id)
      or exists (select 1 from repeats r where r.state = 'active' and r.next_on <= (at at time zone b.zone)::date
        and r.business_id = b.business_id)
      or exists (select 1 from charges c where c.business_id = b.business_id and c.act_at <= at)
      -- Notices before a charge, cards that expire, links nobody answered: looked at wherever a plan is alive.
      or exists (select 1 from plans p where p.business_id = b.business_id and p.state in ('waiting', 'active'))
  $$;

alter table invoices drop constraint invoices_origin_known;
alter table invoices add constraint invoices_origin_known check (origin in ('desk', 'repeat', 'batch', 'plan'));

-- The card that the processor keeps for an order whose payment is repeated, and from where it was given.
alter table orders add column kept jsonb;
create unique index plans_one_an_order on plans (business_id, order_id) where order_id is not null;
