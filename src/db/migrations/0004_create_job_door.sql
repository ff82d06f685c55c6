-- The application may add a job in its own transaction, and nothing else: the queue belongs to the jobs role.

create function enqueue_job(task text, payload jsonb, job_key text, run_at timestamptz) returns void
  language plpgsql security definer set search_path = pg_catalog, pg_temp
  as $$
begin
  perform graphile_worker.enqueue(task, payload::json, run_at, job_key);
end $$;
revoke all on function enqueue_job(text, jsonb, text, timestamptz) from public;
grant execute on function enqueue_job(text, jsonb, text, timestamptz) to dahlia_app;

-- When a worker last said that it is alive, for the health page.
create table worker_beats (
  worker text primary key,
  beaten_at timestamptz not null
);
grant select, insert, update on worker_beats to dahlia_app;
