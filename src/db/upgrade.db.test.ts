/** The demo business as it lay in the database before keys began with the business (0018), brought up from there. */
import { execFileSync } from 'node:child_process';
import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { gunzipSync } from 'node:zlib';
import pg from 'pg';
import { afterAll, beforeAll, expect, inject, test } from 'vitest';
import { INVOICE_LINK, type Link, OFFER_NAME, ORDER_LINK, PLAN_LINK } from '@/flows/door/links';
import { checkBooks } from '@/flows/house/check-books';
import { actorOf } from '@/flows/house/sign-in';
import { viewByLink } from '@/flows/invoice/payer-page';
import { hearMailEvent } from '@/flows/message/hear-mail-event';
import { takePayment } from '@/flows/payment/take-payment';
import { programs } from '../../bin/docs/schema';
import { eventSignature } from '../../standins/cards/webhooks';
import { asSuperuser } from '../../tests/support/database';
import { signIn } from '../../tests/support/signed-in';
import { cardToken, openWorkshop, type Workshop } from '../../tests/support/workshop';
import { decidedRights, rightsTroubles } from './decided-rights';
import { linkKey } from './link-tokens';
import { migrate, prepareDatabase } from './migrate';

const BEFORE = 18;
const COOKIE = randomBytes(32).toString('base64url');

let workshop: Workshop;
let before: Record<string, number>;
let person: { id: string; business_id: string; email: string };

const ask = <Row>(text: string, values: unknown[] = []) => asSuperuser<Row>(workshop.admin, text, values);

async function rowsOf(admin: string): Promise<Record<string, number>> {
  const tables = await asSuperuser<{ name: string }>(
    admin,
    `select distinct table_name as name from information_schema.columns
     where table_schema = 'public' and column_name = 'business_id'
       and table_name not in ('link_keys', 'sign_in_names', 'offer_names', 'earlier_names') order by 1`,
  );
  const counts = await asSuperuser<{ name: string; n: number }>(
    admin,
    tables.map(({ name }) => `select '${name}' as name, count(*)::int as n from ${name}`).join(' union all '),
  );
  return Object.fromEntries(counts.map(({ name, n }) => [name, n]));
}

/** A database of the time before, with the demo business in it, then brought to the newest migration. */
async function upgraded() {
  const server = inject('admin');
  const name = `dahlia_${randomBytes(6).toString('hex')}`;
  const urls = await prepareDatabase(server, name);
  await migrate(urls, { files: BEFORE });
  const admin = server.replace(/\/[^/]*$/, `/${name}`);
  const rows = gunzipSync(readFileSync('tests/fixtures/demo-before-keys.sql.gz')).toString('utf8');
  execFileSync(`${programs()}/psql`, ['-q', '-v', 'ON_ERROR_STOP=1', admin], {
    input: `set session_replication_role = replica;\n${rows}`,
    stdio: ['pipe', 'ignore', 'pipe'],
  });
  const [owner] = await asSuperuser<typeof person>(
    admin,
    `select id, business_id, email from people where role = 'owner'`,
  );
  if (!owner) throw new Error('Nobody owns the demo business');
  person = owner;
  await asSuperuser(
    admin,
    `insert into sessions (token_hash, business_id, person_id, created_at, expires_at)
     values ($1, $2, $3, now(), now() + interval '1 day')`,
    [createHash('sha256').update(COOKIE).digest(), person.business_id, person.id],
  );
  await asSuperuser(admin, `update messages set created_at = now() where state = 'handed-over'`);
  before = await rowsOf(admin);
  await migrate(urls);
  return { ...urls, admin };
}

beforeAll(async () => {
  workshop = await openWorkshop({}, upgraded);
});
afterAll(() => workshop.close());

/** What the books say; the processor that keeps the demo's cards is not here. */
const bookTroubles = async () => (await checkBooks()).filter(({ what }) => what !== 'a card on file is not kept');

test('no row is lost, and the books agree', async () => {
  // What came in by day is kept in the register's sums since.
  const { received_by_day: _gone, ...kept } = before;
  expect(await rowsOf(workshop.admin)).toMatchObject(kept);
  expect(Object.values(before).reduce((sum, n) => sum + n, 0)).toBeGreaterThan(7000);
  expect(await bookTroubles()).toEqual([]);
});

test('who was signed in still is, and signs in as before', async () => {
  expect(await actorOf(COOKIE)).toMatchObject({ businessId: person.business_id, personId: person.id, role: 'owner' });
  const { token } = await signIn(person.email.toUpperCase(), 'rosin and maple', '203.0.113.1');
  expect(token.startsWith(linkKey(person.business_id))).toBe(true);
  expect(await actorOf(token)).toMatchObject({ personId: person.id });
});

test.each([
  ['invoices', INVOICE_LINK, `select link_token as token, id from invoices where stage <> 'draft'`],
  ['plans', PLAN_LINK, `select link_token as token, id from plans where state <> 'draft'`],
  ['orders', ORDER_LINK, 'select token, id from orders'],
  ['offers', OFFER_NAME, 'select public_id as token, id from offers'],
  ['short addresses', OFFER_NAME, 'select address as token, id from offers where address is not null'],
] as const)('every earlier link of %s opens what it opened', async (_, link: Link<string>, text) => {
  const rows = await ask<{ token: string; id: string }>(text);
  expect(rows.length).toBeGreaterThan(0);
  for (const { token, id } of rows)
    expect(await link.open(token, new Date())).toEqual({ businessId: person.business_id, opened: id });
});

test('an earlier invoice is seen and paid by its earlier link', async () => {
  const [open] = await ask<{ token: string; due: string }>(
    `select link_token as token, due_minor::text as due from invoices i
     where stage = 'sent' and due_minor > 0 and paid_minor = 0 and (paper->'ways'->>'card') is distinct from 'false'
       and not exists (select 1 from payments p where p.invoice_id = i.id) and printed->>'currency' = 'USD'
     order by issued_on desc limit 1`,
  );
  const token = open?.token ?? '';
  expect((await viewByLink(token))?.dueMinor).toBe(BigInt(open?.due ?? 0));
  const attempt = {
    attemptKey: randomUUID(),
    cardToken: await cardToken(workshop.standIns, 'corvid-good'),
    amountMinor: BigInt(open?.due ?? 0),
  };
  expect(await takePayment(token, attempt, '203.0.113.1')).toMatchObject({ state: 'paid' });
  expect(await bookTroubles()).toEqual([]);
});

test('a mail handed over before is reported on as before', async () => {
  const [message] = await ask<{ id: string }>(`select id from messages where state = 'handed-over' limit 1`);
  const body = JSON.stringify({ messageId: `<${message?.id}@localhost>`, event: 'bounced', reason: 'Full' });
  const time = String(Math.floor(Date.now() / 1000));
  expect(await hearMailEvent({ body, time, signature: eventSignature('test-mail', time, body) })).toBe(true);
  expect(await ask('select state from messages where id = $1', [message?.id])).toEqual([{ state: 'bounced' }]);
});

test('the rights of every role are as in a database that is new', async () => {
  const catalog = new pg.Client({ connectionString: workshop.admin });
  await catalog.connect();
  expect(await rightsTroubles(catalog, decidedRights)).toEqual([]);
  await catalog.end();
});
