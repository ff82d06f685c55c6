-- From paid to handed over: what sales hand over, how it is packed, what the carrier does with it, and when the customer is told.

alter table items add column going jsonb not null default '{}';
alter table item_options
  add column grams integer not null default 0 constraint item_options_grams_not_negative check (grams >= 0),
  add column shelf text not null default '';
-- Null where the business's usual way holds.
alter table customers add column ships_first boolean;
-- How the business delivers, as far as it is not as usual.
alter table businesses add column delivering jsonb not null default '{}';

create table parcel_profiles (
  business_id uuid not null references businesses,
  id uuid not null,
  place integer not null,
  name text not null constraint parcel_profiles_name_given check (name <> ''),
  -- Sides, weights, what the packing costs, service, insurance, signature.
  profile jsonb not null,
  archived boolean not null default false,
  primary key (business_id, id)
);
select protect_table('parcel_profiles', 'select, insert, update');

-- The first rule that takes a parcel chooses its profile.
create table parcel_rules (
  business_id uuid not null references businesses,
  id uuid not null,
  place integer not null,
  rule jsonb not null,
  primary key (business_id, id)
);
select protect_table('parcel_rules', 'select, insert, update, delete');

-- What a sale hands over.
create table handovers (
  business_id uuid not null references businesses,
  id uuid not null,
  invoice_id uuid,
  order_id uuid,
  customer_id uuid,
  -- Waits until it is paid; open while something of it is left to pack; done; dropped with its sale.
  state text not null constraint handovers_state_known check (state in ('waits', 'open', 'done', 'dropped')),
  -- Why it cannot go yet; empty where nothing keeps it.
  block text not null default '',
  number text not null,
  currency text not null,
  -- What was charged for delivery, and on which parcel that counts.
  charged_minor bigint not null constraint handovers_charged_not_negative check (charged_minor >= 0),
  charged_on uuid,
  recipient jsonb not null,
  wanted_by date,
  -- What the payer wrote and answered.
  wish text not null default '',
  made_at timestamptz not null,
  ready_at timestamptz,
  primary key (business_id, id),
  constraint handovers_once_an_invoice unique (business_id, invoice_id),
  constraint handovers_once_an_order unique (business_id, order_id),
  constraint handovers_one_sale check (num_nonnulls(invoice_id, order_id) <= 1),
  foreign key (business_id, invoice_id) references invoices (business_id, id),
  foreign key (business_id, order_id) references orders (business_id, id),
  foreign key (business_id, customer_id) references customers (business_id, id)
);
create index handovers_to_pack on handovers (business_id, ready_at, id) where state = 'open' and block = '';
create index handovers_kept on handovers (business_id, ready_at, id) where state = 'open' and block <> '';
create index handovers_of_customer on handovers (business_id, customer_id);
select protect_table('handovers', 'select, insert, update');

create table handover_lines (
  business_id uuid not null references businesses,
  handover_id uuid not null,
  line smallint not null,
  item_id uuid,
  option_id uuid,
  what text not null,
  quantity numeric(14,4) not null constraint handover_lines_quantity_positive check (quantity > 0),
  -- What is in parcels already, or was taken back before it left.
  packed numeric(14,4) not null default 0,
  dropped numeric(14,4) not null default 0,
  handed text not null constraint handover_lines_handed_known check (handed in ('posted', 'collected', 'digital')),
  value_minor bigint not null,
  primary key (business_id, handover_id, line),
  constraint handover_lines_never_too_much check (packed >= 0 and dropped >= 0 and packed + dropped <= quantity),
  foreign key (business_id, handover_id) references handovers (business_id, id)
);
select protect_table('handover_lines', 'select, insert, update');

