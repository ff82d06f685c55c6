/** What each role of the database may do, decided here and read from the catalog: what is new and undecided fails. */
import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { afterAll, expect, test } from 'vitest';
import type { Account } from '@/core/ledger/entry';
import { asSuperuser, enter } from '../../tests/support/database';
import { foundHouse, sharedWorkshop } from '../../tests/support/workshop';
import { ticketFor } from './ticket';

const workshop = await sharedWorkshop();
const house = await foundHouse();
const other = await foundHouse('Other');
const { DATABASE_URL = '', JOBS_DATABASE_URL = '' } = process.env;

/** The application: s selects, i inserts, u updates, d deletes; within the business of its ticket, but for what is copied everywhere. */
const APPLICATION = `
  approvals si, attempt_limits siud, authorisation_texts si, authorisations siu, bulk_invoices siu, bulk_rows siu, businesses siu,
  card_claims siud, cards siu, charges siud, code_sums siu, counters siu, credit_notes si, customers siu, daily_looks siu, day_batches siu,
  discount_codes siu, documents si, earlier_names s, files sid, invoice_sums siu, invoice_versions si, invoices siud,
  item_options siu, items siu, ledger_entries si, ledger_postings si, link_keys si, log_entries si, messages siu,
  number_series siud, offer_names sid, offer_revisions sid, offer_sums siu, offer_visits siu, offers siud, orders siu,
  page_versions sid, partners siu, payment_shares siu, payments siu, people siu, plans siud, questions siu, rates siu,
  receipts si, received_by_day siu, recurring_invoices siu, recurring_runs siu, refunds siu, reminders siud, requests siu,
  saved_lists siud, sessions sid, sign_in_names siud, stock_promises sid, stuck_jobs siud,
  taxes siu, templates siud, terms siu,
  terms_versions si, timeline si, worker_beats siu`;

/** Single columns that it may change where the row stays. */
const COLUMNS = ['receipts.printed UPDATE', 'sessions.used_at UPDATE'];

/** The doors and helpers that it may call; nobody else may call any function of ours. */
const FUNCTIONS = [
  'address_taken(text)',
  'business_ids()',
  'business_of(text)',
  'current_business()',
  'customers_like_name(text)',
  'customers_matching(text,text,text,integer)',
  'enqueue_due_work(timestamp with time zone)',
  'enqueue_job(text,jsonb,text,timestamp with time zone)',
  'framing_sites(text)',
  'invoice_sum(uuid,text,text,date,bigint,bigint,integer)',
  'invoices_matching(text,text,bigint,integer)',
  'link_holder(text)',
  'link_key(uuid)',
  'offer_holder(text)',
  'order_holder(text)',
  'payer_view(text)',
  'plan_holder(text)',
  'session_holder(text,bytea,timestamp with time zone,interval)',
  'sign_in_candidate(text)',
  'waiting_jobs()',
  'work_due(timestamp with time zone)',
];

const admin = <Row>(text: string): Promise<Row[]> => asSuperuser<Row>(workshop.admin, text);
const clients: pg.Client[] = [];
async function as(url: string): Promise<pg.Client> {
  const client = new pg.Client({ connectionString: url });
  clients.push(client);
  await client.connect();
  return client;
}
afterAll(() => Promise.all(clients.map((client) => client.end())));

const held = (role: string) =>
  admin<{ line: string }>(
    `select relname || ' ' || string_agg(lower(left(privilege_type, 1)), '' order by array_position(
       array['SELECT', 'INSERT', 'UPDATE', 'DELETE'], privilege_type)) as line
     from pg_class, aclexplode(relacl) where relnamespace = 'public'::regnamespace and relkind in ('r', 'p', 'v', 'S') and not relispartition
       and grantee = '${role}'::regrole group by relname order by relname`,
  );
const OURS = `from pg_proc p left join pg_depend d on d.objid = p.oid and d.deptype = 'e'
  where pronamespace = 'public'::regnamespace and d.objid is null`;

test('the application has the rights that are decided, table by table', async () => {
  const decided = APPLICATION.split(',').map((line) => line.trim());
  expect((await held('dahlia_app')).map(({ line }) => line)).toEqual(decided);
  const columns = await admin<{ line: string }>(
    `select attrelid::regclass || '.' || attname || ' ' || privilege_type as line from pg_attribute, aclexplode(attacl)
     where grantee in ('dahlia_app'::regrole, 'dahlia_jobs'::regrole, 0) and attrelid::regclass::text !~ '_\\d$' order by 1`,
  );
  expect(columns.filter(({ line }) => !line.startsWith('pg_')).map(({ line }) => line)).toEqual(COLUMNS);
});

test('the queue’s role has nothing among the tables, and nobody at all has anything by being somebody', async () => {
  expect(await held('dahlia_jobs')).toEqual([]);
  const everybody = await admin(
    `select relname from pg_class, aclexplode(relacl) where relnamespace = 'public'::regnamespace and grantee = 0`,
  );
  expect(everybody).toEqual([]);
  const jobs = await as(JOBS_DATABASE_URL);
  for (const move of [
    'select password_hash from public.people',
    `select * from public.sign_in_candidate('x')`,
    `select public.payer_view('x')`,
    'select public.business_ids()',
    'create table public.mine (id int)',
  ]) {
    await expect(jobs.query(move), move).rejects.toMatchObject({ code: '42501' });
  }
});

