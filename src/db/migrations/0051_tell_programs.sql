-- Other programs are told of what happens: signed, tried again for three days, each delivery written down.

create table hooks (
  business_id uuid not null references businesses,
  id uuid not null,
  url text not null,
  kinds text[] not null,
  state text not null default 'on' constraint hooks_state_known check (state in ('on', 'off', 'removed')),
  -- Encrypted with a key that does not stand here; the one before is good beside it for a while.
  secret bytea not null,
  earlier_secret bytea,
  earlier_until timestamptz,
  made_at timestamptz not null,
  by_name text not null,
  -- When owners were last told that nothing arrives.
  told_at timestamptz,
  primary key (business_id, id),
  constraint hooks_earlier_whole check ((earlier_secret is null) = (earlier_until is null))
);
select protect_table('hooks', 'select, insert, update');

create table hook_deliveries (
  business_id uuid not null references businesses,
  id uuid not null,
  hook_id uuid not null,
  -- The same for all programs that are told of one thing.
  event_id uuid not null,
  kind text not null,
  about jsonb not null,
  details jsonb not null,
  happened_at timestamptz not null,
  -- What is sent, as it was first made: each try sends the same.
  body text,
  state text not null default 'waiting' constraint hook_deliveries_state_known check (state in ('waiting', 'done', 'given-up')),
  tries smallint not null default 0,
  -- The status of the last answer, or why there was none.
  outcome text not null default '',
  tried_at timestamptz,
  next_at timestamptz,
  primary key (business_id, id),
  foreign key (business_id, hook_id) references hooks (business_id, id)
);
create index hook_deliveries_of_hook on hook_deliveries (business_id, hook_id, happened_at desc, id desc);
select protect_table('hook_deliveries', 'select, insert, update');

alter table log_entries drop constraint log_entries_kind_known;
alter table log_entries add constraint log_entries_kind_known
  check (kind in ('profile', 'taxes', 'charging', 'tariff', 'partner', 'payouts', 'bank-account', 'vouchers', 'signed-in', 'sign-in-failed',
    'signed-out', 'password', 'signed-up', 'address-confirmed', 'address-changed', 'password-asked', 'sessions-ended', 'invited',
    'invitation-withdrawn', 'joined', 'rights', 'left', 'step-added', 'step-removed', 'recovery-codes', 'recovery-used', 'step-failed',
    'steps-lost', 'steps-kept', 'address-moved', 'access-rules', 'identity', 'identity-seen', 'hooks'));
alter table messages drop constraint messages_kind_known;
alter table messages add constraint messages_kind_known check (kind in (
  'invoice', 'receipt', 'payment-notice', 'reminder', 'changed', 'cancelled', 'credit-note', 'question', 'answer',
  'trial', 'statement', 'notice', 'request', 'order-notice', 'refund', 'gift-letter', 'plan-link', 'plan-reminder',
  'charge-notice', 'charge-refused', 'card-asked', 'own-page', 'plan-ended', 'part-due', 'settings-changed', 'plan-ending', 'plan-over',
  'plan-changed', 'plan-proposed', 'receipt-taken-back', 'approval-asked', 'payout-returned', 'partner-statement', 'partner-page', 'dispute',
  'debit-returned', 'voucher', 'confirm-address', 'password-link', 'password-changed', 'new-sign-in', 'invitation', 'step-changed',
  'lost-steps-link', 'steps-lost', 'codes-tried', 'address-link', 'address-moved', 'identity', 'hook-failing'));
