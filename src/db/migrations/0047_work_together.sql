-- Several people work in one business, one person in several: whoever has shown that an address is theirs signs in to all that know it.

alter table sign_in_names drop constraint sign_in_names_pkey, add primary key (email_key, business_id);

alter table people
  drop constraint people_role_known,
  add constraint people_role_known check (role in ('owner', 'bookkeeper', 'clerk', 'reader')),
  -- Single rights beyond the role's.
  add column extra text[] not null default '{}'
    constraint people_extra_known check (extra <@ array['ask', 'take', 'give-back', 'records', 'settings']),
  -- Since when they are not here any more; what they made keeps their name.
  add column left_at timestamptz;

create table invitations (
  id uuid not null,
  business_id uuid not null references businesses,
  email text not null,
  role text not null constraint invitations_role_known check (role in ('owner', 'bookkeeper', 'clerk', 'reader')),
  extra text[] not null default '{}',
  by_name text not null,
  -- What its link is worked out from, with a key that does not stand here; a new one with each mail.
  nonce text not null,
  made_at timestamptz not null,
  good_until timestamptz not null,
  state text not null default 'open' constraint invitations_state_known check (state in ('open', 'accepted', 'withdrawn')),
  primary key (business_id, id)
);
create unique index invitations_open_unique on invitations (business_id, lower(email)) where state = 'open';
select protect_table('invitations', 'select, insert, update');

drop function session_holder(text, bytea, timestamptz, interval);
create function session_holder(begins text, hash bytea, at timestamptz, idle interval)
  returns table (person_id uuid, business_id uuid, name text, role text, extra text[], unused_seconds float8)
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select people.id, people.business_id, people.name, people.role, people.extra, extract(epoch from now() - sessions.used_at)::float8
    from sessions join people on people.business_id = sessions.business_id and people.id = sessions.person_id
    where sessions.business_id = coalesce(business_of(encode(hash, 'hex')), business_of(begins))
      and sessions.token_hash = hash and sessions.expires_at > at and sessions.used_at > now() - idle and people.left_at is null
  $$;
grant execute on function session_holder(text, bytea, timestamptz, interval) to dahlia_app;

-- Whoever confirmed the address comes first where they were last; while nobody has, the latest few who say so.
create or replace function sign_in_candidates(address text)
  returns table (person_id uuid, business_id uuid, password_hash text, confirmed boolean)
  language sql stable security definer set search_path = public, pg_temp
  as $$
    (select people.id, people.business_id, people.password_hash, true
      from sign_in_names named join people on people.business_id = named.business_id and people.id = named.person_id
      where named.email_key = lower(address) and people.left_at is null
      order by (select max(used_at) from sessions s where s.business_id = people.business_id and s.person_id = people.id) desc nulls last,
        people.created_at)
    union all
    (select people.id, people.business_id, people.password_hash, false
      from unconfirmed_names claimed join people on people.business_id = claimed.business_id and people.id = claimed.person_id
      where claimed.email_key = lower(address) and people.left_at is null
        and not exists (select from sign_in_names where email_key = lower(address))
      order by claimed.created_at desc limit 4)
  $$;

-- Makes an address its person's, unless somebody has it; two who ask at once are told apart.
create function claim_name(person uuid, address text) returns boolean
  language plpgsql security definer set search_path = public, pg_temp
  as $$
begin
  perform pg_advisory_xact_lock(hashtextextended(lower(address), 0));
  if not exists (select from people where business_id = current_business() and id = person)
    or exists (select from sign_in_names where email_key = lower(address)) then
    return false;
  end if;
  insert into sign_in_names (email_key, business_id, person_id) values (lower(address), current_business(), person);
  delete from unconfirmed_names where business_id = current_business() and person_id = person;
  return true;
end $$;
grant execute on function claim_name(uuid, text) to dahlia_app;

-- What the demo's sign-in page offers: whom the demo came with, and nobody who joined or signed up since with a password of their own.
create or replace function demo_people()
  returns table (name text, email text, role text, business text)
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select people.name, people.email, people.role, businesses.name
    from people join businesses using (business_id)
    where people.email like '%.example' and people.left_at is null and businesses.signed_up_at is null
      and people.created_at <= businesses.created_at + interval '1 minute'
    order by businesses.created_at, people.created_at
  $$;

-- Where else somebody of this business works under the same address, which is known to be theirs.
create function other_desks(person uuid) returns table (business_id uuid, person_id uuid, business text, role text)
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select people.business_id, people.id, businesses.name, people.role
    from sign_in_names mine
    join sign_in_names other on other.email_key = mine.email_key and other.business_id <> mine.business_id
    join people on people.business_id = other.business_id and people.id = other.person_id and people.left_at is null
    join businesses on businesses.business_id = other.business_id
    where mine.business_id = current_business() and mine.person_id = person
    order by businesses.name, businesses.business_id
  $$;
grant execute on function other_desks(uuid) to dahlia_app;

-- One password for all desks of a person: those elsewhere get it too, and their sessions end.
create function set_password_elsewhere(person uuid, hash text) returns void
  language plpgsql security definer set search_path = public, pg_temp
  as $$
begin
  update people set password_hash = hash from other_desks(person) other
    where people.business_id = other.business_id and people.id = other.person_id;
  delete from sessions using other_desks(person) other
    where sessions.business_id = other.business_id and sessions.person_id = other.person_id;
end $$;
grant execute on function set_password_elsewhere(uuid, text) to dahlia_app;

alter table log_entries drop constraint log_entries_kind_known;
alter table log_entries add constraint log_entries_kind_known
  check (kind in ('profile', 'taxes', 'charging', 'tariff', 'partner', 'payouts', 'bank-account', 'vouchers', 'signed-in', 'sign-in-failed',
    'signed-out', 'password', 'signed-up', 'address-confirmed', 'address-changed', 'password-asked', 'sessions-ended', 'invited',
    'invitation-withdrawn', 'joined', 'rights', 'left'));
alter table messages drop constraint messages_kind_known;
alter table messages add constraint messages_kind_known check (kind in (
  'invoice', 'receipt', 'payment-notice', 'reminder', 'changed', 'cancelled', 'credit-note', 'question', 'answer',
  'trial', 'statement', 'notice', 'request', 'order-notice', 'refund', 'gift-letter', 'plan-link', 'plan-reminder',
  'charge-notice', 'charge-refused', 'card-asked', 'own-page', 'plan-ended', 'part-due', 'settings-changed', 'plan-ending', 'plan-over',
  'plan-changed', 'plan-proposed', 'receipt-taken-back', 'approval-asked', 'payout-returned', 'partner-statement', 'partner-page', 'dispute',
  'debit-returned', 'voucher', 'confirm-address', 'password-link', 'password-changed', 'new-sign-in', 'invitation'));