test('functions are for those who need them, also the next one', async () => {
  const may = (role: string) =>
    admin<{ name: string }>(
      `select p.oid::regprocedure::text as name ${OURS} and has_function_privilege('${role}', p.oid, 'execute') order by 1`,
    );
  expect((await may('dahlia_app')).map(({ name }) => name)).toEqual(FUNCTIONS);
  expect(await may('dahlia_jobs')).toEqual([]);
  const owner = await as(DATABASE_URL.replace('dahlia_app', 'dahlia_owner'));
  await owner.query('create function public.undecided() returns int language sql as $$ select 1 $$');
  expect((await may('dahlia_app')).map(({ name }) => name)).toEqual(FUNCTIONS);
  await owner.query('drop function public.undecided()');
  // Whatever runs as its owner says in which schemas it looks, so that nobody puts something of his own before them.
  const loose = await admin(
    `select proname ${OURS} and prosecdef and not coalesce(proconfig::text, '') like '%search_path=%pg_temp%'`,
  );
  expect(loose).toEqual([]);
});

test('no role is more than it must be, and the database lets in its own only', async () => {
  const roles = await admin(
    `select rolname as role from pg_roles where rolname like 'dahlia%' and (rolsuper or rolbypassrls or rolcreaterole or rolcreatedb
       or rolreplication or exists (select from pg_auth_members m where m.member = pg_roles.oid))`,
  );
  expect(roles).toEqual([]);
  const open = await admin(
    `select datname from pg_database, aclexplode(datacl) where datname = current_database() and grantee = 0`,
  );
  expect(open).toEqual([]);
  const app = await as(DATABASE_URL);
  await enter(app, house.business.id);
  for (const move of [
    'create table mine (id int)',
    'create temp table mine (id int)',
    'create schema mine',
    'select * from ticket_keys',
    'update ticket_keys set inner_pad = outer_pad',
    'select * from graphile_worker.jobs',
    `select graphile_worker.add_job('minute')`,
    'select demo_people()',
    'update ledger_entries set words = $$x$$',
    'update log_entries set by_name = $$x$$',
    'update sessions set expires_at = now()',
    'alter table people disable row level security',
    'set role dahlia_owner',
    'set session_replication_role = replica',
    `copy people to '/tmp/people'`,
    'select pg_read_file($$/etc/passwd$$)',
  ]) {
    await expect(app.query(move), move).rejects.toMatchObject({ code: '42501' });
  }
});

test('only a ticket that was signed for this connection opens a business', async () => {
  const app = await as(DATABASE_URL);
  const seen = async (ticket: string) => {
    await app.query(`select set_config('dahlia.ticket', $1, false)`, [ticket]);
    return (await app.query('select business_id from businesses')).rows.map((row) => row.business_id);
  };
  const { rows } = await app.query('select pg_backend_pid() as process');
  const mine = ticketFor(house.business.id, rows[0].process);
  expect(await seen(mine)).toEqual([house.business.id]);
  const forged = [
    '',
    other.business.id,
    `${other.business.id}.${mine.slice(37)}`,
    ticketFor(house.business.id, rows[0].process + 1),
    ticketFor(house.business.id, rows[0].process, 'another secret'),
    `${mine}0`,
    mine.toUpperCase(),
    `${house.business.id}.${'0'.repeat(64)}`,
    `' or true or '${'x'.repeat(90)}`.slice(0, 101),
  ];
  for (const ticket of forged) expect(await seen(ticket), ticket).toEqual([]);
  // The setting of before opens nothing any more.
  await app.query(`select set_config('dahlia.business_id', $1, false)`, [house.business.id]);
  expect((await app.query('select 1 from businesses')).rowCount).toBe(0);
  expect(await seen(mine)).toEqual([house.business.id]);
});

test('a job is put there for the transaction’s own business only', async () => {
  const app = await as(DATABASE_URL);
  await enter(app, house.business.id);
  const put = (businessId: string) =>
    app.query(`select enqueue_job('settle-refund', $1, $2, now())`, [
      JSON.stringify({ businessId, refundId: randomUUID() }),
      randomUUID(),
    ]);
  await put(house.business.id);
  await expect(put(other.business.id)).rejects.toMatchObject({ code: '42501' });
  await expect(app.query(`select enqueue_job('minute', '{}', 'x', now())`)).rejects.toMatchObject({ code: '42501' });
});

test('the accounts that the database takes are those that the core knows', async () => {
  const known: Readonly<Record<Account, true>> = {
    receivable: true,
    revenue: true,
    'tax-payable': true,
    'processor-clearing': true,
    'processing-fees': true,
    tips: true,
    'partner-shares': true,
    partners: true,
    bank: true,
    cash: true,
    cheques: true,
    'other-receipts': true,
  };
  const [row] = await admin<{ text: string }>(
    `select pg_get_constraintdef(oid) as text from pg_constraint where conname = 'ledger_postings_account_known'`,
  );
  const taken = [...(row?.text ?? '').matchAll(/'([a-z-]+)'::text/g)].map(([, name]) => name);
  expect(taken.sort()).toEqual(Object.keys(known).sort());
});
