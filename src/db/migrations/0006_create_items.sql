-- Items with their options, prices and stock; tax rules by place.

create table items (
  id uuid primary key,
  business_id uuid not null references businesses,
  code text not null default '',
  name text not null constraint items_name_given check (name <> ''),
  description text not null default '',
  kind text not null constraint items_kind_known check (kind in ('goods', 'digital', 'service')),
  unit text not null,
  -- Price of one unit by currency, decimals as text: {"USD": "12.50"}.
  prices jsonb not null default '{}',
  cost text not null default '',
  tax_class text not null default 'standard',
  -- Null where no stock is kept.
  on_hand numeric(14, 4),
  low_at numeric(14, 4),
  picture_id uuid,
  search text not null,
  archived boolean not null default false,
  created_at timestamptz not null,
  changed_at timestamptz not null
);
create unique index items_code_unique on items (business_id, lower(code)) where code <> '' and not archived;
create index items_by_name on items (business_id, lower(name), id) where not archived;
create index items_found on items using gin (search gin_trgm_ops);
select protect_table('items', 'select, insert, update');

create table item_options (
  id uuid primary key,
  business_id uuid not null references businesses,
  item_id uuid not null references items,
  position integer not null,
  name text not null,
  code text not null default '',
  prices jsonb not null default '{}',
  on_hand numeric(14, 4),
  low_at numeric(14, 4),
  archived boolean not null default false
);
create index item_options_of_item on item_options (business_id, item_id, position);
select protect_table('item_options', 'select, insert, update');

-- Goods that a sent invoice promises; they leave the stock when it is paid, and are free again when it is cancelled.
create table stock_promises (
  business_id uuid not null references businesses,
  invoice_id uuid not null references invoices,
  item_id uuid not null references items,
  option_id uuid references item_options,
  quantity numeric(14, 4) not null
);
create index stock_promises_of_invoice on stock_promises (business_id, invoice_id);
create index stock_promises_of_item on stock_promises (business_id, item_id);
select protect_table('stock_promises', 'select, insert, delete');

-- A tax becomes a rule: where it holds and for which class. Without a country it is chosen by hand only.
alter table taxes
  add column class text not null default 'standard',
  add column country text not null default '',
  add column regions text[],
  add column postal_codes text[],
  add column additional boolean not null default false,
  -- Taken off the list, but still named by papers and documents.
  add column retired boolean not null default false;
