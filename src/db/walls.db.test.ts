import pg from 'pg';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { newCustomer } from '@/core/customer/customer';
import { addDays } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { sendBy } from '@/core/invoice/send-with';
import { GOES_AS_USUAL } from '@/core/item/item';
import { WHOLE_REGISTER } from '@/core/register/ask';
import { todayView } from '@/flows/day/today';
import { deskFile, deskInvoicePdf, deskInvoiceXml, deskReceiptPdf } from '@/flows/file/kept-files';
import { storeFile } from '@/flows/file/store-file';
import { findAll } from '@/flows/house/find';
import { answerQuestion } from '@/flows/invoice/answer-question';
import { bulkSheet, checkBulk, sendBulk } from '@/flows/invoice/bulk-invoices';
import { cancelInvoice } from '@/flows/invoice/cancel-invoice';
import { changeInvoice } from '@/flows/invoice/change-invoice';
import { askQuestion } from '@/flows/invoice/consent';
import { creditInvoice } from '@/flows/invoice/credit-invoice';
import { discardDraft, saveDraft } from '@/flows/invoice/draft';
import { invoiceList } from '@/flows/invoice/invoice-list';
import { invoiceSheet } from '@/flows/invoice/invoice-sheet';
import { cancelMany } from '@/flows/invoice/many-invoices';
import { proofLetter, proofPdf } from '@/flows/invoice/proof';
import { endRecurring, recurringSheet, repaperRecurring, startRecurring } from '@/flows/invoice/recurring';
import { remindNow } from '@/flows/invoice/remind';
import { sendInvoice, sendInvoiceAgain } from '@/flows/invoice/send-invoice';
import { setSendingTime } from '@/flows/invoice/timed-sending';
import { onePayment } from '@/flows/payment/payment-list';
import { recordReceived } from '@/flows/payment/receive-payment';
import { takePayment } from '@/flows/payment/take-payment';
import { changeCustomer, customerSheet, findCustomers, mergeCustomers } from '@/flows/records/customers';
import { itemSheet, keepItem, removeItem } from '@/flows/records/items';
import { customerStatement, mailStatement } from '@/flows/records/statement';
import { registerOf, registerSums } from '@/flows/register/register';
import { asSuperuser, enter } from '../../tests/support/database';
import {
  cardToken,
  foundHouse,
  type House,
  keptDraft,
  openWorkshop,
  plainPaper,
  sentInvoice,
  type Workshop,
} from '../../tests/support/workshop';

let workshop: Workshop;
let mine: House;
let theirs: House;
let sent: { id: string; link: string };
let draft: string;
let payment: string;

beforeAll(async () => {
  workshop = await openWorkshop();
  mine = await foundHouse('Mine');
  theirs = await foundHouse('Theirs');
  sent = await sentInvoice(theirs);
  draft = await keptDraft(theirs);
  const cardTokenOf = await cardToken(workshop.standIns, 'corvid-good');
  await takePayment(sent.link, { attemptKey: crypto.randomUUID(), cardToken: cardTokenOf, amountMinor: 11_000n }, 'a');
  payment = (await asSuperuser<{ id: string }>(workshop.admin, 'select id from payments'))[0]?.id ?? '';
});
afterAll(() => workshop.close());

test('somebody signed in elsewhere finds none of the ids that exist here', async () => {
  const me = mine.owner;
  const key = crypto.randomUUID();
  const tries: Promise<unknown>[] = [
    invoiceSheet(me, sent.id),
    invoiceSheet(me, draft),
    saveDraft(me, draft, plainPaper(theirs), 1),
    discardDraft(me, draft),
    sendInvoice(me, draft, 1, 'mail'),
    sendInvoiceAgain(me, sent.id, key),
    deskInvoicePdf(me, sent.id),
    deskReceiptPdf(me, sent.id, '1'),
    onePayment(me, payment),
    proofLetter(me, sent.id),
    proofPdf(me, draft),
  ];
  for (const tried of await Promise.allSettled(tries)) {
    expect(tried).toMatchObject({ status: 'rejected', reason: { code: 'not-found' } });
  }
});

