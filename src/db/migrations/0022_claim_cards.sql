-- A card that the processor is asked to keep is claimed first: what comes to nothing is dropped there again, whatever is killed meanwhile.

create table card_claims (
  business_id uuid not null references businesses,
  -- Under which the processor was asked to keep it, without the business; of one that is only to be dropped, a name of its own.
  key text not null,
  kept_id text,
  -- With the payment it comes to something or to nothing, where it hangs on one.
  payment_id uuid,
  state text not null constraint card_claims_state_known check (state in ('open', 'dropping')),
  claimed_at timestamptz not null,
  primary key (business_id, key),
  foreign key (business_id, payment_id) references payments (business_id, id)
);
create index card_claims_of_payment on card_claims (business_id, payment_id) where payment_id is not null;
select protect_table('card_claims', 'select, insert, update, delete');
