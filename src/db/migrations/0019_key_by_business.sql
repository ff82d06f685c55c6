-- Every key, unique rule and reference of a business's table begins with the business, so that its rows can live apart from all others.
-- What is unique over all businesses moves to small tables of its own, which a distributed database copies everywhere.

-- With which letters the links of a business begin: the first 48 bits of its id, in the alphabet of links.
create function link_key(business_id uuid) returns text
  language sql immutable parallel safe
  as $$ select translate(encode(decode(left(replace(business_id::text, '-', ''), 12), 'hex'), 'base64'), '+/', '-_') $$;

create table link_keys (
  key text primary key,
  business_id uuid not null
);
comment on table link_keys is 'copied everywhere: the first letters of a business''s links';
insert into link_keys select link_key(business_id), business_id from businesses;
select protect_table('link_keys', 'select, insert');

create table earlier_names (
  name text primary key,
  business_id uuid not null
);
comment on table earlier_names is 'copied everywhere: links, sessions and messages from before a business had a key; grows no more';
insert into earlier_names
  select link_token, business_id from invoices
  union select link_token, business_id from plans
  union select token, business_id from orders
  union select encode(token_hash, 'hex'), business_id from sessions
  union select id::text, business_id from messages where created_at > now() - interval '30 days';
select protect_table('earlier_names', 'select');

create table sign_in_names (
  email_key text primary key,
  business_id uuid not null,
  person_id uuid not null
);
comment on table sign_in_names is 'copied everywhere: who signs in with an address';
insert into sign_in_names select lower(email), business_id, id from people;
select protect_table('sign_in_names', 'select, insert, update, delete');

create table offer_names (
  name text primary key,
  business_id uuid not null,
  offer_id uuid not null
);
comment on table offer_names is 'copied everywhere: which offer a public id or a short address opens';
insert into offer_names select public_id, business_id, id from offers;
insert into offer_names select address, business_id, id from offers where address is not null on conflict do nothing;
create index offer_names_of_offer on offer_names (business_id, offer_id);
select protect_table('offer_names', 'select, insert, delete');

-- The doors now first find the business, and then look in its rows alone.
create function business_of(name text) returns uuid
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select coalesce((select business_id from earlier_names where earlier_names.name = business_of.name),
      (select business_id from link_keys where key = left(business_of.name, 8)))
  $$;

create or replace function sign_in_candidate(address text)
  returns table (person_id uuid, business_id uuid, password_hash text)
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select people.id, people.business_id, people.password_hash
    from sign_in_names named join people on people.business_id = named.business_id and people.id = named.person_id
    where named.email_key = lower(address)
  $$;

drop function session_holder(bytea, timestamptz);
create function session_holder(begins text, hash bytea, at timestamptz)
  returns table (person_id uuid, business_id uuid, name text, role text)
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select people.id, people.business_id, people.name, people.role
    from sessions join people on people.business_id = sessions.business_id and people.id = sessions.person_id
    where sessions.business_id = coalesce(business_of(encode(hash, 'hex')), business_of(begins))
      and sessions.token_hash = hash and sessions.expires_at > at
  $$;

create or replace function link_holder(token text) returns table (business_id uuid, invoice_id uuid)
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select invoices.business_id, invoices.id from invoices
    where invoices.business_id = business_of(token) and link_token = token and stage <> 'draft'
  $$;

create or replace function plan_holder(token text) returns table (business_id uuid, plan_id uuid)
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select plans.business_id, plans.id from plans
    where plans.business_id = business_of(token) and link_token = token and state <> 'draft'
  $$;

create or replace function order_holder(opened text) returns table (business_id uuid, order_id uuid)
  language sql stable security definer set search_path = public, pg_temp
  as $$ select orders.business_id, orders.id from orders where orders.business_id = business_of(opened) and token = opened $$;

create or replace function offer_holder(called text) returns table (business_id uuid, offer_id uuid)
  language sql stable security definer set search_path = public, pg_temp
  as $$ select named.business_id, named.offer_id from offer_names named where named.name = called $$;

