-- A day's close has what came in cash, by cheque and by transfer beside the cards.
create index payments_by_hand on payments (business_id, settled_at, id) where method <> 'card' and state = 'paid';
