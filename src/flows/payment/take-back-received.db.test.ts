import { randomUUID } from 'node:crypto';
import { expect, test } from 'vitest';
import { newCustomer } from '@/core/customer/customer';
import { GOES_AS_USUAL } from '@/core/item/item';
import { newLine, type Paper } from '@/core/paper/paper';
import { accountBalances, ledgerTroubles } from '@/db/ledger';
import { queuedMessages } from '@/db/messages';
import { readBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { invoiceSheet } from '@/flows/invoice/invoice-sheet';
import { viewByLink } from '@/flows/invoice/payer-page';
import { handOverMessage } from '@/flows/post/hand-over-message';
import { addCustomer } from '@/flows/records/customers';
import { availableStock, keepItem } from '@/flows/records/items';
import { asSuperuser } from '../../../tests/support/database';
import {
  cardToken,
  foundHouse,
  mailOf,
  plainPaper,
  sentInvoice,
  sharedWorkshop,
} from '../../../tests/support/workshop';
import { recordReceived } from './receive-payment';
import { takeBackReceived } from './take-back-received';
import { takePayment } from './take-payment';

const workshop = await sharedWorkshop();
const house = await foundHouse();
const program = programContext(house.business.id);
const books = () => readBusiness(program, (db) => ledgerTroubles(db));
const mailAll = async () => {
  for (const { id } of await readBusiness(program, (db) => queuedMessages(db)))
    await handOverMessage(house.business.id, id);
};
const received = (id: string, amountMinor = 11_000n) =>
  recordReceived(house.owner, id, {
    amountMinor,
    method: 'cash',
    reference: '',
    receivedOn: '',
    requestKey: randomUUID(),
  });
const paymentsOf = async (id: string) => (await invoiceSheet(house.owner, id)).payments;
const asked = async (more: Partial<Paper> = {}) => {
  const customer = await addCustomer(
    house.owner,
    newCustomer('Wrongly Paid', { email: `${randomUUID()}@wrong.example` }),
  );
  return { customer, ...(await sentInvoice(house, plainPaper(house, { customerId: customer.id, ...more }))) };
};
const backOnce = (id: string, tell = true) => takeBackReceived(house.owner, id, { reason: 'Another invoice', tell });

test('all is as before: what is due, the ledger, the stock, the reminders; the customer is told, and pressed by many it is once', async () => {
  const item = await keepItem(house.owner, null, {
    code: '',
    name: 'Bow',
    description: '',
    kind: 'goods',
    unit: 'piece',
    prices: { USD: '50' },
    cost: '',
    taxClass: 'standard',
    onHand: '7',
    lowAt: null,
    pictureId: null,
    going: GOES_AS_USUAL,
    options: [],
  });
  const lines = [newLine(randomUUID(), 'piece', { what: 'Bow', price: '50', quantity: '2', itemId: item.id })];
  const { id, link, customer } = await asked({ lines, due: { kind: 'days', days: 10 }, reminders: [1] });
  const left = async () => (await availableStock(house.owner, [item.id]))[item.id];
  const onHand = async () =>
    (
      await asSuperuser<{ n: string }>(
        workshop.admin,
        'select trim_scale(on_hand)::text as n from items where id = $1',
        [item.id],
      )
    )[0]?.n;
  const cash = () => readBusiness(program, (db) => accountBalances(db, 'cash'));
  const before = { left: await left(), onHand: await onHand(), cash: await cash() };
  const { invoice } = await invoiceSheet(house.owner, id);
  await received(id, invoice.totalMinor);
  expect(await onHand()).toBe('5');
  const [payment] = await paymentsOf(id);
  await Promise.all(Array.from({ length: 8 }, () => backOnce(payment?.id ?? '')));

  const sheet = await invoiceSheet(house.owner, id);
  expect(sheet.invoice).toMatchObject({ paidMinor: 0n, dueMinor: invoice.totalMinor, settledAt: null });
  expect(sheet.payments).toEqual([]);
  expect(sheet.reminders.map(({ state }) => state)).toEqual(['waiting']);
  expect(sheet.timeline.filter(({ event }) => event.kind === 'payment-taken-back')).toHaveLength(1);
  expect({
    left: await left(),
    onHand: await onHand(),
    cash: (await cash()).filter(({ minor }) => minor !== 0n),
  }).toEqual({
    ...before,
    cash: before.cash.filter(({ minor }) => minor !== 0n),
  });
  expect(await books()).toEqual([]);
  expect((await viewByLink(link))?.receipts).toEqual([]);
  await mailAll();
  const told = (await mailOf(workshop.standIns, customer.email)).filter(({ subject }) =>
    subject.includes('does not count'),
  );
  expect(told).toHaveLength(1);
  expect(told[0]?.text).toContain('Another invoice');
  // It can be paid again, and then by card too.
  await received(id, invoice.totalMinor);
  expect(await onHand()).toBe('5');
  expect(await books()).toEqual([]);
});

test('a part of several: only that one; untold it stays untold; a card’s payment and an order’s are not taken back', async () => {
  const { id, link, customer } = await asked({
    ways: { card: true, transfer: false, parts: true, first: '', tip: null },
  });
  await received(id, 3000n);
  await received(id, 2000n);
  const token = await cardToken(workshop.standIns, 'corvid-good');
  await takePayment(link, { attemptKey: randomUUID(), cardToken: token, amountMinor: 1000n }, 'a');
  const [first, , card] = await paymentsOf(id);
  await backOnce(first?.id ?? '', false);
  expect((await invoiceSheet(house.owner, id)).invoice).toMatchObject({ paidMinor: 3000n, dueMinor: 8000n });
  await expect(backOnce(card?.id ?? '')).rejects.toMatchObject({ code: 'payment-not-by-hand' });
  await expect(takeBackReceived(house.reader, first?.id ?? '', { reason: '', tell: true })).rejects.toMatchObject({
    code: 'not-allowed',
  });
  expect(await books()).toEqual([]);
  await mailAll();
  const told = (await mailOf(workshop.standIns, customer.email)).filter(({ subject }) =>
    subject.includes('does not count'),
  );
  expect(told).toEqual([]);
});
