-- A message that did not arrive needs a hand until somebody has seen to it: it was sent anew, or is let be.
alter table messages add column seen_to_at timestamptz;
drop index messages_failed;
create index messages_failed on messages (business_id, created_at) where state in ('failed', 'bounced') and seen_to_at is null;