test('lists, searches and sums of another business hold nothing of this one', async () => {
  const me = mine.owner;
  const list = await invoiceList(me);
  expect(Object.values(list.parts).flatMap(({ rows }) => rows)).toEqual([]);
  expect(list.sums.all).toBe(0n);
  expect((await registerOf(me, WHOLE_REGISTER, null)).rows).toEqual([]);
  expect(await registerSums(me, WHOLE_REGISTER)).toEqual([]);
  expect((await findAll(me, 'Perpetua')).found.filter(({ kind }) => kind !== 'customer')).toEqual([]);
  expect((await findCustomers(me, 'perpetua')).map(({ id }) => id)).toEqual([mine.customerId]);
  const today = await todayView(me);
  expect(today.queue).toEqual([]);
  expect(today.cameIn).toEqual([]);
});

test('a customer of another business cannot be put on a draft', async () => {
  const own = await keptDraft(mine);
  await expect(saveDraft(mine.owner, own, plainPaper(theirs), 1)).rejects.toMatchObject({ code: 'not-found' });
});

test('the application’s role sees nothing before a business is named, and one business only after it', async () => {
  const client = new pg.Client({ connectionString: process.env.DATABASE_URL });
  await client.connect();
  const tables = (
    await asSuperuser<{ name: string }>(
      workshop.admin,
      `select relname as name from pg_class join pg_attribute on attrelid = pg_class.oid and attname = 'business_id'
     where relnamespace = 'public'::regnamespace and relkind in ('r', 'p') and not relispartition order by 1`,
    )
  ).map(({ name }) => name);
  expect(tables.length).toBeGreaterThan(14);
  for (const name of tables) expect((await client.query(`select 1 from ${name}`)).rowCount, name).toBe(0);
  await enter(client, mine.business.id);
  for (const name of tables) {
    const { rows } = await client.query(`select distinct business_id from ${name}`);
    expect(
      rows.filter((row) => row.business_id !== mine.business.id),
      name,
    ).toEqual([]);
  }
  await client.end();
});

test('every table that names a business has its wall, and the role can neither pass nor take it down', async () => {
  const open = await asSuperuser(
    workshop.admin,
    `select relname from pg_class join information_schema.columns on table_name = relname and column_name = 'business_id'
     where relkind in ('r', 'p') and not relispartition and relnamespace = 'public'::regnamespace and not relrowsecurity`,
  );
  expect(open).toEqual([]);
  const [role] = await asSuperuser(
    workshop.admin,
    `select rolsuper, rolbypassrls from pg_roles where rolname = 'dahlia_app'`,
  );
  expect(role).toEqual({ rolsuper: false, rolbypassrls: false });
  const client = new pg.Client({ connectionString: process.env.DATABASE_URL });
  await client.connect();
  await enter(client, mine.business.id);
  const moves = [
    `insert into taxes (id, business_id, name, rate, position) values (gen_random_uuid(), '${theirs.business.id}', 'x', 1, 9)`,
    `update taxes set business_id = '${theirs.business.id}'`,
    'alter table taxes disable row level security',
    'select * from graphile_worker._private_jobs',
    'set role dahlia_owner',
  ];
  for (const move of moves) await expect(client.query(move), move).rejects.toThrow();
  expect((await client.query('delete from taxes').catch((error) => error)).code).toBe('42501');
  await client.end();
});

test('somebody who may only read can change nothing', async () => {
  const own = await keptDraft(mine);
  const me = mine.reader;
  const tries = [
    saveDraft(me, own, plainPaper(mine), 1),
    discardDraft(me, own),
    sendInvoice(me, own, 1, 'mail'),
    sendInvoiceAgain(me, own, crypto.randomUUID()),
  ];
  for (const tried of await Promise.allSettled(tries)) {
    expect(tried).toMatchObject({ status: 'rejected', reason: { code: 'not-allowed' } });
  }
  expect((await invoiceSheet(me, own)).invoice.revision).toBe(1);
});

