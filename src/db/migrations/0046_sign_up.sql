-- A stranger signs up: writes and proves at once, sends when the address is confirmed, is paid by card when two answers are given.

alter table businesses
  -- When somebody founded it themselves; none where a program did.
  add column signed_up_at timestamptz,
  add column mail_confirmed_at timestamptz,
  -- What it is, ISIC Rev. 4, and under which name it stands on statements of cards.
  add column business_kind text not null default '' constraint businesses_kind_is_a_group check (business_kind ~ '^(\d{3})?$'),
  add column statement_name text not null default '',
  add column cards_since timestamptz,
  add constraint businesses_cards_answered check (signed_up_at is null or cards_since is null or (business_kind <> '' and statement_name <> ''));
update businesses set mail_confirmed_at = created_at, cards_since = created_at;

-- Addresses that nobody has shown to be theirs yet: several may claim one, and whoever confirms it has it.
create table unconfirmed_names (
  email_key text not null,
  business_id uuid not null references businesses,
  person_id uuid not null,
  created_at timestamptz not null,
  primary key (business_id, person_id),
  foreign key (business_id, person_id) references people (business_id, id)
);
create index unconfirmed_names_of_address on unconfirmed_names (email_key, created_at desc);
select protect_table('unconfirmed_names', 'select, insert, update, delete');

-- What somebody is asked to show by mail: that an address is theirs, or that they may choose a new password. One of each at a time.
create table mail_proofs (
  business_id uuid not null references businesses,
  person_id uuid not null,
  purpose text not null constraint mail_proofs_purpose_known check (purpose in ('confirm', 'password')),
  email text not null,
  -- What link and figures are worked out from, with a key that does not stand here.
  nonce text not null,
  made_at timestamptz not null,
  good_until timestamptz not null,
  wrong smallint not null default 0,
  used_at timestamptz,
  primary key (business_id, person_id, purpose),
  foreign key (business_id, person_id) references people (business_id, id)
);
select protect_table('mail_proofs', 'select, insert, update');

-- Which program, from which network address: for the list of where somebody is signed in.
alter table sessions add column agent text not null default '', add column address text not null default '';

drop function sign_in_candidate(text);
create function sign_in_candidates(address text)
  returns table (person_id uuid, business_id uuid, password_hash text, confirmed boolean)
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select people.id, people.business_id, people.password_hash, true
    from sign_in_names named join people on people.business_id = named.business_id and people.id = named.person_id
    where named.email_key = lower(address)
    union all
    (select people.id, people.business_id, people.password_hash, false
      from unconfirmed_names claimed join people on people.business_id = claimed.business_id and people.id = claimed.person_id
      where claimed.email_key = lower(address) and not exists (select from sign_in_names where email_key = lower(address))
      order by claimed.created_at desc limit 4)
  $$;
grant execute on function sign_in_candidates(text) to dahlia_app;

alter table log_entries drop constraint log_entries_kind_known;
alter table log_entries add constraint log_entries_kind_known
  check (kind in ('profile', 'taxes', 'charging', 'tariff', 'partner', 'payouts', 'bank-account', 'vouchers', 'signed-in', 'sign-in-failed',
    'signed-out', 'password', 'signed-up', 'address-confirmed', 'address-changed', 'password-asked', 'sessions-ended'));
alter table messages drop constraint messages_kind_known;
alter table messages add constraint messages_kind_known check (kind in (
  'invoice', 'receipt', 'payment-notice', 'reminder', 'changed', 'cancelled', 'credit-note', 'question', 'answer',
  'trial', 'statement', 'notice', 'request', 'order-notice', 'refund', 'gift-letter', 'plan-link', 'plan-reminder',
  'charge-notice', 'charge-refused', 'card-asked', 'own-page', 'plan-ended', 'part-due', 'settings-changed', 'plan-ending', 'plan-over',
  'plan-changed', 'plan-proposed', 'receipt-taken-back', 'approval-asked', 'payout-returned', 'partner-statement', 'partner-page', 'dispute',
  'debit-returned', 'voucher', 'confirm-address', 'password-link', 'password-changed', 'new-sign-in'));
