/** The register over a million payments: its pages beside the bare keyset SELECT, its sums, its search, and a file of all beside COPY TO. */
import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { type RegisterAsk, WHOLE_REGISTER } from '@/core/register/ask';
import { registerFile, registerOf, registerSums } from '@/flows/register/register';
import { foundHouse, type House, sentInvoice } from '../../tests/support/workshop';
import { report, timedEach } from './report';

const ROUNDS = 60;

/** Takes a table's indexes away that nothing depends on; run afterwards, it makes them again. Filling is many times faster without. */
async function withoutIndexes(admin: pg.Client, tables: readonly string[]): Promise<() => Promise<void>> {
  const { rows } = await admin.query<{ name: string; made: string }>(
    `select indexrelid::regclass::text as name, pg_get_indexdef(indexrelid) as made from pg_index
     where indrelid = any($1::regclass[]) and not exists (select from pg_constraint where conindid = indexrelid)`,
    [tables],
  );
  for (const { name } of rows) await admin.query(`drop index ${name}`);
  return async () => {
    await admin.query(`set maintenance_work_mem = '512MB'`);
    for (const { made } of rows) await admin.query(made);
  };
}

/** Writes many payments of one invoice straight into the table, a hundredth of them with a refund; the sums are made afterwards. */
async function fill(admin: pg.Client, house: House, count: number): Promise<void> {
  const { id: invoiceId } = await sentInvoice(house);
  const { id } = house.business;
  const people = Math.max(100, Math.floor(count / 25));
  await admin.query(
    `insert into customers (id, business_id, name, email, search, name_key, created_at, changed_at)
     select gen_random_uuid(), $1, name, 'c' || n || '@post.example', lower(name), lower(name), now(), now()
     from (select n, (array['Wilhelmina','Odile','Anselm','Petra'])[1 + n % 4] || ' Strand ' || n as name from generate_series(1, $2) as n) as one`,
    [id, people],
  );
  await admin.query(
    `insert into payments (id, business_id, invoice_id, customer_id, channel, currency, amount_minor, fee_minor, agreed_fee_minor, state, attempt_key,
       sale_id, card_scheme, card_last4, method, started_at, settled_at, exclusive)
     select gen_random_uuid(), $1, $2, who.id, (array['invoice','link','page','button','plan','desk'])[1 + n % 6], 'USD',
       1000 + (n::bigint * 7919) % 500000, 59, case when n % 500 = 0 then 58 else 59 end, case when n % 40 = 0 then 'refused' else 'paid' end,
       n::text, 'sale-' || n, 'Corvid', lpad((n % 10000)::text, 4, '0'), case when n % 50 = 0 then 'cheque' else 'card' end,
       now() - make_interval(secs => n * 40), now() - make_interval(secs => n * 40), false
     from generate_series(1, $3) as n
     join (select id, row_number() over (order by name) as place from customers where business_id = $1) as who on who.place = 1 + n % $4`,
    [id, invoiceId, count, people],
  );
  await admin.query(
    `insert into refunds (id, business_id, payment_id, kind, amount_minor, reason, state, request_key, by_name, started_at, settled_at)
     select gen_random_uuid(), $1, id, 'refund', 500, 'Cracked', 'done', gen_random_uuid(), 'Ada', settled_at + interval '1 hour', settled_at + interval '1 hour'
     from payments where business_id = $1 and state = 'paid' and attempt_key::int % 100 = 1`,
    [id],
  );
  await admin.query(
    `insert into register_sums
     select business_id, currency, settled_at::date, channel, method, count(*), sum(amount_minor), 0, 0 from payments
     where business_id = $1 and state = 'paid' group by 1, 2, 3, 4, 5`,
    [id],
  );
}

/** @param adminUrl the superuser's, of a database whose settings this process already has */
export async function measureRegister(adminUrl: string, count: number): Promise<void> {
  const admin = new pg.Client({ connectionString: adminUrl });
  await admin.connect();
  const house = await foundHouse('Register');
  await admin.query('alter table payments disable trigger payments_sums_added');
  const again = await withoutIndexes(admin, ['payments', 'refunds']);
  await fill(admin, house, count);
  await again();
  await admin.query('alter table payments enable trigger payments_sums_added');
  await admin.query('vacuum analyze');
  const p50 = new Map<string, number>();
  const measure = async (what: string, work: (round: number) => Promise<unknown>) => {
    await timedEach(5, work);
    const { times, seconds } = await timedEach(ROUNDS, work);
    report(`register: ${what}`, times, seconds, { payments: count });
    p50.set(what, [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)] ?? 0);
  };
  const deep = { key: new Date(Date.now() - count * 36_000).toISOString(), id: randomUUID() };
  const page = (change: Partial<RegisterAsk>, after: typeof deep | null = null) =>
    registerOf(house.owner, { ...WHOLE_REGISTER, ...change }, after);
  const bare = (after: typeof deep | null) =>
    admin.query(
      `select * from payments where business_id = $1 and (at, id) < ($2::timestamptz, $3::uuid) order by at desc, id desc limit 41`,
      [house.business.id, after?.key ?? '9999-01-01', after?.id ?? deep.id],
    );
  await measure('bare keyset SELECT, first page', () => bare(null));
  await measure('bare keyset SELECT, deep page', () => bare(deep));
  await measure('first page', () => page({}));
  await measure('deep page', () => page({}, deep));
  await measure('a way', () => page({ way: 'cheque' }));
  await measure('fee differs', () => page({ fee: 'differs' }));
  await measure('disputed', () => page({ state: 'disputed' }));
  await measure('not in the account yet', () => page({ landed: 'not-yet' }));
  await measure('a name', (round) => page({ words: `odile strand ${4 * round + 1}` }));
  await measure('last digits', (round) => page({ words: String(1000 + round) }));
  await measure('a sum', (round) => page({ words: `${10 + round}.00` }));
  await measure('sums that are kept', () => registerSums(house.owner, { ...WHOLE_REGISTER, way: 'card' }));
  const counting = await timedEach(3, () => registerSums(house.owner, { ...WHOLE_REGISTER, state: 'paid' }));
  report('register: sums that are counted', counting.times, counting.seconds, { payments: count });
  for (const which of ['first page', 'deep page'])
    process.stdout.write(
      `${JSON.stringify({ name: `register, ${which} to the bare SELECT`, ratio: Number(((p50.get(which) ?? 0) / (p50.get(`bare keyset SELECT, ${which}`) || 1)).toFixed(2)) })}\n`,
    );
  const copying = performance.now();
  await admin.query(
    `copy (select * from payments where business_id = '${house.business.id}' order by at desc, id desc) to '/dev/null' csv`,
  );
  const copied = count / ((performance.now() - copying) / 1000);
  for (const form of ['csv', 'json'] as const) {
    const begun = performance.now();
    let most = 0;
    let bytes = 0;
    for await (const part of await registerFile(house.owner, WHOLE_REGISTER, form)) {
      bytes += part.length;
      most = Math.max(most, process.memoryUsage().heapUsed);
    }
    const perSecond = count / ((performance.now() - begun) / 1000);
    process.stdout.write(
      `${JSON.stringify({ name: `register as ${form}`, rowsPerSecond: Math.round(perSecond), copyRowsPerSecond: Math.round(copied), ratio: Number((perSecond / copied).toFixed(3)), megabytes: Math.round(bytes / 1e6), mostHeapMegabytes: Math.round(most / 1e6) })}\n`,
    );
  }
  await admin.end();
}