const NOTHING = { customerIds: [], group: '', rows: [] };
const yearly = (house: House) =>
  ({
    name: 'Care',
    makes: 'draft',
    schedule: {
      unit: 'year',
      every: 1,
      start: addDays(dateInZone(new Date(), house.business.zone), 1),
      ends: 'never',
    },
  }) as const;
const ware: Parameters<typeof keepItem>[2] = {
  code: '',
  name: 'Wax',
  description: '',
  kind: 'goods',
  unit: 'piece',
  prices: { USD: '10' },
  cost: '',
  taxClass: 'standard',
  onHand: null,
  lowAt: null,
  pictureId: null,
  going: GOES_AS_USUAL,
  options: [],
};

test('nor is anything of theirs found or changed: customers, items, recurring and bulk invoices, files, questions', async () => {
  const me = mine.owner;
  const key = crypto.randomUUID();
  const own = await keptDraft(mine);
  const item = await keepItem(theirs.owner, null, ware);
  const repeat = await startRecurring(theirs.owner, draft, yearly(theirs));
  const bulk = await checkBulk(
    theirs.owner,
    draft,
    '',
    { ...NOTHING, customerIds: [theirs.customerId] },
    sendBy('mail'),
  );
  const file = await storeFile(theirs.owner, 'a.csv', 'attachment', Buffer.from('What,Sum\nWax,1\n'));
  await askQuestion(sent.link, { text: 'Why so much?', byName: '' }, 'a');
  const [question] = (await invoiceSheet(theirs.owner, sent.id)).questions;
  const period = { from: '', to: '', currency: 'USD' };
  const credit = { amountMinor: 1n, reason: 'x', tell: false, requestKey: key };
  const received = {
    amountMinor: 1n,
    method: 'cash',
    reference: '',
    receivedOn: '2026-01-01',
    requestKey: key,
  } as const;
  const tries: Promise<unknown>[] = [
    customerSheet(me, theirs.customerId),
    changeCustomer(me, theirs.customerId, newCustomer('Mine now')),
    mergeCustomers(me, mine.customerId, theirs.customerId),
    customerStatement(me, theirs.customerId, period),
    mailStatement(me, theirs.customerId, { ...period, requestKey: key, text: '' }),
    itemSheet(me, item.id),
    keepItem(me, item.id, { ...ware, name: 'Mine now' }),
    removeItem(me, item.id),
    recurringSheet(me, repeat),
    startRecurring(me, draft, yearly(mine)),
    repaperRecurring(me, repeat, own),
    endRecurring(me, repeat),
    bulkSheet(me, bulk),
    sendBulk(me, bulk),
    checkBulk(me, draft, '', { ...NOTHING, customerIds: [mine.customerId] }, sendBy('mail')),
    setSendingTime(me, draft, { revision: 1, how: sendBy('mail'), on: '2040-01-01T09:00' }),
    changeInvoice(me, sent.id, plainPaper(mine), 1, false),
    remindNow(me, sent.id, key),
    recordReceived(me, sent.id, received),
    cancelInvoice(me, sent.id, 'x', false),
    creditInvoice(me, sent.id, credit),
    answerQuestion(me, question?.id ?? '', 'x'),
    deskInvoiceXml(me, sent.id),
    deskFile(me, file.id),
  ];
  for (const [at, tried] of (await Promise.allSettled(tries)).entries()) {
    expect(tried, `try ${at}`).toMatchObject({ status: 'rejected', reason: { code: 'not-found' } });
  }
  const stray = await checkBulk(me, own, '', { ...NOTHING, customerIds: [theirs.customerId] }, sendBy('mail'));
  expect((await bulkSheet(me, stray)).rows).toMatchObject([{ state: 'refused', customer: null }]);
  expect(await cancelMany(me, [sent.id], 'x', false)).toMatchObject({ done: 0 });
  expect((await invoiceSheet(theirs.owner, sent.id)).invoice.cancelledAt ?? null).toBeNull();
});