create table parcels (
  business_id uuid not null references businesses,
  id uuid not null,
  customer_id uuid,
  state text not null constraint parcels_state_known check (state in ('packing', 'buying', 'bought', 'moving', 'door', 'waiting',
    'delivered', 'lost', 'damaged', 'back', 'returned', 'voided')),
  recipient jsonb not null,
  profile_id uuid,
  -- Whether a rule chose the profile; by hand it stays when rules change.
  by_rule boolean not null default true,
  -- What it weighs, with its packing; null as its lines and its profile say.
  grams integer constraint parcels_grams_positive check (grams > 0),
  service text not null default '',
  mail_on date not null,
  notice text not null constraint parcels_notice_known check (notice in ('on-day', 'first-scan', 'held', 'told')),
  told_at timestamptz,
  -- What the carrier answered when it was last asked what it costs, for exactly this parcel.
  rates jsonb,
  -- What it says of the address, for exactly this address.
  checked jsonb,
  -- Why a label was refused; empty where none was.
  trouble text not null default '',
  -- How often a label was asked for: each try has a key of its own at the carrier.
  tries smallint not null default 0,
  -- The sheet as bought: tracking number, service, weight, sides, what was paid; null before.
  label jsonb,
  number text not null default '',
  currency text not null,
  rate_minor bigint,
  insurance_minor bigint,
  packaging_minor bigint,
  -- What was paid for its delivery, in that currency; null where it cannot be converted.
  paid_minor bigint,
  bought_at timestamptz,
  by_name text not null default '',
  printed_at timestamptz,
  promised_on date,
  -- When the carrier is asked next, or the notice goes out; null where nothing is to come.
  act_at timestamptz,
  look_at timestamptz,
  scanned_at timestamptz,
  -- When it was first seen to be late.
  late_at timestamptz,
  ended_at timestamptz,
  proof jsonb,
  made_at timestamptz not null,
  search text not null default '',
  primary key (business_id, id),
  foreign key (business_id, customer_id) references customers (business_id, id),
  foreign key (business_id, profile_id) references parcel_profiles (business_id, id)
);
create index parcels_on_the_paper on parcels (business_id, made_at, id) where state in ('packing', 'buying');
create index parcels_under_way on parcels (business_id, promised_on, id)
  where state in ('bought', 'moving', 'door', 'waiting', 'damaged', 'back', 'lost', 'returned');
create index parcels_by_time on parcels (business_id, bought_at desc, id desc) where bought_at is not null;
create index parcels_to_print on parcels (business_id, bought_at, id) where printed_at is null and state = 'bought';
create index parcels_due on parcels (act_at) where act_at is not null;
create index parcels_of_customer on parcels (business_id, customer_id);
create unique index parcels_number_unique on parcels (business_id, number) where number <> '';
create index parcels_by_profile on parcels (business_id, profile_id);
select protect_table('parcels', 'select, insert, update, delete');
alter table handovers add foreign key (business_id, charged_on) references parcels (business_id, id);

create table parcel_lines (
  business_id uuid not null references businesses,
  parcel_id uuid not null,
  place smallint not null,
  -- Of which sale; none for what is sent without one.
  handover_id uuid,
  line smallint,
  what text not null,
  item_id uuid,
  option_id uuid,
  quantity numeric(14,4) not null constraint parcel_lines_quantity_positive check (quantity > 0),
  value_minor bigint not null default 0,
  primary key (business_id, parcel_id, place),
  foreign key (business_id, parcel_id) references parcels (business_id, id) on delete cascade,
  foreign key (business_id, handover_id, line) references handover_lines (business_id, handover_id, line)
);
create index parcel_lines_of_handover on parcel_lines (business_id, handover_id) where handover_id is not null;
select protect_table('parcel_lines', 'select, insert, delete');

-- What the carrier scanned, each once.
create table parcel_scans (
  business_id uuid not null references businesses,
  parcel_id uuid not null,
  at timestamptz not null,
  scan text not null,
  place text not null,
  words text not null default '',
  primary key (business_id, parcel_id, at, scan, place),
  foreign key (business_id, parcel_id) references parcels (business_id, id) on delete cascade
);
select protect_table('parcel_scans', 'select, insert');