create or replace function address_taken(wanted text) returns boolean
  language sql stable security definer set search_path = public, pg_temp
  as $$ select exists (select 1 from offer_names where name = wanted) $$;

create or replace function framing_sites(called text) returns table (sites text[])
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select offers.sites from offer_names named join offers on offers.business_id = named.business_id and offers.id = named.offer_id
      where named.name = called
    union all
    select offers.sites from orders join offers on offers.business_id = orders.business_id and offers.id = orders.offer_id
      where orders.business_id = business_of(called) and orders.token = called
    limit 1
  $$;

drop function message_holder(uuid);

-- The same view as before, found by the business and then the link.
do $$
declare
  body text := pg_get_functiondef('payer_view(text)'::regprocedure);
  changed text := replace(body, 'where i.link_token = token', 'where i.business_id = business_of(token) and i.link_token = token');
begin
  if changed = body then raise exception 'payer_view is not as expected'; end if;
  execute changed;
end $$;

-- A promise of stock was the one row without a key.
alter table stock_promises add column id uuid not null default gen_random_uuid();

drop index invoices_link_unique, plans_link_unique, orders_token_unique, offers_public_id_unique, offers_address_unique,
  people_email_unique, people_of_business, terms_of_business;
create unique index invoices_link_unique on invoices (business_id, link_token);
create unique index plans_link_unique on plans (business_id, link_token);
create unique index orders_token_unique on orders (business_id, token);
create unique index offers_public_id_unique on offers (business_id, public_id);
create unique index offers_address_unique on offers (business_id, address) where address is not null;
create unique index people_email_unique on people (business_id, lower(email));

-- Keys and references, as the catalog knows them: each keeps its name and gets the business in front.
do $$
declare
  one record;
  made text[] := '{}';
  statement text;
begin
  for one in
    select con.conname, con.conrelid::regclass as at, con.confrelid::regclass as target, a.attname as col, con.confdeltype
    from pg_constraint con join pg_attribute a on a.attrelid = con.conrelid and a.attnum = con.conkey[1]
    where con.contype = 'f' and con.connamespace = 'public'::regnamespace and a.attname <> 'business_id'
    order by con.conname
  loop
    if (select count(*) from pg_constraint where conname = one.conname and cardinality(conkey) > 1) > 0 then
      raise exception 'reference % is not as expected', one.conname;
    end if;
    execute format('alter table %s drop constraint %I', one.at, one.conname);
    made := made || format('alter table %s add constraint %I foreign key (business_id, %I) references %s (business_id, id)%s',
      one.at, one.conname, one.col, one.target,
      case one.confdeltype when 'c' then ' on delete cascade' when 'n' then format(' on delete set null (%I)', one.col) else '' end);
  end loop;
  for one in
    select con.conname, con.conrelid::regclass as at, a.attname as col
    from pg_constraint con join pg_attribute a on a.attrelid = con.conrelid and a.attnum = con.conkey[1]
    where con.contype = 'p' and con.connamespace = 'public'::regnamespace and cardinality(con.conkey) = 1
      and a.attname in ('id', 'token_hash')
      and exists (select 1 from pg_attribute b where b.attrelid = con.conrelid and b.attname = 'business_id' and not b.attisdropped)
  loop
    execute format('alter table %s drop constraint %I', one.at, one.conname);
    execute format('alter table %s add constraint %I primary key (business_id, %I)', one.at, one.conname, one.col);
  end loop;
  alter table stock_promises add constraint stock_promises_pkey primary key (business_id, id);
  foreach statement in array made loop
    execute statement;
  end loop;
end $$;

-- A row that must name another row of its business need not be held to the business once more: on the rows that grow for ever, that
-- is one look-up less each.
alter table ledger_postings drop constraint ledger_postings_business_id_fkey;
alter table payment_shares drop constraint payment_shares_business_id_fkey;
alter table charges drop constraint charges_business_id_fkey;
alter table receipts drop constraint receipts_business_id_fkey;
alter table refunds drop constraint refunds_business_id_fkey;
