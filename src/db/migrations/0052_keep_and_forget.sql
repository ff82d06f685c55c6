-- How long things are kept, customers who are forgotten, and businesses that are closed and erased.

alter table customers add column erased_at timestamptz;
-- When the last paper that names them was forgotten too.
alter table customers add column papers_gone_at timestamptz;
alter table customers add constraint customers_papers_gone_after check (papers_gone_at is null or erased_at is not null);
create index customers_to_forget on customers (business_id) where erased_at is not null and papers_gone_at is null;

-- What is forgotten every night is found without reading everything.
create index messages_to_forget on messages (business_id, created_at) where to_address <> '';
create index orders_to_forget on orders (business_id, started_at) where state <> 'paid' and payer_email <> '';
create index hook_deliveries_to_forget on hook_deliveries (business_id, happened_at) where state <> 'waiting';

alter table businesses add column keeping jsonb not null default '{}';
alter table businesses add column taken_along_at timestamptz;
alter table businesses add column closed_at timestamptz;
alter table businesses add column erase_on date;
alter table businesses add constraint businesses_closed_whole check ((closed_at is null) = (erase_on is null));

-- These name each other in a circle: a business that is erased takes them all at once.
alter table charges alter constraint charges_payment_id_fkey deferrable initially immediate;
alter table payments alter constraint payments_charge_id_fkey deferrable initially immediate;
alter table payments alter constraint payments_voucher_id_fkey deferrable initially immediate;
alter table payments alter constraint payments_beside_id_fkey deferrable initially immediate;
alter table customers alter constraint customers_merged_into_fkey deferrable initially immediate;

-- Every text in a value is emptied, and what is a list has nothing in it; numbers stay.
create function emptied(value jsonb) returns jsonb
  language plpgsql immutable set search_path = public, pg_temp
  as $$
begin
  return case jsonb_typeof(value)
    when 'string' then '""'::jsonb
    when 'array' then '[]'::jsonb
    when 'object' then coalesce((select jsonb_object_agg(e.key, emptied(e.value)) from jsonb_each(value) e), '{}')
    else value end;
end $$;

-- What stands under one of the names is emptied, however deep.
create function blanked(value jsonb, names text[]) returns jsonb
  language plpgsql immutable set search_path = public, pg_temp
  as $$
begin
  return case jsonb_typeof(value)
    when 'array' then coalesce((select jsonb_agg(blanked(e.value, names) order by e.place) from jsonb_array_elements(value) with ordinality e (value, place)), '[]')
    when 'object' then coalesce((select jsonb_object_agg(e.key, case when e.key = any (names) then emptied(e.value) else blanked(e.value, names) end)
      from jsonb_each(value) e), '{}')
    else value end;
end $$;

-- A printed paper without whom it was for. What was sold, how much and the taxes are figures of the books and stay, without their words.
create function without_payer(printed jsonb, word text) returns jsonb
  language plpgsql immutable set search_path = public, pg_temp
  as $$
declare
  bare jsonb := blanked(printed, '{payer,note,reference,title,files,what,phone,deliveryTo,message,answers,gift,passed,ownReference,reason}');
begin
  if bare ? 'elsewhere' then bare := jsonb_set(bare, '{elsewhere}', 'null'); end if;
  if bare #> '{payer,name}' is not null then bare := jsonb_set(bare, '{payer,name}', to_jsonb(word)); end if;
  if bare #> '{invoice,payer,name}' is not null then bare := jsonb_set(bare, '{invoice,payer,name}', to_jsonb(word)); end if;
  return bare;
end $$;

-- What is told of something, without words of or about anybody: how it was paid stays, without what somebody noted of it.
create function without_words(kind text, details jsonb) returns jsonb
  language sql immutable set search_path = public, pg_temp
  as $$
    select blanked(details, '{to,name,text,comment,trouble,note,problem}'
        || case when kind in ('cancelled', 'credited', 'given-back', 'payment-taken-back', 'invoice-cancelled', 'invoice-credited', 'refund-made')
          then '{reason}'::text[] else '{}' end)
      || case when details ->> 'card' like '%,%' then jsonb_build_object('card', split_part(details ->> 'card', ',', 1)) else '{}' end
  $$;

-- A file stays as a row that others name, with nothing in it.
create function empty_files(ids text[]) returns void
  language sql security definer set search_path = public, pg_temp
  as $$
    update files set name = '', type = 'application/octet-stream', size = 1, sha256 = '', bytes = '\x00'
    where business_id = current_business() and id::text = any (ids) and sha256 <> ''
  $$;

-- What belongs to a customer, and to those who were merged into them; what they ordered before they were known goes by their addresses.
create function customers_things(person uuid)
  returns table (customer_ids uuid[], names text[], mails text[], order_ids uuid[], invoice_ids uuid[], plan_ids uuid[], payment_ids uuid[], request_ids uuid[])
  language plpgsql stable security definer set search_path = public, pg_temp
  as $$
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
grant execute on function customers_things(uuid) to dahlia_app;

-- Blanks somebody everywhere but on papers that the law wants kept: those go by forget_papers. What is kept names them no more where it is
-- looked at. That nothing is open any more is decided before, by the rule.
create function forget_customer(person uuid, word text, at timestamptz) returns void
  language plpgsql security definer set search_path = public, pg_temp
  as $$
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
end $$;
grant execute on function forget_customer(uuid, text, timestamptz) to dahlia_app;

