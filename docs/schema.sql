-- What the migrations in src/db/migrations lead to: written by `npm run schema`, checked by bin/test.

CREATE FUNCTION public.add_passkey(address text, credential text, key bytea, counted bigint, ways text[], called text, at timestamp with time zone) RETURNS boolean
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
begin
  insert into passkeys (credential_id, email_key, public_key, counter, transports, name, made_at)
    select credential, name, key, counted, ways, called, at from steps_name(address) name where name is not null
    on conflict do nothing;
  return found;
end $$;

CREATE FUNCTION public.address_taken(wanted text) RETURNS boolean
    LANGUAGE sql STABLE SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$ select exists (select 1 from offer_names where name = wanted) $$;

CREATE FUNCTION public.begin_steps(address text, fresh bytea) RETURNS void
    LANGUAGE sql SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
    insert into sign_in_steps (email_key, handle) select name, fresh from steps_name(address) name where name is not null
    on conflict do nothing
  $$;

CREATE FUNCTION public.blanked(value jsonb, names text[]) RETURNS jsonb
    LANGUAGE plpgsql IMMUTABLE
    SET search_path TO 'public', 'pg_temp'
    AS $$
begin
  return case jsonb_typeof(value)
    when 'array' then coalesce((select jsonb_agg(blanked(e.value, names) order by e.place) from jsonb_array_elements(value) with ordinality e (value, place)), '[]')
    when 'object' then coalesce((select jsonb_object_agg(e.key, case when e.key = any (names) then emptied(e.value) else blanked(e.value, names) end)
      from jsonb_each(value) e), '{}')
    else value end;
end $$;

CREATE FUNCTION public.business_ids() RETURNS SETOF uuid
    LANGUAGE sql STABLE SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$ select business_id from businesses order by created_at, business_id $$;

CREATE FUNCTION public.business_of(name text) RETURNS uuid
    LANGUAGE sql STABLE SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
    select coalesce((select business_id from earlier_names where earlier_names.name = business_of.name),
      (select business_id from link_keys where key = left(business_of.name, 8)))
  $$;

CREATE FUNCTION public.claim_name(person uuid, address text) RETURNS boolean
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
begin
  perform pg_advisory_xact_lock(hashtextextended(lower(address), 0));
  if not exists (select from people where business_id = current_business() and id = person)
    or exists (select from sign_in_names where email_key = lower(address)) then
    return false;
  end if;
  insert into sign_in_names (email_key, business_id, person_id) values (lower(address), current_business(), person);
  delete from unconfirmed_names where business_id = current_business() and person_id = person;
  return true;
end $$;

CREATE FUNCTION public.current_business() RETURNS uuid
    LANGUAGE plpgsql STABLE SECURITY DEFINER PARALLEL RESTRICTED
    SET search_path TO 'public', 'pg_temp'
    AS $$
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

CREATE FUNCTION public.customers_like_name(key text) RETURNS SETOF uuid
    LANGUAGE sql STABLE SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
    select id from customers
    where business_id = (select current_business()) and merged_into is null and name_key % key and similarity(name_key, key) >= 0.7
    order by similarity(name_key, key) desc limit 6
  $$;

CREATE FUNCTION public.customers_matching(first text, second text, third text, most integer) RETURNS SETOF uuid
    LANGUAGE sql STABLE SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
    select id from customers
    where business_id = (select current_business()) and merged_into is null
      and search like first and search like second and search like third
    limit most
  $$;

CREATE FUNCTION public.customers_things(person uuid) RETURNS TABLE(customer_ids uuid[], names text[], mails text[], order_ids uuid[], invoice_ids uuid[], plan_ids uuid[], payment_ids uuid[], request_ids uuid[])
    LANGUAGE plpgsql STABLE SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
declare
  holder uuid := current_business();
begin
  select array_agg(c.id), array_agg(c.name) filter (where c.name <> '') into customer_ids, names
    from customers c where c.business_id = holder and (c.id = person or c.merged_into = person);
  select coalesce(array_agg(distinct lower(one.mail)), '{}') into mails from (
    select c.email as mail from customers c where c.business_id = holder and c.id = any (customer_ids)
    union all select unnest(c.copies) from customers c where c.business_id = holder and c.id = any (customer_ids)) one where one.mail <> '';
  select coalesce(array_agg(o.id), '{}'), coalesce(array_agg(o.request_id) filter (where o.request_id is not null), '{}') into order_ids, request_ids
    from orders o where o.business_id = holder
      and (o.customer_id = any (customer_ids) or o.customer_id is null and lower(o.payer_email) = any (mails));
  select request_ids || coalesce(array_agg(r.id), '{}') into request_ids
    from requests r where r.business_id = holder and lower(r.to_address) = any (mails);
  select coalesce(array_agg(i.id), '{}') into invoice_ids from invoices i where i.business_id = holder and i.customer_id = any (customer_ids);
  select coalesce(array_agg(p.id), '{}') into plan_ids from plans p where p.business_id = holder and p.customer_id = any (customer_ids);
  select coalesce(array_agg(p.id), '{}') into payment_ids from payments p where p.business_id = holder
    and (p.customer_id = any (customer_ids) or p.invoice_id = any (invoice_ids) or p.order_id = any (order_ids));
  return next;
end $$;

CREATE FUNCTION public.demo_people() RETURNS TABLE(name text, email text, role text, business text)
    LANGUAGE sql STABLE SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
    select people.name, people.email, people.role, businesses.name
    from people join businesses using (business_id)
    where people.email like '%.example' and people.left_at is null and businesses.signed_up_at is null
      and people.created_at <= businesses.created_at + interval '1 minute'
    order by businesses.created_at, people.created_at
  $$;

CREATE FUNCTION public.due_work(at timestamp with time zone) RETURNS TABLE(business_id uuid, concern text)
    LANGUAGE sql STABLE SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
    select w.business_id, w.concern from work_due(at) w
    union
    select s.business_id, 'parcels' from carrier_statements s where s.act_at <= at
  $$;

CREATE FUNCTION public.emptied(value jsonb) RETURNS jsonb
    LANGUAGE plpgsql IMMUTABLE
    SET search_path TO 'public', 'pg_temp'
    AS $$
begin
  return case jsonb_typeof(value)
    when 'string' then '""'::jsonb
    when 'array' then '[]'::jsonb
    when 'object' then coalesce((select jsonb_object_agg(e.key, emptied(e.value)) from jsonb_each(value) e), '{}')
    else value end;
end $$;

CREATE FUNCTION public.empty_files(ids text[]) RETURNS void
    LANGUAGE sql SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
    update files set name = '', type = 'application/octet-stream', size = 1, sha256 = '', bytes = '\x00'
    where business_id = current_business() and id::text = any (ids) and sha256 <> ''
  $$;

CREATE FUNCTION public.end_sessions_elsewhere(person uuid) RETURNS void
    LANGUAGE sql SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
    delete from sessions using other_desks(person) other
    where sessions.business_id = other.business_id and sessions.person_id = other.person_id
  $$;

CREATE FUNCTION public.enqueue_due_work(at timestamp with time zone) RETURNS bigint
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
declare
  due record;
  found_due bigint := 0;
begin
  for due in
    select w.business_id, w.concern, 'due:' || w.concern || ':' || w.business_id as key from due_work(at) w
    where not exists (select from stuck_jobs s where s.business_id = w.business_id and s.key = 'due:' || w.concern || ':' || w.business_id
      and s.failures >= 20 and s.last_at > now() - interval '1 hour')
    order by w.concern, w.business_id
  loop
    perform graphile_worker.enqueue(case when due.concern = 'charges' then 'due-charges' else 'due-work' end,
      json_build_object('businessId', due.business_id, 'concern', due.concern), now(), due.key);
    found_due := found_due + 1;
  end loop;
  return found_due;
end $$;

CREATE FUNCTION public.enqueue_job(task text, payload jsonb, job_key text, run_at timestamp with time zone) RETURNS void
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'pg_catalog', 'pg_temp'
    AS $$
begin
  if (payload ->> 'businessId')::uuid is distinct from public.current_business() then
    raise exception 'a job of another business' using errcode = 'insufficient_privilege';
  end if;
  perform graphile_worker.enqueue(task, payload::json, run_at, job_key);
end $$;

CREATE FUNCTION public.erase_business(today date) RETURNS boolean
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $_$
declare
  holder uuid := current_business();
  of record;
  touched bigint;
  found_rows bigint;
  stuck boolean;
begin
  if not exists (select from businesses b where b.business_id = holder and b.closed_at is not null and b.erase_on <= today) then return false; end if;
  perform set_config('dahlia.erasing', 'a closed business', true);
  set constraints all deferred;
  loop
    found_rows := 0;
    stuck := false;
    for of in
      select c.relname from pg_class c join pg_attribute a on a.attrelid = c.oid
      where c.relnamespace = 'public'::regnamespace and c.relkind in ('r', 'p') and not c.relispartition and a.attname = 'business_id' and not a.attisdropped
      order by c.relname = 'businesses', c.relname
    loop
      begin
        execute format('delete from %I where business_id = $1', of.relname) using holder;
        get diagnostics touched = row_count;
        found_rows := found_rows + touched;
      exception when foreign_key_violation then
        -- Something of it is named elsewhere still: its turn comes in the next round.
        stuck := true;
      end;
    end loop;
    exit when found_rows = 0;
  end loop;
  perform set_config('dahlia.erasing', '', true);
  if stuck then raise exception 'a business cannot be erased whole'; end if;
  return true;
end $_$;

CREATE FUNCTION public.everything_matching(first text, second text, third text, whole text, beginning text, brief boolean, digits text, amount bigint, most integer) RETURNS TABLE(kind text, id uuid, name text, number text, about text, state text, amount_minor bigint, currency text, at timestamp with time zone)
    LANGUAGE sql STABLE SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
    with holder as materialized (select current_business() as id),
    people as materialized (
      (select c.id, c.name, c.email, c.changed_at from customers c, holder
      where not brief and c.business_id = holder.id and c.merged_into is null and c.search like first and c.search like second
        and c.search like third
      order by starts_with(lower(c.name), beginning) desc, c.changed_at desc limit most)
      union all
      (select c.id, c.name, c.email, c.changed_at from customers c, holder
      where brief and c.business_id = holder.id and c.merged_into is null and lower(c.name) ~>=~ beginning
        and lower(c.name) ~<~ (beginning || chr(1114111))
      order by lower(c.name) using ~<~ limit most)
    ),
    invoice_ids as (
      select invoices_matching(beginning, case when brief then null else whole end, amount, most) as id
      union (select i.id from invoices i, holder where i.business_id = holder.id and i.customer_id in (select people.id from people)
        order by i.changed_at desc limit most)
    ),
    plan_ids as (
      (select p.id from plans p, holder where brief and p.business_id = holder.id and p.number in (upper(beginning), 'P-' || beginning))
      union (select p.id from plans p, holder where not brief and p.business_id = holder.id
        and lower(p.name || ' ' || p.number || ' ' || p.reference) like first and lower(p.name || ' ' || p.number || ' ' || p.reference) like second
        and lower(p.name || ' ' || p.number || ' ' || p.reference) like third limit most)
      union (select p.id from plans p, holder where p.business_id = holder.id and p.customer_id in (select people.id from people) limit most)
      union (select p.id from plans p, holder, cards k where p.business_id = holder.id and k.business_id = holder.id
        and k.customer_id = p.customer_id and k.last4 = digits and k.state <> 'removed' limit most)
    ),
    payment_ids as (
      (select p.id from payments p, holder where p.business_id = holder.id and p.card_last4 = digits order by p.started_at desc limit most)
      union (select p.id from payments p, holder where p.business_id = holder.id and p.amount_minor = amount
        order by p.started_at desc limit most)
      union (select p.id from payments p, holder where not brief and p.business_id = holder.id and p.reference <> ''
        and lower(p.reference) like whole limit most)
      union (select p.id from payments p, holder where p.business_id = holder.id and p.state = 'paid'
        and p.customer_id in (select people.id from people) order by p.settled_at desc limit most)
      union (select p.id from payments p join orders o on o.business_id = p.business_id and o.id = p.order_id, holder
        where not brief and o.business_id = holder.id and o.state = 'paid' and p.state = 'paid'
        and lower(o.reference || ' ' || o.payer_email || ' ' || coalesce(o.printed -> 'payer' ->> 'name', '')) like whole limit most)
    )
    select 'customer', people.id, people.name, '', people.email, '', null::bigint, '', people.changed_at from people
    union all
    select 'invoice', i.id, coalesce(c.name, ''), coalesce(i.number, ''), i.reference,
      case when i.stage = 'sent' and i.due_minor = 0 then 'paid' when i.stage = 'sent' then 'open' else i.stage end,
      case when i.stage = 'sent' and i.due_minor > 0 then i.due_minor else i.total_minor end, i.currency, i.changed_at
    from holder join invoices i on i.business_id = holder.id and i.id in (select invoice_ids.id from invoice_ids)
      left join customers c on c.business_id = i.business_id and c.id = i.customer_id
    union all
    select 'plan', p.id, c.name, p.number, p.name, p.state, null, p.currency, p.changed_at
    from holder join plans p on p.business_id = holder.id and p.id in (select plan_ids.id from plan_ids)
      join customers c on c.business_id = p.business_id and c.id = p.customer_id
    union all
    select 'payment', p.id, coalesce(c.name, o.printed -> 'payer' ->> 'name', ''), coalesce(o.reference, i.number, ''),
      coalesce(p.card_scheme || ' ·' || p.card_last4, p.reference), p.state, p.amount_minor, p.currency, p.started_at
    from holder join payments p on p.business_id = holder.id and p.id in (select payment_ids.id from payment_ids)
      left join customers c on c.business_id = p.business_id and c.id = p.customer_id
      left join orders o on o.business_id = p.business_id and o.id = p.order_id
      left join invoices i on i.business_id = p.business_id and i.id = p.invoice_id
    union all
    (select 'receipt', r.payment_id, coalesce(r.printed -> 'payer' ->> 'name', ''), r.number, '', '', p.amount_minor, p.currency, r.issued_at
    from holder join receipts r on r.business_id = holder.id and lower(r.number) ~>=~ beginning and lower(r.number) ~<~ (beginning || chr(1114111))
      join payments p on p.business_id = r.business_id and p.id = r.payment_id
    order by lower(r.number) using ~<~ limit most)
    union all
    (select o.placement, o.id, o.name, coalesce(o.address, ''), '', case when o.placed_at is null then 'draft' else o.state end, null, '', o.changed_at
    from holder join offers o on o.business_id = holder.id
    where lower(o.name || ' ' || coalesce(o.address, '')) like first and lower(o.name || ' ' || coalesce(o.address, '')) like second
      and lower(o.name || ' ' || coalesce(o.address, '')) like third
    order by o.changed_at desc limit most)
    union all
    (select 'item', t.id, t.name, t.code, '', '', null, '', t.changed_at from holder join items t on t.business_id = holder.id
    where t.search like first and t.search like second and t.search like third and not t.archived
    order by starts_with(lower(t.name), beginning) desc limit most)
    union all
    (select 'code', d.id, d.code, d.code, d.note, '', null, d.currency, d.created_at from holder join discount_codes d on d.business_id = holder.id
    where not d.archived and lower(d.code || ' ' || d.note) like whole order by d.created_at desc limit most)
    union all
    (select 'partner', t.id, t.name, '', t.email, '', null, '', t.created_at from holder join partners t on t.business_id = holder.id
    where not t.archived and lower(t.name || ' ' || t.email) like first and lower(t.name || ' ' || t.email) like second limit most)
    union all
    (select 'recurring', r.id, c.name, '', r.name, r.state, null, '', r.changed_at
    from holder join recurring_invoices r on r.business_id = holder.id join customers c on c.business_id = r.business_id and c.id = r.customer_id
    where lower(r.name) like whole or r.customer_id in (select people.id from people) order by r.changed_at desc limit most)
    union all
    (select 'bulk', b.id, b.name, '', '', b.state, null, '', b.created_at from holder join bulk_invoices b on b.business_id = holder.id
    where lower(b.name) like whole order by b.created_at desc limit most)
  $$;

CREATE FUNCTION public.forget_customer(person uuid, word text, at timestamp with time zone) RETURNS void
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $_$
declare
  holder uuid := current_business();
  t record;
  ours text[];
  words constant text[] := '{reference,note,title,memo,what,files,elsewhere}';
begin
  select * into t from customers_things(person);
  if t.customer_ids is null then return; end if;
  select array_agg(p.name) || '{Customer,Dahlia,the customer}' into ours from people p where p.business_id = holder;

  delete from invoices i where i.business_id = holder and i.id = any (t.invoice_ids) and i.stage = 'draft';
  update invoices i set reference = '', title = '', paper = blanked(i.paper, words || '{number,name}') || '{"elsewhere": null}', send_with = null,
      link_token = left(i.link_token, 8) || replace(gen_random_uuid()::text, '-', '')
    where i.business_id = holder and i.id = any (t.invoice_ids);
  update approvals a set comment = '', by_name = word where a.business_id = holder and a.invoice_id = any (t.invoice_ids);
  update questions q set text = '', by_name = word, answer = case when q.answer is null then null else '' end
    where q.business_id = holder and q.invoice_id = any (t.invoice_ids);

  perform empty_files(array(select e.value from orders o, jsonb_each_text(coalesce(o.choice -> 'answers', '{}')) e
    where o.business_id = holder and o.id = any (t.order_ids)));
  update orders o set payer_email = '', kept = null, printed = without_payer(o.printed, word),
      choice = blanked(o.choice, '{purpose,voucher,gift,name,email,phone,billing,delivery,message,answers}') || '{"answers": {}}',
      token = left(o.token, 8) || replace(gen_random_uuid()::text, '-', '')
    where o.business_id = holder and o.id = any (t.order_ids);
  update requests r set to_name = word, to_address = '', filled = '{}', words = '',
      ended_at = case when r.state in ('sent', 'seen') then at else r.ended_at end,
      state = case when r.state in ('sent', 'seen') then 'withdrawn' else r.state end
    where r.business_id = holder and r.id = any (t.request_ids);
  update vouchers v set to_name = '', to_email = '', from_name = '', message = '' where v.business_id = holder and v.order_id = any (t.order_ids);
  update voucher_moves m set by_name = word where m.business_id = holder and m.by_name <> all (ours)
    and m.voucher_id in (select v.id from vouchers v where v.business_id = holder and v.order_id = any (t.order_ids));
  update vouchers v set to_name = '', to_email = '' where v.business_id = holder and lower(v.to_email) = any (t.mails);

  update plans p set name = p.number, terms = jsonb_set(blanked(p.terms, words), '{name}', to_jsonb(p.number)), memo = '', reference = '', proposed = null,
      link_token = left(p.link_token, 8) || replace(gen_random_uuid()::text, '-', '')
    where p.business_id = holder and p.id = any (t.plan_ids);
  update recurring_invoices r set name = word, paper = blanked(r.paper, words || '{number}') where r.business_id = holder and r.customer_id = any (t.customer_ids);
  update recurring_runs r set trouble = case when r.trouble is null then null else '' end
    where r.business_id = holder and r.recurring_id in (select f.id from recurring_invoices f where f.business_id = holder and f.customer_id = any (t.customer_ids));
  update bulk_invoices b set draft = null where b.business_id = holder and b.state = 'done'
    and exists (select from bulk_rows r where r.business_id = holder and r.bulk_id = b.id and r.customer_id = any (t.customer_ids));
  update bulk_invoices b set name = word, paper = blanked(b.paper, words || '{number}') where b.business_id = holder
    and exists (select from bulk_rows r where r.business_id = holder and r.bulk_id = b.id and r.customer_id = any (t.customer_ids))
    and not exists (select from bulk_rows r where r.business_id = holder and r.bulk_id = b.id and r.customer_id <> all (t.customer_ids));
  update bulk_rows r set own = emptied(r.own), reason = '' where r.business_id = holder and r.customer_id = any (t.customer_ids);

  perform empty_files(array(select a.file_id::text from authorisations a where a.business_id = holder and a.customer_id = any (t.customer_ids) and a.file_id is not null));
  update authorisations a set text = '', given_by = word, given_from = '', withdrawn_at = coalesce(a.withdrawn_at, at),
      withdrawn_by = case when a.withdrawn_by = any (ours) then a.withdrawn_by else word end
    where a.business_id = holder and a.customer_id = any (t.customer_ids);
  update cards c set state = 'removed', last4 = '0000', expires = '0001-01', fingerprint = '', kept_id = c.id::text, trouble = null, asked_for = '',
      added_by = case when c.added_by = any (ours) then c.added_by else word end
    where c.business_id = holder and c.customer_id = any (t.customer_ids);

  perform empty_files(array(select f ->> 'id' from disputes d, jsonb_array_elements(d.files) f
    where d.business_id = holder and d.payment_id = any (t.payment_ids)));
  delete from documents f using disputes d where f.business_id = holder and f.kind = 'dispute-file' and d.business_id = holder and f.subject_id = d.id
    and d.payment_id = any (t.payment_ids);
  update disputes d set words = '', files = '[]', left_out = '[]' where d.business_id = holder and d.payment_id = any (t.payment_ids);
  update payments p set approval_url = null where p.business_id = holder and p.id = any (t.payment_ids) and p.approval_url is not null;
  delete from bank_rules r where r.business_id = holder and r.customer_id = any (t.customer_ids);
  -- A list that is called after them, or looked for by words that are theirs and nobody else's.
  delete from saved_lists l where l.business_id = holder and (
    exists (select from unnest(t.names || t.mails) one where length(one) > 3 and position(lower(one) in lower(l.name)) > 0)
    or exists (
      select from unnest(t.names || t.mails || array(select w from unnest(t.names) n, regexp_split_to_table(n, '\s+') w)) one
      where length(one) > 3 and position(lower(one) in lower(coalesce(l.asked ->> 'words', ''))) > 0
        and not exists (select from customers c where c.business_id = holder and c.id <> all (t.customer_ids) and c.erased_at is null
          and position(lower(one) in c.search) > 0)));

  update messages m set to_name = word, to_address = '', trouble = null, message_key = m.id::text, details = blanked(m.details, '{text,subject,from,to,address,agent}'),
      state = case when m.state = 'queued' then 'dropped' else m.state end, seen_to_at = coalesce(m.seen_to_at, at)
    where m.business_id = holder and (m.customer_id = any (t.customer_ids) or m.invoice_id = any (t.invoice_ids) or m.order_id = any (t.order_ids)
      or m.plan_id = any (t.plan_ids) or m.payment_id = any (t.payment_ids) or m.request_id = any (t.request_ids) or lower(m.to_address) = any (t.mails)
      or m.kind = 'dispute' and m.details ->> 'from' in (select d.id::text from disputes d where d.business_id = holder and d.payment_id = any (t.payment_ids)));
  update timeline l set details = without_words(l.kind, l.details),
      by_name = case when l.by_name = any (ours) then l.by_name else word end
    where l.business_id = holder and (l.invoice_id = any (t.invoice_ids) or l.order_id = any (t.order_ids) or l.plan_id = any (t.plan_ids));
  update hook_deliveries d set body = null, outcome = case when d.outcome ~ '^[a-z0-9-]*$' then d.outcome else '' end, details = without_words(d.kind, d.details)
    where d.business_id = holder and (d.about ->> 'invoiceId' = any (t.invoice_ids::text[]) or d.about ->> 'orderId' = any (t.order_ids::text[])
      or d.about ->> 'planId' = any (t.plan_ids::text[]));

  update customers c set name = word, kind = 'person', email = '', copies = '{}', phone = '', billing = emptied(c.billing), delivery = null, tax_number = '',
      note = '', due = null, groups = '{}', search = '', name_key = '', language = '', changed_at = at, erased_at = coalesce(c.erased_at, at)
    where c.business_id = holder and c.id = any (t.customer_ids);
end $_$;

CREATE FUNCTION public.forget_done_jobs() RETURNS void
    LANGUAGE sql SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
    delete from stuck_jobs s where not s.given_up and s.key not like 'due:%' and not exists (select from graphile_worker.open_keys() as open (key) where open.key = s.key)
  $$;

CREATE FUNCTION public.forget_for_customs() RETURNS trigger
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
begin
  update parcel_lines l set customs = null where l.business_id = new.business_id and l.customs is not null
    and l.parcel_id in (select p.id from parcels p where p.business_id = new.business_id and p.customer_id = new.id);
  update parcels p set customs = null where p.business_id = new.business_id and p.customer_id = new.id and p.customs is not null;
  return null;
end $$;

CREATE FUNCTION public.forget_nobodys_steps() RETURNS trigger
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
begin
  delete from sign_in_steps where email_key = old.email_key and not exists (select from sign_in_names where email_key = old.email_key);
  return null;
end $$;

CREATE FUNCTION public.forget_old(checkouts timestamp with time zone, mails timestamp with time zone, deliveries timestamp with time zone, pictures timestamp with time zone, word text) RETURNS void
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
declare
  holder uuid := current_business();
  old uuid[];
begin
  select coalesce(array_agg(o.id), '{}') into old from orders o
    where o.business_id = holder and o.state <> 'paid' and o.started_at < checkouts and o.payer_email <> ''
      and not exists (select from payments p where p.business_id = holder and p.order_id = o.id and p.state in ('pending', 'paid'));
  perform empty_files(array(select e.value from orders o, jsonb_each_text(coalesce(o.choice -> 'answers', '{}')) e where o.business_id = holder and o.id = any (old)));
  update orders o set payer_email = '', kept = null, printed = without_payer(o.printed, word),
      choice = blanked(o.choice, '{purpose,voucher,gift,name,email,phone,billing,delivery,message,answers}') || '{"answers": {}}'
    where o.business_id = holder and o.id = any (old);
  update requests r set to_name = word, to_address = '', filled = '{}', words = ''
    where r.business_id = holder and r.state = 'withdrawn' and r.ended_at < checkouts and r.to_name <> word;
  update messages m set to_name = '', to_address = '', trouble = null, details = blanked(m.details, '{text,subject,from,to,address,agent,nonce}')
    where m.business_id = holder and m.created_at < mails and m.state <> 'queued' and m.to_address <> '';
  delete from hook_deliveries d where d.business_id = holder and d.happened_at < deliveries and d.state <> 'waiting';
  delete from identity_pictures i where i.business_id = holder and i.made_at < pictures
    and not exists (select from identity_checks c where c.business_id = holder and c.state in ('checking', 'asked'));
end $$;

CREATE FUNCTION public.forget_on_parcels() RETURNS trigger
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
begin
  update handovers h set recipient = emptied(h.recipient), wish = '' where h.business_id = new.business_id and h.customer_id = new.id;
  -- Scans name the town that a parcel went to.
  delete from parcel_scans s where s.business_id = new.business_id
    and s.parcel_id in (select p.id from parcels p where p.business_id = new.business_id and p.customer_id = new.id);
  update timeline l set details = blanked(l.details, '{place}') where l.business_id = new.business_id
    and l.parcel_id in (select p.id from parcels p where p.business_id = new.business_id and p.customer_id = new.id);
  update hook_deliveries d set body = null, details = blanked(d.details, '{place}') where d.business_id = new.business_id
    and d.about ->> 'parcelId' in (select p.id::text from parcels p where p.business_id = new.business_id and p.customer_id = new.id);
  update handover_lines l set what = '' where l.business_id = new.business_id
    and l.handover_id in (select h.id from handovers h where h.business_id = new.business_id and h.customer_id = new.id);
  update parcel_lines l set what = '' where l.business_id = new.business_id
    and l.parcel_id in (select p.id from parcels p where p.business_id = new.business_id and p.customer_id = new.id);
  update parcels p set rates = null, checked = null, recipient = emptied(p.recipient), label = case when p.label is null then null else emptied(p.label) end,
      search = lower(p.number), proof = null
    where p.business_id = new.business_id and p.customer_id = new.id;
  update collections c set name = '', strokes = '' where c.business_id = new.business_id
    and c.handover_id in (select h.id from handovers h where h.business_id = new.business_id and h.customer_id = new.id);
  update timeline l set details = blanked(l.details, '{name,thing}') where l.business_id = new.business_id
    and l.kind in ('collected', 'downloaded')
    and (l.invoice_id in (select i.id from invoices i where i.business_id = new.business_id and i.customer_id = new.id)
      or l.order_id in (select o.id from orders o where o.business_id = new.business_id and o.customer_id = new.id));
  update digital_grants g set what = '', words = '', ended_at = coalesce(g.ended_at, new.erased_at) where g.business_id = new.business_id
    and g.handover_id in (select h.id from handovers h where h.business_id = new.business_id and h.customer_id = new.id);
  update returns r set words = '', answer = '', label = case when r.label is null then null else emptied(r.label) end
    where r.business_id = new.business_id
    and r.handover_id in (select h.id from handovers h where h.business_id = new.business_id and h.customer_id = new.id);
  return null;
end $$;

CREATE FUNCTION public.forget_papers(person uuid, before date, word text, at timestamp with time zone) RETURNS boolean
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
declare
  holder uuid := current_business();
  t record;
  gone_invoices uuid[];
  gone_receipts uuid[];
  gone_credits uuid[];
  gone_payments uuid[];
  left_over boolean;
