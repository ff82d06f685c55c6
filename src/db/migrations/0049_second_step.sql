-- A second step when signing in: codes of an authenticator app, passkeys, recovery codes; and when somebody last showed who they are.
-- What is here belongs to whoever an address is, at all their desks: no role of a program may read or change it but by these doors.

create table sign_in_steps (
  email_key text primary key,
  -- What authenticators know their person by; it says nothing.
  handle bytea not null constraint sign_in_steps_handle_long check (length(handle) = 32),
  -- The key of the authenticator app, sealed with a key that does not stand here.
  time_key bytea,
  time_since timestamptz,
  -- The last step whose code was taken: none of it or before is taken again.
  time_step bigint not null default 0,
  -- Since when they are waited with, by who lost all of them.
  lost_at timestamptz,
  constraint sign_in_steps_time_whole check ((time_key is null) = (time_since is null))
);

create table passkeys (
  credential_id text primary key,
  email_key text not null references sign_in_steps on update cascade on delete cascade,
  public_key bytea not null,
  counter bigint not null,
  transports text[] not null,
  name text not null,
  made_at timestamptz not null,
  used_at timestamptz
);
create index passkeys_of_name on passkeys (email_key, made_at);

create table recovery_codes (
  email_key text not null references sign_in_steps on update cascade on delete cascade,
  -- Keyed, with a key that does not stand here.
  code_hash bytea not null,
  used_at timestamptz,
  primary key (email_key, code_hash)
);

-- Under which name somebody's steps stand: within a business of its own people alone; before there is one, of anybody's address.
create function steps_name(address text) returns text
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select email_key from sign_in_names
    where email_key = lower(address) and (current_business() is null or business_id = current_business()) limit 1
  $$;

create function has_step(named text) returns boolean
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select exists (select from sign_in_steps where email_key = named and time_key is not null)
      or exists (select from passkeys where email_key = named)
  $$;

create function steps_of(address text)
  returns table (handle bytea, time_key bytea, time_since timestamptz, time_step bigint, lost_at timestamptz, codes_left int, passkeys int)
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select s.handle, s.time_key, s.time_since, s.time_step, s.lost_at,
      (select count(*)::int from recovery_codes c where c.email_key = s.email_key and c.used_at is null),
      (select count(*)::int from passkeys p where p.email_key = s.email_key)
    from sign_in_steps s where s.email_key = steps_name(address)
  $$;

create function begin_steps(address text, fresh bytea) returns void
  language sql security definer set search_path = public, pg_temp
  as $$
    insert into sign_in_steps (email_key, handle) select name, fresh from steps_name(address) name where name is not null
    on conflict do nothing
  $$;

-- Puts the key of an authenticator app there, or takes it away.
create function set_time_key(address text, sealed bytea, step bigint, at timestamptz) returns void
  language sql security definer set search_path = public, pg_temp
  as $$
    update sign_in_steps set time_key = sealed, time_since = case when sealed is not null then at end, time_step = coalesce(step, time_step)
    where email_key = steps_name(address)
  $$;

-- Takes a step's code, once; false for one that was taken, or lies before one that was.
create function take_time_step(address text, step bigint) returns boolean
  language plpgsql security definer set search_path = public, pg_temp
  as $$
begin
  update sign_in_steps set time_step = step where email_key = steps_name(address) and time_step < step;
  return found;
end $$;

create function set_steps_lost(address text, at timestamptz) returns void
  language sql security definer set search_path = public, pg_temp
  as $$ update sign_in_steps set lost_at = at where email_key = steps_name(address) $$;

create function forget_steps(address text) returns void
  language sql security definer set search_path = public, pg_temp
  as $$ delete from sign_in_steps where email_key = steps_name(address) $$;

create function passkeys_of(address text)
  returns table (id text, public_key bytea, counter bigint, transports text[], name text, made_at timestamptz, used_at timestamptz)
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select credential_id, p.public_key, p.counter, p.transports, p.name, p.made_at, p.used_at from passkeys p
    where p.email_key = steps_name(address) order by p.made_at, credential_id
  $$;

