-- The log: what was changed of what holds for the whole business, and who signed in or tried to. Sessions end when nobody is there.

create table log_entries (
  business_id uuid not null references businesses,
  id uuid not null,
  kind text not null constraint log_entries_kind_known check (kind in ('profile', 'taxes', 'charging', 'partner', 'signed-in',
    'sign-in-failed', 'signed-out', 'password')),
  person_id uuid,
  by_name text not null,
  -- From where, as the network has it; empty where that is not asked.
  address text not null default '',
  -- What was changed: in words, from what to what.
  changes jsonb not null default '[]' constraint log_entries_changes_listed check (jsonb_typeof(changes) = 'array'),
  noted_at timestamptz not null,
  primary key (business_id, id),
  foreign key (business_id, person_id) references people (business_id, id)
);
create index log_entries_latest on log_entries (business_id, noted_at desc, id desc);
select protect_table('log_entries', 'select, insert');

create function refuse_change_of_log() returns trigger language plpgsql as $$
begin
  raise exception 'the log is only ever added to' using errcode = 'insufficient_privilege';
end $$;
create trigger log_entries_append_only before update or delete or truncate on log_entries
  for each statement execute function refuse_change_of_log();

-- When somebody last asked for something under it. The computer's time, not the business's: it is about a person who is there or not.
alter table sessions add column used_at timestamptz not null default now();
grant update (used_at) on sessions to dahlia_app;

drop function session_holder(text, bytea, timestamptz);
create function session_holder(begins text, hash bytea, at timestamptz, idle interval)
  returns table (person_id uuid, business_id uuid, name text, role text, unused_seconds float8)
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select people.id, people.business_id, people.name, people.role, extract(epoch from now() - sessions.used_at)::float8
    from sessions join people on people.business_id = sessions.business_id and people.id = sessions.person_id
    where sessions.business_id = coalesce(business_of(encode(hash, 'hex')), business_of(begins))
      and sessions.token_hash = hash and sessions.expires_at > at and sessions.used_at > now() - idle
  $$;
grant execute on function session_holder(text, bytea, timestamptz, interval) to dahlia_app;

alter table messages drop constraint messages_kind_known;
alter table messages add constraint messages_kind_known check (kind in (
  'invoice', 'receipt', 'payment-notice', 'reminder', 'changed', 'cancelled', 'credit-note', 'question', 'answer',
  'trial', 'statement', 'notice', 'request', 'order-notice', 'refund', 'gift-letter', 'plan-link', 'plan-reminder',
  'charge-notice', 'charge-refused', 'card-asked', 'own-page', 'plan-ended', 'part-due', 'settings-changed'));