begin
  if not exists (select from customers c where c.business_id = holder and c.id = person and c.erased_at is not null) then return true; end if;
  select * into t from customers_things(person);
  select coalesce(array_agg(i.id), '{}') into gone_invoices from invoices i where i.business_id = holder and i.id = any (t.invoice_ids) and i.issued_on < before;
  select coalesce(array_agg(p.id), '{}') into gone_payments from payments p
    where p.business_id = holder and p.id = any (t.payment_ids) and coalesce(p.settled_at, p.started_at) < before;
  select coalesce(array_agg(r.id), '{}') into gone_receipts from receipts r
    where r.business_id = holder and r.issued_at < before
      and (r.payment_id = any (t.payment_ids) or r.invoice_id = any (t.invoice_ids) or r.order_id = any (t.order_ids));
  select coalesce(array_agg(c.id), '{}') into gone_credits from credit_notes c
    where c.business_id = holder and c.issued_on < before and c.invoice_id = any (t.invoice_ids);

  -- A file that goes with another paper too stays with that one.
  perform empty_files(array(
    select one.id from (
      select f ->> 'id' as id from invoices i, jsonb_array_elements(coalesce(i.printed -> 'files', '[]')) f where i.business_id = holder and i.id = any (gone_invoices)
      union select i.printed ->> 'elsewhere' from invoices i where i.business_id = holder and i.id = any (gone_invoices)
      union select f ->> 'id' from invoice_versions v, jsonb_array_elements(coalesce(v.printed -> 'files', '[]')) f
        where v.business_id = holder and v.invoice_id = any (gone_invoices)
      union select v.printed ->> 'elsewhere' from invoice_versions v where v.business_id = holder and v.invoice_id = any (gone_invoices)) one
    where one.id is not null
      and not exists (select from invoices i where i.business_id = holder and i.id <> all (gone_invoices)
        and (position(one.id in i.paper::text) > 0 or position(one.id in coalesce(i.printed::text, '')) > 0))
      and not exists (select from templates m where m.business_id = holder and position(one.id in m.paper::text) > 0)
      and not exists (select from plans p where p.business_id = holder and position(one.id in p.terms::text) > 0)
      and not exists (select from recurring_invoices r where r.business_id = holder and position(one.id in r.paper::text) > 0)));
  update invoices i set printed = without_payer(i.printed, word) where i.business_id = holder and i.id = any (gone_invoices) and i.printed is not null;
  update invoice_versions v set printed = without_payer(v.printed, word) where v.business_id = holder and v.invoice_id = any (gone_invoices);
  update credit_notes c set printed = without_payer(c.printed, word), reason = '' where c.business_id = holder and c.id = any (gone_credits);
  -- How it was paid stays, without what somebody noted of it.
  update receipts r set printed = without_payer(r.printed, word) || jsonb_build_object('method', split_part(coalesce(r.printed ->> 'method', ''), ',', 1)) where r.business_id = holder and r.id = any (gone_receipts);
  delete from documents d where d.business_id = holder and (d.kind = 'invoice' and d.subject_id = any (gone_invoices)
    or d.kind = 'receipt' and d.subject_id = any (gone_receipts) or d.kind = 'credit-note' and d.subject_id = any (gone_credits));
  update bank_lines l set text = '', name = '', other_account = '', reference = '' from bank_matches m
    where l.business_id = holder and m.business_id = holder and m.line_id = l.id and m.undone_at is null
      and (m.invoice_id = any (gone_invoices) or m.payment_id = any (gone_payments)
        or m.refund_id in (select f.id from refunds f where f.business_id = holder and f.payment_id = any (gone_payments)));
  update refunds f set reason = '', reference = '' where f.business_id = holder and f.payment_id = any (gone_payments);
  update payments p set reference = '', card_last4 = case when p.card_last4 is null then null else '0000' end
    where p.business_id = holder and p.id = any (gone_payments);

  left_over := exists (select from invoices i where i.business_id = holder and i.id = any (t.invoice_ids) and i.issued_on >= before)
    or exists (select from receipts r where r.business_id = holder and r.issued_at >= before
      and (r.payment_id = any (t.payment_ids) or r.invoice_id = any (t.invoice_ids) or r.order_id = any (t.order_ids)))
    or exists (select from credit_notes c where c.business_id = holder and c.issued_on >= before and c.invoice_id = any (t.invoice_ids))
    or exists (select from payments p where p.business_id = holder and p.id = any (t.payment_ids) and coalesce(p.settled_at, p.started_at) >= before);
  if not left_over then
    update customers c set papers_gone_at = at where c.business_id = holder and c.id = any (t.customer_ids) and c.papers_gone_at is null;
  end if;
  return left_over;
end $$;

CREATE FUNCTION public.forget_steps(address text) RETURNS void
    LANGUAGE sql SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$ delete from sign_in_steps where email_key = steps_name(address) $$;

CREATE FUNCTION public.framing_sites(called text) RETURNS TABLE(sites text[])
    LANGUAGE sql STABLE SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
    select offers.sites from offer_names named join offers on offers.business_id = named.business_id and offers.id = named.offer_id
      where named.name = called
    union all
    select offers.sites from orders join offers on offers.business_id = orders.business_id and offers.id = orders.offer_id
      where orders.business_id = business_of(called) and orders.token = called
    limit 1
  $$;

CREATE FUNCTION public.has_step(named text) RETURNS boolean
    LANGUAGE sql STABLE SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
    select exists (select from sign_in_steps where email_key = named and time_key is not null)
      or exists (select from passkeys where email_key = named)
  $$;

CREATE TABLE public.invoice_sums (
    business_id uuid NOT NULL,
    currency text NOT NULL,
    status text NOT NULL,
    due_on date NOT NULL,
    invoices integer NOT NULL,
    total_minor bigint NOT NULL,
    due_minor bigint NOT NULL
);

CREATE FUNCTION public.invoice_sum(business_id uuid, currency text, status text, due_on date, total_minor bigint, due_minor bigint, sign integer) RETURNS public.invoice_sums
    LANGUAGE sql IMMUTABLE
    AS $$
    select business_id, currency, status, case when status in ('paid', 'cancelled') then '-infinity'::date else due_on end,
      sign, sign * total_minor, sign * due_minor
  $$;

CREATE FUNCTION public.invoices_matching(words text, pattern text, amount_minor bigint, most integer) RETURNS SETOF uuid
    LANGUAGE sql STABLE SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
    (select id from invoices where business_id = (select current_business()) and number is not null and lower(number) ~>=~ words
      and lower(number) ~<~ (words || chr(1114111))
      order by lower(number) using ~<~ limit most)
    union (select id from invoices where business_id = (select current_business()) and reference || title <> ''
      and lower(reference || ' ' || title) like pattern limit most)
    union (select id from invoices where business_id = (select current_business()) and stage <> 'draft' and total_minor = amount_minor limit most)
  $$;

CREATE FUNCTION public.keep_invoice_sums() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
declare
  moved invoice_sums[] := '{}';
begin
  if tg_op <> 'DELETE' then
    select moved || array_agg(invoice_sum(business_id, currency, status, due_on, total_minor, due_minor, 1)) into moved
    from added where stage <> 'draft';
  end if;
  if tg_op <> 'INSERT' then
    select moved || array_agg(invoice_sum(business_id, currency, status, due_on, total_minor, due_minor, -1)) into moved
    from removed where stage <> 'draft';
  end if;
  insert into invoice_sums as kept
  select business_id, currency, status, due_on, sum(invoices), sum(total_minor), sum(due_minor)
  from unnest(moved) as one
  group by business_id, currency, status, due_on
  having sum(invoices) <> 0 or sum(total_minor) <> 0 or sum(due_minor) <> 0
  -- In the order of the key, so that no two transactions wait for each other.
  order by business_id, currency, status, due_on
  on conflict (business_id, currency, status, due_on) do update
  set invoices = kept.invoices + excluded.invoices, total_minor = kept.total_minor + excluded.total_minor,
    due_minor = kept.due_minor + excluded.due_minor;
  return null;
end $$;

CREATE FUNCTION public.keep_new_payment_sums() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
begin
  insert into register_sums as kept
  select added.business_id, added.currency, (added.settled_at at time zone zone)::date as day, channel, method, count(*),
    sum(amount_minor + tip_minor), 0, 0
  from added join businesses on businesses.business_id = added.business_id
  where state = 'paid' or (state = 'voided' and method = 'card')
  group by 1, 2, 3, 4, 5
  order by 1, 2, 3, 4, 5
  on conflict (business_id, currency, day, channel, method) do update
  set payments = kept.payments + excluded.payments, paid_minor = kept.paid_minor + excluded.paid_minor;
  return null;
end $$;

CREATE FUNCTION public.keep_payment_sums() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
begin
  insert into register_sums as kept
  select moved.business_id, moved.currency, (moved.settled_at at time zone zone)::date as day, channel, method, sum(sign),
    sum(sign * (amount_minor + tip_minor)), 0, 0
  from (
    select business_id, currency, settled_at, channel, method, state, amount_minor, tip_minor, 1 as sign from added
    union all
    select business_id, currency, settled_at, channel, method, state, amount_minor, tip_minor, -1 from removed
  ) as moved join businesses on businesses.business_id = moved.business_id
  -- A card's that was voided came in and went out again; what was written down by mistake never came.
  where state = 'paid' or (state = 'voided' and method = 'card')
  group by 1, 2, 3, 4, 5
  having sum(sign) <> 0 or sum(sign * (amount_minor + tip_minor)) <> 0
  order by 1, 2, 3, 4, 5
  on conflict (business_id, currency, day, channel, method) do update
  set payments = kept.payments + excluded.payments, paid_minor = kept.paid_minor + excluded.paid_minor;
  return null;
end $$;

CREATE FUNCTION public.keep_refund_sums() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
begin
  insert into register_sums as kept
  select moved.business_id, payments.currency, (moved.settled_at at time zone zone)::date as day, channel, moved.method, 0, 0,
    sum(sign), sum(sign * moved.amount_minor)
  from (
    select business_id, payment_id, method, state, settled_at, amount_minor, 1 as sign from added
    union all
    select business_id, payment_id, method, state, settled_at, amount_minor, -1 from removed
  ) as moved
    join payments on payments.business_id = moved.business_id and payments.id = moved.payment_id
    join businesses on businesses.business_id = moved.business_id
  where moved.state = 'done'
  group by 1, 2, 3, 4, 5
  having sum(sign) <> 0 or sum(sign * moved.amount_minor) <> 0
  order by 1, 2, 3, 4, 5
  on conflict (business_id, currency, day, channel, method) do update
  set refunds = kept.refunds + excluded.refunds, refunded_minor = kept.refunded_minor + excluded.refunded_minor;
  return null;
end $$;

CREATE FUNCTION public.key_holder(begins text, hash bytea, at timestamp with time zone) RETURNS TABLE(business_id uuid, key_id uuid, name text, rights text[], person_id uuid, role text, extra text[], closed boolean, unused_seconds double precision)
    LANGUAGE sql STABLE SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
    select k.business_id, k.id, k.name, k.rights, k.person_id, p.role, p.extra, b.closed_at is not null,
      extract(epoch from now() - k.used_at)::float8
    from program_keys k
    join people p on p.business_id = k.business_id and p.id = k.person_id
    join businesses b on b.business_id = k.business_id
    where k.business_id = business_of(begins) and k.secret_hash = hash and k.ended_at is null and k.good_until > at and p.left_at is null
  $$;

CREATE FUNCTION public.link_holder(token text) RETURNS TABLE(business_id uuid, invoice_id uuid)
    LANGUAGE sql STABLE SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
    select invoices.business_id, invoices.id from invoices
    where invoices.business_id = business_of(token) and link_token = token and stage <> 'draft'
  $$;

CREATE FUNCTION public.link_key(business_id uuid) RETURNS text
    LANGUAGE sql IMMUTABLE PARALLEL SAFE
    AS $$ select translate(encode(decode(left(replace(business_id::text, '-', ''), 12), 'hex'), 'base64'), '+/', '-_') $$;

CREATE FUNCTION public.move_sign_in_name(person uuid, address text) RETURNS boolean
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
declare
  before text;
begin
  select email_key into before from sign_in_names where business_id = current_business() and person_id = person;
  perform pg_advisory_xact_lock(hashtextextended(key, 0)) from unnest(array[before, lower(address)]) key where key is not null order by key;
  if before is null or exists (select from sign_in_names where email_key = lower(address)) then return false; end if;
  if exists (select from people join sign_in_names mine using (business_id)
      where mine.email_key = before and lower(people.email) = lower(address)) then
    return false;
  end if;
  update people set email = address from sign_in_names mine
    where mine.email_key = before and people.business_id = mine.business_id and people.id = mine.person_id;
  update sign_in_steps set email_key = lower(address) where email_key = before;
  update sign_in_names set email_key = lower(address) where email_key = before;
  return true;
end $$;

CREATE FUNCTION public.newest_migration() RETURNS text
    LANGUAGE plpgsql STABLE SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$ begin return (select m.name from migrations m order by m.id desc limit 1); end $$;

CREATE FUNCTION public.offer_holder(called text) RETURNS TABLE(business_id uuid, offer_id uuid)
    LANGUAGE sql STABLE SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$ select named.business_id, named.offer_id from offer_names named where named.name = called $$;

CREATE FUNCTION public.order_holder(opened text) RETURNS TABLE(business_id uuid, order_id uuid)
    LANGUAGE sql STABLE SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$ select orders.business_id, orders.id from orders where orders.business_id = business_of(opened) and token = opened $$;

CREATE FUNCTION public.other_desks(person uuid) RETURNS TABLE(business_id uuid, person_id uuid, business text, role text)
    LANGUAGE sql STABLE SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
    select people.business_id, people.id, businesses.name, people.role
    from sign_in_names mine
    join sign_in_names other on other.email_key = mine.email_key and other.business_id <> mine.business_id
    join people on people.business_id = other.business_id and people.id = other.person_id and people.left_at is null
    join businesses on businesses.business_id = other.business_id
    where mine.business_id = current_business() and mine.person_id = person
    order by businesses.name, businesses.business_id
  $$;

CREATE FUNCTION public.passkey_holder(credential text) RETURNS TABLE(address text, handle bytea, public_key bytea, counter bigint, transports text[])
    LANGUAGE sql STABLE SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
    select s.email_key, s.handle, p.public_key, p.counter, p.transports
    from passkeys p join sign_in_steps s using (email_key) where p.credential_id = credential
  $$;

CREATE FUNCTION public.passkeys_of(address text) RETURNS TABLE(id text, public_key bytea, counter bigint, transports text[], name text, made_at timestamp with time zone, used_at timestamp with time zone)
    LANGUAGE sql STABLE SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
    select credential_id, p.public_key, p.counter, p.transports, p.name, p.made_at, p.used_at from passkeys p
    where p.email_key = steps_name(address) order by p.made_at, credential_id
  $$;

CREATE FUNCTION public.payer_view(token text) RETURNS TABLE(business_id uuid, invoice_id uuid, printed jsonb, stage text, paid_minor bigint, due_minor bigint, credited_minor bigint, refunded_minor bigint, total_minor bigint, smallest_minor bigint, zone text, terms_accepted jsonb, pending jsonb, held_minor bigint, under_way jsonb, refused jsonb, receipts jsonb, approvals jsonb, asked_minor bigint, counted_minor bigint)
    LANGUAGE sql STABLE SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
    select i.business_id, i.id, i.printed, i.stage, i.paid_minor, i.due_minor, i.credited_minor, i.refunded_minor, i.total_minor,
      coalesce((b.smallest_payments ->> i.currency)::bigint, 1), b.zone, i.terms_accepted,
      (select jsonb_build_object('id', p.id, 'approvalUrl', p.approval_url, 'expectedAt', p.expected_at,
          'card', p.card_scheme || ' ·' || p.card_last4) from payments p
        where p.business_id = i.business_id and p.invoice_id = i.id and p.state = 'pending' and p.exclusive),
      coalesce((select sum(p.amount_minor) from payments p
        where p.business_id = i.business_id and p.invoice_id = i.id and p.state = 'pending'), 0)::bigint,
      coalesce((select jsonb_agg(jsonb_build_object('amountMinor', p.amount_minor, 'tipMinor', p.tip_minor,
          'approval', p.approval_url is not null, 'expectedAt', p.expected_at) order by p.started_at, p.id)
        from payments p where p.business_id = i.business_id and p.invoice_id = i.id and p.state = 'pending'), '[]'),
      (select case when last.state = 'refused' then jsonb_build_object('reason', last.reason, 'at', last.started_at) end
        from (select state, reason, started_at from (
            select state, reason, started_at, id from payments p where p.business_id = i.business_id and p.invoice_id = i.id
            union all
            -- A debit that came back is the latest word as well.
            select 'refused', r.wish ->> 'why', r.settled_at, r.id from refunds r
              join payments p on p.business_id = r.business_id and p.id = r.payment_id
            where p.business_id = i.business_id and p.invoice_id = i.id and r.kind = 'return'
          ) as tries order by started_at desc, id desc limit 1) as last),
      coalesce((select jsonb_agg(jsonb_build_object('number', r.number, 'amountMinor', p.amount_minor, 'tipMinor', p.tip_minor,
          'at', p.settled_at, 'method', p.method, 'card', coalesce(p.card_scheme || ' ·' || p.card_last4, '')) order by r.issued_at, r.id)
        from receipts r join payments p on p.business_id = r.business_id and p.id = r.payment_id and p.state = 'paid'
        where r.business_id = i.business_id and r.invoice_id = i.id), '[]'),
      coalesce((select jsonb_agg(one) from (
          select distinct on (a.file_id, a.approver_id) a.file_id as "fileId", a.approver_id as "approverId", a.decision, a.by_name as "byName", a.decided_at as at
          from approvals a where a.business_id = i.business_id and a.invoice_id = i.id
          order by a.file_id, a.approver_id, a.decided_at desc) as one), '[]'),
      coalesce((select sum(c.amount_minor) from charges c
        where c.business_id = i.business_id and c.invoice_id = i.id and c.state in ('billed', 'refused')), 0)::bigint,
      coalesce((select sum(c.amount_minor) from charges c
        where c.business_id = i.business_id and c.invoice_id = i.id and c.state = 'charged'), 0)::bigint
    from invoices i join businesses b on b.business_id = i.business_id
    where i.business_id = business_of(token) and i.link_token = token and i.stage <> 'draft'
  $$;

CREATE FUNCTION public.payments_matching(first text, second text, third text, whole text, typed text, digits text, amounts bigint[], most integer) RETURNS SETOF uuid
    LANGUAGE sql STABLE SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
    with holder as materialized (select current_business() as id),
    people as materialized (select customers_matching(first, second, third, most) as id)
    (select p.id from payments p, holder where p.business_id = holder.id and p.customer_id in (select people.id from people)
      order by p.at desc limit most)
    union (select p.id from payments p, holder where p.business_id = holder.id
      and p.invoice_id in (select invoices_matching(typed, whole, null, most)) limit most)
    union (select p.id from payments p join orders o on o.business_id = p.business_id and o.id = p.order_id, holder
      where o.business_id = holder.id and o.state = 'paid'
        and lower(o.reference || ' ' || o.payer_email || ' ' || coalesce(o.printed -> 'payer' ->> 'name', '')) like whole limit most)
    union (select r.payment_id from receipts r, holder where r.business_id = holder.id and lower(r.number) = typed)
    union (select r.payment_id from refunds r join credit_notes c on c.business_id = r.business_id and c.id = r.credit_id, holder
      where c.business_id = holder.id and c.number = upper(typed))
    union (select p.id from payments p, holder where p.business_id = holder.id and p.card_last4 = digits order by p.started_at desc limit most)
    union (select p.id from payments p, holder where p.business_id = holder.id and p.reference <> '' and lower(p.reference) like whole limit most)
    union (select p.id from payments p, holder where p.business_id = holder.id and p.amount_minor = any(amounts)
      order by p.started_at desc limit most)
    union (select p.id from payments p, holder where p.business_id = holder.id and p.tip_minor > 0
      and p.amount_minor + p.tip_minor = any(amounts) limit most)
    union (select r.payment_id from refunds r, holder where r.business_id = holder.id and r.amount_minor = any(amounts) limit most)
  $$;

CREATE FUNCTION public.payments_with_item(item uuid) RETURNS SETOF uuid
    LANGUAGE sql STABLE SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $_$
    select p.id from orders o join payments p on p.business_id = o.business_id and p.order_id = o.id
    where o.business_id = (select current_business()) and jsonb_path_query_array(o.printed, '$.lines[*].itemId') @> to_jsonb(item::text)
    union all
    select p.id from invoices i join payments p on p.business_id = i.business_id and p.invoice_id = i.id
    where i.business_id = (select current_business()) and jsonb_path_query_array(i.printed, '$.lines[*].itemId') @> to_jsonb(item::text)
  $_$;

CREATE FUNCTION public.people_with_step() RETURNS SETOF uuid
    LANGUAGE sql STABLE SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$ select person_id from sign_in_names where business_id = current_business() and has_step(email_key) $$;

CREATE FUNCTION public.plan_holder(token text) RETURNS TABLE(business_id uuid, plan_id uuid)
    LANGUAGE sql STABLE SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
    select plans.business_id, plans.id from plans
    where plans.business_id = business_of(token) and link_token = token and state <> 'draft'
  $$;

CREATE FUNCTION public.protect_table(table_name regclass, privileges text) RETURNS void
    LANGUAGE plpgsql
    AS $$
begin
  execute format('alter table %s enable row level security', table_name);
  execute format(
    'create policy own_business on %s to dahlia_app using (business_id = (select current_business())) with check (business_id = (select current_business()))',
    table_name);
  execute format('grant %s on %s to dahlia_app', privileges, table_name);
end $$;

CREATE FUNCTION public.refuse_change() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
begin
  if tg_op = 'DELETE' and current_setting('dahlia.erasing', true) = 'a closed business' then return null; end if;
  raise exception 'the ledger is only ever added to' using errcode = 'insufficient_privilege';
end $$;

CREATE FUNCTION public.refuse_change_of_log() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
begin
  if tg_op = 'DELETE' and current_setting('dahlia.erasing', true) = 'a closed business' then return null; end if;
  raise exception 'the log is only ever added to' using errcode = 'insufficient_privilege';
end $$;

CREATE FUNCTION public.refuse_empty_entry() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
begin
  if not exists (select 1 from ledger_postings where business_id = new.business_id and entry_id = new.id) then
    raise exception 'ledger entry % has no postings', new.id
      using errcode = 'check_violation', constraint = 'ledger_entries_not_empty';
  end if;
  return null;
end $$;

CREATE FUNCTION public.refuse_unbalanced_entries() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
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

CREATE FUNCTION public.remove_passkey(address text, credential text) RETURNS text
    LANGUAGE sql SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$ delete from passkeys where credential_id = credential and email_key = steps_name(address) returning name $$;

CREATE FUNCTION public.session_holder(begins text, hash bytea, at timestamp with time zone, idle interval) RETURNS TABLE(person_id uuid, business_id uuid, name text, role text, extra text[], unused_seconds double precision, proved_seconds double precision, lacks_step boolean, closed boolean, day_way text, number_way text)
    LANGUAGE sql STABLE SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
    select people.id, people.business_id, people.name, people.role, people.extra, extract(epoch from now() - sessions.used_at)::float8,
      extract(epoch from now() - sessions.proved_at)::float8, businesses.step_required and not has_step(lower(people.email)),
      businesses.closed_at is not null, people.day_way, people.number_way
    from sessions
    join people on people.business_id = sessions.business_id and people.id = sessions.person_id
    join businesses on businesses.business_id = sessions.business_id
    where sessions.business_id = coalesce(business_of(encode(hash, 'hex')), business_of(begins))
      and sessions.token_hash = hash and sessions.expires_at > at and sessions.used_at > now() - idle and people.left_at is null
  $$;

CREATE FUNCTION public.set_password_elsewhere(person uuid, hash text) RETURNS void
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
begin
  update people set password_hash = hash from other_desks(person) other
    where people.business_id = other.business_id and people.id = other.person_id;
  delete from sessions using other_desks(person) other
    where sessions.business_id = other.business_id and sessions.person_id = other.person_id;
end $$;

CREATE FUNCTION public.set_recovery_codes(address text, hashes bytea[]) RETURNS void
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
begin
  delete from recovery_codes where email_key = steps_name(address);
  insert into recovery_codes (email_key, code_hash) select steps_name(address), unnest(hashes);
end $$;

CREATE FUNCTION public.set_steps_lost(address text, at timestamp with time zone) RETURNS void
    LANGUAGE sql SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$ update sign_in_steps set lost_at = at where email_key = steps_name(address) $$;

CREATE FUNCTION public.set_time_key(address text, sealed bytea, step bigint, at timestamp with time zone) RETURNS void
    LANGUAGE sql SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
    update sign_in_steps set time_key = sealed, time_since = case when sealed is not null then at end, time_step = coalesce(step, time_step)
    where email_key = steps_name(address)
  $$;

CREATE FUNCTION public.set_writing_elsewhere(person uuid, days text, numbers text) RETURNS void
    LANGUAGE sql SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
    update people set day_way = days, number_way = numbers from other_desks(person) other
      where people.business_id = other.business_id and people.id = other.person_id
  $$;

CREATE FUNCTION public.sign_in_candidates(address text) RETURNS TABLE(person_id uuid, business_id uuid, password_hash text, confirmed boolean)
    LANGUAGE sql STABLE SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
    (select people.id, people.business_id, people.password_hash, true
      from sign_in_names named join people on people.business_id = named.business_id and people.id = named.person_id
      where named.email_key = lower(address) and people.left_at is null
      order by (select max(used_at) from sessions s where s.business_id = people.business_id and s.person_id = people.id) desc nulls last,
        people.created_at)
    union all
    (select people.id, people.business_id, people.password_hash, false
      from unconfirmed_names claimed join people on people.business_id = claimed.business_id and people.id = claimed.person_id
      where claimed.email_key = lower(address) and people.left_at is null
        and not exists (select from sign_in_names where email_key = lower(address))
      order by claimed.created_at desc limit 4)
  $$;

CREATE FUNCTION public.steps_name(address text) RETURNS text
    LANGUAGE sql STABLE SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
    select email_key from sign_in_names
    where email_key = lower(address) and (current_business() is null or business_id = current_business()) limit 1
  $$;

CREATE FUNCTION public.steps_of(address text) RETURNS TABLE(handle bytea, time_key bytea, time_since timestamp with time zone, time_step bigint, lost_at timestamp with time zone, codes_left integer, passkeys integer)
    LANGUAGE sql STABLE SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
    select s.handle, s.time_key, s.time_since, s.time_step, s.lost_at,
      (select count(*)::int from recovery_codes c where c.email_key = s.email_key and c.used_at is null),
      (select count(*)::int from passkeys p where p.email_key = s.email_key)
    from sign_in_steps s where s.email_key = steps_name(address)
  $$;

CREATE FUNCTION public.take_recovery_code(address text, hash bytea, at timestamp with time zone) RETURNS boolean
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
begin
  update recovery_codes set used_at = at where email_key = steps_name(address) and code_hash = hash and used_at is null;
  return found;
end $$;

CREATE FUNCTION public.take_time_step(address text, step bigint) RETURNS boolean
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
begin
  update sign_in_steps set time_step = step where email_key = steps_name(address) and time_step < step;
  return found;
end $$;

CREATE FUNCTION public.use_passkey(credential text, counted bigint, at timestamp with time zone) RETURNS boolean
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
begin
  update passkeys set counter = counted, used_at = at where credential_id = credential and (counted > counter or (counted = 0 and counter = 0));
  return found;
end $$;

CREATE FUNCTION public.waiting_jobs() RETURNS TABLE(task text, seconds double precision)
    LANGUAGE sql STABLE SECURITY DEFINER
    SET search_path TO 'pg_catalog', 'pg_temp'
    AS $$ select task, seconds from graphile_worker.waiting() $$;

CREATE FUNCTION public.without_payer(printed jsonb, word text) RETURNS jsonb
    LANGUAGE plpgsql IMMUTABLE
    SET search_path TO 'public', 'pg_temp'
    AS $$
declare
  bare jsonb := blanked(printed, '{payer,note,reference,title,files,what,phone,deliveryTo,message,answers,gift,passed,ownReference,reason}');
begin
  if bare ? 'elsewhere' then bare := jsonb_set(bare, '{elsewhere}', 'null'); end if;
  if bare #> '{payer,name}' is not null then bare := jsonb_set(bare, '{payer,name}', to_jsonb(word)); end if;
  if bare #> '{invoice,payer,name}' is not null then bare := jsonb_set(bare, '{invoice,payer,name}', to_jsonb(word)); end if;
  return bare;
end $$;

CREATE FUNCTION public.without_words(kind text, details jsonb) RETURNS jsonb
    LANGUAGE sql IMMUTABLE
    SET search_path TO 'public', 'pg_temp'
    AS $$
    select blanked(details, '{to,name,text,comment,trouble,note,problem}'
        || case when kind in ('cancelled', 'credited', 'given-back', 'payment-taken-back', 'invoice-cancelled', 'invoice-credited', 'refund-made')
          then '{reason}'::text[] else '{}' end)
      || case when details ->> 'card' like '%,%' then jsonb_build_object('card', split_part(details ->> 'card', ',', 1)) else '{}' end
  $$;

