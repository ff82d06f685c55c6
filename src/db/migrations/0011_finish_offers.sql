-- What offers lacked: yearly letters by mail, a reference of the business's own on receipts, orders that a code makes free.
alter table messages drop constraint messages_kind_known;
alter table messages add constraint messages_kind_known check (kind in (
  'invoice', 'receipt', 'payment-notice', 'reminder', 'changed', 'cancelled', 'credit-note', 'question', 'answer', 'trial', 'statement', 'notice',
  'request', 'order-notice', 'refund', 'gift-letter'));
create index messages_of_customer on messages (business_id, customer_id, kind) where kind = 'gift-letter';

-- A receipt says another reference only as a version of its own.
grant update (printed) on receipts to dahlia_app;

alter table orders drop constraint orders_total_positive;
alter table orders add constraint orders_total_not_negative check (total_minor >= 0);
alter table payments drop constraint payments_amount_positive;
alter table payments add constraint payments_amount_positive check (amount_minor > 0 or (amount_minor = 0 and tip_minor = 0 and order_id is not null));
