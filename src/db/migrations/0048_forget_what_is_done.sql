-- A job that is not in the queue any more is done, or was given up and says so: what was noted of its failures is forgotten, also where
-- the program was killed between doing it and saying so. What comes due anew is there again each minute, and is counted on.
create function forget_done_jobs() returns void
  language sql security definer set search_path = public, pg_temp
  as $$
    delete from stuck_jobs s where not s.given_up and s.key not like 'due:%' and not exists (select from graphile_worker.open_keys() as open (key) where open.key = s.key)
  $$;
grant execute on function forget_done_jobs() to dahlia_app;