CREATE FUNCTION public.work_due(at timestamp with time zone) RETURNS TABLE(business_id uuid, concern text)
    LANGUAGE sql STABLE SECURITY DEFINER
    SET search_path TO 'public', 'pg_temp'
    AS $$
    -- Somewhere it is a day later than in UTC for fourteen hours: the index gives those, then each business's own day counts.
    with latest as (select (at at time zone 'UTC' + interval '14 hours')::date as day)
    select distinct i.business_id, 'timed-sending' from invoices i where i.stage = 'draft' and i.send_at <= at
    union all
    select distinct r.business_id, 'recurring' from recurring_invoices r join businesses b using (business_id)
      where r.state = 'active' and r.next_on <= (select day from latest) and r.next_on <= (at at time zone b.zone)::date
    union all
    select distinct r.business_id, 'reminders' from reminders r join businesses b using (business_id)
      where r.state = 'waiting' and r.remind_on <= (select day from latest) and r.remind_on <= (at at time zone b.zone)::date
    union all
    select distinct c.business_id, 'charges' from charges c where c.act_at <= at
    union all
    select distinct c.business_id, 'notices' from charges c join businesses b using (business_id)
      where c.state = 'upcoming' and c.noticed_at is null and c.notice_on <= (select day from latest)
        and c.notice_on <= (at at time zone b.zone)::date
    union all
    select distinct p.business_id, 'plan-reminders' from plans p
      where p.state = 'waiting' and p.reminded_at is null and p.remind_at <= at
    union all
    select distinct p.business_id, 'lapses' from plans p join businesses b using (business_id)
      where p.state = 'waiting' and p.lapses_on < (select day from latest) and p.lapses_on < (at at time zone b.zone)::date
    union all
    select distinct p.business_id, 'lapses' from plans p join businesses b using (business_id)
      where p.ends_on <= (select day from latest) and p.ends_on <= (at at time zone b.zone)::date
    union all
    select d.business_id, d.concern from daily_looks d where d.due_at <= at
    union all
    -- A day is closed a quarter of an hour after midnight, when its last payments are written down.
    select b.business_id, 'closing' from businesses b
      where (b.batches_closed_to is null or b.batches_closed_to < (select day from latest) - 1)
        and (b.batches_closed_to is null
          or b.batches_closed_to < ((at - interval '15 minutes') at time zone b.zone)::date - 1)
    union all
    -- Who is to be paid out is looked at once a day, when the day before is closed; and what the bank was asked for, until it answers.
    select b.business_id, 'payouts' from businesses b
      where (b.payouts_made_to is null or b.payouts_made_to < (select day from latest))
        and b.batches_closed_to >= (at at time zone b.zone)::date - 1
        and (b.payouts_made_to is null or b.payouts_made_to < (at at time zone b.zone)::date)
    union
    select p.business_id, 'payouts' from payouts p where p.act_at <= at
    union
    select a.business_id, 'payouts' from bank_accounts a where a.act_at <= at
    union
    -- Who stands behind a business is asked for until it is decided; pictures go after their time.
    select c.business_id, 'payouts' from identity_checks c where c.act_at <= at
    union all
    -- Vouchers go out on the day that was chosen, and are over after their last one.
    select distinct v.business_id, 'vouchers' from vouchers v join businesses b using (business_id)
      where v.sent_at is null and v.send_on <= (select day from latest) and v.send_on <= (at at time zone b.zone)::date
    union
    select distinct v.business_id, 'vouchers' from vouchers v join businesses b using (business_id)
      where v.balance_minor > 0 and v.expires_on < (select day from latest) and v.expires_on < (at at time zone b.zone)::date
    union all
    select distinct n.business_id, 'news' from news n where n.mail_at <= work_due.at
    union all
    -- Parcels: what the carrier is asked about next, and notices whose hour has come.
    select distinct p.business_id, 'parcels' from parcels p where p.act_at <= work_due.at
    union
    select distinct c.business_id, 'parcels' from parcel_claims c where c.look_at <= work_due.at
  $$;

CREATE TABLE public.approvals (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    invoice_id uuid NOT NULL,
    file_id uuid NOT NULL,
    decision text NOT NULL,
    comment text NOT NULL,
    by_name text NOT NULL,
    sha256 text NOT NULL,
    decided_at timestamp with time zone NOT NULL,
    approver_id uuid,
    CONSTRAINT approvals_decision_known CHECK ((decision = ANY (ARRAY['approved'::text, 'change'::text])))
);

CREATE TABLE public.attempt_limits (
    key character varying(255) NOT NULL,
    points integer DEFAULT 0 NOT NULL,
    expire double precision
);

CREATE TABLE public.authorisation_texts (
    business_id uuid NOT NULL,
    version integer NOT NULL,
    text text NOT NULL,
    created_at timestamp with time zone NOT NULL,
    by_name text NOT NULL
);

CREATE TABLE public.authorisations (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    customer_id uuid NOT NULL,
    card_id uuid,
    plan_id uuid,
    how text NOT NULL,
    text text NOT NULL,
    text_version integer NOT NULL,
    given_by text NOT NULL,
    taken_by text NOT NULL,
    given_from text NOT NULL,
    file_id uuid,
    given_at timestamp with time zone NOT NULL,
    withdrawn_at timestamp with time zone,
    withdrawn_by text,
    CONSTRAINT authorisations_how_known CHECK ((how = ANY (ARRAY['drawn'::text, 'ticked'::text, 'telephone'::text, 'paper'::text])))
);

CREATE TABLE public.bank_accounts (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    partner_id uuid,
    payee uuid GENERATED ALWAYS AS (COALESCE(partner_id, business_id)) STORED NOT NULL,
    currency text NOT NULL,
    number text NOT NULL,
    holder text NOT NULL,
    state text NOT NULL,
    credits bigint[] NOT NULL,
    tries smallint DEFAULT 0 NOT NULL,
    reason text DEFAULT ''::text NOT NULL,
    made_at timestamp with time zone NOT NULL,
    checked_at timestamp with time zone,
    act_at timestamp with time zone,
    statements_to date,
    CONSTRAINT bank_accounts_currency_known CHECK ((currency ~ '^[A-Z]{3}$'::text)),
    CONSTRAINT bank_accounts_number_given CHECK ((number <> ''::text)),
    CONSTRAINT bank_accounts_state_known CHECK ((state = ANY (ARRAY['checking'::text, 'checked'::text, 'refused'::text, 'left'::text])))
);

CREATE TABLE public.bank_lines (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    statement_id uuid NOT NULL,
    account text NOT NULL,
    currency text NOT NULL,
    key text NOT NULL,
    "position" integer NOT NULL,
    day date NOT NULL,
    amount_minor bigint NOT NULL,
    text text NOT NULL,
    name text NOT NULL,
    other_account text NOT NULL,
    reference text NOT NULL,
    end_to_end text NOT NULL,
    bank_reference text NOT NULL,
    state text DEFAULT 'open'::text NOT NULL,
    CONSTRAINT bank_lines_not_nothing CHECK ((amount_minor <> 0)),
    CONSTRAINT bank_lines_state_known CHECK ((state = ANY (ARRAY['open'::text, 'later'::text, 'matched'::text])))
);

CREATE TABLE public.bank_matches (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    line_id uuid NOT NULL,
    kind text NOT NULL,
    aside text,
    words text NOT NULL,
    amount_minor bigint NOT NULL,
    invoice_id uuid,
    payment_id uuid,
    payout_id uuid,
    refund_id uuid,
    press uuid NOT NULL,
    by_name text NOT NULL,
    made_at timestamp with time zone NOT NULL,
    undone_at timestamp with time zone,
    CONSTRAINT bank_matches_aside_known CHECK ((aside = ANY (ARRAY['charge'::text, 'cash'::text, 'check'::text, 'other'::text]))),
    CONSTRAINT bank_matches_aside_where_one CHECK (((kind = 'aside'::text) = (aside IS NOT NULL))),
    CONSTRAINT bank_matches_kind_known CHECK ((kind = ANY (ARRAY['invoice'::text, 'payout'::text, 'refund'::text, 'payment'::text, 'aside'::text])))
);

CREATE TABLE public.bank_rules (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    words text NOT NULL,
    account text NOT NULL,
    is_in boolean NOT NULL,
    customer_id uuid,
    aside text,
    note text NOT NULL,
    made_at timestamp with time zone NOT NULL,
    by_name text NOT NULL,
    CONSTRAINT bank_rules_aside_known CHECK ((aside = ANY (ARRAY['charge'::text, 'cash'::text, 'check'::text, 'other'::text]))),
    CONSTRAINT bank_rules_known_by CHECK (((words <> ''::text) OR (account <> ''::text))),
    CONSTRAINT bank_rules_one_of_two CHECK (((customer_id IS NULL) <> (aside IS NULL)))
);

CREATE TABLE public.bank_statements (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    account text NOT NULL,
    currency text NOT NULL,
    called text NOT NULL,
    from_day date,
    to_day date,
    opening_minor bigint,
    closing_minor bigint,
    balances text NOT NULL,
    lines integer NOT NULL,
    new_lines integer NOT NULL,
    name text NOT NULL,
    read_at timestamp with time zone NOT NULL,
    by_name text NOT NULL,
    CONSTRAINT bank_statements_balances_known CHECK ((balances = ANY (ARRAY['agree'::text, 'differ'::text, 'unknown'::text])))
);

CREATE TABLE public.bulk_invoices (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    name text NOT NULL,
    paper jsonb NOT NULL,
    send_with jsonb NOT NULL,
    state text NOT NULL,
    by_id uuid NOT NULL,
    created_at timestamp with time zone NOT NULL,
    draft jsonb,
    CONSTRAINT bulk_invoices_state_known CHECK ((state = ANY (ARRAY['checked'::text, 'sending'::text, 'done'::text])))
);

CREATE TABLE public.bulk_rows (
    business_id uuid NOT NULL,
    bulk_id uuid NOT NULL,
    "position" integer NOT NULL,
    customer_id uuid,
    own jsonb DEFAULT '{}'::jsonb NOT NULL,
    total_minor bigint DEFAULT 0 NOT NULL,
    currency text DEFAULT ''::text NOT NULL,
    state text NOT NULL,
    reason text DEFAULT ''::text NOT NULL,
    invoice_id uuid,
    CONSTRAINT bulk_rows_state_known CHECK ((state = ANY (ARRAY['ready'::text, 'refused'::text, 'sent'::text])))
);

CREATE TABLE public.businesses (
    business_id uuid NOT NULL,
    name text NOT NULL,
    address text[] DEFAULT '{}'::text[] NOT NULL,
    phone text DEFAULT ''::text NOT NULL,
    email text NOT NULL,
    website text DEFAULT ''::text NOT NULL,
    tax_number text DEFAULT ''::text NOT NULL,
    country text NOT NULL,
    zone text NOT NULL,
    locale text NOT NULL,
    currency text NOT NULL,
    prices_include_tax boolean DEFAULT false NOT NULL,
    created_at timestamp with time zone NOT NULL,
    place jsonb DEFAULT '{"city": "", "lines": [], "region": "", "country": "", "postalCode": ""}'::jsonb NOT NULL,
    logo_id uuid,
    accent text DEFAULT '#6B2451'::text NOT NULL,
    bank jsonb DEFAULT '{"bank": "", "holder": "", "account": "", "bankCode": ""}'::jsonb NOT NULL,
    reminders integer[] DEFAULT '{}'::integer[] NOT NULL,
    quiet_from time without time zone DEFAULT '20:00:00'::time without time zone NOT NULL,
    quiet_to time without time zone DEFAULT '08:00:00'::time without time zone NOT NULL,
    mail_texts jsonb DEFAULT '{}'::jsonb NOT NULL,
    ways jsonb,
    terms_id uuid,
    signing_secret text DEFAULT replace(((gen_random_uuid())::text || (gen_random_uuid())::text), '-'::text, ''::text) NOT NULL,
    receipt_style jsonb DEFAULT '{}'::jsonb NOT NULL,
    charging jsonb DEFAULT '{}'::jsonb NOT NULL,
    batches_closed_to date,
    feed_version integer DEFAULT 0 NOT NULL,
    smallest_payments jsonb DEFAULT '{}'::jsonb NOT NULL,
    tariff jsonb DEFAULT '[]'::jsonb NOT NULL,
    payouts jsonb DEFAULT '{"when": {"kind": "weekly", "weekday": 1}, "smallest": {}}'::jsonb NOT NULL,
    processor_terms jsonb DEFAULT '{"lag": 1, "reserve": null}'::jsonb NOT NULL,
    payouts_made_to date,
    voucher_rule jsonb DEFAULT '{"months": 36, "toYearEnd": true}'::jsonb NOT NULL,
    signed_up_at timestamp with time zone,
    mail_confirmed_at timestamp with time zone,
    business_kind text DEFAULT ''::text NOT NULL,
    statement_name text DEFAULT ''::text NOT NULL,
    cards_since timestamp with time zone,
    step_required boolean DEFAULT false NOT NULL,
    asked_above_minor bigint,
    verified_at timestamp with time zone,
    keeping jsonb DEFAULT '{}'::jsonb NOT NULL,
    taken_along_at timestamp with time zone,
    closed_at timestamp with time zone,
    erase_on date,
    description text DEFAULT ''::text NOT NULL,
    trading_names jsonb DEFAULT '[]'::jsonb NOT NULL,
    locations jsonb DEFAULT '[]'::jsonb NOT NULL,
    delivering jsonb DEFAULT '{}'::jsonb NOT NULL,
    CONSTRAINT businesses_asked_above_positive CHECK ((asked_above_minor >= 0)),
    CONSTRAINT businesses_cards_answered CHECK (((signed_up_at IS NULL) OR (cards_since IS NULL) OR ((business_kind <> ''::text) AND (statement_name <> ''::text)))),
    CONSTRAINT businesses_closed_whole CHECK (((closed_at IS NULL) = (erase_on IS NULL))),
    CONSTRAINT businesses_kind_is_a_group CHECK ((business_kind ~ '^(\d{3})?$'::text))
);

CREATE TABLE public.card_claims (
    business_id uuid NOT NULL,
    key text NOT NULL,
    kept_id text,
    payment_id uuid,
    state text NOT NULL,
    claimed_at timestamp with time zone NOT NULL,
    CONSTRAINT card_claims_state_known CHECK ((state = ANY (ARRAY['open'::text, 'dropping'::text])))
);

CREATE TABLE public.cards (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    customer_id uuid NOT NULL,
    kept_id text NOT NULL,
    scheme text NOT NULL,
    last4 text NOT NULL,
    expires text NOT NULL,
    fingerprint text NOT NULL,
    "position" smallint NOT NULL,
    state text NOT NULL,
    trouble text,
    added_at timestamp with time zone NOT NULL,
    added_by text NOT NULL,
    asked_for text DEFAULT ''::text NOT NULL,
    CONSTRAINT cards_expires_month CHECK ((expires ~ '^[0-9]{4}-[0-9]{2}$'::text)),
    CONSTRAINT cards_last4_only CHECK ((last4 ~ '^[0-9]{4}$'::text)),
    CONSTRAINT cards_state_known CHECK ((state = ANY (ARRAY['good'::text, 'refusing'::text, 'removed'::text])))
);

CREATE TABLE public.carrier_moves (
    business_id uuid NOT NULL,
    id uuid NOT NULL,
    key text NOT NULL,
    kind text NOT NULL,
    state text NOT NULL,
    parcel_id uuid,
    currency text NOT NULL,
    minor bigint NOT NULL,
    at timestamp with time zone NOT NULL,
    by_name text NOT NULL,
    CONSTRAINT carrier_moves_kind_known CHECK ((kind = ANY (ARRAY['top-up'::text, 'label'::text, 'void'::text, 'claim'::text, 'correction'::text]))),
    CONSTRAINT carrier_moves_state_known CHECK ((state = ANY (ARRAY['asked'::text, 'done'::text, 'refused'::text])))
);

CREATE TABLE public.carrier_statements (
    business_id uuid NOT NULL,
    month date NOT NULL,
    currency text NOT NULL,
    statement jsonb,
    read_at timestamp with time zone,
    by_name text DEFAULT ''::text NOT NULL,
    left_as_is text[] DEFAULT '{}'::text[] NOT NULL,
    open integer DEFAULT 0 NOT NULL,
    act_at timestamp with time zone,
    CONSTRAINT carrier_statements_first_day CHECK ((EXTRACT(day FROM month) = (1)::numeric)),
    CONSTRAINT carrier_statements_open_not_negative CHECK ((open >= 0))
);

CREATE TABLE public.charges (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    plan_id uuid NOT NULL,
    customer_id uuid NOT NULL,
    part text NOT NULL,
    nominal date NOT NULL,
    charged_on date NOT NULL,
    amount_minor bigint NOT NULL,
    currency text NOT NULL,
    reasons jsonb DEFAULT '[]'::jsonb NOT NULL,
    state text NOT NULL,
    act_at timestamp with time zone,
    round smallint DEFAULT 0 NOT NULL,
    attempts smallint DEFAULT 0 NOT NULL,
    tried uuid[] DEFAULT '{}'::uuid[] NOT NULL,
    card_id uuid,
    last_reason text,
    invoice_id uuid,
    payment_id uuid,
    settled_at timestamp with time zone,
    noticed_at timestamp with time zone,
    carried_at timestamp with time zone,
    carried_by text,
    notice_on date,
    note jsonb,
    CONSTRAINT charges_amount_not_negative CHECK ((amount_minor >= 0)),
    CONSTRAINT charges_part_known CHECK ((part = ANY (ARRAY['deposit'::text, 'period'::text]))),
    CONSTRAINT charges_state_known CHECK ((state = ANY (ARRAY['upcoming'::text, 'charging'::text, 'billed'::text, 'refused'::text, 'charged'::text, 'otherwise'::text, 'free'::text, 'waived'::text, 'skipped'::text])))
);

CREATE TABLE public.code_sums (
    business_id uuid NOT NULL,
    code_id uuid NOT NULL,
    currency text NOT NULL,
    uses integer NOT NULL,
    discount_minor bigint NOT NULL,
    paid_minor bigint NOT NULL
);

CREATE TABLE public.collections (
    business_id uuid NOT NULL,
    id uuid NOT NULL,
    handover_id uuid NOT NULL,
    at timestamp with time zone NOT NULL,
    by_name text NOT NULL,
    name text NOT NULL,
    strokes text DEFAULT ''::text NOT NULL,
    lines jsonb NOT NULL
);

CREATE TABLE public.counters (
    business_id uuid NOT NULL,
    series text NOT NULL,
    next_number bigint NOT NULL,
    CONSTRAINT counters_positive CHECK ((next_number > 0))
);

CREATE TABLE public.credit_notes (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    invoice_id uuid NOT NULL,
    number text NOT NULL,
    currency text NOT NULL,
    amount_minor bigint NOT NULL,
    tax_minor bigint NOT NULL,
    reason text NOT NULL,
    printed jsonb NOT NULL,
    issued_on date NOT NULL,
    created_at timestamp with time zone NOT NULL,
    request_key text NOT NULL,
    step jsonb NOT NULL,
    CONSTRAINT credit_notes_amount_positive CHECK ((amount_minor > 0))
);

CREATE TABLE public.csv_mappings (
    business_id uuid NOT NULL,
    headings text NOT NULL,
    mapping jsonb NOT NULL,
    kept_at timestamp with time zone NOT NULL
);

CREATE TABLE public.customers (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    name text NOT NULL,
    email text DEFAULT ''::text NOT NULL,
    phone text DEFAULT ''::text NOT NULL,
    created_at timestamp with time zone NOT NULL,
    kind text DEFAULT 'person'::text NOT NULL,
    copies text[] DEFAULT '{}'::text[] NOT NULL,
    language text DEFAULT ''::text NOT NULL,
    currency text DEFAULT ''::text NOT NULL,
    billing jsonb DEFAULT '{"city": "", "lines": [], "region": "", "country": "", "postalCode": ""}'::jsonb NOT NULL,
    delivery jsonb,
    tax_number text DEFAULT ''::text NOT NULL,
    note text DEFAULT ''::text NOT NULL,
    due jsonb,
    groups text[] DEFAULT '{}'::text[] NOT NULL,
    merged_into uuid,
    search text DEFAULT ''::text NOT NULL,
    name_key text DEFAULT ''::text NOT NULL,
    changed_at timestamp with time zone NOT NULL,
    erased_at timestamp with time zone,
    papers_gone_at timestamp with time zone,
    ships_first boolean,
    CONSTRAINT customers_kind_known CHECK ((kind = ANY (ARRAY['person'::text, 'company'::text]))),
    CONSTRAINT customers_name_given CHECK ((name <> ''::text)),
    CONSTRAINT customers_papers_gone_after CHECK (((papers_gone_at IS NULL) OR (erased_at IS NOT NULL)))
);

CREATE TABLE public.daily_looks (
    business_id uuid NOT NULL,
    concern text NOT NULL,
    due_at timestamp with time zone NOT NULL,
    CONSTRAINT daily_looks_concern_known CHECK ((concern = ANY (ARRAY['parts'::text, 'cards'::text])))
);

CREATE TABLE public.day_batches (
    business_id uuid NOT NULL,
    day date NOT NULL,
    sums jsonb NOT NULL,
    differences jsonb NOT NULL,
    checked_at timestamp with time zone NOT NULL,
    settled_by text,
    settled_words text DEFAULT ''::text NOT NULL
);

CREATE TABLE public.digital_goods (
    business_id uuid NOT NULL,
    item_id uuid NOT NULL,
    file_id uuid,
    words text DEFAULT ''::text NOT NULL,
    most_downloads integer,
    days integer,
    CONSTRAINT digital_goods_days_positive CHECK ((days > 0)),
    CONSTRAINT digital_goods_downloads_positive CHECK ((most_downloads > 0))
);

CREATE TABLE public.digital_grants (
    business_id uuid NOT NULL,
    id uuid NOT NULL,
    handover_id uuid NOT NULL,
    line smallint NOT NULL,
    what text NOT NULL,
    file_id uuid,
    words text NOT NULL,
    downloads integer DEFAULT 0 NOT NULL,
    most_downloads integer,
    expires_at timestamp with time zone,
    ended_at timestamp with time zone,
    made_at timestamp with time zone NOT NULL,
    CONSTRAINT digital_grants_never_too_many CHECK (((most_downloads IS NULL) OR (downloads <= most_downloads)))
);

CREATE TABLE public.discount_codes (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    code text NOT NULL,
    code_key text NOT NULL,
    note text DEFAULT ''::text NOT NULL,
    percent numeric(7,4),
    amount_minor bigint,
    currency text NOT NULL,
    valid_from date,
    valid_to date,
    least_minor bigint DEFAULT 0 NOT NULL,
    most_uses integer,
    most_each integer,
    item_ids uuid[] DEFAULT '{}'::uuid[] NOT NULL,
    archived boolean DEFAULT false NOT NULL,
    uses integer DEFAULT 0 NOT NULL,
    created_at timestamp with time zone NOT NULL,
    CONSTRAINT discount_codes_amount_positive CHECK ((amount_minor > 0)),
    CONSTRAINT discount_codes_each_positive CHECK ((most_each > 0)),
    CONSTRAINT discount_codes_one_kind CHECK ((num_nonnulls(percent, amount_minor) = 1)),
    CONSTRAINT discount_codes_percent_in_range CHECK (((percent >= (0)::numeric) AND (percent <= (100)::numeric))),
    CONSTRAINT discount_codes_uses_positive CHECK ((most_uses > 0))
);

CREATE TABLE public.disputes (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    payment_id uuid NOT NULL,
    key text NOT NULL,
    reason text NOT NULL,
    currency text NOT NULL,
    amount_minor bigint NOT NULL,
    fee_minor bigint NOT NULL,
    fee_back_minor bigint DEFAULT 0 NOT NULL,
    partners jsonb NOT NULL,
    opened_at timestamp with time zone NOT NULL,
    answer_by timestamp with time zone NOT NULL,
    booked_at timestamp with time zone NOT NULL,
    state text NOT NULL,
    words text DEFAULT ''::text NOT NULL,
    files jsonb DEFAULT '[]'::jsonb NOT NULL,
    left_out jsonb DEFAULT '[]'::jsonb NOT NULL,
    accepted boolean DEFAULT false NOT NULL,
    answered_by text DEFAULT ''::text NOT NULL,
    sent_at timestamp with time zone,
    settled_at timestamp with time zone,
    lost_by text,
    reminded_at timestamp with time zone,
    CONSTRAINT disputes_amount_positive CHECK ((amount_minor > 0)),
    CONSTRAINT disputes_fee_back_in_bounds CHECK (((fee_back_minor >= 0) AND (fee_back_minor <= fee_minor))),
    CONSTRAINT disputes_fee_not_negative CHECK ((fee_minor >= 0)),
    CONSTRAINT disputes_lost_by_known CHECK ((lost_by = ANY (ARRAY['decision'::text, 'silence'::text, 'accepted'::text]))),
    CONSTRAINT disputes_lost_by_when_lost CHECK (((lost_by IS NOT NULL) = (state = 'lost'::text))),
    CONSTRAINT disputes_reason_known CHECK ((reason = ANY (ARRAY['not-recognised'::text, 'not-received'::text, 'not-as-described'::text, 'charged-twice'::text, 'cancelled'::text, 'other'::text]))),
    CONSTRAINT disputes_settled_when_decided CHECK (((settled_at IS NOT NULL) = (state = ANY (ARRAY['won'::text, 'lost'::text])))),
    CONSTRAINT disputes_state_known CHECK ((state = ANY (ARRAY['open'::text, 'sending'::text, 'sent'::text, 'won'::text, 'lost'::text])))
);

CREATE TABLE public.documents (
    business_id uuid NOT NULL,
    kind text NOT NULL,
    subject_id uuid NOT NULL,
    sha256 text NOT NULL,
    bytes bytea NOT NULL,
    made_at timestamp with time zone NOT NULL,
    version integer DEFAULT 1 NOT NULL,
    CONSTRAINT documents_kind_known CHECK ((kind = ANY (ARRAY['invoice'::text, 'receipt'::text, 'credit-note'::text, 'dispute-file'::text])))
);

CREATE TABLE public.earlier_names (
    name text NOT NULL,
    business_id uuid NOT NULL
);

CREATE TABLE public.files (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    purpose text NOT NULL,
    name text NOT NULL,
    type text NOT NULL,
    size integer NOT NULL,
    sha256 text NOT NULL,
    bytes bytea NOT NULL,
    by_name text NOT NULL,
    created_at timestamp with time zone NOT NULL,
    CONSTRAINT files_purpose_known CHECK ((purpose = ANY (ARRAY['attachment'::text, 'logo'::text, 'picture'::text, 'document'::text, 'answer'::text, 'seal'::text, 'authorisation'::text, 'digital'::text]))),
    CONSTRAINT files_size_in_bounds CHECK (((size >= 1) AND (size <= 10485760)))
);

CREATE TABLE public.handover_lines (
    business_id uuid NOT NULL,
    handover_id uuid NOT NULL,
    line smallint NOT NULL,
    item_id uuid,
    option_id uuid,
    what text NOT NULL,
    quantity numeric(14,4) NOT NULL,
    packed numeric(14,4) DEFAULT 0 NOT NULL,
    dropped numeric(14,4) DEFAULT 0 NOT NULL,
    handed text NOT NULL,
    value_minor bigint NOT NULL,
    CONSTRAINT handover_lines_handed_known CHECK ((handed = ANY (ARRAY['posted'::text, 'collected'::text, 'digital'::text]))),
    CONSTRAINT handover_lines_never_too_much CHECK (((packed >= (0)::numeric) AND (dropped >= (0)::numeric) AND ((packed + dropped) <= quantity))),
    CONSTRAINT handover_lines_quantity_positive CHECK ((quantity > (0)::numeric))
);

CREATE TABLE public.handovers (
    business_id uuid NOT NULL,
    id uuid NOT NULL,
    invoice_id uuid,
    order_id uuid,
    customer_id uuid,
    state text NOT NULL,
    block text DEFAULT ''::text NOT NULL,
    number text NOT NULL,
    currency text NOT NULL,
    charged_minor bigint NOT NULL,
    charged_on uuid,
    recipient jsonb NOT NULL,
    wanted_by date,
    wish text DEFAULT ''::text NOT NULL,
    made_at timestamp with time zone NOT NULL,
    ready_at timestamp with time zone,
    counter text DEFAULT ''::text NOT NULL,
    CONSTRAINT handovers_charged_not_negative CHECK ((charged_minor >= 0)),
    CONSTRAINT handovers_counter_known CHECK ((counter = ANY (ARRAY[''::text, 'waits'::text, 'open'::text, 'done'::text, 'dropped'::text]))),
    CONSTRAINT handovers_one_sale CHECK ((num_nonnulls(invoice_id, order_id) <= 1)),
    CONSTRAINT handovers_state_known CHECK ((state = ANY (ARRAY['waits'::text, 'open'::text, 'done'::text, 'dropped'::text])))
);

CREATE TABLE public.hook_deliveries (
    business_id uuid NOT NULL,
    id uuid NOT NULL,
    hook_id uuid NOT NULL,
    event_id uuid NOT NULL,
    kind text NOT NULL,
    about jsonb NOT NULL,
    details jsonb NOT NULL,
    happened_at timestamp with time zone NOT NULL,
    body text,
    state text DEFAULT 'waiting'::text NOT NULL,
    tries smallint DEFAULT 0 NOT NULL,
    outcome text DEFAULT ''::text NOT NULL,
    tried_at timestamp with time zone,
    next_at timestamp with time zone,
    CONSTRAINT hook_deliveries_state_known CHECK ((state = ANY (ARRAY['waiting'::text, 'done'::text, 'given-up'::text])))
);

CREATE TABLE public.hooks (
    business_id uuid NOT NULL,
    id uuid NOT NULL,
    url text NOT NULL,
    kinds text[] NOT NULL,
    state text DEFAULT 'on'::text NOT NULL,
    secret bytea NOT NULL,
    earlier_secret bytea,
    earlier_until timestamp with time zone,
    made_at timestamp with time zone NOT NULL,
    by_name text NOT NULL,
    told_at timestamp with time zone,
    CONSTRAINT hooks_earlier_whole CHECK (((earlier_secret IS NULL) = (earlier_until IS NULL))),
    CONSTRAINT hooks_state_known CHECK ((state = ANY (ARRAY['on'::text, 'off'::text, 'removed'::text])))
);

CREATE TABLE public.identity_checks (
    business_id uuid NOT NULL,
    id uuid NOT NULL,
    state text NOT NULL,
    reason text,
    sent_at timestamp with time zone NOT NULL,
    by_name text NOT NULL,
    decided_at timestamp with time zone,
    act_at timestamp with time zone,
    CONSTRAINT identity_checks_state_known CHECK ((state = ANY (ARRAY['checking'::text, 'asked'::text, 'accepted'::text, 'refused'::text])))
);

CREATE TABLE public.identity_members (
    business_id uuid NOT NULL,
    id uuid NOT NULL,
    place smallint NOT NULL,
    name text NOT NULL,
    born text NOT NULL,
    country text NOT NULL,
    "position" text NOT NULL,
    share smallint NOT NULL,
    acts boolean NOT NULL,
    CONSTRAINT identity_members_born_is_a_day CHECK ((born ~ '^(\d{4}-\d\d-\d\d)?$'::text)),
    CONSTRAINT identity_members_share_is_percent CHECK (((share >= 0) AND (share <= 100)))
);

