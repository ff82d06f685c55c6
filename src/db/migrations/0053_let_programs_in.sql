-- Other programs come in by keys: of limited rights, with a last day; what was answered to a request under a key of its own is answered again.

create table program_keys (
  business_id uuid not null references businesses,
  id uuid not null,
  name text not null constraint program_keys_named check (name <> ''),
  rights text[] not null,
  secret_hash bytea not null,
  -- Who made it: it may never do more than they may, and ends with their time here.
  person_id uuid not null,
  made_at timestamptz not null,
  good_until timestamptz not null,
  ended_at timestamptz,
  -- The computer's own time, as of sessions.
  used_at timestamptz,
  primary key (business_id, id),
  foreign key (business_id, person_id) references people (business_id, id)
);
create unique index program_keys_secret on program_keys (business_id, secret_hash);
select protect_table('program_keys', 'select, insert, update');

create table program_answers (
  business_id uuid not null references businesses,
  key_id uuid not null,
  request_key text not null,
  -- Of what was asked: another question under the same key is refused.
  fingerprint bytea not null,
  -- Null while it is worked on, and where it was broken off.
  status smallint,
  body jsonb,
  begun_at timestamptz not null,
  primary key (business_id, key_id, request_key),
  foreign key (business_id, key_id) references program_keys (business_id, id)
);
create index program_answers_begun on program_answers (business_id, begun_at);
select protect_table('program_answers', 'select, insert, update, delete');

create function key_holder(begins text, hash bytea, at timestamptz)
  returns table (business_id uuid, key_id uuid, name text, rights text[], person_id uuid, role text, extra text[], closed boolean, unused_seconds double precision)
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select k.business_id, k.id, k.name, k.rights, k.person_id, p.role, p.extra, b.closed_at is not null,
      extract(epoch from now() - k.used_at)::float8
    from program_keys k
    join people p on p.business_id = k.business_id and p.id = k.person_id
    join businesses b on b.business_id = k.business_id
    where k.business_id = business_of(begins) and k.secret_hash = hash and k.ended_at is null and k.good_until > at and p.left_at is null
  $$;
revoke all on function key_holder(text, bytea, timestamptz) from public;
grant execute on function key_holder(text, bytea, timestamptz) to dahlia_app;

-- How far the database is, for a program that is about to start.
create function newest_migration() returns text
  language plpgsql stable security definer set search_path = public, pg_temp
  as $$ begin return (select m.name from migrations m order by m.id desc limit 1); end $$;
revoke all on function newest_migration() from public;
grant execute on function newest_migration() to dahlia_app;

-- Plans as a list of other programs goes through them.
create index plans_newest on plans (business_id, created_at desc, id desc);

-- Invoices of before Dahlia are brought in with what is still owed on them.
alter table ledger_postings drop constraint ledger_postings_account_known;
alter table ledger_postings add constraint ledger_postings_account_known check (account in ('receivable', 'revenue', 'tax-payable',
  'processor-clearing', 'processing-fees', 'tips', 'partner-shares', 'partners', 'bank', 'cash', 'cheques', 'other-receipts', 'customer-credit',
  'on-the-way', 'bank-charges', 'outside', 'disputed', 'dispute-losses', 'dispute-fees', 'vouchers', 'expired-vouchers', 'brought-in'));

alter table log_entries drop constraint log_entries_kind_known;
alter table log_entries add constraint log_entries_kind_known
  check (kind in ('profile', 'taxes', 'charging', 'tariff', 'partner', 'payouts', 'bank-account', 'vouchers', 'signed-in', 'sign-in-failed',
    'signed-out', 'password', 'signed-up', 'address-confirmed', 'address-changed', 'password-asked', 'sessions-ended', 'invited',
    'invitation-withdrawn', 'joined', 'rights', 'left', 'step-added', 'step-removed', 'recovery-codes', 'recovery-used', 'step-failed',
    'steps-lost', 'steps-kept', 'address-moved', 'access-rules', 'identity', 'identity-seen', 'hooks', 'keeping', 'exported', 'customer-erased',
    'closed', 'reopened', 'keys'));
