import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { newCustomer } from '@/core/customer/customer';
import { addDays } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { WHOLE_REGISTER } from '@/core/register/ask';
import { todayView } from '@/flows/day/today';
import { onePayment } from '@/flows/payment/payment-list';
import { takePayment } from '@/flows/payment/take-payment';
import { addCustomer, findCustomers } from '@/flows/records/customers';
import { registerOf } from '@/flows/register/register';
import { asSuperuser } from '../../../tests/support/database';
import {
  cardToken,
  foundHouse,
  type House,
  keptDraft,
  openWorkshop,
  plainPaper,
  sentInvoice,
  type Workshop,
} from '../../../tests/support/workshop';
import { invoiceList, type ListPage, moreInvoices } from './invoice-list';
import { invoiceSheet, printedOf } from './invoice-sheet';
import { noteSeen, viewByLink } from './payer-page';
import { proofLetter, proofPage, proofPdf } from './proof';

const OPEN = 90;
let workshop: Workshop;
let house: House;
beforeAll(async () => {
  workshop = await openWorkshop();
  house = await foundHouse();
  // Many with the same due date, so that paging has to break ties.
  for (let at = 0; at < OPEN; at++)
    await sentInvoice(house, plainPaper(house, { due: { kind: 'days', days: at % 7 } }));
  for (let at = 0; at < 15; at++) await keptDraft(house);
}, 120_000);
afterAll(() => workshop.close());

const pay = async (link: string, card: string) =>
  takePayment(
    link,
    { attemptKey: randomUUID(), cardToken: await cardToken(workshop.standIns, card), amountMinor: 11_000n },
    randomUUID(),
  );
async function allOf(first: ListPage, part: 'open' | 'drafts' | 'settled'): Promise<string[]> {
  const ids = first.rows.map(({ id }) => id);
  for (let next = first.next; next; ) {
    const page = await moreInvoices(house.owner, part, next);
    ids.push(...page.rows.map(({ id }) => id));
    next = page.next;
  }
  return ids;
}

test('paging by key shows every invoice once, in order, and stops', async () => {
  const { parts, sums } = await invoiceList(house.owner);
  const open = await allOf(parts.open, 'open');
  expect(open.length).toBe(OPEN);
  expect(new Set(open).size).toBe(OPEN);
  const inOrder = await asSuperuser<{ id: string }>(
    workshop.admin,
    `select id from invoices where business_id = $1 and stage = 'sent' order by due_on, id`,
    [house.business.id],
  );
  expect(open).toEqual(inOrder.map(({ id }) => id));
  expect((await allOf(parts.drafts, 'drafts')).length).toBe(15);
  expect(sums.all).toBe(BigInt(OPEN) * 11_000n);
});

test('an invoice paid moves from what is open to what was paid, and the sums follow', async () => {
  const before = await invoiceList(house.owner);
  const { id, link } = await sentInvoice(house);
  expect((await invoiceList(house.owner)).sums.all).toBe(before.sums.all + 11_000n);
  await pay(link, 'corvid-good');
  const after = await invoiceList(house.owner);
  expect(after.sums).toEqual(before.sums);
  expect(after.parts.settled.rows[0]).toMatchObject({ id, dueMinor: 0n });
});

test('payments are paged latest first, the refused ones with their reason', async () => {
  const { link } = await sentInvoice(house);
  await pay(link, 'corvid-blocked');
  await pay(link, 'lumen-good');
  const { rows } = await registerOf(house.owner, WHOLE_REGISTER, null);
  expect(rows.slice(0, 2)).toMatchObject([
    { state: 'paid', channel: 'invoice', cardScheme: 'Lumen' },
    { state: 'refused', reason: 'card-blocked' },
  ]);
  const last = rows[0];
  if (!last) throw new Error('No payment');
  const behind = await registerOf(house.owner, WHOLE_REGISTER, { key: last.at.toISOString(), id: last.id });
  expect(behind.rows.map(({ id }) => id)).not.toContain(last.id);
  expect(await onePayment(house.owner, last.id)).toMatchObject({ receiptNumber: expect.stringMatching(/^\d+$/) });
});

test('customers are found by parts of name and address; what a person types is no pattern', async () => {
  const customer = (name: string, email: string) => addCustomer(house.owner, newCustomer(name, { email }));
  await customer('Ödön 100% Calloway', 'odon@calloway.example');
  await customer('Calla Lind', 'calla@lind.example');
  const names = async (words: string) => (await findCustomers(house.owner, words)).map(({ name }) => name);
  expect(await names('call')).toEqual(['Calla Lind', 'Ödön 100% Calloway']);
  expect(await names('ÖDÖN')).toEqual(['Ödön 100% Calloway']);
  expect(await names('lind.ex')).toEqual(['Calla Lind']);
  expect(await names('100%')).toEqual(['Ödön 100% Calloway']);
  expect(await names('c_ll')).toEqual([]);
  expect(await names("'; drop table customers; --")).toEqual([]);
  expect((await findCustomers(house.owner, '')).length).toBeGreaterThan(2);
});