CREATE TABLE public.identity_pictures (
    business_id uuid NOT NULL,
    member_id uuid NOT NULL,
    side text NOT NULL,
    sealed bytea NOT NULL,
    made_at timestamp with time zone NOT NULL,
    CONSTRAINT identity_pictures_side_known CHECK ((side = ANY (ARRAY['front'::text, 'back'::text, 'live'::text])))
);

CREATE TABLE public.invitations (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    email text NOT NULL,
    role text NOT NULL,
    extra text[] DEFAULT '{}'::text[] NOT NULL,
    by_name text NOT NULL,
    nonce text NOT NULL,
    made_at timestamp with time zone NOT NULL,
    good_until timestamp with time zone NOT NULL,
    state text DEFAULT 'open'::text NOT NULL,
    CONSTRAINT invitations_role_known CHECK ((role = ANY (ARRAY['owner'::text, 'bookkeeper'::text, 'clerk'::text, 'packer'::text, 'reader'::text]))),
    CONSTRAINT invitations_state_known CHECK ((state = ANY (ARRAY['open'::text, 'accepted'::text, 'withdrawn'::text])))
);

CREATE TABLE public.invoice_versions (
    business_id uuid NOT NULL,
    invoice_id uuid NOT NULL,
    version integer NOT NULL,
    printed jsonb NOT NULL,
    ended_at timestamp with time zone NOT NULL,
    by_name text NOT NULL
);

CREATE TABLE public.invoices (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    stage text DEFAULT 'draft'::text NOT NULL,
    number text,
    customer_id uuid,
    currency text NOT NULL,
    paper jsonb NOT NULL,
    revision integer DEFAULT 0 NOT NULL,
    printed jsonb,
    link_token text NOT NULL,
    issued_on date,
    due_on date,
    total_minor bigint DEFAULT 0 NOT NULL,
    tax_minor bigint DEFAULT 0 NOT NULL,
    paid_minor bigint DEFAULT 0 NOT NULL,
    refunded_minor bigint DEFAULT 0 NOT NULL,
    credited_minor bigint DEFAULT 0 NOT NULL,
    due_minor bigint GENERATED ALWAYS AS (GREATEST((((total_minor - credited_minor) - paid_minor) + refunded_minor), (0)::bigint)) STORED NOT NULL,
    sent_at timestamp with time zone,
    seen_at timestamp with time zone,
    settled_at timestamp with time zone,
    created_at timestamp with time zone NOT NULL,
    changed_at timestamp with time zone NOT NULL,
    reference text DEFAULT ''::text NOT NULL,
    title text DEFAULT ''::text NOT NULL,
    version integer DEFAULT 1 NOT NULL,
    send_at timestamp with time zone,
    send_with jsonb,
    send_by uuid,
    cancelled_at timestamp with time zone,
    terms_accepted jsonb,
    origin text DEFAULT 'desk'::text NOT NULL,
    status text GENERATED ALWAYS AS (
CASE
    WHEN (stage = 'draft'::text) THEN 'draft'::text
    WHEN (stage = 'cancelled'::text) THEN 'cancelled'::text
    WHEN ((((total_minor - credited_minor) - paid_minor) + refunded_minor) <= 0) THEN 'paid'::text
    WHEN (((paid_minor - refunded_minor) + credited_minor) > 0) THEN 'part'::text
    WHEN (seen_at IS NOT NULL) THEN 'seen'::text
    ELSE 'sent'::text
END) STORED NOT NULL,
    kept_by jsonb,
    overpaid_minor bigint DEFAULT 0 NOT NULL,
    CONSTRAINT invoices_amounts_not_negative CHECK (((total_minor >= 0) AND (tax_minor >= 0) AND (paid_minor >= 0) AND (refunded_minor >= 0) AND (credited_minor >= 0))),
    CONSTRAINT invoices_never_overcredited CHECK ((credited_minor <= total_minor)),
    CONSTRAINT invoices_never_overpaid CHECK (((paid_minor - refunded_minor) <= (total_minor + overpaid_minor))),
    CONSTRAINT invoices_origin_known CHECK ((origin = ANY (ARRAY['desk'::text, 'repeat'::text, 'batch'::text, 'plan'::text]))),
    CONSTRAINT invoices_overpaid_minor_check CHECK ((overpaid_minor >= 0)),
    CONSTRAINT invoices_sent_whole CHECK (((stage = 'draft'::text) OR ((number IS NOT NULL) AND (printed IS NOT NULL) AND (customer_id IS NOT NULL) AND (issued_on IS NOT NULL) AND (due_on IS NOT NULL) AND (sent_at IS NOT NULL)))),
    CONSTRAINT invoices_stage_known CHECK ((stage = ANY (ARRAY['draft'::text, 'sent'::text, 'cancelled'::text])))
);

CREATE TABLE public.item_options (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    item_id uuid NOT NULL,
    "position" integer NOT NULL,
    name text NOT NULL,
    code text DEFAULT ''::text NOT NULL,
    prices jsonb DEFAULT '{}'::jsonb NOT NULL,
    on_hand numeric(14,4),
    low_at numeric(14,4),
    archived boolean DEFAULT false NOT NULL,
    grams integer DEFAULT 0 NOT NULL,
    shelf text DEFAULT ''::text NOT NULL,
    CONSTRAINT item_options_grams_not_negative CHECK ((grams >= 0))
);

CREATE TABLE public.items (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    code text DEFAULT ''::text NOT NULL,
    name text NOT NULL,
    description text DEFAULT ''::text NOT NULL,
    kind text NOT NULL,
    unit text NOT NULL,
    prices jsonb DEFAULT '{}'::jsonb NOT NULL,
    cost text DEFAULT ''::text NOT NULL,
    tax_class text DEFAULT 'standard'::text NOT NULL,
    on_hand numeric(14,4),
    low_at numeric(14,4),
    picture_id uuid,
    search text NOT NULL,
    archived boolean DEFAULT false NOT NULL,
    created_at timestamp with time zone NOT NULL,
    changed_at timestamp with time zone NOT NULL,
    going jsonb DEFAULT '{}'::jsonb NOT NULL,
    CONSTRAINT items_kind_known CHECK ((kind = ANY (ARRAY['goods'::text, 'digital'::text, 'service'::text]))),
    CONSTRAINT items_name_given CHECK ((name <> ''::text))
);

CREATE TABLE public.ledger_entries (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    booked_on date NOT NULL,
    words text NOT NULL,
    cause text NOT NULL,
    invoice_id uuid,
    payment_id uuid,
    booked_at timestamp with time zone NOT NULL,
    order_id uuid,
    posting_count smallint NOT NULL,
    CONSTRAINT ledger_entries_whole CHECK ((posting_count >= 2))
);

CREATE TABLE public.ledger_postings (
    business_id uuid NOT NULL,
    entry_id uuid NOT NULL,
    "position" smallint NOT NULL,
    account text NOT NULL,
    currency text NOT NULL,
    amount_minor bigint NOT NULL,
    CONSTRAINT ledger_postings_account_known CHECK ((account = ANY (ARRAY['receivable'::text, 'revenue'::text, 'tax-payable'::text, 'processor-clearing'::text, 'processing-fees'::text, 'tips'::text, 'partner-shares'::text, 'partners'::text, 'bank'::text, 'cash'::text, 'cheques'::text, 'other-receipts'::text, 'customer-credit'::text, 'on-the-way'::text, 'bank-charges'::text, 'outside'::text, 'disputed'::text, 'dispute-losses'::text, 'dispute-fees'::text, 'vouchers'::text, 'expired-vouchers'::text, 'brought-in'::text, 'carrier-balance'::text, 'postage'::text, 'carrier-claims'::text]))),
    CONSTRAINT ledger_postings_amount_not_zero CHECK ((amount_minor <> 0))
);

CREATE TABLE public.link_keys (
    key text NOT NULL,
    business_id uuid NOT NULL
);

CREATE TABLE public.log_entries (
    business_id uuid NOT NULL,
    id uuid NOT NULL,
    kind text NOT NULL,
    person_id uuid,
    by_name text NOT NULL,
    address text DEFAULT ''::text NOT NULL,
    changes jsonb DEFAULT '[]'::jsonb NOT NULL,
    noted_at timestamp with time zone NOT NULL,
    CONSTRAINT log_entries_changes_listed CHECK ((jsonb_typeof(changes) = 'array'::text)),
    CONSTRAINT log_entries_kind_known CHECK ((kind = ANY (ARRAY['profile'::text, 'taxes'::text, 'charging'::text, 'tariff'::text, 'partner'::text, 'payouts'::text, 'bank-account'::text, 'vouchers'::text, 'signed-in'::text, 'sign-in-failed'::text, 'signed-out'::text, 'password'::text, 'signed-up'::text, 'address-confirmed'::text, 'address-changed'::text, 'password-asked'::text, 'sessions-ended'::text, 'invited'::text, 'invitation-withdrawn'::text, 'joined'::text, 'rights'::text, 'left'::text, 'step-added'::text, 'step-removed'::text, 'recovery-codes'::text, 'recovery-used'::text, 'step-failed'::text, 'steps-lost'::text, 'steps-kept'::text, 'address-moved'::text, 'access-rules'::text, 'identity'::text, 'identity-seen'::text, 'hooks'::text, 'keeping'::text, 'exported'::text, 'customer-erased'::text, 'closed'::text, 'reopened'::text, 'keys'::text])))
);

CREATE TABLE public.mail_proofs (
    business_id uuid NOT NULL,
    person_id uuid NOT NULL,
    purpose text NOT NULL,
    email text NOT NULL,
    nonce text NOT NULL,
    made_at timestamp with time zone NOT NULL,
    good_until timestamp with time zone NOT NULL,
    wrong smallint DEFAULT 0 NOT NULL,
    used_at timestamp with time zone,
    CONSTRAINT mail_proofs_purpose_known CHECK ((purpose = ANY (ARRAY['confirm'::text, 'password'::text, 'lost-steps'::text, 'old-address'::text, 'new-address'::text])))
);

CREATE TABLE public.messages (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    kind text NOT NULL,
    message_key text NOT NULL,
    invoice_id uuid,
    payment_id uuid,
    to_name text NOT NULL,
    to_address text NOT NULL,
    state text NOT NULL,
    trouble text,
    created_at timestamp with time zone NOT NULL,
    handed_over_at timestamp with time zone,
    customer_id uuid,
    way text DEFAULT 'mail'::text NOT NULL,
    details jsonb DEFAULT '{}'::jsonb NOT NULL,
    order_id uuid,
    request_id uuid,
    plan_id uuid,
    seen_to_at timestamp with time zone,
    parcel_id uuid,
    CONSTRAINT messages_kind_named CHECK ((kind ~ '^[a-z]+(-[a-z]+)*$'::text)),
    CONSTRAINT messages_state_known CHECK ((state = ANY (ARRAY['queued'::text, 'handed-over'::text, 'delivered'::text, 'failed'::text, 'bounced'::text, 'dropped'::text]))),
    CONSTRAINT messages_way_known CHECK ((way = ANY (ARRAY['mail'::text, 'text'::text, 'chat'::text])))
);

CREATE TABLE public.migration_hashes (
    name text NOT NULL,
    sha256 text NOT NULL
);

CREATE TABLE public.migrations (
    id integer NOT NULL,
    name character varying(255) NOT NULL,
    run_on timestamp without time zone NOT NULL
);

CREATE SEQUENCE public.migrations_id_seq
    AS integer
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1;

ALTER SEQUENCE public.migrations_id_seq OWNED BY public.migrations.id;

CREATE TABLE public.news (
    business_id uuid NOT NULL,
    id bigint NOT NULL,
    person_id uuid NOT NULL,
    line_id bigint NOT NULL,
    at timestamp with time zone NOT NULL,
    mail_at timestamp with time zone,
    in_browser boolean NOT NULL,
    message_id uuid,
    seen_at timestamp with time zone
);

ALTER TABLE public.news ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.news_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);

CREATE TABLE public.number_series (
    business_id uuid NOT NULL,
    name text NOT NULL,
    pattern text NOT NULL,
    "position" integer NOT NULL
);

CREATE TABLE public.offer_names (
    name text NOT NULL,
    business_id uuid NOT NULL,
    offer_id uuid NOT NULL
);

CREATE TABLE public.offer_revisions (
    business_id uuid NOT NULL,
    offer_id uuid NOT NULL,
    revision integer NOT NULL,
    definition jsonb NOT NULL,
    kept_at timestamp with time zone NOT NULL,
    by_name text NOT NULL
);

CREATE TABLE public.offer_sums (
    business_id uuid NOT NULL,
    offer_id uuid NOT NULL,
    currency text NOT NULL,
    orders integer NOT NULL,
    paid_minor bigint NOT NULL,
    refunded_minor bigint DEFAULT 0 NOT NULL
);

CREATE TABLE public.offer_visits (
    business_id uuid NOT NULL,
    offer_id uuid NOT NULL,
    visited_on date NOT NULL,
    visits integer NOT NULL
);

CREATE TABLE public.offers (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    placement text NOT NULL,
    name text NOT NULL,
    public_id text NOT NULL,
    address text,
    state text DEFAULT 'open'::text NOT NULL,
    definition jsonb NOT NULL,
    revision integer DEFAULT 1 NOT NULL,
    look jsonb DEFAULT '{}'::jsonb NOT NULL,
    published integer,
    sites text[] DEFAULT '{}'::text[] NOT NULL,
    placed_at timestamp with time zone,
    created_at timestamp with time zone NOT NULL,
    changed_at timestamp with time zone NOT NULL,
    draft jsonb,
    CONSTRAINT offers_name_given CHECK ((name <> ''::text)),
    CONSTRAINT offers_placement_known CHECK ((placement = ANY (ARRAY['link'::text, 'page'::text, 'button'::text]))),
    CONSTRAINT offers_state_known CHECK ((state = ANY (ARRAY['open'::text, 'paused'::text, 'closed'::text])))
);

CREATE TABLE public.orders (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    offer_id uuid NOT NULL,
    revision integer NOT NULL,
    checkout_key uuid NOT NULL,
    token text NOT NULL,
    reference text NOT NULL,
    state text NOT NULL,
    request_id uuid,
    customer_id uuid,
    payer_email text NOT NULL,
    currency text NOT NULL,
    total_minor bigint NOT NULL,
    code_id uuid,
    definition jsonb NOT NULL,
    choice jsonb NOT NULL,
    printed jsonb NOT NULL,
    started_at timestamp with time zone NOT NULL,
    settled_at timestamp with time zone,
    kept jsonb,
    CONSTRAINT orders_state_known CHECK ((state = ANY (ARRAY['pending'::text, 'paid'::text, 'refused'::text]))),
    CONSTRAINT orders_total_not_negative CHECK ((total_minor >= 0))
);

CREATE TABLE public.page_versions (
    business_id uuid NOT NULL,
    offer_id uuid NOT NULL,
    version integer NOT NULL,
    look jsonb NOT NULL,
    published_at timestamp with time zone NOT NULL,
    by_name text NOT NULL
);

CREATE TABLE public.parcel_claims (
    business_id uuid NOT NULL,
    parcel_id uuid NOT NULL,
    key text NOT NULL,
    tries smallint DEFAULT 1 NOT NULL,
    why text NOT NULL,
    state text NOT NULL,
    currency text NOT NULL,
    asked_minor bigint NOT NULL,
    paid_minor bigint,
    words text DEFAULT ''::text NOT NULL,
    by_name text NOT NULL,
    made_at timestamp with time zone NOT NULL,
    answered_at timestamp with time zone,
    look_at timestamp with time zone,
    CONSTRAINT parcel_claims_asked_positive CHECK ((asked_minor > 0)),
    CONSTRAINT parcel_claims_paid_not_negative CHECK ((paid_minor >= 0)),
    CONSTRAINT parcel_claims_state_known CHECK ((state = ANY (ARRAY['asked'::text, 'open'::text, 'paid'::text, 'refused'::text]))),
    CONSTRAINT parcel_claims_why_known CHECK ((why = ANY (ARRAY['lost'::text, 'damaged'::text, 'late'::text])))
);

CREATE TABLE public.parcel_lines (
    business_id uuid NOT NULL,
    parcel_id uuid NOT NULL,
    place smallint NOT NULL,
    handover_id uuid,
    line smallint,
    what text NOT NULL,
    item_id uuid,
    option_id uuid,
    quantity numeric(14,4) NOT NULL,
    value_minor bigint DEFAULT 0 NOT NULL,
    customs jsonb,
    CONSTRAINT parcel_lines_quantity_positive CHECK ((quantity > (0)::numeric))
);

CREATE TABLE public.parcel_profiles (
    business_id uuid NOT NULL,
    id uuid NOT NULL,
    place integer NOT NULL,
    name text NOT NULL,
    profile jsonb NOT NULL,
    archived boolean DEFAULT false NOT NULL,
    CONSTRAINT parcel_profiles_name_given CHECK ((name <> ''::text))
);

CREATE TABLE public.parcel_rules (
    business_id uuid NOT NULL,
    id uuid NOT NULL,
    place integer NOT NULL,
    rule jsonb NOT NULL
);

CREATE TABLE public.parcel_scans (
    business_id uuid NOT NULL,
    parcel_id uuid NOT NULL,
    at timestamp with time zone NOT NULL,
    scan text NOT NULL,
    place text NOT NULL,
    words text DEFAULT ''::text NOT NULL
);

CREATE TABLE public.parcels (
    business_id uuid NOT NULL,
    id uuid NOT NULL,
    customer_id uuid,
    state text NOT NULL,
    recipient jsonb NOT NULL,
    profile_id uuid,
    by_rule boolean DEFAULT true NOT NULL,
    grams integer,
    service text DEFAULT ''::text NOT NULL,
    mail_on date NOT NULL,
    notice text NOT NULL,
    told_at timestamp with time zone,
    rates jsonb,
    checked jsonb,
    trouble text DEFAULT ''::text NOT NULL,
    tries smallint DEFAULT 0 NOT NULL,
    label jsonb,
    number text DEFAULT ''::text NOT NULL,
    currency text NOT NULL,
    rate_minor bigint,
    insurance_minor bigint,
    packaging_minor bigint,
    paid_minor bigint,
    bought_at timestamp with time zone,
    by_name text DEFAULT ''::text NOT NULL,
    printed_at timestamp with time zone,
    promised_on date,
    act_at timestamp with time zone,
    look_at timestamp with time zone,
    scanned_at timestamp with time zone,
    late_at timestamp with time zone,
    ended_at timestamp with time zone,
    proof jsonb,
    made_at timestamp with time zone NOT NULL,
    search text DEFAULT ''::text NOT NULL,
    settled text DEFAULT ''::text NOT NULL,
    settled_at timestamp with time zone,
    customs jsonb,
    CONSTRAINT parcels_grams_positive CHECK ((grams > 0)),
    CONSTRAINT parcels_notice_known CHECK ((notice = ANY (ARRAY['on-day'::text, 'first-scan'::text, 'held'::text, 'told'::text]))),
    CONSTRAINT parcels_settled_known CHECK ((settled = ANY (ARRAY[''::text, 'sent-again'::text, 'taken-back'::text, 'left'::text]))),
    CONSTRAINT parcels_state_known CHECK ((state = ANY (ARRAY['packing'::text, 'buying'::text, 'bought'::text, 'moving'::text, 'door'::text, 'waiting'::text, 'delivered'::text, 'lost'::text, 'damaged'::text, 'back'::text, 'returned'::text, 'voided'::text])))
);

CREATE TABLE public.partner_movements (
    business_id uuid NOT NULL,
    id uuid NOT NULL,
    partner_id uuid NOT NULL,
    payment_id uuid,
    payout_id uuid,
    kind text NOT NULL,
    currency text NOT NULL,
    minor bigint NOT NULL,
    at timestamp with time zone NOT NULL,
    CONSTRAINT partner_movements_kind_known CHECK ((kind = ANY (ARRAY['share'::text, 'reversal'::text, 'by-hand'::text, 'came-back'::text, 'disputed'::text, 'dispute-won'::text])))
);

CREATE TABLE public.partners (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    name text NOT NULL,
    email text DEFAULT ''::text NOT NULL,
    archived boolean DEFAULT false NOT NULL,
    created_at timestamp with time zone NOT NULL,
    statements_to date,
    CONSTRAINT partners_name_given CHECK ((name <> ''::text))
);

CREATE TABLE public.passkeys (
    credential_id text NOT NULL,
    email_key text NOT NULL,
    public_key bytea NOT NULL,
    counter bigint NOT NULL,
    transports text[] NOT NULL,
    name text NOT NULL,
    made_at timestamp with time zone NOT NULL,
    used_at timestamp with time zone
);

CREATE TABLE public.payment_shares (
    business_id uuid NOT NULL,
    payment_id uuid NOT NULL,
    "position" smallint NOT NULL,
    partner_id uuid NOT NULL,
    share_minor bigint NOT NULL,
    fee_minor bigint NOT NULL,
    reversed_minor bigint DEFAULT 0 NOT NULL
);

CREATE TABLE public.payments (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    invoice_id uuid,
    customer_id uuid,
    channel text NOT NULL,
    currency text NOT NULL,
    amount_minor bigint NOT NULL,
    fee_minor bigint DEFAULT 0 NOT NULL,
    state text NOT NULL,
    attempt_key text NOT NULL,
    sale_id text,
    approval_url text,
    card_scheme text,
    card_last4 text,
    reason text,
    started_at timestamp with time zone NOT NULL,
    settled_at timestamp with time zone,
    method text DEFAULT 'card'::text NOT NULL,
    reference text DEFAULT ''::text NOT NULL,
    tip_minor bigint DEFAULT 0 NOT NULL,
    exclusive boolean DEFAULT true NOT NULL,
    order_id uuid,
    refunded_minor bigint DEFAULT 0 NOT NULL,
    charge_id uuid,
    at timestamp with time zone GENERATED ALWAYS AS (COALESCE(settled_at, started_at)) STORED,
    agreed_fee_minor bigint,
    dispute text,
    expected_at timestamp with time zone,
    came_back boolean DEFAULT false NOT NULL,
    voucher_id uuid,
    beside_id uuid,
    CONSTRAINT payments_amount_positive CHECK (((amount_minor > 0) OR ((amount_minor = 0) AND (tip_minor = 0) AND (order_id IS NOT NULL)))),
    CONSTRAINT payments_channel_known CHECK ((channel = ANY (ARRAY['invoice'::text, 'link'::text, 'page'::text, 'button'::text, 'plan'::text, 'desk'::text]))),
    CONSTRAINT payments_dispute_known CHECK ((dispute = ANY (ARRAY['open'::text, 'won'::text, 'lost'::text]))),
    CONSTRAINT payments_last4_only CHECK ((card_last4 ~ '^[0-9]{4}$'::text)),
    CONSTRAINT payments_method_known CHECK ((method = ANY (ARRAY['card'::text, 'debit'::text, 'transfer'::text, 'cash'::text, 'cheque'::text, 'other'::text, 'account'::text, 'voucher'::text]))),
    CONSTRAINT payments_one_subject CHECK ((num_nonnulls(invoice_id, order_id) = 1)),
    CONSTRAINT payments_paid_by_customer CHECK (((state <> 'paid'::text) OR (customer_id IS NOT NULL))),
    CONSTRAINT payments_refunded_in_bounds CHECK (((refunded_minor >= 0) AND (refunded_minor <= ((amount_minor + tip_minor) *
CASE
    WHEN (method = 'debit'::text) THEN 2
    ELSE 1
END)))),
    CONSTRAINT payments_state_known CHECK ((state = ANY (ARRAY['pending'::text, 'paid'::text, 'refused'::text, 'voided'::text]))),
    CONSTRAINT payments_tip_not_negative CHECK ((tip_minor >= 0)),
    CONSTRAINT payments_voucher_named CHECK (((method = 'voucher'::text) = (voucher_id IS NOT NULL)))
);

CREATE TABLE public.payout_days (
    business_id uuid NOT NULL,
    payee uuid NOT NULL,
    currency text NOT NULL,
    day date NOT NULL,
    net_minor bigint NOT NULL,
    payout_id uuid,
    held_minor bigint DEFAULT 0 NOT NULL,
    held_until date,
    released_on date,
    release_payout_id uuid,
    CONSTRAINT payout_days_held_in_bounds CHECK ((held_minor >= 0))
);

CREATE TABLE public.payouts (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    partner_id uuid,
    payee uuid GENERATED ALWAYS AS (COALESCE(partner_id, business_id)) STORED NOT NULL,
    number integer NOT NULL,
    currency text NOT NULL,
    made_on date NOT NULL,
    amount_minor bigint NOT NULL,
    carried_minor bigint NOT NULL,
    reserved_minor bigint NOT NULL,
    released_minor bigint NOT NULL,
    state text NOT NULL,
    account_id uuid NOT NULL,
    attempt smallint DEFAULT 1 NOT NULL,
    sent_at timestamp with time zone,
    settled_on date,
    reason text DEFAULT ''::text NOT NULL,
    act_at timestamp with time zone,
    CONSTRAINT payouts_amount_positive CHECK ((amount_minor > 0)),
    CONSTRAINT payouts_state_known CHECK ((state = ANY (ARRAY['made'::text, 'sent'::text, 'arrived'::text, 'returned'::text, 'given-up'::text])))
);

CREATE TABLE public.people (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    name text NOT NULL,
    email text NOT NULL,
    role text NOT NULL,
    password_hash text NOT NULL,
    created_at timestamp with time zone NOT NULL,
    extra text[] DEFAULT '{}'::text[] NOT NULL,
    left_at timestamp with time zone,
    day_way text,
    number_way text,
    notices jsonb DEFAULT '{}'::jsonb NOT NULL,
    quiet_from time without time zone DEFAULT '00:00:00'::time without time zone NOT NULL,
    quiet_to time without time zone DEFAULT '00:00:00'::time without time zone NOT NULL,
    CONSTRAINT people_day_way_known CHECK ((day_way = ANY (ARRAY['dmy'::text, 'dots'::text, 'mdy'::text, 'iso'::text]))),
    CONSTRAINT people_extra_known CHECK ((extra <@ ARRAY['ask'::text, 'take'::text, 'give-back'::text, 'records'::text, 'settings'::text, 'pack'::text, 'no-customers'::text, 'no-sums'::text])),
    CONSTRAINT people_number_way_known CHECK ((number_way = ANY (ARRAY['point'::text, 'comma'::text, 'space'::text, 'quote'::text, 'lakh'::text]))),
    CONSTRAINT people_role_known CHECK ((role = ANY (ARRAY['owner'::text, 'bookkeeper'::text, 'clerk'::text, 'packer'::text, 'reader'::text])))
);

CREATE TABLE public.pick_ups (
    business_id uuid NOT NULL,
    id uuid NOT NULL,
    pick_up_on date NOT NULL,
    parcels integer NOT NULL,
    grams integer NOT NULL,
    state text NOT NULL,
    number text DEFAULT ''::text NOT NULL,
    words text DEFAULT ''::text NOT NULL,
    at timestamp with time zone NOT NULL,
    by_name text NOT NULL,
    CONSTRAINT pick_ups_grams_positive CHECK ((grams > 0)),
    CONSTRAINT pick_ups_parcels_positive CHECK ((parcels > 0)),
    CONSTRAINT pick_ups_state_known CHECK ((state = ANY (ARRAY['asked'::text, 'ordered'::text, 'refused'::text])))
);

CREATE TABLE public.plans (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    customer_id uuid NOT NULL,
    number text NOT NULL,
    state text NOT NULL,
    terms jsonb NOT NULL,
    name text NOT NULL,
    kind text NOT NULL,
    pay text NOT NULL,
    currency text NOT NULL,
    memo text DEFAULT ''::text NOT NULL,
    reference text DEFAULT ''::text NOT NULL,
    link_token text NOT NULL,
    pauses jsonb DEFAULT '[]'::jsonb NOT NULL,
    starts_on date,
    invoice_id uuid,
    order_id uuid,
    charged_minor bigint DEFAULT 0 NOT NULL,
    charged_count integer DEFAULT 0 NOT NULL,
    planned_minor bigint,
    planned_count integer,
    next_on date,
    refused_count integer DEFAULT 0 NOT NULL,
    sent_at timestamp with time zone,
    reminded_at timestamp with time zone,
    lapses_on date,
    revision integer DEFAULT 0 NOT NULL,
    by_id uuid,
    created_at timestamp with time zone NOT NULL,
    changed_at timestamp with time zone NOT NULL,
    ended_at timestamp with time zone,
    remind_at timestamp with time zone,
    decisions jsonb DEFAULT '{}'::jsonb NOT NULL,
    ends_on date,
    card_ids uuid[] DEFAULT '{}'::uuid[] NOT NULL,
    proposed jsonb,
    written_to date,
    CONSTRAINT plans_kind_known CHECK ((kind = ANY (ARRAY['membership'::text, 'instalments'::text]))),
    CONSTRAINT plans_pay_known CHECK ((pay = ANY (ARRAY['card'::text, 'invoice'::text]))),
    CONSTRAINT plans_state_known CHECK ((state = ANY (ARRAY['draft'::text, 'waiting'::text, 'active'::text, 'paused'::text, 'finished'::text, 'cancelled'::text])))
);

CREATE TABLE public.program_answers (
    business_id uuid NOT NULL,
    key_id uuid NOT NULL,
    request_key text NOT NULL,
    fingerprint bytea NOT NULL,
    status smallint,
    body jsonb,
    begun_at timestamp with time zone NOT NULL
);

CREATE TABLE public.program_keys (
    business_id uuid NOT NULL,
    id uuid NOT NULL,
    name text NOT NULL,
    rights text[] NOT NULL,
    secret_hash bytea NOT NULL,
    person_id uuid NOT NULL,
    made_at timestamp with time zone NOT NULL,
    good_until timestamp with time zone NOT NULL,
    ended_at timestamp with time zone,
    used_at timestamp with time zone,
    CONSTRAINT program_keys_named CHECK ((name <> ''::text))
);

