-- The stock as a log: what happened to it, by whom and why. What is on hand follows from it; its rows stay as they are.
create table stock_movements (
  business_id uuid not null references businesses,
  id uuid not null,
  item_id uuid not null,
  option_id uuid,
  -- The place in the log of this item, or of this option.
  n integer not null constraint stock_movements_n_positive check (n > 0),
  at timestamptz not null,
  kind text not null constraint stock_movements_kind_known check (kind in ('opened', 'received', 'counted', 'promised', 'freed', 'sold',
    'unsold', 'returned', 'thrown-away', 'closed')),
  on_hand_by numeric(14,4) not null,
  promised_by numeric(14,4) not null,
  -- What there was after it; null where no stock is kept from here on.
  on_hand_after numeric(14,4),
  promised_after numeric(14,4) not null,
  -- Of one, in major units of the business's currency; null where nobody said.
  cost numeric(18,6),
  average_after numeric(18,6),
  by_name text not null default '',
  why text not null default '',
  supplier text not null default '',
  -- The number of the supplier's paper, and the paper itself.
  paper text not null default '',
  file_id uuid,
  invoice_id uuid,
  order_id uuid,
  primary key (business_id, id),
  foreign key (business_id, item_id) references items (business_id, id),
  foreign key (business_id, option_id) references item_options (business_id, id),
  foreign key (business_id, file_id) references files (business_id, id),
  foreign key (business_id, invoice_id) references invoices (business_id, id),
  foreign key (business_id, order_id) references orders (business_id, id)
);
-- Nulls as one value: an item without options has one log.
create unique index stock_movements_in_order on stock_movements (business_id, item_id, option_id, n) nulls not distinct;
create index stock_movements_of_option on stock_movements (business_id, option_id) where option_id is not null;
create index stock_movements_of_invoice on stock_movements (business_id, invoice_id) where invoice_id is not null;
create index stock_movements_of_order on stock_movements (business_id, order_id) where order_id is not null;
create index stock_movements_with_file on stock_movements (business_id, file_id) where file_id is not null;
create index stock_movements_out on stock_movements (business_id, at) where kind in ('sold', 'unsold');
select protect_table('stock_movements', 'select, insert');

-- What sales want of an item that is not packed yet.
create index handover_lines_of_item on handover_lines (business_id, item_id) where item_id is not null;

-- What is on hand now is where the log begins.
insert into stock_movements (business_id, id, item_id, option_id, n, at, kind, on_hand_by, promised_by, on_hand_after, promised_after,
    cost, average_after, by_name)
  select kept.business_id, gen_random_uuid(), kept.item_id, kept.option_id, 1, now(), 'opened', kept.on_hand, kept.promised, kept.on_hand,
    kept.promised, kept.cost, kept.cost, 'Dahlia'
  from (
    select i.business_id, i.id as item_id, null::uuid as option_id, i.on_hand,
      coalesce((select sum(p.quantity) from stock_promises p
        where p.business_id = i.business_id and p.item_id = i.id and p.option_id is null), 0) as promised,
      case when i.cost ~ '^[0-9]{1,12}(\.[0-9]{1,6})?$' then i.cost::numeric end as cost
    from items i where i.on_hand is not null
    union all
    select o.business_id, o.item_id, o.id, o.on_hand,
      coalesce((select sum(p.quantity) from stock_promises p where p.business_id = o.business_id and p.option_id = o.id), 0),
      case when i.cost ~ '^[0-9]{1,12}(\.[0-9]{1,6})?$' then i.cost::numeric end
    from item_options o join items i on i.business_id = o.business_id and i.id = o.item_id where o.on_hand is not null
  ) as kept;
