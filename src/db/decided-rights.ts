/** What each role of the database may do, decided here: a test and every restore compare it with the catalog. */
import type { Connection } from './pool';

/** Rights that are decided. */
export type DecidedRights = {
  /** The application's on each table: s selects, i inserts, u updates, d deletes; within the business of its ticket. */
  readonly tables: readonly string[];
  /** Single columns that it may change where the row stays. */
  readonly columns: readonly string[];
  /** The doors and helpers that it may call; nobody else may call any function of ours. */
  readonly functions: readonly string[];
};

export const decidedRights: DecidedRights = {
  tables:
    `approvals si, attempt_limits siud, authorisation_texts si, authorisations siu, bank_accounts siu, bank_lines siu, bank_matches siu, bank_rules siud, bank_statements si, bulk_invoices siu, bulk_rows siu, businesses siu,
    card_claims siud, cards siu, carrier_moves siu, carrier_statements siu, charges siud, code_sums siu, collections siu, counters siu, credit_notes si, csv_mappings siu, customers siu, daily_looks siu, day_batches siu,
    discount_codes siu, digital_goods siud, digital_grants siu, disputes siu, documents si, earlier_names s, files sid, handover_lines siu, handovers siu, hook_deliveries siu, hooks siu, identity_checks siu, identity_members siud, identity_pictures siud, invitations siu, invoice_sums siu, invoice_versions si, invoices siud,
    item_options siu, items siu, ledger_entries si, ledger_postings si, link_keys si, log_entries si, mail_proofs siu, messages siu, news siud,
    number_series siud, offer_names sid, offer_revisions sid, offer_sums siu, offer_visits siu, offers siud, orders siu,
    page_versions sid, parcel_claims siu, parcel_lines sid, parcel_profiles siu, parcel_rules siud, parcel_scans si, parcels siud, partner_movements si, partners siu, payment_shares siu, payments siu, payout_days siu, payouts siu, people siu, pick_ups siu, plans siud, program_answers siud, program_keys siu, questions siu, rates siu,
    receipts si, recurring_invoices siu, recurring_runs siu, refunds siu, register_sums siu, reminders siud, requests siu,
    return_lines siu, returns siu, saved_lists siud, sessions sid, sign_in_names siud, stock_comebacks si, stock_movements si, stock_promises sid, stuck_jobs siud, taxes siu, templates siud, terms siu,
    terms_versions si, timeline si, transfer_files si, unconfirmed_names siud, voucher_moves si, vouchers siu, worker_beats siu`
      .split(',')
      .map((line) => line.trim()),
  columns: ['receipts.printed UPDATE', 'sessions.proved_at UPDATE', 'sessions.used_at UPDATE'],
  functions: [
    'add_passkey(text,text,bytea,bigint,text[],text,timestamp with time zone)',
    'address_taken(text)',
    'begin_steps(text,bytea)',
    'business_ids()',
    'business_of(text)',
    'claim_name(uuid,text)',
    'current_business()',
    'customers_like_name(text)',
    'customers_matching(text,text,text,integer)',
    'customers_things(uuid)',
    'due_work(timestamp with time zone)',
    'end_sessions_elsewhere(uuid)',
    'enqueue_due_work(timestamp with time zone)',
    'enqueue_job(text,jsonb,text,timestamp with time zone)',
    'erase_business(date)',
    'everything_matching(text,text,text,text,text,boolean,text,bigint,integer)',
    'forget_customer(uuid,text,timestamp with time zone)',
    'forget_done_jobs()',
    'forget_old(timestamp with time zone,timestamp with time zone,timestamp with time zone,timestamp with time zone,text)',
    'forget_papers(uuid,date,text,timestamp with time zone)',
    'forget_steps(text)',
    'framing_sites(text)',
    'invoice_sum(uuid,text,text,date,bigint,bigint,integer)',
    'invoices_matching(text,text,bigint,integer)',
    'key_holder(text,bytea,timestamp with time zone)',
    'link_holder(text)',
    'link_key(uuid)',
    'move_sign_in_name(uuid,text)',
    'newest_migration()',
    'offer_holder(text)',
    'order_holder(text)',
    'other_desks(uuid)',
    'passkey_holder(text)',
    'passkeys_of(text)',
    'payer_view(text)',
    'payments_matching(text,text,text,text,text,text,bigint[],integer)',
    'payments_with_item(uuid)',
    'people_with_step()',
    'plan_holder(text)',
    'remove_passkey(text,text)',
    'session_holder(text,bytea,timestamp with time zone,interval)',
    'set_password_elsewhere(uuid,text)',
    'set_writing_elsewhere(uuid,text,text)',
    'set_recovery_codes(text,bytea[])',
    'set_steps_lost(text,timestamp with time zone)',
    'set_time_key(text,bytea,bigint,timestamp with time zone)',
    'sign_in_candidates(text)',
    'steps_of(text)',
    'take_recovery_code(text,bytea,timestamp with time zone)',
    'take_time_step(text,bigint)',
    'use_passkey(text,bigint,timestamp with time zone)',
    'waiting_jobs()',
    'work_due(timestamp with time zone)',
  ],
};

