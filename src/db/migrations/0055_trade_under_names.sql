-- Under which names and from which places a business asks; few of each, read with it.
alter table businesses
  add column description text not null default '',
  add column trading_names jsonb not null default '[]',
  add column locations jsonb not null default '[]';
