-- The bank's statements are read, each line once, and each is matched with what it was for.
alter table ledger_postings drop constraint ledger_postings_account_known;
alter table ledger_postings add constraint ledger_postings_account_known check (account in ('receivable', 'revenue', 'tax-payable',
  'processor-clearing', 'processing-fees', 'tips', 'partner-shares', 'partners', 'bank', 'cash', 'cheques', 'other-receipts', 'customer-credit',
  'on-the-way', 'bank-charges', 'outside'));

create table bank_statements (
  id uuid not null,
  business_id uuid not null references businesses,
  -- The account's number without blanks, in capitals.
  account text not null,
  currency text not null,
  -- The bank's own number of it; empty where it has none.
  called text not null,
  from_day date,
  to_day date,
  opening_minor bigint,
  closing_minor bigint,
  balances text not null constraint bank_statements_balances_known check (balances in ('agree', 'differ', 'unknown')),
  lines integer not null,
  -- How many of them were not there yet.
  new_lines integer not null,
  name text not null,
  read_at timestamptz not null,
  by_name text not null,
  primary key (business_id, id)
);
create index bank_statements_of_account on bank_statements (business_id, account, currency, to_day);
select protect_table('bank_statements', 'select, insert');

create table bank_lines (
  id uuid not null,
  business_id uuid not null references businesses,
  statement_id uuid not null,
  account text not null,
  currency text not null,
  -- What makes it the same line however often it is read.
  key text not null,
  position integer not null,
  day date not null,
  amount_minor bigint not null constraint bank_lines_not_nothing check (amount_minor <> 0),
  text text not null,
  name text not null,
  other_account text not null,
  reference text not null,
  end_to_end text not null,
  bank_reference text not null,
  -- open: nobody knows yet; later: left for later; matched: all of it is for something.
  state text not null default 'open' constraint bank_lines_state_known check (state in ('open', 'later', 'matched')),
  primary key (business_id, id),
  constraint bank_lines_key_unique unique (business_id, account, currency, key),
  constraint bank_lines_statement_id_fkey foreign key (business_id, statement_id) references bank_statements (business_id, id)
);
create index bank_lines_of_statement on bank_lines (business_id, statement_id, position);
create index bank_lines_by_day on bank_lines (business_id, account, currency, day, position, id);
create index bank_lines_open on bank_lines (business_id, day, id) where state <> 'matched';
select protect_table('bank_lines', 'select, insert, update');

-- What a line, or a part of it, was for. What was taken back stays, and counts no more.
create table bank_matches (
  id uuid not null,
  business_id uuid not null references businesses,
  line_id uuid not null,
  kind text not null constraint bank_matches_kind_known check (kind in ('invoice', 'payout', 'refund', 'payment', 'aside')),
  -- Of an aside: what it is.
  aside text constraint bank_matches_aside_known check (aside in ('charge', 'cash', 'check', 'other')),
  words text not null,
  amount_minor bigint not null,
  invoice_id uuid,
  payment_id uuid,
  payout_id uuid,
  refund_id uuid,
  -- Those of one press are taken back together.
  press uuid not null,
  by_name text not null,
  made_at timestamptz not null,
  undone_at timestamptz,
  primary key (business_id, id),
  constraint bank_matches_line_id_fkey foreign key (business_id, line_id) references bank_lines (business_id, id),
  constraint bank_matches_invoice_id_fkey foreign key (business_id, invoice_id) references invoices (business_id, id),
  constraint bank_matches_payment_id_fkey foreign key (business_id, payment_id) references payments (business_id, id),
  constraint bank_matches_payout_id_fkey foreign key (business_id, payout_id) references payouts (business_id, id),
  constraint bank_matches_refund_id_fkey foreign key (business_id, refund_id) references refunds (business_id, id),
  constraint bank_matches_aside_where_one check ((kind = 'aside') = (aside is not null))
);
create index bank_matches_of_line on bank_matches (business_id, line_id);
create index bank_matches_of_press on bank_matches (business_id, press);
create index bank_matches_of_invoice on bank_matches (business_id, invoice_id) where invoice_id is not null;
-- A payment, a payout, a refund stands on one statement.
create unique index bank_matches_payment_once on bank_matches (business_id, payment_id) where undone_at is null and payment_id is not null;
create unique index bank_matches_payout_once on bank_matches (business_id, payout_id) where undone_at is null and payout_id is not null;
create unique index bank_matches_refund_once on bank_matches (business_id, refund_id) where undone_at is null and refund_id is not null;
select protect_table('bank_matches', 'select, insert, update');

-- What somebody said is always so.
create table bank_rules (
  id uuid not null,
  business_id uuid not null references businesses,
  words text not null,
  account text not null,
  is_in boolean not null,
  customer_id uuid,
  aside text constraint bank_rules_aside_known check (aside in ('charge', 'cash', 'check', 'other')),
  note text not null,
  made_at timestamptz not null,
  by_name text not null,
  primary key (business_id, id),
  constraint bank_rules_customer_id_fkey foreign key (business_id, customer_id) references customers (business_id, id),
  constraint bank_rules_one_of_two check ((customer_id is null) <> (aside is null)),
  constraint bank_rules_known_by check (words <> '' or account <> '')
);
create unique index bank_rules_unique on bank_rules (business_id, is_in, words, account);
create index bank_rules_of_customer on bank_rules (business_id, customer_id) where customer_id is not null;
select protect_table('bank_rules', 'select, insert, update, delete');

-- What the columns of a bank's CSV are, by its headings.
create table csv_mappings (
  business_id uuid not null references businesses,
  headings text not null,
  mapping jsonb not null,
  kept_at timestamptz not null,
  primary key (business_id, headings)
);
select protect_table('csv_mappings', 'select, insert, update');

-- Statements of our own accounts are fetched by ourselves.
alter table bank_accounts add column statements_to date;