-- What moved on the balance at the carrier, each by its key there; the balance is the sum of what went through.
create table carrier_moves (
  business_id uuid not null references businesses,
  id uuid not null,
  key text not null,
  kind text not null constraint carrier_moves_kind_known check (kind in ('top-up', 'label', 'void')),
  state text not null constraint carrier_moves_state_known check (state in ('asked', 'done', 'refused')),
  parcel_id uuid,
  currency text not null,
  minor bigint not null,
  at timestamptz not null,
  by_name text not null,
  primary key (business_id, id),
  constraint carrier_moves_once unique (business_id, key),
  foreign key (business_id, parcel_id) references parcels (business_id, id)
);
create index carrier_moves_by_time on carrier_moves (business_id, at desc, id);
create index carrier_moves_of_parcel on carrier_moves (business_id, parcel_id) where parcel_id is not null;
select protect_table('carrier_moves', 'select, insert, update');

alter table timeline
  add column parcel_id uuid,
  drop constraint timeline_one_subject,
  add constraint timeline_one_subject check (num_nonnulls(invoice_id, order_id, plan_id, parcel_id) = 1),
  add constraint timeline_parcel_id_fkey foreign key (business_id, parcel_id) references parcels (business_id, id) on delete cascade;
create index timeline_of_parcel on timeline (business_id, parcel_id, at desc, id desc) where parcel_id is not null;
alter table messages
  add column parcel_id uuid,
  add constraint messages_parcel_id_fkey foreign key (business_id, parcel_id) references parcels (business_id, id);
create index messages_of_parcel on messages (business_id, parcel_id) where parcel_id is not null;

-- Whoever is forgotten is forgotten on parcels too: a label's address is on no paper that has to be kept.
create function forget_on_parcels() returns trigger
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
  return null;
end $$;
revoke all on function forget_on_parcels() from public;
create trigger customers_forgotten_on_parcels after update of erased_at on customers
  for each row when (old.erased_at is null and new.erased_at is not null) execute function forget_on_parcels();

alter table people
  drop constraint people_extra_known,
  add constraint people_extra_known
    check (extra <@ array['ask', 'take', 'give-back', 'records', 'settings', 'pack', 'no-customers', 'no-sums']);

alter table ledger_postings drop constraint ledger_postings_account_known;
alter table ledger_postings add constraint ledger_postings_account_known check (account in ('receivable', 'revenue', 'tax-payable',
  'processor-clearing', 'processing-fees', 'tips', 'partner-shares', 'partners', 'bank', 'cash', 'cheques', 'other-receipts', 'customer-credit',
  'on-the-way', 'bank-charges', 'outside', 'disputed', 'dispute-losses', 'dispute-fees', 'vouchers', 'expired-vouchers', 'brought-in',
  'carrier-balance', 'postage'));
alter table messages drop constraint messages_kind_known;
alter table messages add constraint messages_kind_known check (kind in (
  'invoice', 'receipt', 'payment-notice', 'reminder', 'changed', 'cancelled', 'credit-note', 'question', 'answer',
  'trial', 'statement', 'notice', 'request', 'order-notice', 'refund', 'gift-letter', 'plan-link', 'plan-reminder',
  'charge-notice', 'charge-refused', 'card-asked', 'own-page', 'plan-ended', 'part-due', 'settings-changed', 'plan-ending', 'plan-over',
  'plan-changed', 'plan-proposed', 'receipt-taken-back', 'approval-asked', 'payout-returned', 'partner-statement', 'partner-page', 'dispute',
  'debit-returned', 'voucher', 'confirm-address', 'password-link', 'password-changed', 'new-sign-in', 'invitation', 'step-changed',
  'lost-steps-link', 'steps-lost', 'codes-tried', 'address-link', 'address-moved', 'identity', 'hook-failing', 'business-closed',
  'own-news',
  'parcel-left', 'parcel-door', 'parcel-delivered', 'parcel-late'));

