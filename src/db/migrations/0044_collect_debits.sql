-- A bank debit is under way for some banking days, and may come back weeks after it was paid.
alter table payments
  drop constraint payments_method_known,
  add constraint payments_method_known check (method in ('card', 'debit', 'transfer', 'cash', 'cheque', 'other', 'account')),
  -- When it will be known whether a debit is paid; null for whatever is known at once.
  add column expected_at timestamptz,
  add column came_back boolean not null default false,
  -- What the payer's bank takes back is gone even where some of it went back another way before.
  drop constraint payments_refunded_in_bounds,
  add constraint payments_refunded_in_bounds
    check (refunded_minor between 0 and (amount_minor + tip_minor) * case when method = 'debit' then 2 else 1 end);
create index payments_collecting on payments (business_id, expected_at) where state = 'pending' and expected_at is not null;
drop index payments_by_card;
create index payments_at_processor on payments (business_id, settled_at, id) where method in ('card', 'debit') and state in ('paid', 'voided');

alter table refunds
  drop constraint refunds_kind_known,
  add constraint refunds_kind_known check (kind in ('refund', 'void', 'return')),
  drop constraint refunds_method_known,
  add constraint refunds_method_known check (method in ('card', 'debit', 'transfer', 'cash', 'cheque', 'other', 'account')),
  -- What the bank asks for a debit that came back.
  add column fee_minor bigint not null default 0 check (fee_minor >= 0);
create index refunds_returned on refunds (business_id, settled_at) where kind = 'return';

alter table messages drop constraint messages_kind_known;
alter table messages add constraint messages_kind_known check (kind in (
  'invoice', 'receipt', 'payment-notice', 'reminder', 'changed', 'cancelled', 'credit-note', 'question', 'answer',
  'trial', 'statement', 'notice', 'request', 'order-notice', 'refund', 'gift-letter', 'plan-link', 'plan-reminder',
  'charge-notice', 'charge-refused', 'card-asked', 'own-page', 'plan-ended', 'part-due', 'settings-changed', 'plan-ending', 'plan-over',
  'plan-changed', 'plan-proposed', 'receipt-taken-back', 'approval-asked', 'payout-returned', 'partner-statement', 'partner-page', 'dispute',
  'debit-returned'));

drop function payer_view(text);
create function payer_view(token text)
  returns table (business_id uuid, invoice_id uuid, printed jsonb, stage text, paid_minor bigint, due_minor bigint, credited_minor bigint,
    refunded_minor bigint, total_minor bigint, smallest_minor bigint, zone text, terms_accepted jsonb, pending jsonb, held_minor bigint,
    under_way jsonb, refused jsonb, receipts jsonb, approvals jsonb, asked_minor bigint, counted_minor bigint)
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select i.business_id, i.id, i.printed, i.stage, i.paid_minor, i.due_minor, i.credited_minor, i.refunded_minor, i.total_minor,
      coalesce((b.smallest_payments ->> i.currency)::bigint, 1), b.zone, i.terms_accepted,
      (select jsonb_build_object('id', p.id, 'approvalUrl', p.approval_url, 'expectedAt', p.expected_at,
          'card', p.card_scheme || ' ·' || p.card_last4) from payments p
        where p.business_id = i.business_id and p.invoice_id = i.id and p.state = 'pending' and p.exclusive),
      coalesce((select sum(p.amount_minor) from payments p
        where p.business_id = i.business_id and p.invoice_id = i.id and p.state = 'pending'), 0)::bigint,
      coalesce((select jsonb_agg(jsonb_build_object('amountMinor', p.amount_minor, 'tipMinor', p.tip_minor,
          'approval', p.approval_url is not null, 'expectedAt', p.expected_at) order by p.started_at, p.id)
        from payments p where p.business_id = i.business_id and p.invoice_id = i.id and p.state = 'pending'), '[]'),
      (select case when last.state = 'refused' then jsonb_build_object('reason', last.reason, 'at', last.started_at) end
        from (select state, reason, started_at from (
            select state, reason, started_at, id from payments p where p.business_id = i.business_id and p.invoice_id = i.id
            union all
            -- A debit that came back is the latest word as well.
            select 'refused', r.wish ->> 'why', r.settled_at, r.id from refunds r
              join payments p on p.business_id = r.business_id and p.id = r.payment_id
            where p.business_id = i.business_id and p.invoice_id = i.id and r.kind = 'return'
          ) as tries order by started_at desc, id desc limit 1) as last),
      coalesce((select jsonb_agg(jsonb_build_object('number', r.number, 'amountMinor', p.amount_minor, 'tipMinor', p.tip_minor,
          'at', p.settled_at, 'method', p.method, 'card', coalesce(p.card_scheme || ' ·' || p.card_last4, '')) order by r.issued_at, r.id)
        from receipts r join payments p on p.business_id = r.business_id and p.id = r.payment_id and p.state = 'paid'
        where r.business_id = i.business_id and r.invoice_id = i.id), '[]'),
      coalesce((select jsonb_agg(one) from (
          select distinct on (a.file_id, a.approver_id) a.file_id as "fileId", a.approver_id as "approverId", a.decision, a.by_name as "byName", a.decided_at as at
          from approvals a where a.business_id = i.business_id and a.invoice_id = i.id
          order by a.file_id, a.approver_id, a.decided_at desc) as one), '[]'),
      coalesce((select sum(c.amount_minor) from charges c
        where c.business_id = i.business_id and c.invoice_id = i.id and c.state in ('billed', 'refused')), 0)::bigint,
      coalesce((select sum(c.amount_minor) from charges c
        where c.business_id = i.business_id and c.invoice_id = i.id and c.state = 'charged'), 0)::bigint
    from invoices i join businesses b on b.business_id = i.business_id
    where i.business_id = business_of(token) and i.link_token = token and i.stage <> 'draft'
  $$;
revoke all on function payer_view(text) from public;
grant execute on function payer_view(text) to dahlia_app;
