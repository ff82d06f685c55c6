-- The business's profile in full, and what papers lean on: files, terms in versions, templates, series of numbers.

alter table businesses
  -- Where the business is, as an address in parts: customers without an address are taxed as if there.
  add column place jsonb not null default '{"lines": [], "city": "", "region": "", "postalCode": "", "country": ""}',
  add column logo_id uuid,
  add column accent text not null default '#6B2451',
  add column bank jsonb not null default '{"holder": "", "account": "", "bankCode": "", "bank": ""}',
  -- Days from the due date on which a reminder goes out, negative before it.
  add column reminders integer[] not null default '{}',
  -- No reminder leaves between these hours of the business's zone.
  add column quiet_from time not null default '20:00',
  add column quiet_to time not null default '08:00',
  -- The text of the invoice's e-mail by language, where the business has its own.
  add column mail_texts jsonb not null default '{}',
  add column ways jsonb,
  add column terms_id uuid;
update businesses set place = jsonb_set(place, '{country}', to_jsonb(country));

create table files (
  id uuid primary key,
  business_id uuid not null references businesses,
  purpose text not null constraint files_purpose_known check (purpose in ('attachment', 'logo', 'picture', 'document')),
  name text not null,
  type text not null,
  size integer not null constraint files_size_in_bounds check (size between 1 and 10485760),
  sha256 text not null,
  bytes bytea not null,
  by_name text not null,
  created_at timestamptz not null
);
create index files_by_time on files (business_id, created_at, id);
select protect_table('files', 'select, insert, delete');

create table terms (
  id uuid primary key,
  business_id uuid not null references businesses,
  name text not null,
  archived boolean not null default false,
  created_at timestamptz not null
);
create index terms_of_business on terms (business_id, id);
select protect_table('terms', 'select, insert, update');

-- What the terms said from when on: never changed, so that what somebody accepted can be shown later.
create table terms_versions (
  id uuid primary key,
  business_id uuid not null references businesses,
  terms_id uuid not null references terms,
  version integer not null,
  text text not null,
  created_at timestamptz not null,
  by_name text not null
);
create unique index terms_versions_unique on terms_versions (business_id, terms_id, version);
select protect_table('terms_versions', 'select, insert');

create table templates (
  id uuid primary key,
  business_id uuid not null references businesses,
  name text not null,
  paper jsonb not null,
  changed_at timestamptz not null
);
create unique index templates_name_unique on templates (business_id, lower(name));
select protect_table('templates', 'select, insert, update, delete');

-- Series of invoice numbers: `{n}` the counter, `{n:4}` with leading zeros, `{year}`, `{month}`; the counter starts again each
-- year where the pattern says the year.
create table number_series (
  business_id uuid not null references businesses,
  name text not null,
  pattern text not null,
  position integer not null,
  primary key (business_id, name)
);
select protect_table('number_series', 'select, insert, update, delete');

alter table invoices
  add column reference text not null default '',
  add column title text not null default '';
update invoices set reference = coalesce(paper->>'reference', '');
