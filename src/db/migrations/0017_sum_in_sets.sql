-- What a statement changed is summed and proved once, not row by row: hundreds of rows of one transaction meet the same sum.

drop trigger invoices_sums_added on invoices;
drop trigger invoices_sums_changed on invoices;
drop function keep_invoice_sums();
drop function add_to_invoice_sums(invoices, integer);

-- What one invoice adds to the sums (sign 1) or takes from them (sign -1).
create function invoice_sum(business_id uuid, currency text, standing text, due_on date, total_minor bigint, due_minor bigint, sign integer)
  returns invoice_sums language sql immutable as $$
    select business_id, currency, standing, case when standing in ('paid', 'cancelled') then '-infinity'::date else due_on end,
      sign, sign * total_minor, sign * due_minor
  $$;
create function keep_invoice_sums() returns trigger language plpgsql as $$
declare
  moved invoice_sums[] := '{}';
begin
  if tg_op <> 'DELETE' then
    select moved || array_agg(invoice_sum(business_id, currency, standing, due_on, total_minor, due_minor, 1)) into moved
    from added where stage <> 'draft';
  end if;
  if tg_op <> 'INSERT' then
    select moved || array_agg(invoice_sum(business_id, currency, standing, due_on, total_minor, due_minor, -1)) into moved
    from removed where stage <> 'draft';
  end if;
  insert into invoice_sums as kept
  select business_id, currency, standing, due_on, sum(invoices), sum(total_minor), sum(due_minor)
  from unnest(moved) as one
  group by business_id, currency, standing, due_on
  having sum(invoices) <> 0 or sum(total_minor) <> 0 or sum(due_minor) <> 0
  -- In the order of the key, so that no two transactions wait for each other.
  order by business_id, currency, standing, due_on
  on conflict (business_id, currency, standing, due_on) do update
  set invoices = kept.invoices + excluded.invoices, total_minor = kept.total_minor + excluded.total_minor,
    due_minor = kept.due_minor + excluded.due_minor;
  return null;
end $$;
create trigger invoices_sums_added after insert on invoices referencing new table as added
  for each statement execute function keep_invoice_sums();
create trigger invoices_sums_changed after update on invoices referencing old table as removed new table as added
  for each statement execute function keep_invoice_sums();
create trigger invoices_sums_removed after delete on invoices referencing old table as removed
  for each statement execute function keep_invoice_sums();

-- The postings that one statement adds to an entry balance among themselves.
drop trigger ledger_postings_balance on ledger_postings;
drop function refuse_unbalanced_entry();
create function refuse_unbalanced_entries() returns trigger language plpgsql as $$
declare
  wrong uuid;
begin
  select entry_id into wrong from added group by business_id, entry_id, currency having sum(amount_minor) <> 0 limit 1;
  if found then
    raise exception 'ledger entry % does not balance', wrong
      using errcode = 'check_violation', constraint = 'ledger_entries_balance';
  end if;
  return null;
end $$;
create trigger ledger_postings_balance after insert on ledger_postings referencing new table as added
  for each statement execute function refuse_unbalanced_entries();
