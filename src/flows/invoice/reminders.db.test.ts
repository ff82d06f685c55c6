import { randomUUID } from 'node:crypto';
import { expect, test } from 'vitest';
import { newCustomer } from '@/core/customer/customer';
import { addDays } from '@/core/dates/calendar-date';
import { dateInZone, instantInZone } from '@/core/dates/zone';
import type { Paper } from '@/core/paper/paper';
import { queuedMessages } from '@/db/messages';
import { readBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { recordReceived } from '@/flows/payment/receive-payment';
import { handOverMessage } from '@/flows/post/hand-over-message';
import { addCustomer } from '@/flows/records/customers';
import { asSuperuser } from '../../../tests/support/database';
import { foundHouse, mailOf, plainPaper, sentInvoice, sharedWorkshop } from '../../../tests/support/workshop';
import { changeInvoice } from './change-invoice';
import { creditInvoice } from './credit-invoice';
import { invoiceSheet } from './invoice-sheet';
import { remindMany } from './many-invoices';
import { remindDue, remindNow } from './remind';

const workshop = await sharedWorkshop();
const house = await foundHouse();
const zone = 'America/Los_Angeles';
const noon = (days: number) => instantInZone(addDays(dateInZone(new Date(), zone), days), '12:00', zone);
const mailAll = async () => {
  for (const { id } of await readBusiness(programContext(house.business.id), (db) => queuedMessages(db)))
    await handOverMessage(house.business.id, id);
};
const customerOf = async () =>
  addCustomer(house.owner, newCustomer('Late Payer', { email: `${randomUUID()}@late.example`, language: 'de' }));
const asked = (customerId: string, more: Partial<Paper> = {}) =>
  sentInvoice(house, plainPaper(house, { customerId, due: { kind: 'days', days: 10 }, reminders: [1], ...more }));
const paidWhole = (id: string) =>
  recordReceived(house.owner, id, {
    amountMinor: 11_000n,
    method: 'cash',
    reference: '',
    receivedOn: '',
    requestKey: randomUUID(),
  });
const remindersTo = async (address: string) =>
  (await mailOf(workshop.standIns, address)).filter(({ subject }) => /Erinnerung|Reminder|reminder/.test(subject));

test('several of one day and one customer are one mail, with each invoice, its link and their sum', async () => {
  const [one, two] = [await customerOf(), await customerOf()];
  const mine = [
    await asked(one.id),
    await asked(one.id, { due: { kind: 'days', days: 9 }, reminders: [2] }),
    await asked(one.id),
  ];
  const theirs = await asked(two.id);
  const paid = mine[2] as (typeof mine)[0];
  await remindDue(programContext(house.business.id, noon(11)));
  // Paid after the mail was queued, and before it went out: it is left out.
  await paidWhole(paid.id);
  await mailAll();
  const [mail, ...more] = await remindersTo(one.email);
  expect(more).toEqual([]);
  expect(mail?.subject).toBe('Erinnerung: 2 Rechnungen von Sallow Joinery');
  for (const { number, link } of mine.slice(0, 2)) {
    expect(mail?.text).toContain(`Rechnung ${number}, zahlbar bis`);
    expect(mail?.text).toContain(`/i/${link}`);
  }
  expect(mail?.text).not.toContain(paid.link);
  expect(mail?.text).toMatch(/Noch offen: 220,00/);
  expect((await remindersTo(two.email)).map(({ subject }) => subject)).toEqual([
    expect.stringContaining(`Rechnung ${theirs.number}`),
  ]);
  const kinds = await asSuperuser<{ state: string }>(
    workshop.admin,
    'select state from reminders where invoice_id = any($1)',
    [[...mine, theirs].map(({ id }) => id)],
  );
  expect(kinds.every(({ state }) => state === 'sent')).toBe(true);
});

test('all of it paid before the mail goes out: there is none', async () => {
  const one = await customerOf();
  const { id } = await asked(one.id);
  await remindDue(programContext(house.business.id, noon(11)));
  await paidWhole(id);
  await mailAll();
  expect(await remindersTo(one.email)).toEqual([]);
  const [message] = await asSuperuser<{ state: string }>(
    workshop.admin,
    `select state from messages where invoice_id = $1 and kind = 'reminder'`,
    [id],
  );
  expect(message?.state).toBe('dropped');
});

test('reminded by hand on the day, the planned one is not another; several ticked are one mail', async () => {
  const one = await customerOf();
  const [first, second] = [await asked(one.id, { reminders: [] }), await asked(one.id, { reminders: [] })];
  const key = randomUUID();
  for (let twice = 0; twice < 2; twice++)
    expect(await remindMany(house.owner, [first.id, second.id], key)).toEqual({ done: 2, refused: [] });
  await mailAll();
  expect(await remindersTo(one.email)).toHaveLength(1);
  const told = async (invoiceId: string) =>
    (await invoiceSheet(house.owner, invoiceId)).timeline.filter(({ event }) => event.kind === 'reminded').length;
  expect([await told(first.id), await told(second.id)]).toEqual([1, 1]);

  const two = await customerOf();
  const { id } = await asked(two.id, { due: { kind: 'receipt' }, reminders: [1] });
  await asSuperuser(workshop.admin, 'update reminders set remind_on = current_date - 3 where invoice_id = $1', [id]);
  const press = randomUUID();
  await Promise.all([remindNow(house.owner, id, press), remindNow(house.owner, id, press)]);
  await remindDue(programContext(house.business.id, new Date()));
  await mailAll();
  expect(await remindersTo(two.email)).toHaveLength(1);
  expect(await told(id)).toBe(1);
});

test('a changed invoice that is paid already asks for nothing, and says what stays to the customer’s credit', async () => {
  const one = await customerOf();
  const { id } = await asked(one.id);
  await paidWhole(id);
  await creditInvoice(house.owner, id, { amountMinor: 1000n, reason: 'Less', tell: false, requestKey: randomUUID() });
  await changeInvoice(house.owner, id, plainPaper(house, { customerId: one.id, note: 'As agreed' }), 1, true);
  await mailAll();
  const mail = (await mailOf(workshop.standIns, one.email)).find(({ text }) => text.includes('hat sich geändert'));
  expect(mail?.subject).toMatch(/: nichts zu bezahlen$/);
  expect(mail?.text).toContain('10,00');
  expect(mail?.text).not.toContain('0,00\u00a0$ bezahlen');
  expect(mail?.text).not.toMatch(/(^|\s)0,00/);
});
