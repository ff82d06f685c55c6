-- A reminder that waited until everything was paid is not sent any more.
alter table messages drop constraint messages_state_known;
alter table messages add constraint messages_state_known
  check (state in ('queued', 'handed-over', 'delivered', 'failed', 'bounced', 'dropped'));
