/** The list of invoices with ten thousand of a business, and with a million among two million. */
import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { EVERYTHING, type InvoiceAsk } from '@/core/invoice/ask';
import type { Actor } from '@/flows/door/rights';
import { findAll } from '@/flows/house/find';
import { listOverview, searchInvoices } from '@/flows/invoice/search-invoices';
import { foundHouse, type House } from '../../tests/support/workshop';
import { report, timedEach } from './report';

const ROUNDS = 60;

/** Writes many invoices straight into the tables; the sums are made afterwards, in one go. */
async function fill(admin: pg.Client, house: House, count: number): Promise<void> {
  const { id } = house.business;
  const customers = Math.max(100, Math.floor(count / 25));
  await admin.query(
    `insert into customers (id, business_id, name, email, search, name_key, created_at, changed_at)
     select gen_random_uuid(), $1, name, 'c' || n || '@post.example', lower(name) || ' c' || n || '@post.example', lower(name), now(), now()
     from (select n, (array['Wilhelmina','Odile','Anselm','Petra','Cornelius','Hedda','Miro','Jory'])[1 + n % 8] || ' ' ||
       (array['Strand','Roke','Monk','Varga','Amsel','Marsh','Vance'])[1 + n % 7] || ' ' || n as name from generate_series(1, $2) as n) as one`,
    [id, customers],
  );
  await admin.query(
    `insert into invoices (id, business_id, stage, number, customer_id, currency, paper, printed, link_token, issued_on, due_on,
       total_minor, tax_minor, paid_minor, sent_at, seen_at, settled_at, created_at, changed_at, reference)
     select gen_random_uuid(), $1, case when n % 997 = 0 then 'cancelled' else 'sent' end, n::text, who.id, 'USD', '{}', '{}',
       $1::text || n, day, day + 14, 1000 + (n::bigint * 7919) % 500000, 100, case when n % 20 = 0 then 0 else 1000 + (n::bigint * 7919) % 500000 end,
       day::timestamptz, case when n % 3 > 0 then day::timestamptz end, case when n % 20 > 0 then day::timestamptz end, day::timestamptz, day::timestamptz,
       case when n % 50 = 0 then 'PO ' || n else '' end
     from (select n, current_date - (($2 - n) * 1400 / $2)::int as day from generate_series(1, $2) as n) as one
     join (select id, row_number() over (order by name) as place from customers where business_id = $1) as who on who.place = 1 + n % $3`,
    [id, count, customers],
  );
}

async function measured(name: string, actor: Actor, count: number): Promise<Map<string, number>> {
  const p95 = new Map<string, number>();
  const measure = async (what: string, work: (round: number) => Promise<unknown>) => {
    await timedEach(5, work);
    const { times, seconds } = await timedEach(ROUNDS, work);
    report(`${name}: ${what}`, times, seconds, { invoices: count });
    p95.set(what, [...times].sort((a, b) => a - b)[Math.floor(times.length * 0.95)] ?? 0);
  };
  const ask = (change: Partial<InvoiceAsk>, after: { key: string; id: string } | null = null) =>
    searchInvoices(actor, { ...EVERYTHING, ...change }, after);
  const deep = new Date(Date.now() - 700 * 86_400_000).toISOString().slice(0, 10);
  await measure('first page', () => ask({}));
  await measure('deep page', () => ask({}, { key: deep, id: randomUUID() }));
  await measure('overdue, by due date', () => ask({ state: 'overdue', descending: false }));
  await measure('search by number', (round) => ask({ words: String(1 + ((round * 7919) % count)) }));
  await measure('search by name', (round) => ask({ words: `odile ${1 + ((round * 37) % Math.floor(count / 25))}` }));
  await measure('search by reference', (round) => ask({ words: `po ${50 * (1 + round)}` }));
  await measure('find or do: a number', (round) => findAll(actor, String(1 + ((round * 7919) % count))));
  await measure('find or do: a name', (round) =>
    findAll(actor, `odile ${1 + ((round * 37) % Math.floor(count / 25))}`),
  );
  await measure('find or do: half a common name', () => findAll(actor, 'od'));
  await measure('find or do: a sum', (round) => findAll(actor, `${10 + round}.00`));
  await measure('find or do: a deed', (round) => findAll(actor, `remind ${1 + ((round * 7919) % count)}`));
  await measure('counts and sums', () => listOverview(actor));
  return p95;
}

/** @param adminUrl the superuser's, of a database whose settings this process already has */
export async function measureLists(adminUrl: string, small: number, large: number): Promise<void> {
  const admin = new pg.Client({ connectionString: adminUrl });
  await admin.connect();
  const [few, many, others] = [await foundHouse('Few'), await foundHouse('Many'), await foundHouse('Others')];
  await admin.query('alter table invoices disable trigger invoices_sums_added');
  await fill(admin, few, small);
  await fill(admin, many, large);
  await fill(admin, others, large);
  await admin.query('alter table invoices enable trigger invoices_sums_added');
  await admin.query(
    `insert into invoice_sums
     select business_id, currency, status, case when status in ('paid', 'cancelled') then '-infinity' else due_on end,
       count(*), sum(total_minor), sum(due_minor)
     from invoices where stage <> 'draft' group by 1, 2, 3, 4`,
  );
  await admin.query('vacuum analyze');
  const before = await measured('list, small', few.owner, small);
  const after = await measured('list, large', many.owner, large);
  for (const [what, p95] of after)
    process.stdout.write(
      `${JSON.stringify({ name: `list, ratio of p95: ${what}`, ratio: Number((p95 / (before.get(what) || 1)).toFixed(2)) })}\n`,
    );
  await admin.end();
}
