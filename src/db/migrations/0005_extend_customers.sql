-- Customers in full: what invoices need to know of them, and what they are found by.

alter table customers
  add column kind text not null default 'person' constraint customers_kind_known check (kind in ('person', 'company')),
  add column copies text[] not null default '{}',
  add column language text not null default '',
  add column currency text not null default '',
  add column billing jsonb not null default '{"lines": [], "city": "", "region": "", "postalCode": "", "country": ""}',
  add column delivery jsonb,
  add column tax_number text not null default '',
  add column note text not null default '',
  add column due jsonb,
  add column groups text[] not null default '{}',
  -- Another row of the same business took this one's place: it is no longer offered, and its invoices have moved.
  add column merged_into uuid references customers,
  add column search text not null default '',
  add column name_key text not null default '',
  add column changed_at timestamptz;

update customers set
  billing = jsonb_build_object('lines', to_jsonb(address), 'city', '', 'region', '', 'postalCode', '', 'country', ''),
  search = lower(name || ' ' || email), name_key = lower(name), changed_at = created_at;

alter table customers alter column changed_at set not null, drop column address;
drop index customers_found;
drop index customers_by_name;
create index customers_found on customers using gin (search gin_trgm_ops);
create index customers_alike on customers using gin (name_key gin_trgm_ops);
create index customers_by_name on customers (business_id, lower(name), id) where merged_into is null;
create index customers_by_email on customers (business_id, lower(email)) where email <> '';
create index customers_of_group on customers using gin (groups);

-- Row-level security keeps the planner from using a trigram index (`like` is not leakproof), so the search is a door of its
-- own that names the business itself.
create function customers_matching(first text, second text, third text, most integer) returns setof uuid
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select id from customers
    where business_id = current_business() and merged_into is null
      and search like first and search like second and search like third
    limit most
  $$;
create function customers_like_name(key text) returns setof uuid
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select id from customers
    where business_id = current_business() and merged_into is null and name_key % key and similarity(name_key, key) >= 0.7
    order by similarity(name_key, key) desc limit 6
  $$;