CREATE TABLE public.questions (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    invoice_id uuid NOT NULL,
    text text NOT NULL,
    by_name text NOT NULL,
    asked_at timestamp with time zone NOT NULL,
    answer text,
    answered_by text,
    answered_at timestamp with time zone
);

CREATE TABLE public.rates (
    business_id uuid NOT NULL,
    rated_on date NOT NULL,
    currency text NOT NULL,
    per_euro numeric(20,10) NOT NULL,
    source text NOT NULL,
    CONSTRAINT rates_positive CHECK ((per_euro > (0)::numeric))
);

CREATE TABLE public.receipts (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    number text NOT NULL,
    payment_id uuid NOT NULL,
    invoice_id uuid,
    printed jsonb NOT NULL,
    issued_at timestamp with time zone NOT NULL,
    order_id uuid,
    CONSTRAINT receipts_one_subject CHECK ((num_nonnulls(invoice_id, order_id) = 1))
);

CREATE TABLE public.recovery_codes (
    email_key text NOT NULL,
    code_hash bytea NOT NULL,
    used_at timestamp with time zone
);

CREATE TABLE public.recurring_invoices (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    name text NOT NULL,
    customer_id uuid NOT NULL,
    paper jsonb NOT NULL,
    schedule jsonb NOT NULL,
    makes text NOT NULL,
    state text NOT NULL,
    pauses jsonb DEFAULT '[]'::jsonb NOT NULL,
    next_nominal date,
    next_on date,
    by_id uuid NOT NULL,
    created_at timestamp with time zone NOT NULL,
    changed_at timestamp with time zone NOT NULL,
    CONSTRAINT recurring_invoices_makes_known CHECK ((makes = ANY (ARRAY['draft'::text, 'send'::text]))),
    CONSTRAINT recurring_invoices_state_known CHECK ((state = ANY (ARRAY['active'::text, 'paused'::text, 'finished'::text])))
);

CREATE TABLE public.recurring_runs (
    business_id uuid NOT NULL,
    recurring_id uuid NOT NULL,
    nominal date NOT NULL,
    invoice_id uuid,
    trouble text,
    ran_at timestamp with time zone NOT NULL
);

CREATE TABLE public.refunds (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    payment_id uuid NOT NULL,
    kind text NOT NULL,
    amount_minor bigint NOT NULL,
    reason text NOT NULL,
    state text NOT NULL,
    request_key uuid NOT NULL,
    by_name text NOT NULL,
    started_at timestamp with time zone NOT NULL,
    settled_at timestamp with time zone,
    method text DEFAULT 'card'::text NOT NULL,
    reference text DEFAULT ''::text NOT NULL,
    tip_minor bigint DEFAULT 0 NOT NULL,
    step jsonb,
    wish jsonb DEFAULT '{}'::jsonb NOT NULL,
    credit_id uuid,
    at timestamp with time zone GENERATED ALWAYS AS (COALESCE(settled_at, started_at)) STORED,
    transfer_file_id uuid,
    fee_minor bigint DEFAULT 0 NOT NULL,
    CONSTRAINT refunds_amount_positive CHECK ((amount_minor > 0)),
    CONSTRAINT refunds_fee_minor_check CHECK ((fee_minor >= 0)),
    CONSTRAINT refunds_kind_known CHECK ((kind = ANY (ARRAY['refund'::text, 'void'::text, 'return'::text]))),
    CONSTRAINT refunds_method_known CHECK ((method = ANY (ARRAY['card'::text, 'debit'::text, 'transfer'::text, 'cash'::text, 'cheque'::text, 'other'::text, 'account'::text, 'voucher'::text]))),
    CONSTRAINT refunds_state_known CHECK ((state = ANY (ARRAY['pending'::text, 'done'::text, 'refused'::text]))),
    CONSTRAINT refunds_tip_in_bounds CHECK (((tip_minor >= 0) AND (tip_minor <= amount_minor)))
);

CREATE TABLE public.register_sums (
    business_id uuid NOT NULL,
    currency text NOT NULL,
    day date NOT NULL,
    channel text NOT NULL,
    method text NOT NULL,
    payments integer NOT NULL,
    paid_minor bigint NOT NULL,
    refunds integer NOT NULL,
    refunded_minor bigint NOT NULL
);

CREATE TABLE public.reminders (
    business_id uuid NOT NULL,
    invoice_id uuid NOT NULL,
    days_from_due integer NOT NULL,
    remind_on date NOT NULL,
    state text DEFAULT 'waiting'::text NOT NULL,
    done_at timestamp with time zone,
    CONSTRAINT reminders_state_known CHECK ((state = ANY (ARRAY['waiting'::text, 'sent'::text, 'dropped'::text])))
);

CREATE TABLE public.requests (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    offer_id uuid NOT NULL,
    to_name text NOT NULL,
    to_address text DEFAULT ''::text NOT NULL,
    filled jsonb NOT NULL,
    locked boolean NOT NULL,
    way text NOT NULL,
    words text DEFAULT ''::text NOT NULL,
    state text NOT NULL,
    by_name text NOT NULL,
    sent_at timestamp with time zone NOT NULL,
    seen_at timestamp with time zone,
    ended_at timestamp with time zone,
    CONSTRAINT requests_state_known CHECK ((state = ANY (ARRAY['sent'::text, 'seen'::text, 'paid'::text, 'withdrawn'::text]))),
    CONSTRAINT requests_way_known CHECK ((way = ANY (ARRAY['mail'::text, 'text'::text, 'chat'::text, 'link'::text])))
);

CREATE TABLE public.return_lines (
    business_id uuid NOT NULL,
    return_id uuid NOT NULL,
    line smallint NOT NULL,
    quantity numeric(14,4) NOT NULL,
    to_stock numeric(14,4) DEFAULT 0 NOT NULL,
    thrown numeric(14,4) DEFAULT 0 NOT NULL,
    CONSTRAINT return_lines_never_too_much CHECK (((to_stock >= (0)::numeric) AND (thrown >= (0)::numeric) AND ((to_stock + thrown) <= quantity))),
    CONSTRAINT return_lines_quantity_positive CHECK ((quantity > (0)::numeric))
);

CREATE TABLE public.returns (
    business_id uuid NOT NULL,
    id uuid NOT NULL,
    handover_id uuid NOT NULL,
    state text NOT NULL,
    reason text NOT NULL,
    words text DEFAULT ''::text NOT NULL,
    file_id uuid,
    asked_at timestamp with time zone NOT NULL,
    answer text DEFAULT ''::text NOT NULL,
    answered_at timestamp with time zone,
    answered_by text DEFAULT ''::text NOT NULL,
    label jsonb,
    number text DEFAULT ''::text NOT NULL,
    received_at timestamp with time zone,
    received_by text DEFAULT ''::text NOT NULL,
    closed_at timestamp with time zone,
    CONSTRAINT returns_state_known CHECK ((state = ANY (ARRAY['asked'::text, 'allowed'::text, 'refused'::text, 'received'::text, 'closed'::text])))
);

CREATE TABLE public.saved_lists (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    name text NOT NULL,
    asked jsonb NOT NULL,
    created_at timestamp with time zone NOT NULL,
    list text DEFAULT 'invoices'::text NOT NULL,
    CONSTRAINT saved_lists_list_known CHECK ((list = ANY (ARRAY['invoices'::text, 'payments'::text])))
);

CREATE TABLE public.sessions (
    token_hash bytea NOT NULL,
    business_id uuid NOT NULL,
    person_id uuid NOT NULL,
    created_at timestamp with time zone NOT NULL,
    expires_at timestamp with time zone NOT NULL,
    used_at timestamp with time zone DEFAULT now() NOT NULL,
    agent text DEFAULT ''::text NOT NULL,
    address text DEFAULT ''::text NOT NULL,
    proved_at timestamp with time zone DEFAULT now() NOT NULL
);

CREATE TABLE public.sign_in_names (
    email_key text NOT NULL,
    business_id uuid NOT NULL,
    person_id uuid NOT NULL
);

CREATE TABLE public.sign_in_steps (
    email_key text NOT NULL,
    handle bytea NOT NULL,
    time_key bytea,
    time_since timestamp with time zone,
    time_step bigint DEFAULT 0 NOT NULL,
    lost_at timestamp with time zone,
    CONSTRAINT sign_in_steps_handle_long CHECK ((length(handle) = 32)),
    CONSTRAINT sign_in_steps_time_whole CHECK (((time_key IS NULL) = (time_since IS NULL)))
);

CREATE TABLE public.stock_comebacks (
    business_id uuid NOT NULL,
    id uuid NOT NULL,
    invoice_id uuid,
    order_id uuid,
    item_id uuid NOT NULL,
    option_id uuid,
    said_by text NOT NULL,
    quantity numeric(14,4) NOT NULL,
    at timestamp with time zone NOT NULL,
    CONSTRAINT stock_comebacks_one_sale CHECK ((num_nonnulls(invoice_id, order_id) = 1)),
    CONSTRAINT stock_comebacks_quantity_positive CHECK ((quantity > (0)::numeric)),
    CONSTRAINT stock_comebacks_said_by_known CHECK ((said_by = ANY (ARRAY['seen'::text, 'given-back'::text, 'sent-again'::text])))
);

CREATE TABLE public.stock_movements (
    business_id uuid NOT NULL,
    id uuid NOT NULL,
    item_id uuid NOT NULL,
    option_id uuid,
    n integer NOT NULL,
    at timestamp with time zone NOT NULL,
    kind text NOT NULL,
    on_hand_by numeric(14,4) NOT NULL,
    promised_by numeric(14,4) NOT NULL,
    on_hand_after numeric(14,4),
    promised_after numeric(14,4) NOT NULL,
    cost numeric(18,6),
    average_after numeric(18,6),
    by_name text DEFAULT ''::text NOT NULL,
    why text DEFAULT ''::text NOT NULL,
    supplier text DEFAULT ''::text NOT NULL,
    paper text DEFAULT ''::text NOT NULL,
    file_id uuid,
    invoice_id uuid,
    order_id uuid,
    CONSTRAINT stock_movements_kind_known CHECK ((kind = ANY (ARRAY['opened'::text, 'received'::text, 'counted'::text, 'promised'::text, 'freed'::text, 'sold'::text, 'unsold'::text, 'returned'::text, 'thrown-away'::text, 'closed'::text]))),
    CONSTRAINT stock_movements_n_positive CHECK ((n > 0))
);

CREATE TABLE public.stock_promises (
    business_id uuid NOT NULL,
    invoice_id uuid,
    item_id uuid NOT NULL,
    option_id uuid,
    quantity numeric(14,4) NOT NULL,
    order_id uuid,
    id uuid DEFAULT gen_random_uuid() NOT NULL
);

CREATE TABLE public.stuck_jobs (
    business_id uuid NOT NULL,
    key text NOT NULL,
    task text NOT NULL,
    payload jsonb NOT NULL,
    failures integer NOT NULL,
    given_up boolean NOT NULL,
    first_at timestamp with time zone DEFAULT now() NOT NULL,
    last_at timestamp with time zone DEFAULT now() NOT NULL,
    CONSTRAINT stuck_jobs_failed CHECK ((failures > 0))
);

CREATE TABLE public.taxes (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    name text NOT NULL,
    rate numeric(7,4) NOT NULL,
    on_delivery boolean DEFAULT false NOT NULL,
    "position" integer NOT NULL,
    class text DEFAULT 'standard'::text NOT NULL,
    country text DEFAULT ''::text NOT NULL,
    regions text[],
    postal_codes text[],
    additional boolean DEFAULT false NOT NULL,
    retired boolean DEFAULT false NOT NULL,
    CONSTRAINT taxes_rate_in_range CHECK (((rate >= (0)::numeric) AND (rate <= (100)::numeric)))
);

CREATE TABLE public.templates (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    name text NOT NULL,
    paper jsonb NOT NULL,
    changed_at timestamp with time zone NOT NULL
);

CREATE TABLE public.terms (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    name text NOT NULL,
    archived boolean DEFAULT false NOT NULL,
    created_at timestamp with time zone NOT NULL
);

CREATE TABLE public.terms_versions (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    terms_id uuid NOT NULL,
    version integer NOT NULL,
    text text NOT NULL,
    created_at timestamp with time zone NOT NULL,
    by_name text NOT NULL
);

CREATE TABLE public.ticket_keys (
    inner_pad bytea NOT NULL,
    outer_pad bytea NOT NULL,
    CONSTRAINT ticket_keys_inner_whole CHECK ((length(inner_pad) = 64)),
    CONSTRAINT ticket_keys_outer_whole CHECK ((length(outer_pad) = 64))
);

CREATE TABLE public.timeline (
    id bigint NOT NULL,
    business_id uuid NOT NULL,
    invoice_id uuid,
    at timestamp with time zone NOT NULL,
    kind text NOT NULL,
    by_name text NOT NULL,
    details jsonb DEFAULT '{}'::jsonb NOT NULL,
    order_id uuid,
    plan_id uuid,
    parcel_id uuid,
    CONSTRAINT timeline_one_subject CHECK ((num_nonnulls(invoice_id, order_id, plan_id, parcel_id) = 1))
);

ALTER TABLE public.timeline ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.timeline_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);

CREATE TABLE public.transfer_files (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    made_at timestamp with time zone NOT NULL,
    by_name text NOT NULL
);

CREATE TABLE public.unconfirmed_names (
    email_key text NOT NULL,
    business_id uuid NOT NULL,
    person_id uuid NOT NULL,
    created_at timestamp with time zone NOT NULL
);

CREATE TABLE public.voucher_moves (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    voucher_id uuid NOT NULL,
    kind text NOT NULL,
    minor bigint NOT NULL,
    payment_id uuid,
    refund_id uuid,
    at timestamp with time zone NOT NULL,
    by_name text NOT NULL,
    CONSTRAINT voucher_moves_kind_known CHECK ((kind = ANY (ARRAY['sold'::text, 'used'::text, 'given-back'::text, 'refunded'::text, 'not-refunded'::text, 'expired'::text, 'extended'::text])))
);

CREATE TABLE public.vouchers (
    id uuid NOT NULL,
    business_id uuid NOT NULL,
    code text NOT NULL,
    order_id uuid NOT NULL,
    payment_id uuid NOT NULL,
    currency text NOT NULL,
    value_minor bigint NOT NULL,
    balance_minor bigint NOT NULL,
    blocked boolean DEFAULT false NOT NULL,
    sold_at timestamp with time zone NOT NULL,
    expires_on date,
    locale text NOT NULL,
    title text NOT NULL,
    to_name text DEFAULT ''::text NOT NULL,
    to_email text DEFAULT ''::text NOT NULL,
    from_name text DEFAULT ''::text NOT NULL,
    message text DEFAULT ''::text NOT NULL,
    send_on date,
    sent_at timestamp with time zone,
    CONSTRAINT vouchers_balance_minor_check CHECK ((balance_minor >= 0)),
    CONSTRAINT vouchers_code_whole CHECK ((code ~ '^[2-9A-Z]{16}$'::text)),
    CONSTRAINT vouchers_value_minor_check CHECK ((value_minor > 0))
);

CREATE TABLE public.worker_beats (
    worker text NOT NULL,
    beaten_at timestamp with time zone NOT NULL
);

ALTER TABLE ONLY public.migrations ALTER COLUMN id SET DEFAULT nextval('public.migrations_id_seq'::regclass);

ALTER TABLE ONLY public.approvals
    ADD CONSTRAINT approvals_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.attempt_limits
    ADD CONSTRAINT attempt_limits_pkey PRIMARY KEY (key);

ALTER TABLE ONLY public.authorisation_texts
    ADD CONSTRAINT authorisation_texts_pkey PRIMARY KEY (business_id, version);

ALTER TABLE ONLY public.authorisations
    ADD CONSTRAINT authorisations_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.bank_accounts
    ADD CONSTRAINT bank_accounts_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.bank_lines
    ADD CONSTRAINT bank_lines_key_unique UNIQUE (business_id, account, currency, key);

ALTER TABLE ONLY public.bank_lines
    ADD CONSTRAINT bank_lines_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.bank_matches
    ADD CONSTRAINT bank_matches_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.bank_rules
    ADD CONSTRAINT bank_rules_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.bank_statements
    ADD CONSTRAINT bank_statements_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.bulk_invoices
    ADD CONSTRAINT bulk_invoices_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.bulk_rows
    ADD CONSTRAINT bulk_rows_pkey PRIMARY KEY (business_id, bulk_id, "position");

ALTER TABLE ONLY public.businesses
    ADD CONSTRAINT businesses_pkey PRIMARY KEY (business_id);

ALTER TABLE ONLY public.card_claims
    ADD CONSTRAINT card_claims_pkey PRIMARY KEY (business_id, key);

ALTER TABLE ONLY public.cards
    ADD CONSTRAINT cards_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.carrier_moves
    ADD CONSTRAINT carrier_moves_once UNIQUE (business_id, key);

ALTER TABLE ONLY public.carrier_moves
    ADD CONSTRAINT carrier_moves_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.carrier_statements
    ADD CONSTRAINT carrier_statements_pkey PRIMARY KEY (business_id, month);

ALTER TABLE ONLY public.charges
    ADD CONSTRAINT charges_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.code_sums
    ADD CONSTRAINT code_sums_pkey PRIMARY KEY (business_id, code_id, currency);

ALTER TABLE ONLY public.collections
    ADD CONSTRAINT collections_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.counters
    ADD CONSTRAINT counters_pkey PRIMARY KEY (business_id, series);

ALTER TABLE ONLY public.credit_notes
    ADD CONSTRAINT credit_notes_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.csv_mappings
    ADD CONSTRAINT csv_mappings_pkey PRIMARY KEY (business_id, headings);

ALTER TABLE ONLY public.customers
    ADD CONSTRAINT customers_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.daily_looks
    ADD CONSTRAINT daily_looks_pkey PRIMARY KEY (business_id, concern);

ALTER TABLE ONLY public.day_batches
    ADD CONSTRAINT day_batches_pkey PRIMARY KEY (business_id, day);

ALTER TABLE ONLY public.digital_goods
    ADD CONSTRAINT digital_goods_pkey PRIMARY KEY (business_id, item_id);

ALTER TABLE ONLY public.digital_grants
    ADD CONSTRAINT digital_grants_once UNIQUE (business_id, handover_id, line);

ALTER TABLE ONLY public.digital_grants
    ADD CONSTRAINT digital_grants_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.discount_codes
    ADD CONSTRAINT discount_codes_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.disputes
    ADD CONSTRAINT disputes_key_unique UNIQUE (business_id, key);

ALTER TABLE ONLY public.disputes
    ADD CONSTRAINT disputes_payment_unique UNIQUE (business_id, payment_id);

ALTER TABLE ONLY public.disputes
    ADD CONSTRAINT disputes_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.documents
    ADD CONSTRAINT documents_pkey PRIMARY KEY (business_id, kind, subject_id, version);

ALTER TABLE ONLY public.earlier_names
    ADD CONSTRAINT earlier_names_pkey PRIMARY KEY (name);

ALTER TABLE ONLY public.files
    ADD CONSTRAINT files_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.handover_lines
    ADD CONSTRAINT handover_lines_pkey PRIMARY KEY (business_id, handover_id, line);

ALTER TABLE ONLY public.handovers
    ADD CONSTRAINT handovers_once_an_invoice UNIQUE (business_id, invoice_id);

ALTER TABLE ONLY public.handovers
    ADD CONSTRAINT handovers_once_an_order UNIQUE (business_id, order_id);

ALTER TABLE ONLY public.handovers
    ADD CONSTRAINT handovers_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.hook_deliveries
    ADD CONSTRAINT hook_deliveries_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.hooks
    ADD CONSTRAINT hooks_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.identity_checks
    ADD CONSTRAINT identity_checks_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.identity_members
    ADD CONSTRAINT identity_members_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.identity_pictures
    ADD CONSTRAINT identity_pictures_pkey PRIMARY KEY (business_id, member_id, side);

ALTER TABLE ONLY public.invitations
    ADD CONSTRAINT invitations_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.invoice_sums
    ADD CONSTRAINT invoice_sums_pkey PRIMARY KEY (business_id, currency, status, due_on);

ALTER TABLE ONLY public.invoice_versions
    ADD CONSTRAINT invoice_versions_pkey PRIMARY KEY (business_id, invoice_id, version);

ALTER TABLE ONLY public.invoices
    ADD CONSTRAINT invoices_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.item_options
    ADD CONSTRAINT item_options_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.items
    ADD CONSTRAINT items_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.ledger_entries
    ADD CONSTRAINT ledger_entries_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.ledger_postings
    ADD CONSTRAINT ledger_postings_pkey PRIMARY KEY (business_id, entry_id, "position");

ALTER TABLE ONLY public.link_keys
    ADD CONSTRAINT link_keys_pkey PRIMARY KEY (key);

ALTER TABLE ONLY public.log_entries
    ADD CONSTRAINT log_entries_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.mail_proofs
    ADD CONSTRAINT mail_proofs_pkey PRIMARY KEY (business_id, person_id, purpose);

ALTER TABLE ONLY public.messages
    ADD CONSTRAINT messages_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.migration_hashes
    ADD CONSTRAINT migration_hashes_pkey PRIMARY KEY (name);

ALTER TABLE ONLY public.migrations
    ADD CONSTRAINT migrations_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.news
    ADD CONSTRAINT news_once UNIQUE (business_id, person_id, line_id);

ALTER TABLE ONLY public.news
    ADD CONSTRAINT news_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.number_series
    ADD CONSTRAINT number_series_pkey PRIMARY KEY (business_id, name);

ALTER TABLE ONLY public.offer_names
    ADD CONSTRAINT offer_names_pkey PRIMARY KEY (name);

ALTER TABLE ONLY public.offer_revisions
    ADD CONSTRAINT offer_revisions_pkey PRIMARY KEY (business_id, offer_id, revision);

ALTER TABLE ONLY public.offer_sums
    ADD CONSTRAINT offer_sums_pkey PRIMARY KEY (business_id, offer_id, currency);

ALTER TABLE ONLY public.offer_visits
    ADD CONSTRAINT offer_visits_pkey PRIMARY KEY (business_id, offer_id, visited_on);

ALTER TABLE ONLY public.offers
    ADD CONSTRAINT offers_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.orders
    ADD CONSTRAINT orders_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.page_versions
    ADD CONSTRAINT page_versions_pkey PRIMARY KEY (business_id, offer_id, version);

ALTER TABLE ONLY public.parcel_claims
    ADD CONSTRAINT parcel_claims_once UNIQUE (business_id, key);

ALTER TABLE ONLY public.parcel_claims
    ADD CONSTRAINT parcel_claims_pkey PRIMARY KEY (business_id, parcel_id);

ALTER TABLE ONLY public.parcel_lines
    ADD CONSTRAINT parcel_lines_pkey PRIMARY KEY (business_id, parcel_id, place);

ALTER TABLE ONLY public.parcel_profiles
    ADD CONSTRAINT parcel_profiles_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.parcel_rules
    ADD CONSTRAINT parcel_rules_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.parcel_scans
    ADD CONSTRAINT parcel_scans_pkey PRIMARY KEY (business_id, parcel_id, at, scan, place);

ALTER TABLE ONLY public.parcels
    ADD CONSTRAINT parcels_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.partner_movements
    ADD CONSTRAINT partner_movements_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.partners
    ADD CONSTRAINT partners_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.passkeys
    ADD CONSTRAINT passkeys_pkey PRIMARY KEY (credential_id);

ALTER TABLE ONLY public.payment_shares
    ADD CONSTRAINT payment_shares_pkey PRIMARY KEY (business_id, payment_id, "position");

ALTER TABLE ONLY public.payments
    ADD CONSTRAINT payments_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.payout_days
    ADD CONSTRAINT payout_days_pkey PRIMARY KEY (business_id, payee, currency, day);

ALTER TABLE ONLY public.payouts
    ADD CONSTRAINT payouts_number_unique UNIQUE (business_id, number);

ALTER TABLE ONLY public.payouts
    ADD CONSTRAINT payouts_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.people
    ADD CONSTRAINT people_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.pick_ups
    ADD CONSTRAINT pick_ups_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.plans
    ADD CONSTRAINT plans_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.program_answers
    ADD CONSTRAINT program_answers_pkey PRIMARY KEY (business_id, key_id, request_key);

ALTER TABLE ONLY public.program_keys
    ADD CONSTRAINT program_keys_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.questions
    ADD CONSTRAINT questions_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.rates
    ADD CONSTRAINT rates_pkey PRIMARY KEY (business_id, rated_on, currency);

ALTER TABLE ONLY public.receipts
    ADD CONSTRAINT receipts_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.recovery_codes
    ADD CONSTRAINT recovery_codes_pkey PRIMARY KEY (email_key, code_hash);

ALTER TABLE ONLY public.recurring_invoices
    ADD CONSTRAINT recurring_invoices_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.recurring_runs
    ADD CONSTRAINT recurring_runs_pkey PRIMARY KEY (business_id, recurring_id, nominal);

ALTER TABLE ONLY public.refunds
    ADD CONSTRAINT refunds_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.register_sums
    ADD CONSTRAINT register_sums_pkey PRIMARY KEY (business_id, currency, day, channel, method);

ALTER TABLE ONLY public.reminders
    ADD CONSTRAINT reminders_pkey PRIMARY KEY (business_id, invoice_id, days_from_due);

ALTER TABLE ONLY public.requests
    ADD CONSTRAINT requests_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.return_lines
    ADD CONSTRAINT return_lines_pkey PRIMARY KEY (business_id, return_id, line);

ALTER TABLE ONLY public.returns
    ADD CONSTRAINT returns_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.saved_lists
    ADD CONSTRAINT saved_lists_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.sessions
    ADD CONSTRAINT sessions_pkey PRIMARY KEY (business_id, token_hash);

ALTER TABLE ONLY public.sign_in_names
    ADD CONSTRAINT sign_in_names_pkey PRIMARY KEY (email_key, business_id);

ALTER TABLE ONLY public.sign_in_steps
    ADD CONSTRAINT sign_in_steps_pkey PRIMARY KEY (email_key);

ALTER TABLE ONLY public.stock_comebacks
    ADD CONSTRAINT stock_comebacks_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.stock_movements
    ADD CONSTRAINT stock_movements_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.stock_promises
    ADD CONSTRAINT stock_promises_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.stuck_jobs
    ADD CONSTRAINT stuck_jobs_pkey PRIMARY KEY (business_id, key);

ALTER TABLE ONLY public.taxes
    ADD CONSTRAINT taxes_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.templates
    ADD CONSTRAINT templates_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.terms
    ADD CONSTRAINT terms_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.terms_versions
    ADD CONSTRAINT terms_versions_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.timeline
    ADD CONSTRAINT timeline_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.transfer_files
    ADD CONSTRAINT transfer_files_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.unconfirmed_names
    ADD CONSTRAINT unconfirmed_names_pkey PRIMARY KEY (business_id, person_id);

ALTER TABLE ONLY public.voucher_moves
    ADD CONSTRAINT voucher_moves_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.vouchers
    ADD CONSTRAINT vouchers_pkey PRIMARY KEY (business_id, id);

ALTER TABLE ONLY public.worker_beats
    ADD CONSTRAINT worker_beats_pkey PRIMARY KEY (worker);

CREATE INDEX approvals_of_invoice ON public.approvals USING btree (business_id, invoice_id, decided_at);

CREATE INDEX authorisations_of_customer ON public.authorisations USING btree (business_id, customer_id, given_at, id);

CREATE INDEX authorisations_of_plan ON public.authorisations USING btree (business_id, plan_id) WHERE (plan_id IS NOT NULL);

CREATE INDEX bank_accounts_of_partner ON public.bank_accounts USING btree (business_id, partner_id) WHERE (partner_id IS NOT NULL);

CREATE UNIQUE INDEX bank_accounts_one_checked ON public.bank_accounts USING btree (business_id, payee, currency) WHERE (state = 'checked'::text);

CREATE UNIQUE INDEX bank_accounts_one_checking ON public.bank_accounts USING btree (business_id, payee, currency) WHERE (state = 'checking'::text);

CREATE INDEX bank_accounts_to_act ON public.bank_accounts USING btree (act_at, business_id) WHERE (act_at IS NOT NULL);

CREATE INDEX bank_lines_by_day ON public.bank_lines USING btree (business_id, account, currency, day, "position", id);

CREATE INDEX bank_lines_of_statement ON public.bank_lines USING btree (business_id, statement_id, "position");

CREATE INDEX bank_lines_open ON public.bank_lines USING btree (business_id, day, id) WHERE (state <> 'matched'::text);

CREATE INDEX bank_matches_of_invoice ON public.bank_matches USING btree (business_id, invoice_id) WHERE (invoice_id IS NOT NULL);

CREATE INDEX bank_matches_of_line ON public.bank_matches USING btree (business_id, line_id);

CREATE INDEX bank_matches_of_press ON public.bank_matches USING btree (business_id, press);

CREATE UNIQUE INDEX bank_matches_payment_once ON public.bank_matches USING btree (business_id, payment_id) WHERE ((undone_at IS NULL) AND (payment_id IS NOT NULL));

CREATE UNIQUE INDEX bank_matches_payout_once ON public.bank_matches USING btree (business_id, payout_id) WHERE ((undone_at IS NULL) AND (payout_id IS NOT NULL));

CREATE UNIQUE INDEX bank_matches_refund_once ON public.bank_matches USING btree (business_id, refund_id) WHERE ((undone_at IS NULL) AND (refund_id IS NOT NULL));

CREATE INDEX bank_rules_of_customer ON public.bank_rules USING btree (business_id, customer_id) WHERE (customer_id IS NOT NULL);

CREATE UNIQUE INDEX bank_rules_unique ON public.bank_rules USING btree (business_id, is_in, words, account);

CREATE INDEX bank_statements_of_account ON public.bank_statements USING btree (business_id, account, currency, to_day);

