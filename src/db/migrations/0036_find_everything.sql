-- One field finds everything: each kind by its names, numbers, references, addresses, a card's last digits and its sum, by an index.
create index customers_by_beginning on customers (business_id, lower(name) text_pattern_ops) where merged_into is null;
create index plans_found on plans using gin (lower(name || ' ' || number || ' ' || reference) gin_trgm_ops);
create index orders_found on orders using gin (
  lower(reference || ' ' || payer_email || ' ' || coalesce(printed -> 'payer' ->> 'name', '')) gin_trgm_ops) where state = 'paid';
create index payments_by_last4 on payments (business_id, card_last4, started_at) where card_last4 is not null;
create index payments_by_amount on payments (business_id, amount_minor, started_at);
create index payments_by_reference on payments using gin (lower(reference) gin_trgm_ops) where reference <> '';
create index receipts_by_number on receipts (business_id, lower(number) text_pattern_ops);
create index cards_by_last4 on cards (business_id, last4);
create index recurring_of_customer on recurring_invoices (business_id, customer_id);

-- What holds the words, each kind at most `most`. `first`, `second`, `third` are patterns of single words, `whole` is one of all of them;
-- `beginning` is what was typed, in small letters; `brief` says that no word has three signs, which only beginnings are found by; `digits` and `amount_minor` are null where it is neither four digits nor a sum.
create function everything_matching(first text, second text, third text, whole text, beginning text, brief boolean, digits text, amount bigint,
  most integer)
  returns table (kind text, id uuid, name text, number text, about text, state text, amount_minor bigint, currency text, at timestamptz)
  language sql stable security definer set search_path = public, pg_temp
  as $$
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
revoke all on function everything_matching(text, text, text, text, text, boolean, text, bigint, integer) from public;
grant execute on function everything_matching(text, text, text, text, text, boolean, text, bigint, integer) to dahlia_app;
