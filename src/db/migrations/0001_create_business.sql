-- Businesses, their people and sessions; row-level security from the first table on.

create extension if not exists pg_trgm;

-- The business whose rows this transaction may see; null (nothing at all) unless it was set.
create function current_business() returns uuid
  language sql stable parallel safe
  as $$ select nullif(current_setting('dahlia.business_id', true), '')::uuid $$;

-- Every table of a business goes through this: the application's role sees the current business only.
create function protect_table(table_name regclass, privileges text) returns void
  language plpgsql as $$
begin
  execute format('alter table %s enable row level security', table_name);
  execute format(
    'create policy own_business on %s to dahlia_app using (business_id = current_business()) with check (business_id = current_business())',
    table_name);
  execute format('grant %s on %s to dahlia_app', privileges, table_name);
end $$;

create table businesses (
  business_id uuid primary key,
  name text not null,
  address text[] not null default '{}',
  phone text not null default '',
  email text not null,
  website text not null default '',
  tax_number text not null default '',
  country text not null,
  zone text not null,
  locale text not null,
  currency text not null,
  prices_include_tax boolean not null default false,
  smallest_payment_minor bigint not null default 1 constraint businesses_smallest_payment_positive check (smallest_payment_minor > 0),
  created_at timestamptz not null
);
select protect_table('businesses', 'select, insert, update');

create table people (
  id uuid primary key,
  business_id uuid not null references businesses,
  name text not null,
  email text not null,
  role text not null constraint people_role_known check (role in ('owner', 'clerk', 'reader')),
  password_hash text not null,
  created_at timestamptz not null
);
-- Signing in starts from the address alone, so it is unique over all businesses.
create unique index people_email_unique on people (lower(email));
create index people_of_business on people (business_id, id);
select protect_table('people', 'select, insert, update');

create table sessions (
  token_hash bytea primary key,
  business_id uuid not null references businesses,
  person_id uuid not null references people on delete cascade,
  created_at timestamptz not null,
  expires_at timestamptz not null
);
create index sessions_of_person on sessions (business_id, person_id);
select protect_table('sessions', 'select, insert, delete');

-- Two doors through the wall, each as narrow as its purpose: before signing in no business is known yet.
create function sign_in_candidate(address text)
  returns table (person_id uuid, business_id uuid, password_hash text)
  language sql stable security definer set search_path = public, pg_temp
  as $$ select id, people.business_id, people.password_hash from people where lower(email) = lower(address) $$;

create function session_holder(hash bytea, at timestamptz)
  returns table (person_id uuid, business_id uuid, name text, role text)
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select people.id, people.business_id, people.name, people.role
    from sessions join people on people.id = sessions.person_id
    where sessions.token_hash = hash and sessions.expires_at > at
  $$;

-- What the demo's sign-in page offers; the application asks only when it runs as the demo.
create function demo_people()
  returns table (name text, email text, role text, business text)
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select people.name, people.email, people.role, businesses.name
    from people join businesses using (business_id)
    where people.email like '%.example'
    order by businesses.created_at, people.created_at
  $$;

-- For the nightly proof of the books, which then enters each business on its own.
create function business_ids() returns setof uuid
  language sql stable security definer set search_path = public, pg_temp
  as $$ select business_id from businesses order by created_at, business_id $$;

-- Counts of attempts, kept by the limiter under hashed keys; nothing of a business stands here.
create table attempt_limits (
  key varchar(255) primary key,
  points integer not null default 0,
  expire double precision -- milliseconds since the epoch, or none
);
grant select, insert, update, delete on attempt_limits to dahlia_app;
