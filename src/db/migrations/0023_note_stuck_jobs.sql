-- Jobs that fail again and again are noted with their business, so that a person sees them and can act.

create table stuck_jobs (
  business_id uuid not null references businesses,
  key text not null,
  task text not null,
  payload jsonb not null,
  failures integer not null constraint stuck_jobs_failed check (failures > 0),
  given_up boolean not null,
  -- The computer's time: it is about how long something has failed here.
  first_at timestamptz not null default now(),
  last_at timestamptz not null default now(),
  primary key (business_id, key)
);
select protect_table('stuck_jobs', 'select, insert, update, delete');

-- What the clock has brought to any business, as jobs; one that waits already stays the only one, and what failed twenty times in a row is
-- tried once an hour only. How many.
create function enqueue_due_work(at timestamptz) returns bigint
  language plpgsql security definer set search_path = public, pg_temp
  as $$
declare
  due record;
  found_due bigint := 0;
begin
  for due in
    select w.business_id, w.concern, 'due:' || w.concern || ':' || w.business_id as key from work_due(at) w
    where not exists (select from stuck_jobs s where s.business_id = w.business_id and s.key = 'due:' || w.concern || ':' || w.business_id
      and s.failures >= 20 and s.last_at > now() - interval '1 hour')
    order by w.concern, w.business_id
  loop
    perform graphile_worker.enqueue(case when due.concern = 'charges' then 'due-charges' else 'due-work' end,
      json_build_object('businessId', due.business_id, 'concern', due.concern), now(), due.key);
    found_due := found_due + 1;
  end loop;
  return found_due;
end $$;
grant execute on function enqueue_due_work(timestamptz) to dahlia_app;

-- For how many seconds each task's oldest job has waited that could run: for the health page.
create function waiting_jobs() returns table (task text, seconds float8)
  language sql stable security definer set search_path = pg_catalog, pg_temp
  as $$ select task, seconds from graphile_worker.waiting() $$;
grant execute on function waiting_jobs() to dahlia_app;
