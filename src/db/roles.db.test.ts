/** What each role of the database may do, decided here and read from the catalog: what is new and undecided fails. */
import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { afterAll, expect, test } from 'vitest';
import type { Account } from '@/core/ledger/entry';
import { asSuperuser, enter } from '../../tests/support/database';
import { foundHouse, sharedWorkshop } from '../../tests/support/workshop';
import { decidedRights, rightsTroubles } from './decided-rights';
import { ticketFor } from './ticket';

const workshop = await sharedWorkshop();
const house = await foundHouse();
const other = await foundHouse('Other');
const { DATABASE_URL = '', JOBS_DATABASE_URL = '' } = process.env;

const admin = <Row>(text: string): Promise<Row[]> => asSuperuser<Row>(workshop.admin, text);
const clients: pg.Client[] = [];
async function as(url: string): Promise<pg.Client> {
  const client = new pg.Client({ connectionString: url });
  clients.push(client);
  await client.connect();
  return client;
}
afterAll(() => Promise.all(clients.map((client) => client.end())));

const troubles = () => asPlainSuperuser((catalog) => rightsTroubles(catalog, decidedRights));
async function asPlainSuperuser<T>(work: (client: pg.Client) => Promise<T>): Promise<T> {
  return work(await as(workshop.admin));
}

test('every right, function and wall is as decided', async () => {
  expect(await troubles()).toEqual([]);
});

test('what is new and undecided is found: a table, a right, a function, a policy taken down', async () => {
  const owner = await as(DATABASE_URL.replace('dahlia_app', 'dahlia_owner'));
  await owner.query(`
    create table public.undecided (business_id uuid, note text);
    grant select on public.undecided to dahlia_app;
    grant update on public.documents to dahlia_app;
    grant select on public.people to dahlia_jobs;
    create function public.undecided() returns int language sql security definer as $$ select 1 $$;
    grant execute on function public.undecided() to public;
    alter table public.taxes disable row level security;`);
  expect((await troubles()).sort()).toEqual(
    [
      'a right of the application without a decision: undecided s',
      'a right of the application without a decision: documents siu',
      'a right of the application missing: documents si',
      'a function without a decision: undecided()',
      'the queue’s role may call: undecided()',
      'the queue’s role has a right: people s',
      'a function runs as its owner and looks for names anywhere: undecided',
      'a table of businesses without its wall: taxes',
      'a table of businesses without its wall: undecided',
    ].sort(),
  );
  await owner.query(`
    drop table public.undecided;
    revoke update on public.documents from dahlia_app;
    revoke select on public.people from dahlia_jobs;
    drop function public.undecided();
    alter table public.taxes enable row level security;`);
  expect(await troubles()).toEqual([]);
});

test('the queue’s role has nothing among the tables, neither rows nor doors', async () => {
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

test('a function that nobody has decided on is nobody’s', async () => {
  const owner = await as(DATABASE_URL.replace('dahlia_app', 'dahlia_owner'));
  await owner.query('create function public.undecided() returns int language sql as $$ select 1 $$');
  expect(await troubles()).toEqual([]);
  await owner.query('drop function public.undecided()');
});

test('the application does nothing that it was not given', async () => {
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
    'customer-credit': true,
    'on-the-way': true,
    'bank-charges': true,
    outside: true,
    disputed: true,
    'dispute-losses': true,
    'dispute-fees': true,
    vouchers: true,
    'expired-vouchers': true,
    'brought-in': true,
    'carrier-balance': true,
    'carrier-claims': true,
    postage: true,
  };
  const [row] = await admin<{ text: string }>(
    `select pg_get_constraintdef(oid) as text from pg_constraint where conname = 'ledger_postings_account_known'`,
  );
  const taken = [...(row?.text ?? '').matchAll(/'([a-z-]+)'::text/g)].map(([, name]) => name);
  expect(taken.sort()).toEqual(Object.keys(known).sort());
});