-- Whose a passkey is, before anybody has said who they are.
create function passkey_holder(credential text) returns table (address text, handle bytea, public_key bytea, counter bigint, transports text[])
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select s.email_key, s.handle, p.public_key, p.counter, p.transports
    from passkeys p join sign_in_steps s using (email_key) where p.credential_id = credential
  $$;

create function add_passkey(address text, credential text, key bytea, counted bigint, ways text[], called text, at timestamptz) returns boolean
  language plpgsql security definer set search_path = public, pg_temp
  as $$
begin
  insert into passkeys (credential_id, email_key, public_key, counter, transports, name, made_at)
    select credential, name, key, counted, ways, called, at from steps_name(address) name where name is not null
    on conflict do nothing;
  return found;
end $$;

-- Notes that a passkey was used. One that counts has counted on: else it was copied.
create function use_passkey(credential text, counted bigint, at timestamptz) returns boolean
  language plpgsql security definer set search_path = public, pg_temp
  as $$
begin
  update passkeys set counter = counted, used_at = at where credential_id = credential and (counted > counter or (counted = 0 and counter = 0));
  return found;
end $$;

create function remove_passkey(address text, credential text) returns text
  language sql security definer set search_path = public, pg_temp
  as $$ delete from passkeys where credential_id = credential and email_key = steps_name(address) returning name $$;

create function set_recovery_codes(address text, hashes bytea[]) returns void
  language plpgsql security definer set search_path = public, pg_temp
  as $$
begin
  delete from recovery_codes where email_key = steps_name(address);
  insert into recovery_codes (email_key, code_hash) select steps_name(address), unnest(hashes);
end $$;

create function take_recovery_code(address text, hash bytea, at timestamptz) returns boolean
  language plpgsql security definer set search_path = public, pg_temp
  as $$
begin
  update recovery_codes set used_at = at where email_key = steps_name(address) and code_hash = hash and used_at is null;
  return found;
end $$;

-- Who of the business has a second step.
create function people_with_step() returns setof uuid
  language sql stable security definer set search_path = public, pg_temp
  as $$ select person_id from sign_in_names where business_id = current_business() and has_step(email_key) $$;

-- Nobody's steps stay where nobody signs in with the address any more: whoever has it later is somebody else.
create function forget_nobodys_steps() returns trigger
  language plpgsql security definer set search_path = public, pg_temp
  as $$
begin
  delete from sign_in_steps where email_key = old.email_key and not exists (select from sign_in_names where email_key = old.email_key);
  return null;
end $$;
create trigger sign_in_names_last after delete on sign_in_names for each row execute function forget_nobodys_steps();

-- Ends the sessions that a person has at their other desks.
create function end_sessions_elsewhere(person uuid) returns void
  language sql security definer set search_path = public, pg_temp
  as $$
    delete from sessions using other_desks(person) other
    where sessions.business_id = other.business_id and sessions.person_id = other.person_id
  $$;

-- Gives a person another address at all their desks; false where it is somebody's, or stands at one of these desks.
create function move_sign_in_name(person uuid, address text) returns boolean
  language plpgsql security definer set search_path = public, pg_temp
  as $$
declare
  before text;
begin
  select email_key into before from sign_in_names where business_id = current_business() and person_id = person;
  perform pg_advisory_xact_lock(hashtextextended(key, 0)) from unnest(array[before, lower(address)]) key where key is not null order by key;
  if before is null or exists (select from sign_in_names where email_key = lower(address)) then return false; end if;
  if exists (select from people join sign_in_names mine using (business_id)
      where mine.email_key = before and lower(people.email) = lower(address)) then
    return false;
  end if;
  update people set email = address from sign_in_names mine
    where mine.email_key = before and people.business_id = mine.business_id and people.id = mine.person_id;
  update sign_in_steps set email_key = lower(address) where email_key = before;
  update sign_in_names set email_key = lower(address) where email_key = before;
  return true;
