-- What the card processor settles for a day, as it stood when the day was closed, compared with the processor's own book.
create table day_batches (
  business_id uuid not null references businesses,
  day date not null,
  -- One for each currency, as `BatchSum`; amounts in minor units.
  sums jsonb not null,
  differences jsonb not null,
  checked_at timestamptz not null,
  -- Who looked into the differences, and what was found.
  settled_by text,
  settled_words text not null default '',
  primary key (business_id, day)
);
create index day_batches_differing on day_batches (business_id, day) where differences <> '[]' and settled_by is null;
select protect_table('day_batches', 'select, insert, update');

-- Every day up to this one is closed.
alter table businesses add column batches_closed_to date;

create index payments_by_card on payments (business_id, settled_at, id) where method = 'card' and state in ('paid', 'voided');
create index refunds_done on refunds (business_id, settled_at, id) where state = 'done';

-- Businesses whose last day is over and not closed.
create function businesses_to_close(at timestamptz) returns setof uuid
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select business_id from businesses
    where batches_closed_to is null or batches_closed_to < (at at time zone zone)::date - 1
  $$;