CREATE INDEX bulk_invoices_of_business ON public.bulk_invoices USING btree (business_id, created_at, id);

CREATE INDEX bulk_rows_ready ON public.bulk_rows USING btree (business_id, bulk_id, "position") WHERE (state = 'ready'::text);

CREATE INDEX businesses_closing ON public.businesses USING btree (batches_closed_to, business_id);

CREATE INDEX card_claims_of_payment ON public.card_claims USING btree (business_id, payment_id) WHERE (payment_id IS NOT NULL);

CREATE INDEX cards_by_last4 ON public.cards USING btree (business_id, last4);

CREATE INDEX cards_expiring ON public.cards USING btree (business_id, expires, id) WHERE (state = 'good'::text);

CREATE UNIQUE INDEX cards_kept_unique ON public.cards USING btree (business_id, kept_id);

CREATE INDEX cards_of_customer ON public.cards USING btree (business_id, customer_id, "position", id);

CREATE INDEX carrier_moves_by_time ON public.carrier_moves USING btree (business_id, at DESC, id);

CREATE INDEX carrier_moves_of_parcel ON public.carrier_moves USING btree (business_id, parcel_id) WHERE (parcel_id IS NOT NULL);

CREATE INDEX carrier_statements_due ON public.carrier_statements USING btree (act_at) WHERE (act_at IS NOT NULL);

CREATE INDEX carrier_statements_open ON public.carrier_statements USING btree (business_id, month) WHERE (open > 0);

CREATE INDEX charges_billed ON public.charges USING btree (business_id, charged_on, id) WHERE (state = 'billed'::text);

CREATE INDEX charges_by_day ON public.charges USING btree (business_id, charged_on, id);

CREATE UNIQUE INDEX charges_date_unique ON public.charges USING btree (business_id, plan_id, part, nominal);

CREATE INDEX charges_due ON public.charges USING btree (act_at, business_id) WHERE (act_at IS NOT NULL);

CREATE INDEX charges_not_carried ON public.charges USING btree (business_id, charged_on, id) WHERE ((state = ANY (ARRAY['charged'::text, 'otherwise'::text])) AND (carried_at IS NULL));

CREATE INDEX charges_of_invoice ON public.charges USING btree (business_id, invoice_id) WHERE (invoice_id IS NOT NULL);

CREATE INDEX charges_of_plan ON public.charges USING btree (business_id, plan_id, charged_on, id);

CREATE INDEX charges_refused ON public.charges USING btree (business_id, charged_on, id) WHERE (state = 'refused'::text);

CREATE INDEX charges_to_act ON public.charges USING btree (business_id, act_at, id) WHERE (act_at IS NOT NULL);

CREATE INDEX charges_to_notice ON public.charges USING btree (notice_on, business_id, id) WHERE ((state = 'upcoming'::text) AND (noticed_at IS NULL) AND (notice_on IS NOT NULL));

CREATE INDEX collections_of_handover ON public.collections USING btree (business_id, handover_id, at);

CREATE UNIQUE INDEX credit_notes_number_unique ON public.credit_notes USING btree (business_id, number);

CREATE INDEX credit_notes_of_invoice ON public.credit_notes USING btree (business_id, invoice_id);

CREATE UNIQUE INDEX credit_notes_request_unique ON public.credit_notes USING btree (business_id, request_key);

CREATE INDEX customers_alike ON public.customers USING gin (name_key public.gin_trgm_ops);

CREATE INDEX customers_by_beginning ON public.customers USING btree (business_id, lower(name) text_pattern_ops) WHERE (merged_into IS NULL);

CREATE INDEX customers_by_email ON public.customers USING btree (business_id, lower(email)) WHERE (email <> ''::text);

CREATE INDEX customers_by_name ON public.customers USING btree (business_id, lower(name), id) WHERE (merged_into IS NULL);

CREATE INDEX customers_found ON public.customers USING gin (search public.gin_trgm_ops);

CREATE INDEX customers_of_group ON public.customers USING gin (groups);

CREATE INDEX customers_to_forget ON public.customers USING btree (business_id) WHERE ((erased_at IS NOT NULL) AND (papers_gone_at IS NULL));

CREATE INDEX daily_looks_due ON public.daily_looks USING btree (due_at, business_id);

CREATE INDEX day_batches_differing ON public.day_batches USING btree (business_id, day) WHERE ((differences <> '[]'::jsonb) AND (settled_by IS NULL));

CREATE INDEX digital_goods_with_file ON public.digital_goods USING btree (business_id, file_id) WHERE (file_id IS NOT NULL);

CREATE INDEX digital_grants_with_file ON public.digital_grants USING btree (business_id, file_id) WHERE (file_id IS NOT NULL);

CREATE INDEX discount_codes_by_time ON public.discount_codes USING btree (business_id, created_at, id);

CREATE UNIQUE INDEX discount_codes_key_unique ON public.discount_codes USING btree (business_id, code_key) WHERE (NOT archived);

CREATE INDEX disputes_by_time ON public.disputes USING btree (business_id, booked_at, id);

CREATE INDEX disputes_to_answer ON public.disputes USING btree (business_id, answer_by) WHERE (state = 'open'::text);

CREATE INDEX disputes_undecided ON public.disputes USING btree (business_id, booked_at) WHERE (state = ANY (ARRAY['open'::text, 'sending'::text, 'sent'::text]));

CREATE INDEX disputes_won_by_time ON public.disputes USING btree (business_id, settled_at) WHERE (state = 'won'::text);

CREATE INDEX files_by_time ON public.files USING btree (business_id, created_at, id);

CREATE INDEX handover_lines_of_item ON public.handover_lines USING btree (business_id, item_id) WHERE (item_id IS NOT NULL);

CREATE INDEX handovers_at_counter ON public.handovers USING btree (business_id, ready_at, id) WHERE (counter = 'open'::text);

CREATE INDEX handovers_kept ON public.handovers USING btree (business_id, ready_at, id) WHERE ((state = 'open'::text) AND (block <> ''::text));

CREATE INDEX handovers_of_customer ON public.handovers USING btree (business_id, customer_id);

CREATE INDEX handovers_to_pack ON public.handovers USING btree (business_id, ready_at, id) WHERE ((state = 'open'::text) AND (block = ''::text));

CREATE INDEX hook_deliveries_of_hook ON public.hook_deliveries USING btree (business_id, hook_id, happened_at DESC, id DESC);

CREATE INDEX hook_deliveries_to_forget ON public.hook_deliveries USING btree (business_id, happened_at) WHERE (state <> 'waiting'::text);

CREATE INDEX identity_checks_due ON public.identity_checks USING btree (act_at) WHERE (act_at IS NOT NULL);

CREATE UNIQUE INDEX identity_checks_one_open ON public.identity_checks USING btree (business_id) WHERE (state = 'checking'::text);

CREATE UNIQUE INDEX invitations_open_unique ON public.invitations USING btree (business_id, lower(email)) WHERE (state = 'open'::text);

CREATE INDEX invoices_by_due ON public.invoices USING btree (business_id, due_on, id) WHERE (stage <> 'draft'::text);

CREATE INDEX invoices_by_issue ON public.invoices USING btree (business_id, issued_on, id) WHERE (stage <> 'draft'::text);

CREATE INDEX invoices_by_number ON public.invoices USING btree (business_id, lower(number) text_pattern_ops) WHERE (number IS NOT NULL);

CREATE INDEX invoices_by_reference ON public.invoices USING gin (lower(((reference || ' '::text) || title)) public.gin_trgm_ops) WHERE ((reference || title) <> ''::text);

CREATE INDEX invoices_by_total ON public.invoices USING btree (business_id, total_minor, id) WHERE (stage <> 'draft'::text);

CREATE INDEX invoices_drafts ON public.invoices USING btree (business_id, changed_at, id) WHERE (stage = 'draft'::text);

CREATE UNIQUE INDEX invoices_link_unique ON public.invoices USING btree (business_id, link_token);

CREATE UNIQUE INDEX invoices_number_unique ON public.invoices USING btree (business_id, number);

CREATE INDEX invoices_of_customer ON public.invoices USING btree (business_id, customer_id, id);

CREATE INDEX invoices_open ON public.invoices USING btree (business_id, due_on, id) WHERE ((stage = 'sent'::text) AND (due_minor > 0));

CREATE INDEX invoices_settled ON public.invoices USING btree (business_id, settled_at, id) WHERE ((stage = 'sent'::text) AND (due_minor = 0));

CREATE INDEX invoices_status_by_due ON public.invoices USING btree (business_id, status, due_on, id);

CREATE INDEX invoices_to_send ON public.invoices USING btree (send_at) WHERE ((stage = 'draft'::text) AND (send_at IS NOT NULL));

CREATE INDEX invoices_under_name ON public.invoices USING btree (business_id, ((paper ->> 'tradingNameId'::text)), due_on, id) WHERE ((paper ->> 'tradingNameId'::text) IS NOT NULL);

CREATE INDEX invoices_with_credit ON public.invoices USING btree (business_id, customer_id, currency) WHERE ((stage = 'sent'::text) AND ((((total_minor - credited_minor) - paid_minor) + refunded_minor) < 0));

CREATE INDEX invoices_with_items ON public.invoices USING gin (jsonb_path_query_array(printed, '$."lines"[*]."itemId"'::jsonpath));

CREATE INDEX item_options_of_item ON public.item_options USING btree (business_id, item_id, "position");

CREATE INDEX items_by_name ON public.items USING btree (business_id, lower(name), id) WHERE (NOT archived);

CREATE UNIQUE INDEX items_code_unique ON public.items USING btree (business_id, lower(code)) WHERE ((code <> ''::text) AND (NOT archived));

CREATE INDEX items_found ON public.items USING gin (search public.gin_trgm_ops);

CREATE UNIQUE INDEX ledger_entries_cause_unique ON public.ledger_entries USING btree (business_id, cause);

CREATE INDEX ledger_entries_of_invoice ON public.ledger_entries USING btree (business_id, invoice_id);

CREATE INDEX ledger_postings_of_account ON public.ledger_postings USING btree (business_id, account, currency);

CREATE INDEX log_entries_latest ON public.log_entries USING btree (business_id, noted_at DESC, id DESC);

CREATE INDEX messages_asking ON public.messages USING btree (business_id, created_at) WHERE (kind = ANY (ARRAY['charge-refused'::text, 'part-due'::text, 'card-asked'::text, 'own-page'::text]));

CREATE INDEX messages_failed ON public.messages USING btree (business_id, created_at) WHERE ((state = ANY (ARRAY['failed'::text, 'bounced'::text])) AND (seen_to_at IS NULL));

CREATE UNIQUE INDEX messages_key_unique ON public.messages USING btree (business_id, message_key);

CREATE INDEX messages_of_customer ON public.messages USING btree (business_id, customer_id, kind) WHERE (kind = 'gift-letter'::text);

CREATE INDEX messages_of_invoice ON public.messages USING btree (business_id, invoice_id, created_at);

CREATE INDEX messages_of_order ON public.messages USING btree (business_id, order_id, created_at) WHERE (order_id IS NOT NULL);

CREATE INDEX messages_of_parcel ON public.messages USING btree (business_id, parcel_id) WHERE (parcel_id IS NOT NULL);

CREATE INDEX messages_of_plan ON public.messages USING btree (business_id, plan_id, created_at) WHERE (plan_id IS NOT NULL);

CREATE INDEX messages_reminding ON public.messages USING btree (business_id, created_at) WHERE (kind = 'reminder'::text);

CREATE INDEX messages_to_forget ON public.messages USING btree (business_id, created_at) WHERE (to_address <> ''::text);

CREATE INDEX news_by_time ON public.news USING btree (business_id, at);

CREATE INDEX news_of_line ON public.news USING btree (business_id, line_id);

CREATE INDEX news_to_mail ON public.news USING btree (mail_at, business_id) WHERE (mail_at IS NOT NULL);

CREATE INDEX offer_names_of_offer ON public.offer_names USING btree (business_id, offer_id);

CREATE UNIQUE INDEX offers_address_unique ON public.offers USING btree (business_id, address) WHERE (address IS NOT NULL);

CREATE INDEX offers_by_change ON public.offers USING btree (business_id, placement, changed_at, id);

CREATE UNIQUE INDEX offers_public_id_unique ON public.offers USING btree (business_id, public_id);

CREATE UNIQUE INDEX orders_checkout_unique ON public.orders USING btree (business_id, offer_id, checkout_key);

CREATE INDEX orders_found ON public.orders USING gin (lower(((((reference || ' '::text) || payer_email) || ' '::text) || COALESCE(((printed -> 'payer'::text) ->> 'name'::text), ''::text))) public.gin_trgm_ops) WHERE (state = 'paid'::text);

CREATE INDEX orders_of_customer ON public.orders USING btree (business_id, customer_id, id) WHERE (customer_id IS NOT NULL);

CREATE INDEX orders_of_offer ON public.orders USING btree (business_id, offer_id, started_at, id);

CREATE UNIQUE INDEX orders_reference_unique ON public.orders USING btree (business_id, reference);

CREATE INDEX orders_taken ON public.orders USING btree (business_id, offer_id) WHERE (state = ANY (ARRAY['pending'::text, 'paid'::text]));

CREATE INDEX orders_to_forget ON public.orders USING btree (business_id, started_at) WHERE ((state <> 'paid'::text) AND (payer_email <> ''::text));

CREATE UNIQUE INDEX orders_token_unique ON public.orders USING btree (business_id, token);

CREATE INDEX orders_with_code ON public.orders USING btree (business_id, code_id, lower(payer_email)) WHERE ((state = ANY (ARRAY['pending'::text, 'paid'::text])) AND (code_id IS NOT NULL));

CREATE INDEX orders_with_items ON public.orders USING gin (jsonb_path_query_array(printed, '$."lines"[*]."itemId"'::jsonpath));

CREATE INDEX parcel_claims_due ON public.parcel_claims USING btree (look_at) WHERE (look_at IS NOT NULL);

CREATE INDEX parcel_lines_of_handover ON public.parcel_lines USING btree (business_id, handover_id) WHERE (handover_id IS NOT NULL);

CREATE INDEX parcels_by_profile ON public.parcels USING btree (business_id, profile_id);

CREATE INDEX parcels_by_time ON public.parcels USING btree (business_id, bought_at DESC, id DESC) WHERE (bought_at IS NOT NULL);

CREATE INDEX parcels_due ON public.parcels USING btree (act_at) WHERE (act_at IS NOT NULL);

CREATE INDEX parcels_found ON public.parcels USING gin (search public.gin_trgm_ops) WHERE (bought_at IS NOT NULL);

CREATE UNIQUE INDEX parcels_number_unique ON public.parcels USING btree (business_id, number) WHERE (number <> ''::text);

CREATE INDEX parcels_of_customer ON public.parcels USING btree (business_id, customer_id);

CREATE INDEX parcels_on_the_paper ON public.parcels USING btree (business_id, made_at, id) WHERE (state = ANY (ARRAY['packing'::text, 'buying'::text]));

CREATE INDEX parcels_to_declare ON public.parcels USING btree (business_id, bought_at, id) WHERE ((printed_at IS NULL) AND (state = 'bought'::text) AND ((label ->> 'customsForm'::text) <> ''::text));

CREATE INDEX parcels_to_print ON public.parcels USING btree (business_id, bought_at, id) WHERE ((printed_at IS NULL) AND (state = 'bought'::text));

CREATE INDEX parcels_under_way ON public.parcels USING btree (business_id, promised_on, id) WHERE (state = ANY (ARRAY['bought'::text, 'moving'::text, 'door'::text, 'waiting'::text, 'damaged'::text, 'back'::text, 'lost'::text, 'returned'::text]));

CREATE INDEX partner_movements_by_time ON public.partner_movements USING btree (business_id, at, id);

CREATE INDEX partner_movements_of_partner ON public.partner_movements USING btree (business_id, partner_id, at, id);

CREATE INDEX partner_movements_of_payment ON public.partner_movements USING btree (business_id, payment_id) WHERE (payment_id IS NOT NULL);

CREATE INDEX partner_movements_of_payout ON public.partner_movements USING btree (business_id, payout_id) WHERE (payout_id IS NOT NULL);

CREATE INDEX partners_of_business ON public.partners USING btree (business_id, lower(name), id);

CREATE INDEX passkeys_of_name ON public.passkeys USING btree (email_key, made_at);

CREATE INDEX payment_shares_of_partner ON public.payment_shares USING btree (business_id, partner_id);

CREATE INDEX payments_at_processor ON public.payments USING btree (business_id, settled_at, id) WHERE ((method = ANY (ARRAY['card'::text, 'debit'::text])) AND (state = ANY (ARRAY['paid'::text, 'voided'::text])));

CREATE UNIQUE INDEX payments_attempt_unique ON public.payments USING btree (business_id, attempt_key);

CREATE INDEX payments_beside ON public.payments USING btree (business_id, beside_id) WHERE (beside_id IS NOT NULL);

CREATE INDEX payments_by_amount ON public.payments USING btree (business_id, amount_minor, started_at);

CREATE INDEX payments_by_charged ON public.payments USING btree (business_id, ((amount_minor + tip_minor))) WHERE (tip_minor > 0);

CREATE INDEX payments_by_hand ON public.payments USING btree (business_id, settled_at, id) WHERE ((method <> 'card'::text) AND (state = 'paid'::text));

CREATE INDEX payments_by_last4 ON public.payments USING btree (business_id, card_last4, started_at) WHERE (card_last4 IS NOT NULL);

CREATE INDEX payments_by_reference ON public.payments USING gin (lower(reference) public.gin_trgm_ops) WHERE (reference <> ''::text);

CREATE INDEX payments_collecting ON public.payments USING btree (business_id, expected_at) WHERE ((state = 'pending'::text) AND (expected_at IS NOT NULL));

CREATE INDEX payments_in_register ON public.payments USING btree (business_id, at, id);

CREATE INDEX payments_of_charge ON public.payments USING btree (business_id, charge_id, started_at) WHERE (charge_id IS NOT NULL);

CREATE INDEX payments_of_customer ON public.payments USING btree (business_id, customer_id, settled_at) WHERE (state = 'paid'::text);

CREATE INDEX payments_of_customer_in_register ON public.payments USING btree (business_id, customer_id, at, id);

CREATE INDEX payments_of_invoice ON public.payments USING btree (business_id, invoice_id, started_at);

CREATE INDEX payments_of_order ON public.payments USING btree (business_id, order_id, started_at) WHERE (order_id IS NOT NULL);

CREATE INDEX payments_of_voucher ON public.payments USING btree (business_id, voucher_id) WHERE (voucher_id IS NOT NULL);

CREATE UNIQUE INDEX payments_one_pending ON public.payments USING btree (business_id, invoice_id) WHERE ((state = 'pending'::text) AND exclusive);

CREATE UNIQUE INDEX payments_one_pending_order ON public.payments USING btree (business_id, order_id) WHERE ((state = 'pending'::text) AND (order_id IS NOT NULL) AND (beside_id IS NULL));

CREATE INDEX payments_paid ON public.payments USING btree (business_id, settled_at, id) WHERE (state = 'paid'::text);

CREATE INDEX payments_pending_of_invoice ON public.payments USING btree (business_id, invoice_id) WHERE (state = 'pending'::text);

CREATE INDEX payments_with_dispute ON public.payments USING btree (business_id, at, id) WHERE (dispute IS NOT NULL);

CREATE INDEX payments_with_other_fee ON public.payments USING btree (business_id, at, id) WHERE ((fee_minor <> agreed_fee_minor) AND (state = 'paid'::text));

CREATE INDEX payout_days_held ON public.payout_days USING btree (business_id, payee, currency) WHERE ((held_minor > 0) AND (release_payout_id IS NULL));

CREATE INDEX payout_days_not_paid ON public.payout_days USING btree (business_id, payee, currency) WHERE (payout_id IS NULL);

CREATE INDEX payout_days_of_payout ON public.payout_days USING btree (business_id, payout_id) WHERE (payout_id IS NOT NULL);

CREATE INDEX payout_days_released_in ON public.payout_days USING btree (business_id, release_payout_id) WHERE (release_payout_id IS NOT NULL);

CREATE INDEX payouts_by_day ON public.payouts USING btree (business_id, made_on, number);

CREATE INDEX payouts_of_account ON public.payouts USING btree (business_id, account_id);

CREATE INDEX payouts_of_partner ON public.payouts USING btree (business_id, partner_id) WHERE (partner_id IS NOT NULL);

CREATE INDEX payouts_of_payee ON public.payouts USING btree (business_id, payee, currency, made_on);

CREATE INDEX payouts_returned ON public.payouts USING btree (business_id, made_on) WHERE (state = 'returned'::text);

CREATE INDEX payouts_to_act ON public.payouts USING btree (act_at, business_id) WHERE (act_at IS NOT NULL);

CREATE UNIQUE INDEX people_email_unique ON public.people USING btree (business_id, lower(email));

CREATE INDEX pick_ups_by_day ON public.pick_ups USING btree (business_id, pick_up_on DESC, at DESC);

CREATE INDEX plans_beyond ON public.plans USING btree (business_id, written_to) WHERE ((state = 'active'::text) AND (written_to IS NOT NULL));

CREATE INDEX plans_by_change ON public.plans USING btree (business_id, changed_at, id);

CREATE INDEX plans_by_state ON public.plans USING btree (business_id, state, next_on, id);

CREATE INDEX plans_ending ON public.plans USING btree (ends_on) WHERE (ends_on IS NOT NULL);

CREATE INDEX plans_found ON public.plans USING gin (lower(((((name || ' '::text) || number) || ' '::text) || reference)) public.gin_trgm_ops);

CREATE INDEX plans_lapsing ON public.plans USING btree (lapses_on, business_id, id) WHERE (state = 'waiting'::text);

CREATE UNIQUE INDEX plans_link_unique ON public.plans USING btree (business_id, link_token);

CREATE INDEX plans_newest ON public.plans USING btree (business_id, created_at DESC, id DESC);

CREATE UNIQUE INDEX plans_number_unique ON public.plans USING btree (business_id, number);

CREATE INDEX plans_of_customer ON public.plans USING btree (business_id, customer_id, id);

CREATE INDEX plans_of_invoice ON public.plans USING btree (business_id, invoice_id) WHERE (invoice_id IS NOT NULL);

CREATE UNIQUE INDEX plans_one_an_order ON public.plans USING btree (business_id, order_id) WHERE (order_id IS NOT NULL);

CREATE INDEX plans_to_remind ON public.plans USING btree (remind_at, business_id, id) WHERE ((state = 'waiting'::text) AND (reminded_at IS NULL));

CREATE INDEX program_answers_begun ON public.program_answers USING btree (business_id, begun_at);

CREATE UNIQUE INDEX program_keys_secret ON public.program_keys USING btree (business_id, secret_hash);

CREATE INDEX questions_of_invoice ON public.questions USING btree (business_id, invoice_id, asked_at);

CREATE INDEX questions_open ON public.questions USING btree (business_id, asked_at) WHERE (answer IS NULL);

CREATE INDEX receipts_by_number ON public.receipts USING btree (business_id, lower(number) text_pattern_ops);

CREATE UNIQUE INDEX receipts_number_unique ON public.receipts USING btree (business_id, number);

CREATE INDEX receipts_of_gifts ON public.receipts USING btree (business_id, "left"((printed ->> 'paidOn'::text), 4)) WHERE (((printed -> 'order'::text) ->> 'donation'::text) = 'true'::text);

CREATE INDEX receipts_of_invoice ON public.receipts USING btree (business_id, invoice_id);

CREATE UNIQUE INDEX receipts_one_a_payment ON public.receipts USING btree (business_id, payment_id);

CREATE INDEX recurring_invoices_due ON public.recurring_invoices USING btree (next_on) WHERE ((state = 'active'::text) AND (next_on IS NOT NULL));

CREATE INDEX recurring_invoices_of_business ON public.recurring_invoices USING btree (business_id, state, next_on, id);

CREATE INDEX recurring_of_customer ON public.recurring_invoices USING btree (business_id, customer_id);

CREATE INDEX refunds_by_amount ON public.refunds USING btree (business_id, amount_minor);

CREATE INDEX refunds_done ON public.refunds USING btree (business_id, settled_at, id) WHERE (state = 'done'::text);

CREATE INDEX refunds_in_register ON public.refunds USING btree (business_id, at, id);

CREATE INDEX refunds_of_payment ON public.refunds USING btree (business_id, payment_id, started_at);

CREATE INDEX refunds_of_transfer_file ON public.refunds USING btree (business_id, transfer_file_id) WHERE (transfer_file_id IS NOT NULL);

CREATE UNIQUE INDEX refunds_one_pending ON public.refunds USING btree (business_id, payment_id) WHERE (state = 'pending'::text);

CREATE UNIQUE INDEX refunds_request_unique ON public.refunds USING btree (business_id, request_key);

CREATE INDEX refunds_returned ON public.refunds USING btree (business_id, settled_at) WHERE (kind = 'return'::text);

CREATE INDEX refunds_to_transfer ON public.refunds USING btree (business_id, settled_at, id) WHERE ((method = 'transfer'::text) AND (state = 'done'::text) AND (transfer_file_id IS NULL) AND (wish ? 'account'::text));

CREATE INDEX refunds_with_credit ON public.refunds USING btree (business_id, credit_id) WHERE (credit_id IS NOT NULL);

CREATE INDEX reminders_due ON public.reminders USING btree (remind_on, business_id) WHERE (state = 'waiting'::text);

CREATE INDEX reminders_waiting ON public.reminders USING btree (business_id, remind_on) WHERE (state = 'waiting'::text);

CREATE INDEX requests_of_offer ON public.requests USING btree (business_id, offer_id, sent_at, id);

CREATE INDEX returns_of_handover ON public.returns USING btree (business_id, handover_id);

CREATE INDEX returns_open ON public.returns USING btree (business_id, asked_at, id) WHERE (state = ANY (ARRAY['asked'::text, 'allowed'::text, 'received'::text]));

CREATE INDEX returns_with_file ON public.returns USING btree (business_id, file_id) WHERE (file_id IS NOT NULL);

CREATE UNIQUE INDEX saved_lists_name_unique ON public.saved_lists USING btree (business_id, list, lower(name));

CREATE INDEX sessions_of_person ON public.sessions USING btree (business_id, person_id);

CREATE INDEX stock_comebacks_of_invoice ON public.stock_comebacks USING btree (business_id, invoice_id) WHERE (invoice_id IS NOT NULL);

CREATE INDEX stock_comebacks_of_item ON public.stock_comebacks USING btree (business_id, item_id, option_id);

CREATE INDEX stock_comebacks_of_order ON public.stock_comebacks USING btree (business_id, order_id) WHERE (order_id IS NOT NULL);

CREATE UNIQUE INDEX stock_movements_in_order ON public.stock_movements USING btree (business_id, item_id, option_id, n) NULLS NOT DISTINCT;

CREATE INDEX stock_movements_of_invoice ON public.stock_movements USING btree (business_id, invoice_id) WHERE (invoice_id IS NOT NULL);

CREATE INDEX stock_movements_of_option ON public.stock_movements USING btree (business_id, option_id) WHERE (option_id IS NOT NULL);

CREATE INDEX stock_movements_of_order ON public.stock_movements USING btree (business_id, order_id) WHERE (order_id IS NOT NULL);

CREATE INDEX stock_movements_out ON public.stock_movements USING btree (business_id, at) WHERE (kind = ANY (ARRAY['sold'::text, 'unsold'::text]));

CREATE INDEX stock_movements_with_file ON public.stock_movements USING btree (business_id, file_id) WHERE (file_id IS NOT NULL);

CREATE INDEX stock_promises_of_invoice ON public.stock_promises USING btree (business_id, invoice_id);

CREATE INDEX stock_promises_of_item ON public.stock_promises USING btree (business_id, item_id);

CREATE INDEX stock_promises_of_order ON public.stock_promises USING btree (business_id, order_id) WHERE (order_id IS NOT NULL);

CREATE INDEX taxes_in_order ON public.taxes USING btree (business_id, "position");

CREATE UNIQUE INDEX templates_name_unique ON public.templates USING btree (business_id, lower(name));

CREATE UNIQUE INDEX terms_versions_unique ON public.terms_versions USING btree (business_id, terms_id, version);

CREATE INDEX timeline_of_invoice ON public.timeline USING btree (business_id, invoice_id, at, id);

CREATE INDEX timeline_of_order ON public.timeline USING btree (business_id, order_id, at, id) WHERE (order_id IS NOT NULL);

CREATE INDEX timeline_of_parcel ON public.timeline USING btree (business_id, parcel_id, at DESC, id DESC) WHERE (parcel_id IS NOT NULL);

CREATE INDEX timeline_of_plan ON public.timeline USING btree (business_id, plan_id, at, id) WHERE (plan_id IS NOT NULL);

CREATE INDEX unconfirmed_names_of_address ON public.unconfirmed_names USING btree (email_key, created_at DESC);

CREATE INDEX voucher_moves_of ON public.voucher_moves USING btree (business_id, voucher_id, at, id);

CREATE INDEX voucher_moves_of_payment ON public.voucher_moves USING btree (business_id, payment_id) WHERE (payment_id IS NOT NULL);

CREATE INDEX voucher_moves_of_refund ON public.voucher_moves USING btree (business_id, refund_id) WHERE (refund_id IS NOT NULL);

CREATE INDEX vouchers_by_time ON public.vouchers USING btree (business_id, sold_at, id);

CREATE UNIQUE INDEX vouchers_code_unique ON public.vouchers USING btree (business_id, code);

CREATE INDEX vouchers_of_order ON public.vouchers USING btree (business_id, order_id);

CREATE INDEX vouchers_of_payment ON public.vouchers USING btree (business_id, payment_id);

CREATE INDEX vouchers_to_expire ON public.vouchers USING btree (expires_on) WHERE (balance_minor > 0);

CREATE INDEX vouchers_to_send ON public.vouchers USING btree (send_on) WHERE (sent_at IS NULL);

