-- Any payment can be given back: what of, how, and what else hangs on it stands on the refund.
alter table refunds
  add column method text not null default 'card',
  add column reference text not null default '',
  add column tip_minor bigint not null default 0,
  -- How the document is credited (a step of calculation 15); null where it is not, for it is owed again.
  add column step jsonb,
  -- What is done with it once the money is back: goods to the stock, the plan ended, the customer told.
  add column wish jsonb not null default '{}',
  add column credit_id uuid,
  add column at timestamptz generated always as (coalesce(settled_at, started_at)) stored,
  add constraint refunds_method_known check (method in ('card', 'transfer', 'cash', 'cheque', 'other', 'account')),
  add constraint refunds_tip_in_bounds check (tip_minor between 0 and amount_minor),
  add constraint refunds_credit_id_fkey foreign key (business_id, credit_id) references credit_notes (business_id, id);

-- Until now the whole was given back before the tip.
update refunds set tip_minor = given.tip
from (
  select r.business_id, r.id,
    greatest(0, sum(r.amount_minor) over sofar - p.amount_minor) - greatest(0, sum(r.amount_minor) over sofar - r.amount_minor - p.amount_minor) as tip
  from refunds r join payments p on p.business_id = r.business_id and p.id = r.payment_id
  where r.state <> 'refused'
  window sofar as (partition by r.business_id, r.payment_id order by r.started_at, r.id)
) as given
where refunds.business_id = given.business_id and refunds.id = given.id;
update refunds set step = jsonb_build_object('amount', amount_minor - tip_minor) where amount_minor > tip_minor;

alter table credit_notes add column step jsonb;
update credit_notes set step = jsonb_build_object('amount', amount_minor);
alter table credit_notes alter column step set not null, drop constraint credit_notes_tax_not_negative;

-- One refund of a payment is on its way at a time: what the next one comes to depends on it.
create unique index refunds_one_pending on refunds (business_id, payment_id) where state = 'pending';

-- The register has payments and refunds by the time at which the money moved, or else was asked for.
alter table payments
  add column at timestamptz generated always as (coalesce(settled_at, started_at)) stored,
  -- What the processor's tariff says that the fee is; null without one.
  add column agreed_fee_minor bigint;
create index payments_in_register on payments (business_id, at, id);
create index refunds_in_register on refunds (business_id, at, id);
create index payments_of_customer_in_register on payments (business_id, customer_id, at, id);
create index payments_with_other_fee on payments (business_id, at, id) where fee_minor <> agreed_fee_minor and state = 'paid';
-- Which items were sold on a paper, for narrowing by item.
create index orders_with_items on orders using gin (jsonb_path_query_array(printed, '$.lines[*].itemId'));
create index invoices_with_items on invoices using gin (jsonb_path_query_array(printed, '$.lines[*].itemId'));
drop index payments_by_time;

alter table businesses add column tariff jsonb not null default '[]';
alter table log_entries drop constraint log_entries_kind_known;
alter table log_entries add constraint log_entries_kind_known
  check (kind in ('profile', 'taxes', 'charging', 'tariff', 'partner', 'signed-in', 'sign-in-failed', 'signed-out', 'password'));

-- Lists of several kinds are kept under names, each kind its own.
alter table saved_lists add column list text not null default 'invoices',
  add constraint saved_lists_list_known check (list in ('invoices', 'payments'));
drop index saved_lists_name_unique;
create unique index saved_lists_name_unique on saved_lists (business_id, list, lower(name));

-- What came in and what was given back on each day, by currency, channel and way: kept by the statement that moves the money.
create table register_sums (
  business_id uuid not null references businesses,
  currency text not null,
  day date not null,
  channel text not null,
  method text not null,
  payments integer not null,
  paid_minor bigint not null,
  refunds integer not null,
  refunded_minor bigint not null,
  primary key (business_id, currency, day, channel, method)
);
select protect_table('register_sums', 'select, insert, update');

create function keep_payment_sums() returns trigger language plpgsql as $$
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
-- What is asked for first has not come in: those statements need no sums, so that only what settles pays for them.
create function keep_new_payment_sums() returns trigger language plpgsql as $$
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
create function keep_refund_sums() returns trigger language plpgsql as $$
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

