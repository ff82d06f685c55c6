-- The draft that bulk invoices were made from: it is gone once they are sent.
alter table bulk_invoices add column draft jsonb;
