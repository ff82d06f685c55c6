-- When the carrier comes for parcels: asked for once under a key, as it answered.
create table pick_ups (
  business_id uuid not null references businesses,
  id uuid not null,
  pick_up_on date not null,
  parcels integer not null constraint pick_ups_parcels_positive check (parcels > 0),
  grams integer not null constraint pick_ups_grams_positive check (grams > 0),
  state text not null constraint pick_ups_state_known check (state in ('asked', 'ordered', 'refused')),
  -- The carrier's name for it, or why it does not come.
  number text not null default '',
  words text not null default '',
  at timestamptz not null,
  by_name text not null,
  primary key (business_id, id)
);
create index pick_ups_by_day on pick_ups (business_id, pick_up_on desc, at desc);
select protect_table('pick_ups', 'select, insert, update');
