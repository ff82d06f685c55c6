-- What a role may do is decided for each function; the business of a transaction is named by a ticket that only the application can write;
-- an entry of the ledger is whole when it is made, and its accounts are known ones.

-- The keys of tickets, as the inner and the outer pad of an HMAC. Read by the one function below and by nobody else.
create table ticket_keys (
  inner_pad bytea not null constraint ticket_keys_inner_whole check (length(inner_pad) = 64),
  outer_pad bytea not null constraint ticket_keys_outer_whole check (length(outer_pad) = 64)
);

-- A ticket is `BUSINESS.HMAC`, the HMAC-SHA-256 of `BUSINESS.PROCESS` with the number of this very connection's process: one that was
-- read elsewhere is worth nothing here. Anything else opens nothing.
create or replace function current_business() returns uuid
  language plpgsql stable parallel restricted security definer set search_path = public, pg_temp
  as $$
declare
  ticket text := current_setting('dahlia.ticket', true);
  said bytea;
begin
  if length(ticket) is distinct from 101 then return null; end if;
  said := convert_to(left(ticket, 36) || '.' || pg_backend_pid(), 'UTF8');
  if exists (select from ticket_keys where encode(sha256(outer_pad || sha256(inner_pad || said)), 'hex') = right(ticket, 64)) then
    return left(ticket, 36)::uuid;
  end if;
  return null;
end $$;

-- Asked once for each statement instead of once for each row.
create or replace function protect_table(table_name regclass, privileges text) returns void
  language plpgsql as $$
begin
  execute format('alter table %s enable row level security', table_name);
  execute format(
    'create policy own_business on %s to dahlia_app using (business_id = (select current_business())) with check (business_id = (select current_business()))',
    table_name);
  execute format('grant %s on %s to dahlia_app', privileges, table_name);
end $$;

do $$
declare
  policy record;
begin
  for policy in select schemaname, tablename, policyname from pg_policies where schemaname = 'public' and policyname = 'own_business' loop
    execute format(
      'alter policy own_business on %I.%I using (business_id = (select current_business())) with check (business_id = (select current_business()))',
      policy.schemaname, policy.tablename);
  end loop;
end $$;

-- An entry says how many postings it has; they come with it in one statement, numbered from 0, so that none can be added later.
alter table ledger_entries add column posting_count smallint;
alter table ledger_entries disable trigger ledger_entries_append_only;
update ledger_entries set posting_count = (
  select count(*) from ledger_postings p where p.business_id = ledger_entries.business_id and p.entry_id = ledger_entries.id
);
alter table ledger_entries enable trigger ledger_entries_append_only;
alter table ledger_entries alter column posting_count set not null;
alter table ledger_entries add constraint ledger_entries_whole check (posting_count >= 2);

alter table ledger_postings add constraint ledger_postings_account_known check (account in (
  'receivable', 'revenue', 'tax-payable', 'processor-clearing', 'processing-fees', 'tips', 'partner-shares', 'partners', 'bank', 'cash',
  'cheques', 'other-receipts'));

create or replace function refuse_unbalanced_entries() returns trigger language plpgsql as $$
declare
  wrong uuid;
begin
  select entry_id into wrong from added group by business_id, entry_id, currency having sum(amount_minor) <> 0 limit 1;
  if found then
    raise exception 'ledger entry % does not balance', wrong
      using errcode = 'check_violation', constraint = 'ledger_entries_balance';
  end if;
  select entry_id into wrong from (
      select business_id, entry_id, count(*) as postings, min(position) as first, max(position) as last from added
      group by business_id, entry_id
    ) as given
    join ledger_entries e on e.business_id = given.business_id and e.id = entry_id
    where postings <> posting_count or first <> 0 or last <> posting_count - 1 limit 1;
  if found then
    raise exception 'ledger entry % is not whole', wrong
      using errcode = 'check_violation', constraint = 'ledger_entries_whole';
  end if;
  return null;
end $$;

-- Functions are for those who need them: nobody else may call one, of these or of any to come.
alter default privileges revoke execute on functions from public;
revoke execute on all functions in schema public from public;
grant execute on all functions in schema public to dahlia_app;
revoke execute on function protect_table(regclass, text), demo_people(), refuse_empty_entry(), refuse_change(), keep_invoice_sums(),
  refuse_unbalanced_entries() from dahlia_app;
-- The queue's role has nothing to look for among the tables.
revoke all on schema public from public;
grant usage on schema public to dahlia_app;

create or replace function customers_matching(first text, second text, third text, most integer) returns setof uuid
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select id from customers
    where business_id = (select current_business()) and merged_into is null
      and search like first and search like second and search like third
    limit most
  $$;

create or replace function customers_like_name(key text) returns setof uuid
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select id from customers
    where business_id = (select current_business()) and merged_into is null and name_key % key and similarity(name_key, key) >= 0.7
    order by similarity(name_key, key) desc limit 6
  $$;

create or replace function invoices_matching(words text, pattern text, amount_minor bigint, most integer) returns setof uuid
  language sql stable security definer set search_path = public, pg_temp
  as $$
    (select id from invoices where business_id = (select current_business()) and number is not null and lower(number) ~>=~ words
      and lower(number) ~<~ (words || chr(1114111))
      order by lower(number) using ~<~ limit most)
    union (select id from invoices where business_id = (select current_business()) and reference || title <> ''
      and lower(reference || ' ' || title) like pattern limit most)
    union (select id from invoices where business_id = (select current_business()) and stage <> 'draft' and total_minor = amount_minor limit most)
  $$;

-- A job is for the business of the transaction that causes it, and for no other.
create or replace function enqueue_job(task text, payload jsonb, job_key text, run_at timestamptz) returns void
  language plpgsql security definer set search_path = pg_catalog, pg_temp
  as $$
begin
  if (payload ->> 'businessId')::uuid is distinct from public.current_business() then
    raise exception 'a job of another business' using errcode = 'insufficient_privilege';
  end if;
  perform graphile_worker.enqueue(task, payload::json, run_at, job_key);
end $$;
