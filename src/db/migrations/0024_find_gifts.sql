-- Gifts of a year and of a customer, first and later payments alike: found by their receipts.
create index receipts_of_gifts on receipts (business_id, left(printed->>'paidOn', 4))
  where printed->'order'->>'donation' = 'true';
create index payments_of_customer on payments (business_id, customer_id, settled_at) where state = 'paid';