create or replace function work_due(at timestamptz) returns table (business_id uuid, concern text)
  language sql stable security definer set search_path = public, pg_temp
  as $$
    -- Somewhere it is a day later than in UTC for fourteen hours: the index gives those, then each business's own day counts.
    with latest as (select (at at time zone 'UTC' + interval '14 hours')::date as day)
    select distinct i.business_id, 'timed-sending' from invoices i where i.stage = 'draft' and i.send_at <= at
    union all
    select distinct r.business_id, 'recurring' from recurring_invoices r join businesses b using (business_id)
      where r.state = 'active' and r.next_on <= (select day from latest) and r.next_on <= (at at time zone b.zone)::date
    union all
    select distinct r.business_id, 'reminders' from reminders r join businesses b using (business_id)
      where r.state = 'waiting' and r.remind_on <= (select day from latest) and r.remind_on <= (at at time zone b.zone)::date
    union all
    select distinct c.business_id, 'charges' from charges c where c.act_at <= at
    union all
    select distinct c.business_id, 'notices' from charges c join businesses b using (business_id)
      where c.state = 'upcoming' and c.noticed_at is null and c.notice_on <= (select day from latest)
        and c.notice_on <= (at at time zone b.zone)::date
    union all
    select distinct p.business_id, 'plan-reminders' from plans p
      where p.state = 'waiting' and p.reminded_at is null and p.remind_at <= at
    union all
    select distinct p.business_id, 'lapses' from plans p join businesses b using (business_id)
      where p.state = 'waiting' and p.lapses_on < (select day from latest) and p.lapses_on < (at at time zone b.zone)::date
    union all
    select distinct p.business_id, 'lapses' from plans p join businesses b using (business_id)
      where p.ends_on <= (select day from latest) and p.ends_on <= (at at time zone b.zone)::date
    union all
    select d.business_id, d.concern from daily_looks d where d.due_at <= at
    union all
    -- A day is closed a quarter of an hour after midnight, when its last payments are written down.
    select b.business_id, 'closing' from businesses b
      where (b.batches_closed_to is null or b.batches_closed_to < (select day from latest) - 1)
        and (b.batches_closed_to is null
          or b.batches_closed_to < ((at - interval '15 minutes') at time zone b.zone)::date - 1)
    union all
    -- Who is to be paid out is looked at once a day, when the day before is closed; and what the bank was asked for, until it answers.
    select b.business_id, 'payouts' from businesses b
      where (b.payouts_made_to is null or b.payouts_made_to < (select day from latest))
        and b.batches_closed_to >= (at at time zone b.zone)::date - 1
        and (b.payouts_made_to is null or b.payouts_made_to < (at at time zone b.zone)::date)
    union
    select p.business_id, 'payouts' from payouts p where p.act_at <= at
    union
    select a.business_id, 'payouts' from bank_accounts a where a.act_at <= at
    union
    -- Who stands behind a business is asked for until it is decided; pictures go after their time.
    select c.business_id, 'payouts' from identity_checks c where c.act_at <= at
    union all
    -- Vouchers go out on the day that was chosen, and are over after their last one.
    select distinct v.business_id, 'vouchers' from vouchers v join businesses b using (business_id)
      where v.sent_at is null and v.send_on <= (select day from latest) and v.send_on <= (at at time zone b.zone)::date
    union
    select distinct v.business_id, 'vouchers' from vouchers v join businesses b using (business_id)
      where v.balance_minor > 0 and v.expires_on < (select day from latest) and v.expires_on < (at at time zone b.zone)::date
    union all
    select distinct n.business_id, 'news' from news n where n.mail_at <= work_due.at
    union all
    -- Parcels: what the carrier is asked about next, and notices whose hour has come.
    select distinct p.business_id, 'parcels' from parcels p where p.act_at <= work_due.at
  $$;
