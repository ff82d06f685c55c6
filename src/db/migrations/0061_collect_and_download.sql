-- What is fetched at the counter, handed over against a name and a hand; and what is given as a file or a text once it is paid.

alter table handovers
  -- Its lines that are collected: none; waiting for payment; to be fetched; fetched; dropped with the sale.
  add column counter text not null default '' constraint handovers_counter_known
    check (counter in ('', 'waits', 'open', 'done', 'dropped'));
create index handovers_at_counter on handovers (business_id, ready_at, id) where counter = 'open';

create table collections (
  business_id uuid not null references businesses,
  id uuid not null,
  handover_id uuid not null,
  at timestamptz not null,
  by_name text not null,
  -- Who fetched it, and their hand as a path in a field of 100 x 40; empty where nobody signed.
  name text not null,
  strokes text not null default '',
  -- What was fetched: the line of the sale and how much of it.
  lines jsonb not null,
  primary key (business_id, id),
  foreign key (business_id, handover_id) references handovers (business_id, id)
);
create index collections_of_handover on collections (business_id, handover_id, at);
select protect_table('collections', 'select, insert, update');

-- What is given for an item once it is paid. No limit where a number is null.
create table digital_goods (
  business_id uuid not null references businesses,
  item_id uuid not null,
  file_id uuid,
  words text not null default '',
  most_downloads integer constraint digital_goods_downloads_positive check (most_downloads > 0),
  days integer constraint digital_goods_days_positive check (days > 0),
  primary key (business_id, item_id),
  foreign key (business_id, item_id) references items (business_id, id),
  foreign key (business_id, file_id) references files (business_id, id)
);
create index digital_goods_with_file on digital_goods (business_id, file_id) where file_id is not null;
select protect_table('digital_goods', 'select, insert, update, delete');

-- What was given for a line of a sale, as it was when it was paid.
create table digital_grants (
  business_id uuid not null references businesses,
  id uuid not null,
  handover_id uuid not null,
  line smallint not null,
  what text not null,
  file_id uuid,
  words text not null,
  downloads integer not null default 0,
  most_downloads integer,
  expires_at timestamptz,
  -- Given back, or not paid after all.
  ended_at timestamptz,
  made_at timestamptz not null,
  primary key (business_id, id),
  constraint digital_grants_once unique (business_id, handover_id, line),
  constraint digital_grants_never_too_many check (most_downloads is null or downloads <= most_downloads),
  foreign key (business_id, handover_id, line) references handover_lines (business_id, handover_id, line),
  foreign key (business_id, file_id) references files (business_id, id)
);
create index digital_grants_with_file on digital_grants (business_id, file_id) where file_id is not null;
select protect_table('digital_grants', 'select, insert, update');

alter table files drop constraint files_purpose_known;
alter table files add constraint files_purpose_known check (purpose in ('attachment', 'logo', 'picture', 'document', 'answer', 'seal', 'authorisation', 'digital'));

alter table messages drop constraint messages_kind_known;
alter table messages add constraint messages_kind_known check (kind in (
  'invoice', 'receipt', 'payment-notice', 'reminder', 'changed', 'cancelled', 'credit-note', 'question', 'answer',
  'trial', 'statement', 'notice', 'request', 'order-notice', 'refund', 'gift-letter', 'plan-link', 'plan-reminder',
  'charge-notice', 'charge-refused', 'card-asked', 'own-page', 'plan-ended', 'part-due', 'settings-changed', 'plan-ending', 'plan-over',
  'plan-changed', 'plan-proposed', 'receipt-taken-back', 'approval-asked', 'payout-returned', 'partner-statement', 'partner-page', 'dispute',
  'debit-returned', 'voucher', 'confirm-address', 'password-link', 'password-changed', 'new-sign-in', 'invitation', 'step-changed',
  'lost-steps-link', 'steps-lost', 'codes-tried', 'address-link', 'address-moved', 'identity', 'hook-failing', 'business-closed',
  'own-news',
  'parcel-left', 'parcel-door', 'parcel-delivered', 'parcel-late', 'digital-ready'));

create or replace function forget_on_parcels() returns trigger
  language plpgsql security definer set search_path = public, pg_temp
  as $$
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
  return null;
end $$;
