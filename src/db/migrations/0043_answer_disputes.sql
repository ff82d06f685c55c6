-- A card's holder asks their bank for a payment back: the processor takes sum and fee at once, the business answers, the bank decides.
alter table ledger_postings drop constraint ledger_postings_account_known;
alter table ledger_postings add constraint ledger_postings_account_known check (account in ('receivable', 'revenue', 'tax-payable',
  'processor-clearing', 'processing-fees', 'tips', 'partner-shares', 'partners', 'bank', 'cash', 'cheques', 'other-receipts', 'customer-credit',
  'on-the-way', 'bank-charges', 'outside', 'disputed', 'dispute-losses', 'dispute-fees'));

create table disputes (
  id uuid not null,
  business_id uuid not null references businesses,
  payment_id uuid not null,
  -- How the processor calls it.
  key text not null,
  reason text not null constraint disputes_reason_known
    check (reason in ('not-recognised', 'not-received', 'not-as-described', 'charged-twice', 'cancelled', 'other')),
  currency text not null,
  amount_minor bigint not null constraint disputes_amount_positive check (amount_minor > 0),
  fee_minor bigint not null constraint disputes_fee_not_negative check (fee_minor >= 0),
  fee_back_minor bigint not null default 0 constraint disputes_fee_back_in_bounds check (fee_back_minor between 0 and fee_minor),
  -- What each partner gave back of their share: a list of partnerId and minor.
  partners jsonb not null,
  -- When the holder asked, by the processor's clock; booked_at is when it was written down here, and counts for the day.
  opened_at timestamptz not null,
  answer_by timestamptz not null,
  booked_at timestamptz not null,
  state text not null constraint disputes_state_known check (state in ('open', 'sending', 'sent', 'won', 'lost')),
  -- What the business adds, and which papers it leaves out or adds.
  words text not null default '',
  files jsonb not null default '[]',
  left_out jsonb not null default '[]',
  accepted boolean not null default false,
  answered_by text not null default '',
  sent_at timestamptz,
  settled_at timestamptz,
  lost_by text constraint disputes_lost_by_known check (lost_by in ('decision', 'silence', 'accepted')),
  reminded_at timestamptz,
  primary key (business_id, id),
  constraint disputes_payment_unique unique (business_id, payment_id),
  constraint disputes_key_unique unique (business_id, key),
  constraint disputes_payment_id_fkey foreign key (business_id, payment_id) references payments (business_id, id),
  constraint disputes_settled_when_decided check ((settled_at is not null) = (state in ('won', 'lost'))),
  constraint disputes_lost_by_when_lost check ((lost_by is not null) = (state = 'lost'))
);
create index disputes_by_time on disputes (business_id, booked_at, id);
create index disputes_won_by_time on disputes (business_id, settled_at) where state = 'won';
create index disputes_to_answer on disputes (business_id, answer_by) where state = 'open';
create index disputes_undecided on disputes (business_id, booked_at) where state in ('open', 'sending', 'sent');
select protect_table('disputes', 'select, insert, update');

-- The register narrows by it: whether a payment is disputed, or was and how that ended.
alter table payments add column dispute text constraint payments_dispute_known check (dispute in ('open', 'won', 'lost'));
create index payments_with_dispute on payments (business_id, at, id) where dispute is not null;

alter table partner_movements drop constraint partner_movements_kind_known;
alter table partner_movements add constraint partner_movements_kind_known
  check (kind in ('share', 'reversal', 'by-hand', 'came-back', 'disputed', 'dispute-won'));

alter table documents drop constraint documents_kind_known;
alter table documents add constraint documents_kind_known check (kind in ('invoice', 'receipt', 'credit-note', 'dispute-file'));

alter table messages drop constraint messages_kind_known;
alter table messages add constraint messages_kind_known check (kind in (
  'invoice', 'receipt', 'payment-notice', 'reminder', 'changed', 'cancelled', 'credit-note', 'question', 'answer',
  'trial', 'statement', 'notice', 'request', 'order-notice', 'refund', 'gift-letter', 'plan-link', 'plan-reminder',
  'charge-notice', 'charge-refused', 'card-asked', 'own-page', 'plan-ended', 'part-due', 'settings-changed', 'plan-ending', 'plan-over',
  'plan-changed', 'plan-proposed', 'receipt-taken-back', 'approval-asked', 'payout-returned', 'partner-statement', 'partner-page', 'dispute'));