end $$;

grant execute on function steps_of(text), begin_steps(text, bytea), set_time_key(text, bytea, bigint, timestamptz),
  take_time_step(text, bigint), set_steps_lost(text, timestamptz), forget_steps(text), passkeys_of(text), passkey_holder(text),
  add_passkey(text, text, bytea, bigint, text[], text, timestamptz), use_passkey(text, bigint, timestamptz), remove_passkey(text, text),
  set_recovery_codes(text, bytea[]), take_recovery_code(text, bytea, timestamptz), people_with_step(), end_sessions_elsewhere(uuid), move_sign_in_name(uuid, text)
  to dahlia_app;

alter table businesses
  -- Whether whoever works here has to have a second step.
  add column step_required boolean not null default false,
  -- From which sum on, in minor units of the business's currency, somebody is asked again before they give back; null for the usual one.
  add column asked_above_minor bigint constraint businesses_asked_above_positive check (asked_above_minor >= 0);

-- When whoever has the session last showed who they are; the computer's own time.
alter table sessions add column proved_at timestamptz not null default now();
grant update (proved_at) on sessions to dahlia_app;

drop function session_holder(text, bytea, timestamptz, interval);
create function session_holder(begins text, hash bytea, at timestamptz, idle interval)
  returns table (person_id uuid, business_id uuid, name text, role text, extra text[], unused_seconds float8, proved_seconds float8,
    lacks_step boolean)
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select people.id, people.business_id, people.name, people.role, people.extra, extract(epoch from now() - sessions.used_at)::float8,
      extract(epoch from now() - sessions.proved_at)::float8, businesses.step_required and not has_step(lower(people.email))
    from sessions
    join people on people.business_id = sessions.business_id and people.id = sessions.person_id
    join businesses on businesses.business_id = sessions.business_id
    where sessions.business_id = coalesce(business_of(encode(hash, 'hex')), business_of(begins))
      and sessions.token_hash = hash and sessions.expires_at > at and sessions.used_at > now() - idle and people.left_at is null
  $$;
grant execute on function session_holder(text, bytea, timestamptz, interval) to dahlia_app;

alter table mail_proofs drop constraint mail_proofs_purpose_known;
alter table mail_proofs add constraint mail_proofs_purpose_known
  check (purpose in ('confirm', 'password', 'lost-steps', 'old-address', 'new-address'));

alter table log_entries drop constraint log_entries_kind_known;
alter table log_entries add constraint log_entries_kind_known
  check (kind in ('profile', 'taxes', 'charging', 'tariff', 'partner', 'payouts', 'bank-account', 'vouchers', 'signed-in', 'sign-in-failed',
    'signed-out', 'password', 'signed-up', 'address-confirmed', 'address-changed', 'password-asked', 'sessions-ended', 'invited',
    'invitation-withdrawn', 'joined', 'rights', 'left', 'step-added', 'step-removed', 'recovery-codes', 'recovery-used', 'step-failed',
    'steps-lost', 'steps-kept', 'address-moved', 'access-rules'));
alter table messages drop constraint messages_kind_known;
alter table messages add constraint messages_kind_known check (kind in (
  'invoice', 'receipt', 'payment-notice', 'reminder', 'changed', 'cancelled', 'credit-note', 'question', 'answer',
  'trial', 'statement', 'notice', 'request', 'order-notice', 'refund', 'gift-letter', 'plan-link', 'plan-reminder',
  'charge-notice', 'charge-refused', 'card-asked', 'own-page', 'plan-ended', 'part-due', 'settings-changed', 'plan-ending', 'plan-over',
  'plan-changed', 'plan-proposed', 'receipt-taken-back', 'approval-asked', 'payout-returned', 'partner-statement', 'partner-page', 'dispute',
  'debit-returned', 'voucher', 'confirm-address', 'password-link', 'password-changed', 'new-sign-in', 'invitation', 'step-changed',
  'lost-steps-link', 'steps-lost', 'codes-tried', 'address-link', 'address-moved'));