CREATE TRIGGER customers_forgotten_for_customs AFTER UPDATE OF erased_at ON public.customers FOR EACH ROW WHEN (((old.erased_at IS NULL) AND (new.erased_at IS NOT NULL))) EXECUTE FUNCTION public.forget_for_customs();

CREATE TRIGGER customers_forgotten_on_parcels AFTER UPDATE OF erased_at ON public.customers FOR EACH ROW WHEN (((old.erased_at IS NULL) AND (new.erased_at IS NOT NULL))) EXECUTE FUNCTION public.forget_on_parcels();

CREATE TRIGGER invoices_sums_added AFTER INSERT ON public.invoices REFERENCING NEW TABLE AS added FOR EACH STATEMENT EXECUTE FUNCTION public.keep_invoice_sums();

CREATE TRIGGER invoices_sums_changed AFTER UPDATE ON public.invoices REFERENCING OLD TABLE AS removed NEW TABLE AS added FOR EACH STATEMENT EXECUTE FUNCTION public.keep_invoice_sums();

CREATE TRIGGER invoices_sums_removed AFTER DELETE ON public.invoices REFERENCING OLD TABLE AS removed FOR EACH STATEMENT EXECUTE FUNCTION public.keep_invoice_sums();

CREATE TRIGGER ledger_entries_append_only BEFORE DELETE OR UPDATE OR TRUNCATE ON public.ledger_entries FOR EACH STATEMENT EXECUTE FUNCTION public.refuse_change();

CREATE CONSTRAINT TRIGGER ledger_entries_not_empty AFTER INSERT ON public.ledger_entries DEFERRABLE INITIALLY DEFERRED FOR EACH ROW EXECUTE FUNCTION public.refuse_empty_entry();

CREATE TRIGGER ledger_postings_append_only BEFORE DELETE OR UPDATE OR TRUNCATE ON public.ledger_postings FOR EACH STATEMENT EXECUTE FUNCTION public.refuse_change();

CREATE TRIGGER ledger_postings_balance AFTER INSERT ON public.ledger_postings REFERENCING NEW TABLE AS added FOR EACH STATEMENT EXECUTE FUNCTION public.refuse_unbalanced_entries();

CREATE TRIGGER log_entries_append_only BEFORE DELETE OR UPDATE OR TRUNCATE ON public.log_entries FOR EACH STATEMENT EXECUTE FUNCTION public.refuse_change_of_log();

CREATE TRIGGER payments_sums_added AFTER INSERT ON public.payments REFERENCING NEW TABLE AS added FOR EACH STATEMENT EXECUTE FUNCTION public.keep_new_payment_sums();

CREATE TRIGGER payments_sums_changed AFTER UPDATE ON public.payments REFERENCING OLD TABLE AS removed NEW TABLE AS added FOR EACH STATEMENT EXECUTE FUNCTION public.keep_payment_sums();

CREATE TRIGGER refunds_sums_changed AFTER UPDATE ON public.refunds REFERENCING OLD TABLE AS removed NEW TABLE AS added FOR EACH STATEMENT EXECUTE FUNCTION public.keep_refund_sums();

CREATE TRIGGER sign_in_names_last AFTER DELETE ON public.sign_in_names FOR EACH ROW EXECUTE FUNCTION public.forget_nobodys_steps();

ALTER TABLE ONLY public.approvals
    ADD CONSTRAINT approvals_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.approvals
    ADD CONSTRAINT approvals_file_id_fkey FOREIGN KEY (business_id, file_id) REFERENCES public.files(business_id, id);

ALTER TABLE ONLY public.approvals
    ADD CONSTRAINT approvals_invoice_id_fkey FOREIGN KEY (business_id, invoice_id) REFERENCES public.invoices(business_id, id);

ALTER TABLE ONLY public.authorisation_texts
    ADD CONSTRAINT authorisation_texts_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.authorisations
    ADD CONSTRAINT authorisations_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.authorisations
    ADD CONSTRAINT authorisations_card_id_fkey FOREIGN KEY (business_id, card_id) REFERENCES public.cards(business_id, id);

ALTER TABLE ONLY public.authorisations
    ADD CONSTRAINT authorisations_customer_id_fkey FOREIGN KEY (business_id, customer_id) REFERENCES public.customers(business_id, id);

ALTER TABLE ONLY public.authorisations
    ADD CONSTRAINT authorisations_file_id_fkey FOREIGN KEY (business_id, file_id) REFERENCES public.files(business_id, id);

ALTER TABLE ONLY public.authorisations
    ADD CONSTRAINT authorisations_plan_id_fkey FOREIGN KEY (business_id, plan_id) REFERENCES public.plans(business_id, id);

ALTER TABLE ONLY public.bank_accounts
    ADD CONSTRAINT bank_accounts_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.bank_accounts
    ADD CONSTRAINT bank_accounts_partner_id_fkey FOREIGN KEY (business_id, partner_id) REFERENCES public.partners(business_id, id);

ALTER TABLE ONLY public.bank_lines
    ADD CONSTRAINT bank_lines_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.bank_lines
    ADD CONSTRAINT bank_lines_statement_id_fkey FOREIGN KEY (business_id, statement_id) REFERENCES public.bank_statements(business_id, id);

ALTER TABLE ONLY public.bank_matches
    ADD CONSTRAINT bank_matches_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.bank_matches
    ADD CONSTRAINT bank_matches_invoice_id_fkey FOREIGN KEY (business_id, invoice_id) REFERENCES public.invoices(business_id, id);

ALTER TABLE ONLY public.bank_matches
    ADD CONSTRAINT bank_matches_line_id_fkey FOREIGN KEY (business_id, line_id) REFERENCES public.bank_lines(business_id, id);

ALTER TABLE ONLY public.bank_matches
    ADD CONSTRAINT bank_matches_payment_id_fkey FOREIGN KEY (business_id, payment_id) REFERENCES public.payments(business_id, id);

ALTER TABLE ONLY public.bank_matches
    ADD CONSTRAINT bank_matches_payout_id_fkey FOREIGN KEY (business_id, payout_id) REFERENCES public.payouts(business_id, id);

ALTER TABLE ONLY public.bank_matches
    ADD CONSTRAINT bank_matches_refund_id_fkey FOREIGN KEY (business_id, refund_id) REFERENCES public.refunds(business_id, id);

ALTER TABLE ONLY public.bank_rules
    ADD CONSTRAINT bank_rules_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.bank_rules
    ADD CONSTRAINT bank_rules_customer_id_fkey FOREIGN KEY (business_id, customer_id) REFERENCES public.customers(business_id, id);

ALTER TABLE ONLY public.bank_statements
    ADD CONSTRAINT bank_statements_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.bulk_invoices
    ADD CONSTRAINT bulk_invoices_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.bulk_invoices
    ADD CONSTRAINT bulk_invoices_by_id_fkey FOREIGN KEY (business_id, by_id) REFERENCES public.people(business_id, id);

ALTER TABLE ONLY public.bulk_rows
    ADD CONSTRAINT bulk_rows_bulk_id_fkey FOREIGN KEY (business_id, bulk_id) REFERENCES public.bulk_invoices(business_id, id);

ALTER TABLE ONLY public.bulk_rows
    ADD CONSTRAINT bulk_rows_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.bulk_rows
    ADD CONSTRAINT bulk_rows_customer_id_fkey FOREIGN KEY (business_id, customer_id) REFERENCES public.customers(business_id, id);

ALTER TABLE ONLY public.bulk_rows
    ADD CONSTRAINT bulk_rows_invoice_id_fkey FOREIGN KEY (business_id, invoice_id) REFERENCES public.invoices(business_id, id);

ALTER TABLE ONLY public.card_claims
    ADD CONSTRAINT card_claims_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.card_claims
    ADD CONSTRAINT card_claims_business_id_payment_id_fkey FOREIGN KEY (business_id, payment_id) REFERENCES public.payments(business_id, id);

ALTER TABLE ONLY public.cards
    ADD CONSTRAINT cards_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.cards
    ADD CONSTRAINT cards_customer_id_fkey FOREIGN KEY (business_id, customer_id) REFERENCES public.customers(business_id, id);

ALTER TABLE ONLY public.carrier_moves
    ADD CONSTRAINT carrier_moves_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.carrier_moves
    ADD CONSTRAINT carrier_moves_business_id_parcel_id_fkey FOREIGN KEY (business_id, parcel_id) REFERENCES public.parcels(business_id, id);

ALTER TABLE ONLY public.carrier_statements
    ADD CONSTRAINT carrier_statements_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.charges
    ADD CONSTRAINT charges_card_id_fkey FOREIGN KEY (business_id, card_id) REFERENCES public.cards(business_id, id);

ALTER TABLE ONLY public.charges
    ADD CONSTRAINT charges_customer_id_fkey FOREIGN KEY (business_id, customer_id) REFERENCES public.customers(business_id, id);

ALTER TABLE ONLY public.charges
    ADD CONSTRAINT charges_invoice_id_fkey FOREIGN KEY (business_id, invoice_id) REFERENCES public.invoices(business_id, id);

ALTER TABLE ONLY public.charges
    ADD CONSTRAINT charges_payment_id_fkey FOREIGN KEY (business_id, payment_id) REFERENCES public.payments(business_id, id) DEFERRABLE;

ALTER TABLE ONLY public.charges
    ADD CONSTRAINT charges_plan_id_fkey FOREIGN KEY (business_id, plan_id) REFERENCES public.plans(business_id, id);

ALTER TABLE ONLY public.code_sums
    ADD CONSTRAINT code_sums_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.code_sums
    ADD CONSTRAINT code_sums_code_id_fkey FOREIGN KEY (business_id, code_id) REFERENCES public.discount_codes(business_id, id);

ALTER TABLE ONLY public.collections
    ADD CONSTRAINT collections_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.collections
    ADD CONSTRAINT collections_business_id_handover_id_fkey FOREIGN KEY (business_id, handover_id) REFERENCES public.handovers(business_id, id);

ALTER TABLE ONLY public.counters
    ADD CONSTRAINT counters_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.credit_notes
    ADD CONSTRAINT credit_notes_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.credit_notes
    ADD CONSTRAINT credit_notes_invoice_id_fkey FOREIGN KEY (business_id, invoice_id) REFERENCES public.invoices(business_id, id);

ALTER TABLE ONLY public.csv_mappings
    ADD CONSTRAINT csv_mappings_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.customers
    ADD CONSTRAINT customers_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.customers
    ADD CONSTRAINT customers_merged_into_fkey FOREIGN KEY (business_id, merged_into) REFERENCES public.customers(business_id, id) DEFERRABLE;

ALTER TABLE ONLY public.daily_looks
    ADD CONSTRAINT daily_looks_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.day_batches
    ADD CONSTRAINT day_batches_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.digital_goods
    ADD CONSTRAINT digital_goods_business_id_file_id_fkey FOREIGN KEY (business_id, file_id) REFERENCES public.files(business_id, id);

ALTER TABLE ONLY public.digital_goods
    ADD CONSTRAINT digital_goods_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.digital_goods
    ADD CONSTRAINT digital_goods_business_id_item_id_fkey FOREIGN KEY (business_id, item_id) REFERENCES public.items(business_id, id);

ALTER TABLE ONLY public.digital_grants
    ADD CONSTRAINT digital_grants_business_id_file_id_fkey FOREIGN KEY (business_id, file_id) REFERENCES public.files(business_id, id);

ALTER TABLE ONLY public.digital_grants
    ADD CONSTRAINT digital_grants_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.digital_grants
    ADD CONSTRAINT digital_grants_business_id_handover_id_line_fkey FOREIGN KEY (business_id, handover_id, line) REFERENCES public.handover_lines(business_id, handover_id, line);

ALTER TABLE ONLY public.discount_codes
    ADD CONSTRAINT discount_codes_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.disputes
    ADD CONSTRAINT disputes_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.disputes
    ADD CONSTRAINT disputes_payment_id_fkey FOREIGN KEY (business_id, payment_id) REFERENCES public.payments(business_id, id);

ALTER TABLE ONLY public.documents
    ADD CONSTRAINT documents_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.files
    ADD CONSTRAINT files_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.handover_lines
    ADD CONSTRAINT handover_lines_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.handover_lines
    ADD CONSTRAINT handover_lines_business_id_handover_id_fkey FOREIGN KEY (business_id, handover_id) REFERENCES public.handovers(business_id, id);

ALTER TABLE ONLY public.handovers
    ADD CONSTRAINT handovers_business_id_charged_on_fkey FOREIGN KEY (business_id, charged_on) REFERENCES public.parcels(business_id, id);

ALTER TABLE ONLY public.handovers
    ADD CONSTRAINT handovers_business_id_customer_id_fkey FOREIGN KEY (business_id, customer_id) REFERENCES public.customers(business_id, id);

ALTER TABLE ONLY public.handovers
    ADD CONSTRAINT handovers_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.handovers
    ADD CONSTRAINT handovers_business_id_invoice_id_fkey FOREIGN KEY (business_id, invoice_id) REFERENCES public.invoices(business_id, id);

ALTER TABLE ONLY public.handovers
    ADD CONSTRAINT handovers_business_id_order_id_fkey FOREIGN KEY (business_id, order_id) REFERENCES public.orders(business_id, id);

ALTER TABLE ONLY public.hook_deliveries
    ADD CONSTRAINT hook_deliveries_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.hook_deliveries
    ADD CONSTRAINT hook_deliveries_business_id_hook_id_fkey FOREIGN KEY (business_id, hook_id) REFERENCES public.hooks(business_id, id);

ALTER TABLE ONLY public.hooks
    ADD CONSTRAINT hooks_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.identity_checks
    ADD CONSTRAINT identity_checks_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.identity_members
    ADD CONSTRAINT identity_members_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.identity_pictures
    ADD CONSTRAINT identity_pictures_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.identity_pictures
    ADD CONSTRAINT identity_pictures_business_id_member_id_fkey FOREIGN KEY (business_id, member_id) REFERENCES public.identity_members(business_id, id) ON DELETE CASCADE;

ALTER TABLE ONLY public.invitations
    ADD CONSTRAINT invitations_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.invoice_sums
    ADD CONSTRAINT invoice_sums_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.invoice_versions
    ADD CONSTRAINT invoice_versions_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.invoice_versions
    ADD CONSTRAINT invoice_versions_invoice_id_fkey FOREIGN KEY (business_id, invoice_id) REFERENCES public.invoices(business_id, id);

ALTER TABLE ONLY public.invoices
    ADD CONSTRAINT invoices_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.invoices
    ADD CONSTRAINT invoices_customer_id_fkey FOREIGN KEY (business_id, customer_id) REFERENCES public.customers(business_id, id);

ALTER TABLE ONLY public.invoices
    ADD CONSTRAINT invoices_send_by_fkey FOREIGN KEY (business_id, send_by) REFERENCES public.people(business_id, id);

ALTER TABLE ONLY public.item_options
    ADD CONSTRAINT item_options_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.item_options
    ADD CONSTRAINT item_options_item_id_fkey FOREIGN KEY (business_id, item_id) REFERENCES public.items(business_id, id);

ALTER TABLE ONLY public.items
    ADD CONSTRAINT items_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.ledger_entries
    ADD CONSTRAINT ledger_entries_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.ledger_entries
    ADD CONSTRAINT ledger_entries_invoice_id_fkey FOREIGN KEY (business_id, invoice_id) REFERENCES public.invoices(business_id, id);

ALTER TABLE ONLY public.ledger_entries
    ADD CONSTRAINT ledger_entries_order_id_fkey FOREIGN KEY (business_id, order_id) REFERENCES public.orders(business_id, id);

ALTER TABLE ONLY public.ledger_entries
    ADD CONSTRAINT ledger_entries_payment_id_fkey FOREIGN KEY (business_id, payment_id) REFERENCES public.payments(business_id, id);

ALTER TABLE ONLY public.ledger_postings
    ADD CONSTRAINT ledger_postings_entry_id_fkey FOREIGN KEY (business_id, entry_id) REFERENCES public.ledger_entries(business_id, id);

ALTER TABLE ONLY public.log_entries
    ADD CONSTRAINT log_entries_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.log_entries
    ADD CONSTRAINT log_entries_business_id_person_id_fkey FOREIGN KEY (business_id, person_id) REFERENCES public.people(business_id, id);

ALTER TABLE ONLY public.mail_proofs
    ADD CONSTRAINT mail_proofs_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.mail_proofs
    ADD CONSTRAINT mail_proofs_business_id_person_id_fkey FOREIGN KEY (business_id, person_id) REFERENCES public.people(business_id, id);

ALTER TABLE ONLY public.messages
    ADD CONSTRAINT messages_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.messages
    ADD CONSTRAINT messages_customer_id_fkey FOREIGN KEY (business_id, customer_id) REFERENCES public.customers(business_id, id);

ALTER TABLE ONLY public.messages
    ADD CONSTRAINT messages_invoice_id_fkey FOREIGN KEY (business_id, invoice_id) REFERENCES public.invoices(business_id, id);

ALTER TABLE ONLY public.messages
    ADD CONSTRAINT messages_order_id_fkey FOREIGN KEY (business_id, order_id) REFERENCES public.orders(business_id, id);

ALTER TABLE ONLY public.messages
    ADD CONSTRAINT messages_parcel_id_fkey FOREIGN KEY (business_id, parcel_id) REFERENCES public.parcels(business_id, id);

ALTER TABLE ONLY public.messages
    ADD CONSTRAINT messages_payment_id_fkey FOREIGN KEY (business_id, payment_id) REFERENCES public.payments(business_id, id);

ALTER TABLE ONLY public.messages
    ADD CONSTRAINT messages_plan_id_fkey FOREIGN KEY (business_id, plan_id) REFERENCES public.plans(business_id, id);

ALTER TABLE ONLY public.messages
    ADD CONSTRAINT messages_request_id_fkey FOREIGN KEY (business_id, request_id) REFERENCES public.requests(business_id, id);

ALTER TABLE ONLY public.news
    ADD CONSTRAINT news_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.news
    ADD CONSTRAINT news_business_id_line_id_fkey FOREIGN KEY (business_id, line_id) REFERENCES public.timeline(business_id, id) ON DELETE CASCADE;

ALTER TABLE ONLY public.news
    ADD CONSTRAINT news_business_id_person_id_fkey FOREIGN KEY (business_id, person_id) REFERENCES public.people(business_id, id);

ALTER TABLE ONLY public.number_series
    ADD CONSTRAINT number_series_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.offer_revisions
    ADD CONSTRAINT offer_revisions_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.offer_revisions
    ADD CONSTRAINT offer_revisions_offer_id_fkey FOREIGN KEY (business_id, offer_id) REFERENCES public.offers(business_id, id) ON DELETE CASCADE;

ALTER TABLE ONLY public.offer_sums
    ADD CONSTRAINT offer_sums_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.offer_sums
    ADD CONSTRAINT offer_sums_offer_id_fkey FOREIGN KEY (business_id, offer_id) REFERENCES public.offers(business_id, id) ON DELETE CASCADE;

ALTER TABLE ONLY public.offer_visits
    ADD CONSTRAINT offer_visits_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.offer_visits
    ADD CONSTRAINT offer_visits_offer_id_fkey FOREIGN KEY (business_id, offer_id) REFERENCES public.offers(business_id, id) ON DELETE CASCADE;

ALTER TABLE ONLY public.offers
    ADD CONSTRAINT offers_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.orders
    ADD CONSTRAINT orders_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.orders
    ADD CONSTRAINT orders_code_id_fkey FOREIGN KEY (business_id, code_id) REFERENCES public.discount_codes(business_id, id);

ALTER TABLE ONLY public.orders
    ADD CONSTRAINT orders_customer_id_fkey FOREIGN KEY (business_id, customer_id) REFERENCES public.customers(business_id, id);

ALTER TABLE ONLY public.orders
    ADD CONSTRAINT orders_offer_id_fkey FOREIGN KEY (business_id, offer_id) REFERENCES public.offers(business_id, id);

ALTER TABLE ONLY public.orders
    ADD CONSTRAINT orders_request_id_fkey FOREIGN KEY (business_id, request_id) REFERENCES public.requests(business_id, id);

ALTER TABLE ONLY public.page_versions
    ADD CONSTRAINT page_versions_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.page_versions
    ADD CONSTRAINT page_versions_offer_id_fkey FOREIGN KEY (business_id, offer_id) REFERENCES public.offers(business_id, id) ON DELETE CASCADE;

ALTER TABLE ONLY public.parcel_claims
    ADD CONSTRAINT parcel_claims_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.parcel_claims
    ADD CONSTRAINT parcel_claims_business_id_parcel_id_fkey FOREIGN KEY (business_id, parcel_id) REFERENCES public.parcels(business_id, id);

ALTER TABLE ONLY public.parcel_lines
    ADD CONSTRAINT parcel_lines_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.parcel_lines
    ADD CONSTRAINT parcel_lines_business_id_handover_id_line_fkey FOREIGN KEY (business_id, handover_id, line) REFERENCES public.handover_lines(business_id, handover_id, line);

ALTER TABLE ONLY public.parcel_lines
    ADD CONSTRAINT parcel_lines_business_id_parcel_id_fkey FOREIGN KEY (business_id, parcel_id) REFERENCES public.parcels(business_id, id) ON DELETE CASCADE;

ALTER TABLE ONLY public.parcel_profiles
    ADD CONSTRAINT parcel_profiles_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.parcel_rules
    ADD CONSTRAINT parcel_rules_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.parcel_scans
    ADD CONSTRAINT parcel_scans_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.parcel_scans
    ADD CONSTRAINT parcel_scans_business_id_parcel_id_fkey FOREIGN KEY (business_id, parcel_id) REFERENCES public.parcels(business_id, id) ON DELETE CASCADE;

ALTER TABLE ONLY public.parcels
    ADD CONSTRAINT parcels_business_id_customer_id_fkey FOREIGN KEY (business_id, customer_id) REFERENCES public.customers(business_id, id);

ALTER TABLE ONLY public.parcels
    ADD CONSTRAINT parcels_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.parcels
    ADD CONSTRAINT parcels_business_id_profile_id_fkey FOREIGN KEY (business_id, profile_id) REFERENCES public.parcel_profiles(business_id, id);

ALTER TABLE ONLY public.partner_movements
    ADD CONSTRAINT partner_movements_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.partner_movements
    ADD CONSTRAINT partner_movements_partner_id_fkey FOREIGN KEY (business_id, partner_id) REFERENCES public.partners(business_id, id);

ALTER TABLE ONLY public.partner_movements
    ADD CONSTRAINT partner_movements_payment_id_fkey FOREIGN KEY (business_id, payment_id) REFERENCES public.payments(business_id, id);

ALTER TABLE ONLY public.partner_movements
    ADD CONSTRAINT partner_movements_payout_id_fkey FOREIGN KEY (business_id, payout_id) REFERENCES public.payouts(business_id, id);

ALTER TABLE ONLY public.partners
    ADD CONSTRAINT partners_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.passkeys
    ADD CONSTRAINT passkeys_email_key_fkey FOREIGN KEY (email_key) REFERENCES public.sign_in_steps(email_key) ON UPDATE CASCADE ON DELETE CASCADE;

ALTER TABLE ONLY public.payment_shares
    ADD CONSTRAINT payment_shares_partner_id_fkey FOREIGN KEY (business_id, partner_id) REFERENCES public.partners(business_id, id);

ALTER TABLE ONLY public.payment_shares
    ADD CONSTRAINT payment_shares_payment_id_fkey FOREIGN KEY (business_id, payment_id) REFERENCES public.payments(business_id, id);

ALTER TABLE ONLY public.payments
    ADD CONSTRAINT payments_beside_id_fkey FOREIGN KEY (business_id, beside_id) REFERENCES public.payments(business_id, id) DEFERRABLE;

ALTER TABLE ONLY public.payments
    ADD CONSTRAINT payments_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.payments
    ADD CONSTRAINT payments_charge_id_fkey FOREIGN KEY (business_id, charge_id) REFERENCES public.charges(business_id, id) DEFERRABLE;

ALTER TABLE ONLY public.payments
    ADD CONSTRAINT payments_customer_id_fkey FOREIGN KEY (business_id, customer_id) REFERENCES public.customers(business_id, id);

ALTER TABLE ONLY public.payments
    ADD CONSTRAINT payments_invoice_id_fkey FOREIGN KEY (business_id, invoice_id) REFERENCES public.invoices(business_id, id);

ALTER TABLE ONLY public.payments
    ADD CONSTRAINT payments_order_id_fkey FOREIGN KEY (business_id, order_id) REFERENCES public.orders(business_id, id);

ALTER TABLE ONLY public.payments
    ADD CONSTRAINT payments_voucher_id_fkey FOREIGN KEY (business_id, voucher_id) REFERENCES public.vouchers(business_id, id) DEFERRABLE;

ALTER TABLE ONLY public.payout_days
    ADD CONSTRAINT payout_days_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.payout_days
    ADD CONSTRAINT payout_days_payout_id_fkey FOREIGN KEY (business_id, payout_id) REFERENCES public.payouts(business_id, id);

ALTER TABLE ONLY public.payout_days
    ADD CONSTRAINT payout_days_release_payout_id_fkey FOREIGN KEY (business_id, release_payout_id) REFERENCES public.payouts(business_id, id);

ALTER TABLE ONLY public.payouts
    ADD CONSTRAINT payouts_account_id_fkey FOREIGN KEY (business_id, account_id) REFERENCES public.bank_accounts(business_id, id);

ALTER TABLE ONLY public.payouts
    ADD CONSTRAINT payouts_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.payouts
    ADD CONSTRAINT payouts_partner_id_fkey FOREIGN KEY (business_id, partner_id) REFERENCES public.partners(business_id, id);

ALTER TABLE ONLY public.people
    ADD CONSTRAINT people_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.pick_ups
    ADD CONSTRAINT pick_ups_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.plans
    ADD CONSTRAINT plans_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.plans
    ADD CONSTRAINT plans_by_id_fkey FOREIGN KEY (business_id, by_id) REFERENCES public.people(business_id, id);

ALTER TABLE ONLY public.plans
    ADD CONSTRAINT plans_customer_id_fkey FOREIGN KEY (business_id, customer_id) REFERENCES public.customers(business_id, id);

ALTER TABLE ONLY public.plans
    ADD CONSTRAINT plans_invoice_id_fkey FOREIGN KEY (business_id, invoice_id) REFERENCES public.invoices(business_id, id);

ALTER TABLE ONLY public.plans
    ADD CONSTRAINT plans_order_id_fkey FOREIGN KEY (business_id, order_id) REFERENCES public.orders(business_id, id);

ALTER TABLE ONLY public.program_answers
    ADD CONSTRAINT program_answers_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.program_answers
    ADD CONSTRAINT program_answers_business_id_key_id_fkey FOREIGN KEY (business_id, key_id) REFERENCES public.program_keys(business_id, id);

ALTER TABLE ONLY public.program_keys
    ADD CONSTRAINT program_keys_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.program_keys
    ADD CONSTRAINT program_keys_business_id_person_id_fkey FOREIGN KEY (business_id, person_id) REFERENCES public.people(business_id, id);

ALTER TABLE ONLY public.questions
    ADD CONSTRAINT questions_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.questions
    ADD CONSTRAINT questions_invoice_id_fkey FOREIGN KEY (business_id, invoice_id) REFERENCES public.invoices(business_id, id);

ALTER TABLE ONLY public.rates
    ADD CONSTRAINT rates_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.receipts
    ADD CONSTRAINT receipts_invoice_id_fkey FOREIGN KEY (business_id, invoice_id) REFERENCES public.invoices(business_id, id);

ALTER TABLE ONLY public.receipts
    ADD CONSTRAINT receipts_order_id_fkey FOREIGN KEY (business_id, order_id) REFERENCES public.orders(business_id, id);

ALTER TABLE ONLY public.receipts
    ADD CONSTRAINT receipts_payment_id_fkey FOREIGN KEY (business_id, payment_id) REFERENCES public.payments(business_id, id);

ALTER TABLE ONLY public.recovery_codes
    ADD CONSTRAINT recovery_codes_email_key_fkey FOREIGN KEY (email_key) REFERENCES public.sign_in_steps(email_key) ON UPDATE CASCADE ON DELETE CASCADE;

ALTER TABLE ONLY public.recurring_invoices
    ADD CONSTRAINT recurring_invoices_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.recurring_invoices
    ADD CONSTRAINT recurring_invoices_by_id_fkey FOREIGN KEY (business_id, by_id) REFERENCES public.people(business_id, id);

ALTER TABLE ONLY public.recurring_invoices
    ADD CONSTRAINT recurring_invoices_customer_id_fkey FOREIGN KEY (business_id, customer_id) REFERENCES public.customers(business_id, id);

ALTER TABLE ONLY public.recurring_runs
    ADD CONSTRAINT recurring_runs_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.recurring_runs
    ADD CONSTRAINT recurring_runs_invoice_id_fkey FOREIGN KEY (business_id, invoice_id) REFERENCES public.invoices(business_id, id) ON DELETE SET NULL (invoice_id);

ALTER TABLE ONLY public.recurring_runs
    ADD CONSTRAINT recurring_runs_recurring_id_fkey FOREIGN KEY (business_id, recurring_id) REFERENCES public.recurring_invoices(business_id, id);

ALTER TABLE ONLY public.refunds
    ADD CONSTRAINT refunds_credit_id_fkey FOREIGN KEY (business_id, credit_id) REFERENCES public.credit_notes(business_id, id);

ALTER TABLE ONLY public.refunds
    ADD CONSTRAINT refunds_payment_id_fkey FOREIGN KEY (business_id, payment_id) REFERENCES public.payments(business_id, id);

ALTER TABLE ONLY public.refunds
    ADD CONSTRAINT refunds_transfer_file_id_fkey FOREIGN KEY (business_id, transfer_file_id) REFERENCES public.transfer_files(business_id, id);

ALTER TABLE ONLY public.register_sums
    ADD CONSTRAINT register_sums_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.reminders
    ADD CONSTRAINT reminders_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.reminders
    ADD CONSTRAINT reminders_invoice_id_fkey FOREIGN KEY (business_id, invoice_id) REFERENCES public.invoices(business_id, id);