test('today’s queue has what is worst first, and leaves out what has been mended', async () => {
  const own = await foundHouse('Queue');
  const at = (change: Parameters<typeof plainPaper>[1]) => sentInvoice(own, plainPaper(own, change));
  expect((await todayView(own.owner)).queue).toEqual([]);
  const late = await at({ due: { kind: 'receipt' } });
  const today = dateInZone(new Date(), own.business.zone);
  // As if five days had gone by; the sums follow the row by themselves.
  await asSuperuser(workshop.admin, `update invoices set due_on = $1 where id = $2`, [addDays(today, -5), late.id]);
  const refused = await at({});
  await pay(refused.link, 'corvid-poor');
  const draft = await keptDraft(own);
  const view = await todayView(own.owner);
  expect(view.queue.map((item) => item.kind)).toEqual(['refused', 'late', 'draft']);
  expect(view.horizon.late).toBe(11_000n);
  expect(view.horizon.expected).toBe(11_000n);
  expect(view.expectedBeside).toEqual([]);
  // What is owed in other currencies stands beside, by day and in the list, and is never added up.
  const abroad = await at({ currency: 'EUR' });
  const beside = await todayView(own.owner);
  expect(beside.horizon.expected).toBe(11_000n);
  expect(beside.expectedBeside).toEqual([{ minor: 11_000n, currency: 'EUR' }]);
  expect((await invoiceList(own.owner)).beside).toMatchObject([{ currency: 'EUR', sums: { all: 11_000n } }]);
  await pay(abroad.link, 'corvid-good');
  expect(await todayView(own.owner)).toMatchObject({
    cameInToday: 0n,
    cameInBeside: [{ minor: 11_000n, currency: 'EUR' }],
    expectedBeside: [],
  });
  await pay(refused.link, 'corvid-good');
  const after = await todayView(own.owner);
  expect(after.queue.map((item) => item.kind)).toEqual(['late', 'draft']);
  expect(after.cameInToday).toBe(11_000n);
  expect(after.cameIn[0]).toMatchObject({ amountMinor: 11_000n });
  expect(after.queue[1]).toMatchObject({ invoice: { id: draft } });
});

test('the proof of a draft is made by what makes the customer’s, with the number it would get', async () => {
  const id = await keptDraft(house);
  const sheet = await invoiceSheet(house.owner, id);
  const number = sheet.nextNumbers[''] ?? '';
  const printed = printedOf(sheet);
  expect(printed).toMatchObject({ number: number, total: 11_000, payer: { name: 'Perpetua Vane' } });
  expect((await proofLetter(house.owner, id)).subject).toBe(`Invoice ${number} from Sallow Joinery: $110.00`);
  expect((await proofPdf(house.owner, id)).bytes.subarray(0, 5).toString()).toBe('%PDF-');
  expect(await proofPage(house.owner, id)).toMatchObject({ dueMinor: 11_000 });
  const empty = await keptDraft(house, plainPaper(house, { customerId: null, lines: [] }));
  expect((await proofPage(house.owner, empty)).invoice).toMatchObject({
    total: 0,
    payer: { name: 'Nobody chosen yet' },
  });
});

test('a draft’s link opens nothing; a sent one shows what was sent, and its first look is noted once', async () => {
  const draft = await keptDraft(house);
  const token = (await invoiceSheet(house.owner, draft)).invoice.linkToken;
  expect(await viewByLink(token)).toBeNull();
  const { id, link } = await sentInvoice(house);
  expect(await viewByLink(link)).toMatchObject({ dueMinor: 11_000n, pending: null, refused: null, receipts: [] });
  await Promise.all([noteSeen(link, 'phone'), noteSeen(link, 'computer'), noteSeen(link, 'phone')]);
  const { timeline, invoice } = await invoiceSheet(house.owner, id);
  expect(timeline.filter(({ event }) => event.kind === 'seen').length).toBe(1);
  expect(invoice.seen).toBe(true);
  await pay(link, 'corvid-poor');
  expect(await viewByLink(link)).toMatchObject({ refused: { reason: 'not-enough-money' } });
  await pay(link, 'corvid-good');
  expect(await viewByLink(link)).toMatchObject({ dueMinor: 0n, refused: null, receipts: [{ amountMinor: 11_000 }] });
});