insert into register_sums
select business_id, currency, day, channel, method, sum(payments), sum(paid_minor), sum(refunds), sum(refunded_minor)
from (
  select p.business_id, p.currency, (settled_at at time zone zone)::date as day, channel, method, 1 as payments,
    amount_minor + tip_minor as paid_minor, 0 as refunds, 0::bigint as refunded_minor
  from payments p join businesses on businesses.business_id = p.business_id
  where state = 'paid' or (state = 'voided' and method = 'card')
  union all
  select r.business_id, p.currency, (r.settled_at at time zone zone)::date, channel, r.method, 0, 0, 1, r.amount_minor
  from refunds r join payments p on p.business_id = r.business_id and p.id = r.payment_id
    join businesses on businesses.business_id = r.business_id
  where r.state = 'done'
) as moved group by 1, 2, 3, 4, 5;

create trigger payments_sums_added after insert on payments referencing new table as added
  for each statement execute function keep_new_payment_sums();
create trigger payments_sums_changed after update on payments referencing old table as removed new table as added
  for each statement execute function keep_payment_sums();
create trigger refunds_sums_changed after update on refunds referencing old table as removed new table as added
  for each statement execute function keep_refund_sums();
revoke execute on function keep_payment_sums(), keep_new_payment_sums(), keep_refund_sums() from public, dahlia_app;

drop table received_by_day;

-- The register is searched by name, number, reference, last digits and sum: payments that something of theirs, or a refund of theirs, says so.
create function payments_matching(first text, second text, third text, whole text, typed text, digits text, amounts bigint[], most integer)
  returns setof uuid language sql stable security definer set search_path = public, pg_temp
  as $$
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
create index payments_by_charged on payments (business_id, (amount_minor + tip_minor)) where tip_minor > 0;
create index refunds_by_amount on refunds (business_id, amount_minor);
create index refunds_with_credit on refunds (business_id, credit_id) where credit_id is not null;

-- What was paid for something that holds an item.
create function payments_with_item(item uuid) returns setof uuid
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select p.id from orders o join payments p on p.business_id = o.business_id and p.order_id = o.id
    where o.business_id = (select current_business()) and jsonb_path_query_array(o.printed, '$.lines[*].itemId') @> to_jsonb(item::text)
    union all
    select p.id from invoices i join payments p on p.business_id = i.business_id and p.invoice_id = i.id
    where i.business_id = (select current_business()) and jsonb_path_query_array(i.printed, '$.lines[*].itemId') @> to_jsonb(item::text)
  $$;
revoke all on function payments_matching(text, text, text, text, text, text, bigint[], integer), payments_with_item(uuid) from public;
grant execute on function payments_matching(text, text, text, text, text, text, bigint[], integer), payments_with_item(uuid) to dahlia_app;

-- What a customer paid above what was due stays to their credit, and pays the next invoice from the account.
alter table invoices add column overpaid_minor bigint not null default 0 check (overpaid_minor >= 0),
  drop constraint invoices_never_overpaid,
  add constraint invoices_never_overpaid check (paid_minor - refunded_minor <= total_minor + overpaid_minor);
create index invoices_with_credit on invoices (business_id, customer_id, currency)
  where stage = 'sent' and total_minor - credited_minor - paid_minor + refunded_minor < 0;
alter table payments drop constraint payments_method_known;
alter table payments add constraint payments_method_known check (method in ('card', 'transfer', 'cash', 'cheque', 'other', 'account'));
alter table ledger_postings drop constraint ledger_postings_account_known;
alter table ledger_postings add constraint ledger_postings_account_known check (account in ('receivable', 'revenue', 'tax-payable',
  'processor-clearing', 'processing-fees', 'tips', 'partner-shares', 'partners', 'bank', 'cash', 'cheques', 'other-receipts', 'customer-credit'));

-- Refunds by transfer go to the bank in a file, each in one only.
create table transfer_files (
  id uuid not null,
  business_id uuid not null references businesses,
  made_at timestamptz not null,
  by_name text not null,
  primary key (business_id, id)
);
select protect_table('transfer_files', 'select, insert');
alter table refunds add column transfer_file_id uuid,
  add constraint refunds_transfer_file_id_fkey foreign key (business_id, transfer_file_id) references transfer_files (business_id, id);
create index refunds_to_transfer on refunds (business_id, settled_at, id)
  where method = 'transfer' and state = 'done' and transfer_file_id is null and wish ? 'account';
create index refunds_of_transfer_file on refunds (business_id, transfer_file_id) where transfer_file_id is not null;
