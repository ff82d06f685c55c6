-- Goods that customers send or bring back: asked for on their page, allowed by the business, received and looked at.
create table returns (
  business_id uuid not null references businesses,
  id uuid not null,
  handover_id uuid not null,
  state text not null constraint returns_state_known check (state in ('asked', 'allowed', 'refused', 'received', 'closed')),
  reason text not null,
  -- What the customer wrote, and a picture of theirs.
  words text not null default '',
  file_id uuid,
  asked_at timestamptz not null,
  -- What the business answered.
  answer text not null default '',
  answered_at timestamptz,
  answered_by text not null default '',
  -- The label that brings it back, as bought; null where none was.
  label jsonb,
  number text not null default '',
  received_at timestamptz,
  received_by text not null default '',
  closed_at timestamptz,
  primary key (business_id, id),
  foreign key (business_id, handover_id) references handovers (business_id, id),
  foreign key (business_id, file_id) references files (business_id, id)
);
create index returns_open on returns (business_id, asked_at, id) where state in ('asked', 'allowed', 'received');
create index returns_of_handover on returns (business_id, handover_id);
create index returns_with_file on returns (business_id, file_id) where file_id is not null;
select protect_table('returns', 'select, insert, update');

create table return_lines (
  business_id uuid not null references businesses,
  return_id uuid not null,
  line smallint not null,
  quantity numeric(14,4) not null constraint return_lines_quantity_positive check (quantity > 0),
  -- What was found good, and what was not.
  to_stock numeric(14,4) not null default 0,
  thrown numeric(14,4) not null default 0,
  primary key (business_id, return_id, line),
  constraint return_lines_never_too_much check (to_stock >= 0 and thrown >= 0 and to_stock + thrown <= quantity),
  foreign key (business_id, return_id) references returns (business_id, id)
);
select protect_table('return_lines', 'select, insert, update');

alter table messages drop constraint messages_kind_known;
alter table messages add constraint messages_kind_known check (kind in (
  'invoice', 'receipt', 'payment-notice', 'reminder', 'changed', 'cancelled', 'credit-note', 'question', 'answer',
  'trial', 'statement', 'notice', 'request', 'order-notice', 'refund', 'gift-letter', 'plan-link', 'plan-reminder',
  'charge-notice', 'charge-refused', 'card-asked', 'own-page', 'plan-ended', 'part-due', 'settings-changed', 'plan-ending', 'plan-over',
  'plan-changed', 'plan-proposed', 'receipt-taken-back', 'approval-asked', 'payout-returned', 'partner-statement', 'partner-page', 'dispute',
  'debit-returned', 'voucher', 'confirm-address', 'password-link', 'password-changed', 'new-sign-in', 'invitation', 'step-changed',
  'lost-steps-link', 'steps-lost', 'codes-tried', 'address-link', 'address-moved', 'identity', 'hook-failing', 'business-closed',
  'own-news',
  'parcel-left', 'parcel-door', 'parcel-delivered', 'parcel-late', 'digital-ready', 'return-answered'));

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
  update returns r set words = '', answer = '', label = case when r.label is null then null else emptied(r.label) end
    where r.business_id = new.business_id
    and r.handover_id in (select h.id from handovers h where h.business_id = new.business_id and h.customer_id = new.id);
  return null;
end $$;
