import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { expect, test } from 'vitest';
import { asSuperuser, enter } from '../../tests/support/database';
import { BUSINESS_TABLES } from '../../tests/support/partitioned';
import { foundHouse, sharedWorkshop } from '../../tests/support/workshop';
import { linkKey } from './link-tokens';

const workshop = await sharedWorkshop();
const mine = await foundHouse('Mine');
const theirs = await foundHouse('Theirs');

const ask = <Row>(text: string, values: unknown[] = []) => asSuperuser<Row>(workshop.admin, text, values);

test('what is not a business’s is little, and known by name', async () => {
  const others = await ask<{ relname: string }>(
    `select relname from pg_class where relnamespace = 'public'::regnamespace and relkind = 'r'
       and relname not in (${BUSINESS_TABLES.replace(/order by relname$/, '')}) order by relname`,
  );
  expect(others.map(({ relname }) => relname)).toEqual([
    'attempt_limits',
    'earlier_names',
    'link_keys',
    'migration_hashes',
    'migrations',
    'offer_names',
    'passkeys',
    'recovery_codes',
    'sign_in_names',
    'sign_in_steps',
    'ticket_keys',
    'worker_beats',
  ]);
});

// Passkeys and recovery codes are whoever's an address is, at all their desks: no business has them.
test('every key, unique rule and reference of a business’s table begins with the business, on both sides', async () => {
  const keys = await ask<{ name: string }>(
    `select i.indexrelid::regclass::text as name from pg_index i join pg_class t on t.oid = i.indrelid
     join pg_attribute a on a.attrelid = t.oid and a.attnum = i.indkey[0]
     where i.indisunique and a.attname <> 'business_id' and t.relname in (${BUSINESS_TABLES})`,
  );
  const keyless = await ask(
    `select relname from (${BUSINESS_TABLES}) as own
     where not exists (select 1 from pg_constraint where contype = 'p' and conrelid = relname::regclass)`,
  );
  const references = await ask<{ name: string }>(
    `select con.conname as name from pg_constraint con
     join pg_attribute here on here.attrelid = con.conrelid and here.attnum = con.conkey[1]
     join pg_attribute there on there.attrelid = con.confrelid and there.attnum = con.confkey[1]
     where con.contype = 'f' and (here.attname <> 'business_id' or there.attname <> 'business_id')
       and con.conrelid::regclass::text not in ('passkeys', 'recovery_codes')`,
  );
  expect({ keys, keyless, references }).toEqual({ keys: [], keyless: [], references: [] });
});

test('every business’s table is held to the business, by itself or by a row that it must name', async () => {
  const held = await ask<{ name: string; target: string; must: boolean }>(
    `select con.conrelid::regclass::text as name, con.confrelid::regclass::text as target,
       bool_and(a.attnotnull) as must
     from pg_constraint con join pg_attribute a on a.attrelid = con.conrelid and a.attnum = any(con.conkey)
     where con.contype = 'f' group by con.oid, con.conrelid, con.confrelid`,
  );
  const safe = new Set(['businesses']);
  for (let before = 0; before < safe.size; ) {
    before = safe.size;
    for (const { name, target, must } of held) if (must && safe.has(target)) safe.add(name);
  }
  const tables = await ask<{ relname: string }>(BUSINESS_TABLES);
  // Documents belong to whatever was printed, invoice or receipt: held to the business alone.
  expect(tables.map(({ relname }) => relname).filter((name) => !safe.has(name))).toEqual([]);
});

test('a row of one business cannot point at a row of another, whoever writes it', async () => {
  const pointing = ask(
    `insert into recurring_invoices (business_id, id, name, customer_id, paper, schedule, makes, state, by_id, created_at, changed_at)
     values ($1, $2, 'x', $3, '{}', '{}', 'draft', 'active', $4, now(), now())`,
    [mine.business.id, randomUUID(), theirs.customerId, mine.owner.personId],
  );
  await expect(pointing).rejects.toMatchObject({ code: '23503' });
  const session = ask(`insert into sessions values ($1, $2, $3, now(), now())`, [
    Buffer.from('x'),
    mine.business.id,
    theirs.owner.personId,
  ]);
  await expect(session).rejects.toMatchObject({ code: '23503' });
});

test('the key of a link is worked out alike here and in the database', async () => {
  const ids = Array.from({ length: 300 }, () => randomUUID());
  const rows = await ask<{ key: string }>(
    'select link_key(id) as key from unnest($1::uuid[]) with ordinality as given (id, n) order by n',
    [ids],
  );
  expect(rows.map(({ key }) => key)).toEqual(ids.map(linkKey));
});

test('the copied tables show the application nothing of others either', async () => {
  const client = new pg.Client({ connectionString: process.env.DATABASE_URL });
  await client.connect();
  await enter(client, mine.business.id);
  const seen = await client.query('select distinct business_id from sign_in_names');
  expect(seen.rows).toEqual([{ business_id: mine.business.id }]);
  const stealing = client.query(
    `update sign_in_names set person_id = $1 where email_key like '%sallow.example' and business_id = $2`,
    [mine.owner.personId, theirs.business.id],
  );
  expect((await stealing).rowCount).toBe(0);
  await client.end();
});