ALTER TABLE ONLY public.requests
    ADD CONSTRAINT requests_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.requests
    ADD CONSTRAINT requests_offer_id_fkey FOREIGN KEY (business_id, offer_id) REFERENCES public.offers(business_id, id);

ALTER TABLE ONLY public.return_lines
    ADD CONSTRAINT return_lines_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.return_lines
    ADD CONSTRAINT return_lines_business_id_return_id_fkey FOREIGN KEY (business_id, return_id) REFERENCES public.returns(business_id, id);

ALTER TABLE ONLY public.returns
    ADD CONSTRAINT returns_business_id_file_id_fkey FOREIGN KEY (business_id, file_id) REFERENCES public.files(business_id, id);

ALTER TABLE ONLY public.returns
    ADD CONSTRAINT returns_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.returns
    ADD CONSTRAINT returns_business_id_handover_id_fkey FOREIGN KEY (business_id, handover_id) REFERENCES public.handovers(business_id, id);

ALTER TABLE ONLY public.saved_lists
    ADD CONSTRAINT saved_lists_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.sessions
    ADD CONSTRAINT sessions_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.sessions
    ADD CONSTRAINT sessions_person_id_fkey FOREIGN KEY (business_id, person_id) REFERENCES public.people(business_id, id) ON DELETE CASCADE;

ALTER TABLE ONLY public.stock_comebacks
    ADD CONSTRAINT stock_comebacks_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.stock_comebacks
    ADD CONSTRAINT stock_comebacks_business_id_invoice_id_fkey FOREIGN KEY (business_id, invoice_id) REFERENCES public.invoices(business_id, id);

ALTER TABLE ONLY public.stock_comebacks
    ADD CONSTRAINT stock_comebacks_business_id_item_id_fkey FOREIGN KEY (business_id, item_id) REFERENCES public.items(business_id, id);

ALTER TABLE ONLY public.stock_comebacks
    ADD CONSTRAINT stock_comebacks_business_id_option_id_fkey FOREIGN KEY (business_id, option_id) REFERENCES public.item_options(business_id, id);

ALTER TABLE ONLY public.stock_comebacks
    ADD CONSTRAINT stock_comebacks_business_id_order_id_fkey FOREIGN KEY (business_id, order_id) REFERENCES public.orders(business_id, id);

ALTER TABLE ONLY public.stock_movements
    ADD CONSTRAINT stock_movements_business_id_file_id_fkey FOREIGN KEY (business_id, file_id) REFERENCES public.files(business_id, id);

ALTER TABLE ONLY public.stock_movements
    ADD CONSTRAINT stock_movements_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.stock_movements
    ADD CONSTRAINT stock_movements_business_id_invoice_id_fkey FOREIGN KEY (business_id, invoice_id) REFERENCES public.invoices(business_id, id);

ALTER TABLE ONLY public.stock_movements
    ADD CONSTRAINT stock_movements_business_id_item_id_fkey FOREIGN KEY (business_id, item_id) REFERENCES public.items(business_id, id);

ALTER TABLE ONLY public.stock_movements
    ADD CONSTRAINT stock_movements_business_id_option_id_fkey FOREIGN KEY (business_id, option_id) REFERENCES public.item_options(business_id, id);

ALTER TABLE ONLY public.stock_movements
    ADD CONSTRAINT stock_movements_business_id_order_id_fkey FOREIGN KEY (business_id, order_id) REFERENCES public.orders(business_id, id);

ALTER TABLE ONLY public.stock_promises
    ADD CONSTRAINT stock_promises_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.stock_promises
    ADD CONSTRAINT stock_promises_invoice_id_fkey FOREIGN KEY (business_id, invoice_id) REFERENCES public.invoices(business_id, id);

ALTER TABLE ONLY public.stock_promises
    ADD CONSTRAINT stock_promises_item_id_fkey FOREIGN KEY (business_id, item_id) REFERENCES public.items(business_id, id);

ALTER TABLE ONLY public.stock_promises
    ADD CONSTRAINT stock_promises_option_id_fkey FOREIGN KEY (business_id, option_id) REFERENCES public.item_options(business_id, id);

ALTER TABLE ONLY public.stock_promises
    ADD CONSTRAINT stock_promises_order_id_fkey FOREIGN KEY (business_id, order_id) REFERENCES public.orders(business_id, id);

ALTER TABLE ONLY public.stuck_jobs
    ADD CONSTRAINT stuck_jobs_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.taxes
    ADD CONSTRAINT taxes_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.templates
    ADD CONSTRAINT templates_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.terms
    ADD CONSTRAINT terms_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.terms_versions
    ADD CONSTRAINT terms_versions_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.terms_versions
    ADD CONSTRAINT terms_versions_terms_id_fkey FOREIGN KEY (business_id, terms_id) REFERENCES public.terms(business_id, id);

ALTER TABLE ONLY public.timeline
    ADD CONSTRAINT timeline_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.timeline
    ADD CONSTRAINT timeline_invoice_id_fkey FOREIGN KEY (business_id, invoice_id) REFERENCES public.invoices(business_id, id) ON DELETE CASCADE;

ALTER TABLE ONLY public.timeline
    ADD CONSTRAINT timeline_order_id_fkey FOREIGN KEY (business_id, order_id) REFERENCES public.orders(business_id, id);

ALTER TABLE ONLY public.timeline
    ADD CONSTRAINT timeline_parcel_id_fkey FOREIGN KEY (business_id, parcel_id) REFERENCES public.parcels(business_id, id) ON DELETE CASCADE;

ALTER TABLE ONLY public.timeline
    ADD CONSTRAINT timeline_plan_id_fkey FOREIGN KEY (business_id, plan_id) REFERENCES public.plans(business_id, id) ON DELETE CASCADE;

ALTER TABLE ONLY public.transfer_files
    ADD CONSTRAINT transfer_files_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.unconfirmed_names
    ADD CONSTRAINT unconfirmed_names_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.unconfirmed_names
    ADD CONSTRAINT unconfirmed_names_business_id_person_id_fkey FOREIGN KEY (business_id, person_id) REFERENCES public.people(business_id, id);

ALTER TABLE ONLY public.voucher_moves
    ADD CONSTRAINT voucher_moves_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.voucher_moves
    ADD CONSTRAINT voucher_moves_business_id_payment_id_fkey FOREIGN KEY (business_id, payment_id) REFERENCES public.payments(business_id, id);

ALTER TABLE ONLY public.voucher_moves
    ADD CONSTRAINT voucher_moves_business_id_refund_id_fkey FOREIGN KEY (business_id, refund_id) REFERENCES public.refunds(business_id, id);

ALTER TABLE ONLY public.voucher_moves
    ADD CONSTRAINT voucher_moves_business_id_voucher_id_fkey FOREIGN KEY (business_id, voucher_id) REFERENCES public.vouchers(business_id, id);

ALTER TABLE ONLY public.vouchers
    ADD CONSTRAINT vouchers_business_id_fkey FOREIGN KEY (business_id) REFERENCES public.businesses(business_id);

ALTER TABLE ONLY public.vouchers
    ADD CONSTRAINT vouchers_business_id_order_id_fkey FOREIGN KEY (business_id, order_id) REFERENCES public.orders(business_id, id);

ALTER TABLE ONLY public.vouchers
    ADD CONSTRAINT vouchers_business_id_payment_id_fkey FOREIGN KEY (business_id, payment_id) REFERENCES public.payments(business_id, id);

ALTER TABLE public.approvals ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.authorisation_texts ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.authorisations ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.bank_accounts ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.bank_lines ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.bank_matches ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.bank_rules ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.bank_statements ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.bulk_invoices ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.bulk_rows ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.businesses ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.card_claims ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.cards ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.carrier_moves ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.carrier_statements ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.charges ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.code_sums ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.collections ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.counters ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.credit_notes ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.csv_mappings ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.customers ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.daily_looks ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.day_batches ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.digital_goods ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.digital_grants ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.discount_codes ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.disputes ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.documents ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.earlier_names ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.files ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.handover_lines ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.handovers ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.hook_deliveries ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.hooks ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.identity_checks ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.identity_members ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.identity_pictures ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.invitations ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.invoice_sums ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.invoice_versions ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.invoices ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.item_options ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.items ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.ledger_entries ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.ledger_postings ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.link_keys ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.log_entries ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.mail_proofs ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.messages ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.news ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.number_series ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.offer_names ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.offer_revisions ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.offer_sums ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.offer_visits ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.offers ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.orders ENABLE ROW LEVEL SECURITY;

CREATE POLICY own_business ON public.approvals TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.authorisation_texts TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.authorisations TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.bank_accounts TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.bank_lines TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.bank_matches TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.bank_rules TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.bank_statements TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.bulk_invoices TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.bulk_rows TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.businesses TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.card_claims TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.cards TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.carrier_moves TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.carrier_statements TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.charges TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.code_sums TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.collections TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.counters TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.credit_notes TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.csv_mappings TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.customers TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.daily_looks TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.day_batches TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.digital_goods TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.digital_grants TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.discount_codes TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.disputes TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.documents TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.earlier_names TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.files TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.handover_lines TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.handovers TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.hook_deliveries TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.hooks TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.identity_checks TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.identity_members TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.identity_pictures TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.invitations TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.invoice_sums TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.invoice_versions TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.invoices TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.item_options TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.items TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.ledger_entries TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.ledger_postings TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.link_keys TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.log_entries TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.mail_proofs TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.messages TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.news TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.number_series TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.offer_names TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.offer_revisions TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.offer_sums TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.offer_visits TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.offers TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.orders TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.page_versions TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.parcel_claims TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.parcel_lines TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.parcel_profiles TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.parcel_rules TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.parcel_scans TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.parcels TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.partner_movements TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.partners TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.payment_shares TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.payments TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.payout_days TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.payouts TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.people TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.pick_ups TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.plans TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.program_answers TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.program_keys TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.questions TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.rates TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.receipts TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.recurring_invoices TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.recurring_runs TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.refunds TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.register_sums TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.reminders TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.requests TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.return_lines TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.returns TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.saved_lists TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.sessions TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.sign_in_names TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.stock_comebacks TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.stock_movements TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.stock_promises TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.stuck_jobs TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.taxes TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.templates TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.terms TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.terms_versions TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.timeline TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.transfer_files TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.unconfirmed_names TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.voucher_moves TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

CREATE POLICY own_business ON public.vouchers TO dahlia_app USING ((business_id = ( SELECT public.current_business() AS current_business))) WITH CHECK ((business_id = ( SELECT public.current_business() AS current_business)));

ALTER TABLE public.page_versions ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.parcel_claims ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.parcel_lines ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.parcel_profiles ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.parcel_rules ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.parcel_scans ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.parcels ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.partner_movements ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.partners ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.payment_shares ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.payments ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.payout_days ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.payouts ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.people ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.pick_ups ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.plans ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.program_answers ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.program_keys ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.questions ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.rates ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.receipts ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.recurring_invoices ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.recurring_runs ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.refunds ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.register_sums ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.reminders ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.requests ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.return_lines ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.returns ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.saved_lists ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.sessions ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.sign_in_names ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.stock_comebacks ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.stock_movements ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.stock_promises ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.stuck_jobs ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.taxes ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.templates ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.terms ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.terms_versions ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.timeline ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.transfer_files ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.unconfirmed_names ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.voucher_moves ENABLE ROW LEVEL SECURITY;

ALTER TABLE public.vouchers ENABLE ROW LEVEL SECURITY;

REVOKE USAGE ON SCHEMA public FROM PUBLIC;
GRANT USAGE ON SCHEMA public TO dahlia_app;

REVOKE ALL ON FUNCTION public.add_passkey(address text, credential text, key bytea, counted bigint, ways text[], called text, at timestamp with time zone) FROM PUBLIC;
GRANT ALL ON FUNCTION public.add_passkey(address text, credential text, key bytea, counted bigint, ways text[], called text, at timestamp with time zone) TO dahlia_app;

REVOKE ALL ON FUNCTION public.address_taken(wanted text) FROM PUBLIC;
GRANT ALL ON FUNCTION public.address_taken(wanted text) TO dahlia_app;

REVOKE ALL ON FUNCTION public.begin_steps(address text, fresh bytea) FROM PUBLIC;
GRANT ALL ON FUNCTION public.begin_steps(address text, fresh bytea) TO dahlia_app;

REVOKE ALL ON FUNCTION public.blanked(value jsonb, names text[]) FROM PUBLIC;

REVOKE ALL ON FUNCTION public.business_ids() FROM PUBLIC;
GRANT ALL ON FUNCTION public.business_ids() TO dahlia_app;

REVOKE ALL ON FUNCTION public.business_of(name text) FROM PUBLIC;
GRANT ALL ON FUNCTION public.business_of(name text) TO dahlia_app;

REVOKE ALL ON FUNCTION public.claim_name(person uuid, address text) FROM PUBLIC;
GRANT ALL ON FUNCTION public.claim_name(person uuid, address text) TO dahlia_app;

REVOKE ALL ON FUNCTION public.current_business() FROM PUBLIC;
GRANT ALL ON FUNCTION public.current_business() TO dahlia_app;

REVOKE ALL ON FUNCTION public.customers_like_name(key text) FROM PUBLIC;
GRANT ALL ON FUNCTION public.customers_like_name(key text) TO dahlia_app;

REVOKE ALL ON FUNCTION public.customers_matching(first text, second text, third text, most integer) FROM PUBLIC;
GRANT ALL ON FUNCTION public.customers_matching(first text, second text, third text, most integer) TO dahlia_app;

REVOKE ALL ON FUNCTION public.customers_things(person uuid) FROM PUBLIC;
GRANT ALL ON FUNCTION public.customers_things(person uuid) TO dahlia_app;

REVOKE ALL ON FUNCTION public.demo_people() FROM PUBLIC;

REVOKE ALL ON FUNCTION public.due_work(at timestamp with time zone) FROM PUBLIC;
GRANT ALL ON FUNCTION public.due_work(at timestamp with time zone) TO dahlia_app;

REVOKE ALL ON FUNCTION public.emptied(value jsonb) FROM PUBLIC;

REVOKE ALL ON FUNCTION public.empty_files(ids text[]) FROM PUBLIC;

REVOKE ALL ON FUNCTION public.end_sessions_elsewhere(person uuid) FROM PUBLIC;
GRANT ALL ON FUNCTION public.end_sessions_elsewhere(person uuid) TO dahlia_app;

REVOKE ALL ON FUNCTION public.enqueue_due_work(at timestamp with time zone) FROM PUBLIC;
GRANT ALL ON FUNCTION public.enqueue_due_work(at timestamp with time zone) TO dahlia_app;

REVOKE ALL ON FUNCTION public.enqueue_job(task text, payload jsonb, job_key text, run_at timestamp with time zone) FROM PUBLIC;
GRANT ALL ON FUNCTION public.enqueue_job(task text, payload jsonb, job_key text, run_at timestamp with time zone) TO dahlia_app;

REVOKE ALL ON FUNCTION public.erase_business(today date) FROM PUBLIC;
GRANT ALL ON FUNCTION public.erase_business(today date) TO dahlia_app;

REVOKE ALL ON FUNCTION public.everything_matching(first text, second text, third text, whole text, beginning text, brief boolean, digits text, amount bigint, most integer) FROM PUBLIC;
GRANT ALL ON FUNCTION public.everything_matching(first text, second text, third text, whole text, beginning text, brief boolean, digits text, amount bigint, most integer) TO dahlia_app;

REVOKE ALL ON FUNCTION public.forget_customer(person uuid, word text, at timestamp with time zone) FROM PUBLIC;
GRANT ALL ON FUNCTION public.forget_customer(person uuid, word text, at timestamp with time zone) TO dahlia_app;

REVOKE ALL ON FUNCTION public.forget_done_jobs() FROM PUBLIC;
GRANT ALL ON FUNCTION public.forget_done_jobs() TO dahlia_app;

REVOKE ALL ON FUNCTION public.forget_for_customs() FROM PUBLIC;

REVOKE ALL ON FUNCTION public.forget_nobodys_steps() FROM PUBLIC;

REVOKE ALL ON FUNCTION public.forget_old(checkouts timestamp with time zone, mails timestamp with time zone, deliveries timestamp with time zone, pictures timestamp with time zone, word text) FROM PUBLIC;
GRANT ALL ON FUNCTION public.forget_old(checkouts timestamp with time zone, mails timestamp with time zone, deliveries timestamp with time zone, pictures timestamp with time zone, word text) TO dahlia_app;

REVOKE ALL ON FUNCTION public.forget_on_parcels() FROM PUBLIC;

REVOKE ALL ON FUNCTION public.forget_papers(person uuid, before date, word text, at timestamp with time zone) FROM PUBLIC;
GRANT ALL ON FUNCTION public.forget_papers(person uuid, before date, word text, at timestamp with time zone) TO dahlia_app;

REVOKE ALL ON FUNCTION public.forget_steps(address text) FROM PUBLIC;
GRANT ALL ON FUNCTION public.forget_steps(address text) TO dahlia_app;

REVOKE ALL ON FUNCTION public.framing_sites(called text) FROM PUBLIC;
GRANT ALL ON FUNCTION public.framing_sites(called text) TO dahlia_app;

REVOKE ALL ON FUNCTION public.has_step(named text) FROM PUBLIC;

GRANT SELECT,INSERT,UPDATE ON TABLE public.invoice_sums TO dahlia_app;

REVOKE ALL ON FUNCTION public.invoice_sum(business_id uuid, currency text, status text, due_on date, total_minor bigint, due_minor bigint, sign integer) FROM PUBLIC;
GRANT ALL ON FUNCTION public.invoice_sum(business_id uuid, currency text, status text, due_on date, total_minor bigint, due_minor bigint, sign integer) TO dahlia_app;

REVOKE ALL ON FUNCTION public.invoices_matching(words text, pattern text, amount_minor bigint, most integer) FROM PUBLIC;
GRANT ALL ON FUNCTION public.invoices_matching(words text, pattern text, amount_minor bigint, most integer) TO dahlia_app;

REVOKE ALL ON FUNCTION public.keep_invoice_sums() FROM PUBLIC;

REVOKE ALL ON FUNCTION public.keep_new_payment_sums() FROM PUBLIC;

REVOKE ALL ON FUNCTION public.keep_payment_sums() FROM PUBLIC;

REVOKE ALL ON FUNCTION public.keep_refund_sums() FROM PUBLIC;

REVOKE ALL ON FUNCTION public.key_holder(begins text, hash bytea, at timestamp with time zone) FROM PUBLIC;
GRANT ALL ON FUNCTION public.key_holder(begins text, hash bytea, at timestamp with time zone) TO dahlia_app;

REVOKE ALL ON FUNCTION public.link_holder(token text) FROM PUBLIC;
GRANT ALL ON FUNCTION public.link_holder(token text) TO dahlia_app;

REVOKE ALL ON FUNCTION public.link_key(business_id uuid) FROM PUBLIC;
GRANT ALL ON FUNCTION public.link_key(business_id uuid) TO dahlia_app;

REVOKE ALL ON FUNCTION public.move_sign_in_name(person uuid, address text) FROM PUBLIC;
GRANT ALL ON FUNCTION public.move_sign_in_name(person uuid, address text) TO dahlia_app;

REVOKE ALL ON FUNCTION public.newest_migration() FROM PUBLIC;
GRANT ALL ON FUNCTION public.newest_migration() TO dahlia_app;

REVOKE ALL ON FUNCTION public.offer_holder(called text) FROM PUBLIC;
GRANT ALL ON FUNCTION public.offer_holder(called text) TO dahlia_app;

REVOKE ALL ON FUNCTION public.order_holder(opened text) FROM PUBLIC;
GRANT ALL ON FUNCTION public.order_holder(opened text) TO dahlia_app;

REVOKE ALL ON FUNCTION public.other_desks(person uuid) FROM PUBLIC;
GRANT ALL ON FUNCTION public.other_desks(person uuid) TO dahlia_app;

REVOKE ALL ON FUNCTION public.passkey_holder(credential text) FROM PUBLIC;
GRANT ALL ON FUNCTION public.passkey_holder(credential text) TO dahlia_app;

REVOKE ALL ON FUNCTION public.passkeys_of(address text) FROM PUBLIC;
GRANT ALL ON FUNCTION public.passkeys_of(address text) TO dahlia_app;

REVOKE ALL ON FUNCTION public.payer_view(token text) FROM PUBLIC;
GRANT ALL ON FUNCTION public.payer_view(token text) TO dahlia_app;

REVOKE ALL ON FUNCTION public.payments_matching(first text, second text, third text, whole text, typed text, digits text, amounts bigint[], most integer) FROM PUBLIC;
GRANT ALL ON FUNCTION public.payments_matching(first text, second text, third text, whole text, typed text, digits text, amounts bigint[], most integer) TO dahlia_app;

REVOKE ALL ON FUNCTION public.payments_with_item(item uuid) FROM PUBLIC;
GRANT ALL ON FUNCTION public.payments_with_item(item uuid) TO dahlia_app;

REVOKE ALL ON FUNCTION public.people_with_step() FROM PUBLIC;
GRANT ALL ON FUNCTION public.people_with_step() TO dahlia_app;

REVOKE ALL ON FUNCTION public.plan_holder(token text) FROM PUBLIC;
GRANT ALL ON FUNCTION public.plan_holder(token text) TO dahlia_app;

REVOKE ALL ON FUNCTION public.protect_table(table_name regclass, privileges text) FROM PUBLIC;

REVOKE ALL ON FUNCTION public.refuse_change() FROM PUBLIC;

REVOKE ALL ON FUNCTION public.refuse_change_of_log() FROM PUBLIC;

REVOKE ALL ON FUNCTION public.refuse_empty_entry() FROM PUBLIC;

REVOKE ALL ON FUNCTION public.refuse_unbalanced_entries() FROM PUBLIC;

REVOKE ALL ON FUNCTION public.remove_passkey(address text, credential text) FROM PUBLIC;
GRANT ALL ON FUNCTION public.remove_passkey(address text, credential text) TO dahlia_app;

REVOKE ALL ON FUNCTION public.session_holder(begins text, hash bytea, at timestamp with time zone, idle interval) FROM PUBLIC;
GRANT ALL ON FUNCTION public.session_holder(begins text, hash bytea, at timestamp with time zone, idle interval) TO dahlia_app;

REVOKE ALL ON FUNCTION public.set_password_elsewhere(person uuid, hash text) FROM PUBLIC;
GRANT ALL ON FUNCTION public.set_password_elsewhere(person uuid, hash text) TO dahlia_app;

REVOKE ALL ON FUNCTION public.set_recovery_codes(address text, hashes bytea[]) FROM PUBLIC;
GRANT ALL ON FUNCTION public.set_recovery_codes(address text, hashes bytea[]) TO dahlia_app;

REVOKE ALL ON FUNCTION public.set_steps_lost(address text, at timestamp with time zone) FROM PUBLIC;
GRANT ALL ON FUNCTION public.set_steps_lost(address text, at timestamp with time zone) TO dahlia_app;

REVOKE ALL ON FUNCTION public.set_time_key(address text, sealed bytea, step bigint, at timestamp with time zone) FROM PUBLIC;
GRANT ALL ON FUNCTION public.set_time_key(address text, sealed bytea, step bigint, at timestamp with time zone) TO dahlia_app;

REVOKE ALL ON FUNCTION public.set_writing_elsewhere(person uuid, days text, numbers text) FROM PUBLIC;
GRANT ALL ON FUNCTION public.set_writing_elsewhere(person uuid, days text, numbers text) TO dahlia_app;

REVOKE ALL ON FUNCTION public.sign_in_candidates(address text) FROM PUBLIC;
GRANT ALL ON FUNCTION public.sign_in_candidates(address text) TO dahlia_app;

REVOKE ALL ON FUNCTION public.steps_name(address text) FROM PUBLIC;

REVOKE ALL ON FUNCTION public.steps_of(address text) FROM PUBLIC;
GRANT ALL ON FUNCTION public.steps_of(address text) TO dahlia_app;

REVOKE ALL ON FUNCTION public.take_recovery_code(address text, hash bytea, at timestamp with time zone) FROM PUBLIC;
GRANT ALL ON FUNCTION public.take_recovery_code(address text, hash bytea, at timestamp with time zone) TO dahlia_app;

REVOKE ALL ON FUNCTION public.take_time_step(address text, step bigint) FROM PUBLIC;
GRANT ALL ON FUNCTION public.take_time_step(address text, step bigint) TO dahlia_app;

REVOKE ALL ON FUNCTION public.use_passkey(credential text, counted bigint, at timestamp with time zone) FROM PUBLIC;
GRANT ALL ON FUNCTION public.use_passkey(credential text, counted bigint, at timestamp with time zone) TO dahlia_app;

REVOKE ALL ON FUNCTION public.waiting_jobs() FROM PUBLIC;
GRANT ALL ON FUNCTION public.waiting_jobs() TO dahlia_app;

REVOKE ALL ON FUNCTION public.without_payer(printed jsonb, word text) FROM PUBLIC;

REVOKE ALL ON FUNCTION public.without_words(kind text, details jsonb) FROM PUBLIC;

REVOKE ALL ON FUNCTION public.work_due(at timestamp with time zone) FROM PUBLIC;
GRANT ALL ON FUNCTION public.work_due(at timestamp with time zone) TO dahlia_app;

GRANT SELECT,INSERT ON TABLE public.approvals TO dahlia_app;

GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.attempt_limits TO dahlia_app;

GRANT SELECT,INSERT ON TABLE public.authorisation_texts TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.authorisations TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.bank_accounts TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.bank_lines TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.bank_matches TO dahlia_app;

GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.bank_rules TO dahlia_app;

GRANT SELECT,INSERT ON TABLE public.bank_statements TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.bulk_invoices TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.bulk_rows TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.businesses TO dahlia_app;

GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.card_claims TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.cards TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.carrier_moves TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.carrier_statements TO dahlia_app;

GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.charges TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.code_sums TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.collections TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.counters TO dahlia_app;

GRANT SELECT,INSERT ON TABLE public.credit_notes TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.csv_mappings TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.customers TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.daily_looks TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.day_batches TO dahlia_app;

GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.digital_goods TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.digital_grants TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.discount_codes TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.disputes TO dahlia_app;

GRANT SELECT,INSERT ON TABLE public.documents TO dahlia_app;

GRANT SELECT ON TABLE public.earlier_names TO dahlia_app;

GRANT SELECT,INSERT,DELETE ON TABLE public.files TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.handover_lines TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.handovers TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.hook_deliveries TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.hooks TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.identity_checks TO dahlia_app;

GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.identity_members TO dahlia_app;

GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.identity_pictures TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.invitations TO dahlia_app;

GRANT SELECT,INSERT ON TABLE public.invoice_versions TO dahlia_app;

GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.invoices TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.item_options TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.items TO dahlia_app;

GRANT SELECT,INSERT ON TABLE public.ledger_entries TO dahlia_app;

GRANT SELECT,INSERT ON TABLE public.ledger_postings TO dahlia_app;

GRANT SELECT,INSERT ON TABLE public.link_keys TO dahlia_app;

GRANT SELECT,INSERT ON TABLE public.log_entries TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.mail_proofs TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.messages TO dahlia_app;

GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.news TO dahlia_app;

GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.number_series TO dahlia_app;

GRANT SELECT,INSERT,DELETE ON TABLE public.offer_names TO dahlia_app;

GRANT SELECT,INSERT,DELETE ON TABLE public.offer_revisions TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.offer_sums TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.offer_visits TO dahlia_app;

GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.offers TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.orders TO dahlia_app;

GRANT SELECT,INSERT,DELETE ON TABLE public.page_versions TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.parcel_claims TO dahlia_app;

GRANT SELECT,INSERT,DELETE ON TABLE public.parcel_lines TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.parcel_profiles TO dahlia_app;

GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.parcel_rules TO dahlia_app;

GRANT SELECT,INSERT ON TABLE public.parcel_scans TO dahlia_app;

GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.parcels TO dahlia_app;

GRANT SELECT,INSERT ON TABLE public.partner_movements TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.partners TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.payment_shares TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.payments TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.payout_days TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.payouts TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.people TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.pick_ups TO dahlia_app;

GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.plans TO dahlia_app;

GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.program_answers TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.program_keys TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.questions TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.rates TO dahlia_app;

GRANT SELECT,INSERT ON TABLE public.receipts TO dahlia_app;

GRANT UPDATE(printed) ON TABLE public.receipts TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.recurring_invoices TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.recurring_runs TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.refunds TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.register_sums TO dahlia_app;

GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.reminders TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.requests TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.return_lines TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.returns TO dahlia_app;

GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.saved_lists TO dahlia_app;

GRANT SELECT,INSERT,DELETE ON TABLE public.sessions TO dahlia_app;

GRANT UPDATE(used_at) ON TABLE public.sessions TO dahlia_app;

GRANT UPDATE(proved_at) ON TABLE public.sessions TO dahlia_app;

GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.sign_in_names TO dahlia_app;

GRANT SELECT,INSERT ON TABLE public.stock_comebacks TO dahlia_app;

GRANT SELECT,INSERT ON TABLE public.stock_movements TO dahlia_app;

GRANT SELECT,INSERT,DELETE ON TABLE public.stock_promises TO dahlia_app;

GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.stuck_jobs TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.taxes TO dahlia_app;

GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.templates TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.terms TO dahlia_app;

GRANT SELECT,INSERT ON TABLE public.terms_versions TO dahlia_app;

GRANT SELECT,INSERT ON TABLE public.timeline TO dahlia_app;

GRANT SELECT,INSERT ON TABLE public.transfer_files TO dahlia_app;

GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.unconfirmed_names TO dahlia_app;

GRANT SELECT,INSERT ON TABLE public.voucher_moves TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.vouchers TO dahlia_app;

GRANT SELECT,INSERT,UPDATE ON TABLE public.worker_beats TO dahlia_app;
