/** Today as a work list: who stands where, what is done from there, and what happens when it is done twice. */
import { randomUUID } from 'node:crypto';
import { beforeEach, expect, test } from 'vitest';
import { newCustomer } from '@/core/customer/customer';
import { addDays, type CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone, instantInZone } from '@/core/dates/zone';
import { customerById } from '@/db/customers';
import { readBusiness } from '@/db/transaction';
import { chargeDue } from '@/flows/charging/charge-due';
import { programContext } from '@/flows/door/program';
import { keepAddress, letBe, sendAnew } from '@/flows/message/see-to';
import { sendCardLinks } from '@/flows/plan/own-page';
import { addCustomer } from '@/flows/records/customers';
import { asSuperuser } from '../../../tests/support/database';
import { planTerms, runningPlan, setClock } from '../../../tests/support/plans';
import { foundHouse, type House, plainPaper, sentInvoice, sharedWorkshop } from '../../../tests/support/workshop';
import { remindOfAll } from './remind-of-all';
import { todayView } from './today';

const workshop = await sharedWorkshop();
let house: House;
const hour = (on: string, at = '12:00') => instantInZone(on as CalendarDate, at, house.business.zone);
beforeEach(async () => {
  house = await foundHouse();
  await setClock(workshop.standIns, hour('2027-03-01'));
});

/** Today in short: each group with its rows, as the kinds of what stands in them. */
async function work() {
  const { groups, waits } = (await todayView(house.owner)).work;
  const rowOf = (row: (typeof waits)[number]) =>
    [row.first, ...row.same, ...row.also.map(({ of }) => of)].map(({ kind }) => kind).join(' ');
  return Object.fromEntries(
    [...groups, { group: 'waits', rows: waits }].map(({ group, rows }) => [group, rows.map(rowOf)]),
  );
}
const sentTo = async (kind: string) =>
  (
    await asSuperuser<{ to: string; others: string[] | null }>(
      workshop.admin,
      `select to_address as "to", details->'others' as others from messages where business_id = $1 and kind = $2 order by created_at`,
      [house.business.id, kind],
    )
  ).map(({ to, others }) => `${to}${others?.length ? ` and ${others.length}` : ''}`);
const late = (id: string, days: number) =>
  asSuperuser(workshop.admin, 'update invoices set due_on = $1 where id = $2', [
    addDays(dateInZone(hour('2027-03-01'), house.business.zone), -days),
    id,
  ]);

test('a customer with two late invoices stands once, is reminded of both in one mail, and then is waited for', async () => {
  const mail = { email: 'calla@lind.example' };
  const customer = await addCustomer(house.owner, newCustomer('Calla Lind', mail));
  const [one, two] = [
    await sentInvoice(house, plainPaper(house, { customerId: customer.id })),
    await sentInvoice(house, plainPaper(house, { customerId: customer.id, currency: 'EUR' })),
  ];
  for (const { id } of [one, two]) await late(id, 9);
  expect(await work()).toEqual({ remind: ['late late'], waits: [] });
  const asked = { invoiceIds: [one.id, two.id, randomUUID()], planIds: [] };
  const key = randomUUID();
  expect(await remindOfAll(house.owner, asked, key)).toMatchObject({ done: 2, refused: [{ id: asked.invoiceIds[2] }] });
  await remindOfAll(house.owner, asked, key);
  expect(await sentTo('reminder')).toEqual(['calla@lind.example and 1']);
  expect(await work()).toEqual({ waits: ['late late'] });
  await setClock(workshop.standIns, hour('2027-03-05'));
  expect(await work()).toEqual({ remind: ['late late'], waits: [] });
  await expect(remindOfAll(house.reader, asked, key)).rejects.toMatchObject({ code: 'not-allowed' });
});

test('a refused charge stands under what helps: charged again, a card link, or waiting for its retry; one person’s things together', async () => {
  const plan = (name: string, card: string) =>
    runningPlan(house, workshop.standIns, planTerms(house, '2027-03-02', { name }), [card], name);
  const poor = await plan('Poor Petra', 'corvid-poor');
  const blocked = await plan('Blocked Bea', 'corvid-blocked');
  await setClock(workshop.standIns, hour('2027-03-02'));
  await chargeDue(house.business.id);
  // Both were told by mail; the poor one is tried again by itself.
  expect(await work()).toEqual({ waits: ['charge', 'charge'] });
  const invoice = await sentInvoice(house, plainPaper(house, { customerId: poor.customerId }));
  await late(invoice.id, 3);
  expect(await work()).toEqual({ remind: ['late charge'], waits: ['charge'] });
  // Nobody gave another card: charging the blocked one again would be of no use.
  await setClock(workshop.standIns, hour('2027-03-06'));
  expect(await work()).toEqual({ card: ['charge'], remind: ['late charge'], waits: [] });
  await asSuperuser(workshop.admin, 'update charges set act_at = null where plan_id = $1', [poor.id]);
  expect(await work()).toEqual({ charge: ['charge late'], card: ['charge'], waits: [] });
  const key = randomUUID();
  const links = [blocked.customerId, blocked.customerId, randomUUID()];
  expect(await sendCardLinks(house.owner, links, key)).toMatchObject({ done: 1, refused: [{ id: links[2] }] });
  await sendCardLinks(house.owner, links, key);
  expect(await sentTo('own-page')).toEqual([blocked.email]);
  expect(await work()).toEqual({ charge: ['charge late'], waits: ['charge'] });
});

test('a message that did not arrive is sent anew once, to a better address that the customer keeps; or is let be', async () => {
  const customer = await addCustomer(house.owner, newCustomer('Calla Lind', { email: 'cala@lind.example' }));
  const invoices = [];
  for (let count = 0; count < 2; count++)
    invoices.push(await sentInvoice(house, plainPaper(house, { customerId: customer.id })));
  await asSuperuser(
    workshop.admin,
    `update messages set state = 'bounced', trouble = 'No such mailbox' where business_id = $1 and kind = 'invoice'`,
    [house.business.id],
  );
  expect(await work()).toEqual({ resend: ['undelivered undelivered'], waits: [] });
  const [first, second] = (await todayView(house.owner)).queue.flatMap((item) =>
    item.kind === 'undelivered' ? [item.message.id] : [],
  );
  for (const wrong of ['', 'calla', 'calla@lind', 'a b@c.example'])
    await expect(sendAnew(house.owner, first ?? '', wrong)).rejects.toMatchObject({ code: 'address-not-read' });
  await expect(sendAnew(house.reader, first ?? '', 'calla@lind.example')).rejects.toMatchObject({
    code: 'not-allowed',
  });
  const twice = await Promise.allSettled([1, 2].map(() => sendAnew(house.owner, first ?? '', 'calla@lind.example')));
  expect(twice.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
  await keepAddress(house.owner, first ?? '', 'calla@lind.example');
  expect(await sentTo('invoice')).toEqual(['cala@lind.example', 'cala@lind.example', 'calla@lind.example']);
  const kept = await readBusiness(programContext(house.business.id), (db) => customerById(db, customer.id));
  expect(kept?.email).toBe('calla@lind.example');
  expect(await work()).toEqual({ resend: ['undelivered'], waits: [] });
  await letBe(house.owner, second ?? '');
  expect(await work()).toEqual({ waits: [] });
  const other = await foundHouse('Elsewhere');
  await expect(sendAnew(other.owner, first ?? '', 'x@y.example')).rejects.toMatchObject({ code: 'not-found' });
});
