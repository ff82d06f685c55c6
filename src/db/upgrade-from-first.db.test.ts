/** From the very first migration, one after the other: what was written at the beginning is still there after each, and works after the last. */
import { randomBytes, randomUUID } from 'node:crypto';
import { readdirSync } from 'node:fs';
import { expect, inject, test } from 'vitest';
import { EVERYTHING } from '@/core/invoice/ask';
import { checkBooks } from '@/flows/house/check-books';
import { passwordHash } from '@/flows/house/password';
import { actorOf } from '@/flows/house/sign-in';
import { invoiceSheet } from '@/flows/invoice/invoice-sheet';
import { searchInvoices } from '@/flows/invoice/search-invoices';
import { sendInvoice } from '@/flows/invoice/send-invoice';
import { findCustomers } from '@/flows/records/customers';
import { asSuperuser } from '../../tests/support/database';
import { signIn } from '../../tests/support/signed-in';
import { openWorkshop } from '../../tests/support/workshop';
import { migrate, prepareDatabase } from './migrate';

const [business, person, customer, invoice] = Array.from({ length: 4 }, () => randomUUID());
const EMAIL = 'first@beginning.example';
const FILES = readdirSync('src/db/migrations').length;

test('every migration keeps what was there, and after the last it is used as before', async () => {
  const server = inject('admin');
  const name = `dahlia_${randomBytes(6).toString('hex')}`;
  const urls = await prepareDatabase(server, name);
  const admin = server.replace(/\/[^/]*$/, `/${name}`);
  const ask = <Row = Record<string, unknown>>(text: string, values: unknown[] = []) =>
    asSuperuser<Row>(admin, text, values);
  const count = async (table: string): Promise<number> =>
    (await ask<{ n: number }>(`select count(*)::int as n from ${table}`))[0]?.n ?? -1;

  await migrate(urls, { files: 1 });
  await ask(
    `insert into businesses (business_id, name, email, country, zone, locale, currency, created_at)
     values ($1, 'Beginning', 'house@beginning.example', 'US', 'America/Los_Angeles', 'en-US', 'USD', now())`,
    [business],
  );
  await ask(
    `insert into people (id, business_id, name, email, role, password_hash, created_at) values ($1, $2, 'First', $3, 'owner', $4, now())`,
    [person, business, EMAIL, await passwordHash('linseed and shellac')],
  );
  await migrate(urls, { files: 1 });
  await ask(
    `insert into customers (id, business_id, name, email, address, created_at)
     values ($1, $2, 'Éowyn Marsh', 'eowyn@marsh.example', '{"1 Weir Street"}', now())`,
    [customer, business],
  );
  const line = {
    id: randomUUID(),
    unit: 'piece',
    what: 'Drawer',
    quantity: '2',
    price: '50.00',
    discount: '',
    taxes: [],
  };
  const paper = {
    customerId: customer,
    reference: 'R-1',
    due: { kind: 'days', days: 14 },
    lines: [line],
    discount: '',
    note: '',
  };
  await ask(
    `insert into invoices (id, business_id, customer_id, currency, paper, link_token, total_minor, created_at, changed_at)
     values ($1, $2, $3, 'USD', $4, $5, 10000, now(), now())`,
    [invoice, business, customer, JSON.stringify(paper), randomBytes(24).toString('base64url')],
  );
  await ask(`insert into counters (business_id, series, next_number) values ($1, 'invoice', 41)`, [business]);
  await ask(
    `insert into timeline (business_id, invoice_id, at, kind, by_name) values ($1, $2, now(), 'made', 'First')`,
    [business, invoice],
  );

  for (let at = 2; at < FILES; at++) {
    await migrate(urls, { files: 1 });
    const [row] = await ask<{ name: string }>('select name from migrations order by id desc limit 1');
    for (const table of ['businesses', 'people', 'customers', 'invoices', 'counters', 'timeline'])
      expect(await count(table), `${table} after ${row?.name}`).toBe(1);
  }
  expect(await count('migrations')).toBe(FILES);

  const workshop = await openWorkshop({}, async () => ({ ...urls, admin }));
  const { token } = await signIn(EMAIL, 'linseed and shellac', 'a');
  const owner = await actorOf(token);
  if (!owner) throw new Error('Nobody is signed in');
  expect(owner).toMatchObject({ personId: person, role: 'owner', closed: false });
  expect((await findCustomers(owner, 'eowyn'))[0]).toMatchObject({
    id: customer,
    billing: { lines: ['1 Weir Street'] },
  });
  const found = await searchInvoices(owner, { ...EVERYTHING, words: 'R-1', state: 'draft' });
  expect(found.rows.map(({ id }) => id)).toEqual([invoice]);
  const sheet = await invoiceSheet(owner, invoice ?? '');
  expect(sheet.invoice).toMatchObject({ totalMinor: 10_000n, stage: 'draft' });
  // Its number goes on where the series stood.
  await ask(`update businesses set mail_confirmed_at = now() where business_id = $1`, [business]);
  expect(await sendInvoice(owner, invoice ?? '', sheet.invoice.revision, 'link')).toContain('41');
  expect(await checkBooks()).toEqual([]);
  await workshop.close();
});
