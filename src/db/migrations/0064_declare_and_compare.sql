-- Which kinds of messages there are is the list of who writes them; here their form holds, so that a new one is no new rule.
alter table messages drop constraint messages_kind_known;
alter table messages add constraint messages_kind_named check (kind ~ '^[a-z]+(-[a-z]+)*$');

-- What customs are told of a parcel and of its lines, where that is not as usual and as the items say.
alter table parcels add column customs jsonb;
alter table parcel_lines add column customs jsonb;
-- Labels that go with a form, among those that nobody printed yet.
create index parcels_to_declare on parcels (business_id, bought_at, id)
  where printed_at is null and state = 'bought' and label ->> 'customsForm' <> '';

-- Whoever is forgotten is forgotten there too: what was in it, and their own number.
create function forget_for_customs() returns trigger
  language plpgsql security definer set search_path = public, pg_temp
  as $$
begin
  update parcel_lines l set customs = null where l.business_id = new.business_id and l.customs is not null
    and l.parcel_id in (select p.id from parcels p where p.business_id = new.business_id and p.customer_id = new.id);
  update parcels p set customs = null where p.business_id = new.business_id and p.customer_id = new.id and p.customs is not null;
  return null;
end $$;
revoke all on function forget_for_customs() from public;
create trigger customers_forgotten_for_customs after update of erased_at on customers
  for each row when (old.erased_at is null and new.erased_at is not null) execute function forget_for_customs();

-- Shipments are found by any part of whom they are for, where they go, what is in them, and their numbers.
create index parcels_found on parcels using gin (search gin_trgm_ops) where bought_at is not null;

-- What is said of goods of a sale that came back, by whom: who saw them and who gave money for them mean the same goods.
create table stock_comebacks (
  business_id uuid not null references businesses,
  id uuid not null,
  invoice_id uuid,
  order_id uuid,
  item_id uuid not null,
  option_id uuid,
  said_by text not null constraint stock_comebacks_said_by_known check (said_by in ('seen', 'given-back', 'sent-again')),
  quantity numeric(14,4) not null constraint stock_comebacks_quantity_positive check (quantity > 0),
  at timestamptz not null,
  primary key (business_id, id),
  constraint stock_comebacks_one_sale check (num_nonnulls(invoice_id, order_id) = 1),
  foreign key (business_id, invoice_id) references invoices (business_id, id),
  foreign key (business_id, order_id) references orders (business_id, id),
  foreign key (business_id, item_id) references items (business_id, id),
  foreign key (business_id, option_id) references item_options (business_id, id)
);
create index stock_comebacks_of_invoice on stock_comebacks (business_id, invoice_id) where invoice_id is not null;
create index stock_comebacks_of_order on stock_comebacks (business_id, order_id) where order_id is not null;
create index stock_comebacks_of_item on stock_comebacks (business_id, item_id, option_id);
select protect_table('stock_comebacks', 'select, insert');
insert into stock_comebacks (business_id, id, invoice_id, order_id, item_id, option_id, said_by, quantity, at)
  select business_id, id, invoice_id, order_id, item_id, option_id,
    case when why = 'Came back from the customer' then 'seen' else 'given-back' end, on_hand_by, at
  from stock_movements where kind = 'returned' and on_hand_by > 0 and num_nonnulls(invoice_id, order_id) = 1;

-- The carrier's statement of each month in which something moved: fetched after its end, and compared with what moved by our books.
create table carrier_statements (
  business_id uuid not null references businesses,
  month date not null constraint carrier_statements_first_day check (extract(day from month) = 1),
  currency text not null,
  -- As it was read; null until then.
  statement jsonb,
  read_at timestamptz,
  by_name text not null default '',
  -- Entries at which somebody looked, and left it at that.
  left_as_is text[] not null default '{}',
  open integer not null default 0 constraint carrier_statements_open_not_negative check (open >= 0),
  -- When it is fetched, or looked at once more; null where nothing is to come.
  act_at timestamptz,
  primary key (business_id, month)
);
create index carrier_statements_due on carrier_statements (act_at) where act_at is not null;
create index carrier_statements_open on carrier_statements (business_id, month) where open > 0;
select protect_table('carrier_statements', 'select, insert, update');
insert into carrier_statements (business_id, month, currency, act_at)
  select m.business_id, m.month, m.currency, (m.month + interval '1 month 1 day 6 hours') at time zone 'UTC'
  from (select business_id, date_trunc('month', at at time zone 'UTC')::date as month, min(currency) as currency
    from carrier_moves group by 1, 2) m;
alter table carrier_moves drop constraint carrier_moves_kind_known;
alter table carrier_moves add constraint carrier_moves_kind_known check (kind in ('top-up', 'label', 'void', 'claim', 'correction'));

-- What has come due is work_due's and what stands here beside it: whoever adds more adds it here, and need not write all of that down again.
create function due_work(at timestamptz) returns table (business_id uuid, concern text)
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select w.business_id, w.concern from work_due(at) w
    union
    select s.business_id, 'parcels' from carrier_statements s where s.act_at <= at
  $$;
revoke all on function due_work(timestamptz) from public;
grant execute on function due_work(timestamptz) to dahlia_app;
create or replace function enqueue_due_work(at timestamptz) returns bigint
  language plpgsql security definer set search_path = public, pg_temp
  as $$
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
