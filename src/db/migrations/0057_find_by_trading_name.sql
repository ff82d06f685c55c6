-- What was asked for under a trading name is found without reading what was not.
create index invoices_under_name on invoices (business_id, (paper ->> 'tradingNameId'), due_on, id)
  where paper ->> 'tradingNameId' is not null;
