-- Which window's words a draft is: a window goes on over its own earlier ones whose answer was lost, and is told of others'.
alter table invoices add column kept_by jsonb;