-- Papers of somebody who is forgotten, from before a day: nothing of who it was is left. Says whether any later one is left.
create function forget_papers(person uuid, before date, word text, at timestamptz) returns boolean
  language plpgsql security definer set search_path = public, pg_temp
  as $$
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
grant execute on function forget_papers(uuid, date, text, timestamptz) to dahlia_app;

-- What nobody needs after a while: checkouts that were begun and not paid, what mails said, what programs were told, pictures never sent.
create function forget_old(checkouts timestamptz, mails timestamptz, deliveries timestamptz, pictures timestamptz, word text) returns void
  language plpgsql security definer set search_path = public, pg_temp
  as $$
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
grant execute on function forget_old(timestamptz, timestamptz, timestamptz, timestamptz, text) to dahlia_app;

-- The books and the log are only ever added to; a closed business whose time is over goes as a whole, by the one function that says so.
create or replace function refuse_change() returns trigger
  language plpgsql
  as $$
begin
  if tg_op = 'DELETE' and current_setting('dahlia.erasing', true) = 'a closed business' then return null; end if;
  raise exception 'the ledger is only ever added to' using errcode = 'insufficient_privilege';
end $$;
create or replace function refuse_change_of_log() returns trigger
  language plpgsql
  as $$
begin
  if tg_op = 'DELETE' and current_setting('dahlia.erasing', true) = 'a closed business' then return null; end if;
  raise exception 'the log is only ever added to' using errcode = 'insufficient_privilege';
end $$;

-- Erases a business that was closed and whose day has come: every row of every table. Says whether it did.
create function erase_business(today date) returns boolean
  language plpgsql security definer set search_path = public, pg_temp
  as $$
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
end $$;
grant execute on function erase_business(date) to dahlia_app;

revoke all on function emptied(jsonb), blanked(jsonb, text[]), without_words(text, jsonb), without_payer(jsonb, text), empty_files(text[]), customers_things(uuid),
  forget_customer(uuid, text, timestamptz), forget_papers(uuid, date, text, timestamptz),
  forget_old(timestamptz, timestamptz, timestamptz, timestamptz, text), erase_business(date) from public;

-- Whether the business is closed goes with who is signed in.
drop function session_holder(text, bytea, timestamptz, interval);
create function session_holder(begins text, hash bytea, at timestamptz, idle interval)
  returns table (person_id uuid, business_id uuid, name text, role text, extra text[], unused_seconds double precision, proved_seconds double precision,
    lacks_step boolean, closed boolean)
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select people.id, people.business_id, people.name, people.role, people.extra, extract(epoch from now() - sessions.used_at)::float8,
      extract(epoch from now() - sessions.proved_at)::float8, businesses.step_required and not has_step(lower(people.email)),
      businesses.closed_at is not null
    from sessions
    join people on people.business_id = sessions.business_id and people.id = sessions.person_id
    join businesses on businesses.business_id = sessions.business_id
    where sessions.business_id = coalesce(business_of(encode(hash, 'hex')), business_of(begins))
      and sessions.token_hash = hash and sessions.expires_at > at and sessions.used_at > now() - idle and people.left_at is null
  $$;
revoke all on function session_holder(text, bytea, timestamptz, interval) from public;
grant execute on function session_holder(text, bytea, timestamptz, interval) to dahlia_app;

alter table log_entries drop constraint log_entries_kind_known;
alter table log_entries add constraint log_entries_kind_known
  check (kind in ('profile', 'taxes', 'charging', 'tariff', 'partner', 'payouts', 'bank-account', 'vouchers', 'signed-in', 'sign-in-failed',
    'signed-out', 'password', 'signed-up', 'address-confirmed', 'address-changed', 'password-asked', 'sessions-ended', 'invited',
    'invitation-withdrawn', 'joined', 'rights', 'left', 'step-added', 'step-removed', 'recovery-codes', 'recovery-used', 'step-failed',
    'steps-lost', 'steps-kept', 'address-moved', 'access-rules', 'identity', 'identity-seen', 'hooks', 'keeping', 'exported', 'customer-erased',
    'closed', 'reopened'));
alter table messages drop constraint messages_kind_known;
alter table messages add constraint messages_kind_known check (kind in (
  'invoice', 'receipt', 'payment-notice', 'reminder', 'changed', 'cancelled', 'credit-note', 'question', 'answer',
  'trial', 'statement', 'notice', 'request', 'order-notice', 'refund', 'gift-letter', 'plan-link', 'plan-reminder',
  'charge-notice', 'charge-refused', 'card-asked', 'own-page', 'plan-ended', 'part-due', 'settings-changed', 'plan-ending', 'plan-over',
  'plan-changed', 'plan-proposed', 'receipt-taken-back', 'approval-asked', 'payout-returned', 'partner-statement', 'partner-page', 'dispute',
  'debit-returned', 'voucher', 'confirm-address', 'password-link', 'password-changed', 'new-sign-in', 'invitation', 'step-changed',
  'lost-steps-link', 'steps-lost', 'codes-tried', 'address-link', 'address-moved', 'identity', 'hook-failing', 'business-closed'));