// Partitions have no rights of their own: they are reached through their table.
const TABLES = `pg_class where relnamespace = 'public'::regnamespace and relkind in ('r', 'p', 'v', 'S') and not relispartition`;
const FUNCTIONS = `pg_proc p left join pg_depend d on d.objid = p.oid and d.deptype = 'e'
  where pronamespace = 'public'::regnamespace and d.objid is null`;

const heldBy = (grantee: string): string =>
  `select relname || ' ' || string_agg(lower(left(privilege_type, 1)), '' order by array_position(
     array['SELECT', 'INSERT', 'UPDATE', 'DELETE'], privilege_type)) as line
   from (select relname, relacl from ${TABLES}) as t, aclexplode(relacl) where grantee = ${grantee} group by relname`;

/** What of the walls is otherwise than decided, each as a sentence. @param catalog a superuser's connection to the database */
export async function rightsTroubles(catalog: Connection, decided: DecidedRights): Promise<string[]> {
  const lines = async (text: string): Promise<string[]> =>
    (await catalog.query(`select line from (${text}) as of order by line`)).rows.map(({ line }) => String(line));
  const differences = (what: string, found: readonly string[], wanted: readonly string[]): string[] => [
    ...found.filter((line) => !wanted.includes(line)).map((line) => `${what} without a decision: ${line}`),
    ...wanted.filter((line) => !found.includes(line)).map((line) => `${what} missing: ${line}`),
  ];
  const none = async (what: string, text: string): Promise<string[]> =>
    (await lines(text)).map((line) => `${what}: ${line}`);
  const may = (role: string) =>
    `select p.oid::regprocedure::text as line from ${FUNCTIONS} and has_function_privilege('${role}', p.oid, 'execute')`;
  return [
    ...differences('a right of the application', await lines(heldBy(`'dahlia_app'::regrole`)), decided.tables),
    ...differences(
      'a right to a column',
      await lines(
        `select attrelid::regclass || '.' || attname || ' ' || privilege_type as line from pg_attribute, aclexplode(attacl)
         where grantee in ('dahlia_app'::regrole, 'dahlia_jobs'::regrole, 0) and attrelid in (select oid from ${TABLES})`,
      ),
      decided.columns,
    ),
    ...differences('a function', await lines(may('dahlia_app')), decided.functions),
    ...(await none('the queue’s role may call', may('dahlia_jobs'))),
    ...(await none('the queue’s role has a right', heldBy(`'dahlia_jobs'::regrole`))),
    ...(await none('everybody has a right', heldBy('0'))),
    ...(await none(
      'everybody may enter the database',
      `select datname::text as line from pg_database, aclexplode(datacl) where datname = current_database() and grantee = 0`,
    )),
    ...(await none(
      'a role is more than it must be',
      `select rolname::text as line from pg_roles where rolname like 'dahlia%' and (rolsuper or rolbypassrls or rolcreaterole or rolcreatedb
         or rolreplication or exists (select from pg_auth_members m where m.member = pg_roles.oid))`,
    )),
    ...(await none(
      'a function runs as its owner and looks for names anywhere',
      `select proname::text as line from ${FUNCTIONS} and prosecdef and not coalesce(proconfig::text, '') like '%search_path=%pg_temp%'`,
    )),
    ...(await none(
      'a table of businesses without its wall',
      `select relname::text as line from (select oid, relname, relrowsecurity from ${TABLES} and relkind in ('r', 'p')) as t
       where exists (select from pg_attribute where attrelid = t.oid and attname = 'business_id' and not attisdropped)
         and not (relrowsecurity and exists (select from pg_policy where polrelid = t.oid))`,
    )),
  ];
}
