/** Items and open invoices from files: checked first, written whole, and the same file twice changes nothing. */
import { beforeEach, expect, test } from 'vitest';
import { EVERYTHING } from '@/core/invoice/ask';
import { accountBalances, ledgerTroubles } from '@/db/ledger';
import { inBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { cancelInvoice } from '@/flows/invoice/cancel-invoice';
import { checkInvoices, importInvoices } from '@/flows/invoice/import-invoices';
import { invoiceSheet } from '@/flows/invoice/invoice-sheet';
import { searchInvoices } from '@/flows/invoice/search-invoices';
import { takePayment } from '@/flows/payment/take-payment';
import { checkPlans, makePlans } from '@/flows/plan/many-plans';
import { asSuperuser } from '../../../tests/support/database';
import { clockAt } from '../../../tests/support/payouts';
import { cardToken, foundHouse, type House, sharedWorkshop } from '../../../tests/support/workshop';
import { findCustomers } from './customers';
import { checkItems, importItems } from './import-items';
import { findItems } from './items';

const workshop = await sharedWorkshop();
let house: House;
beforeEach(async () => {
  house = await foundHouse();
  await clockAt(workshop, house, '2027-03-01' as never, '10:00');
});
const of = <T>(work: Parameters<typeof inBusiness<T>>[1]) => inBusiness(programContext(house.business.id), work);
const written = async () =>
  (
    await asSuperuser(
      workshop.admin,
      `select (select count(*)::int from items where business_id = $1) as items, (select count(*)::int from customers where business_id = $1) as customers,
        (select count(*)::int from invoices where business_id = $1) as invoices, (select count(*)::int from messages where business_id = $1) as messages,
        (select count(*)::int from reminders where business_id = $1) as reminders, (select count(*)::int from plans where business_id = $1) as plans`,
      [house.business.id],
    )
  )[0];

test('items: what is good comes in, what is there or wrong is told row by row; at once and twice it is there once', async () => {
  const rows = [
    ['W-1', 'Wax, brown', '4.50', '12'],
    ['W-2', 'Varnish', 'much', ''],
    ['w-1', 'The same code', '1', ''],
    ['', 'Brush №4', '3', ''],
    ['', 'brush №4', '3', ''],
  ];
  const mapping = ['code', 'name', 'price', 'onHand'] as const;
  const before = await written();
  const checked = await checkItems(house.clerk, rows, mapping);
  expect(checked).toMatchObject({ written: 2, refused: [{ at: 1 }, { at: 2 }, { at: 4 }] });
  expect(await written()).toEqual(before);
  await Promise.all([importItems(house.clerk, rows, mapping), importItems(house.clerk, rows, mapping)]);
  expect(await importItems(house.clerk, rows, mapping)).toMatchObject({ written: 0, refused: { length: 5 } });
  expect(await written()).toMatchObject({ items: 2 });
  expect(await findItems(house.owner, 'wax')).toMatchObject([{ code: 'W-1', prices: { USD: '4.50' }, onHand: '12' }]);
  expect(await checkItems(house.owner, [['W-1', 'Another name', '', '']], mapping)).toMatchObject({ written: 0 });
  await expect(importItems(house.reader, rows, mapping)).rejects.toMatchObject({ code: 'not-allowed' });
});

const OPEN = ['number', 'customer', 'email', 'issuedOn', 'dueOn', 'total', 'paid', 'currency'] as const;

test('open invoices: under their own numbers, over what is owed; booked without revenue, sent to nobody, paid like any other', async () => {
  const rows = [
    ['2026-11', 'Perpetua Vane', 'perpetua@vane.example', '11/03/2026', '', '480.00', '200', ''],
    ['2026-12', 'Öystad & Filles', '', '2025-02-01', '2025-03-01', '75', '', 'EUR'],
    ['2026-12', 'Öystad & Filles', '', '2025-02-01', '', '75', '', 'EUR'],
    ['2026-13', 'Öystad & Filles', '', '2025-02-01', '', '75', '75', 'EUR'],
    ['2026-14', '', 'nobody@known.example', '2025-02-01', '', '75', '', ''],
  ];
  const before = await written();
  expect(await checkInvoices(house.clerk, rows, OPEN)).toMatchObject({
    written: 2,
    refused: [{ at: 2 }, { at: 3, reasons: ['Nothing of it is open'] }, { at: 4 }],
  });
  expect(await written()).toEqual(before);
  const [first, second] = await Promise.all([
    importInvoices(house.clerk, rows, OPEN),
    importInvoices(house.clerk, rows, OPEN),
  ]);
  expect([first.written, second.written].sort()).toEqual([0, 2]);
  expect(await importInvoices(house.clerk, rows, OPEN)).toMatchObject({ written: 0 });
  expect(await written()).toMatchObject({ invoices: 2, customers: 2, messages: 0, reminders: 0 });
  expect(await of(ledgerTroubles)).toEqual([]);
  const balance = async (account: Parameters<typeof accountBalances>[1]) =>
    (await of((tx) => accountBalances(tx, account))).map(({ minor, currency }) => `${minor} ${currency}`);
  expect(await balance('revenue')).toEqual([]);
  expect(await balance('tax-payable')).toEqual([]);
  expect(await balance('receivable')).toEqual(['7500 EUR', '28000 USD']);
  expect(await balance('brought-in')).toEqual(['-7500 EUR', '-28000 USD']);
  expect((await findCustomers(house.owner, 'oystad')).length).toBe(1);

  const { rows: found } = await searchInvoices(house.owner, { ...EVERYTHING, words: '2026-1' });
  expect(found.map(({ number, dueMinor, issuedOn, dueOn }) => ({ number, dueMinor, issuedOn, dueOn }))).toEqual([
    { number: '2026-11', dueMinor: 28_000n, issuedOn: '2026-11-03', dueOn: '2026-11-17' },
    { number: '2026-12', dueMinor: 7500n, issuedOn: '2025-02-01', dueOn: '2025-03-01' },
  ]);
  const [paying, cancelling] = found;
  const sheet = await invoiceSheet(house.owner, paying?.id ?? '');
  expect(sheet.invoice.printed?.lines[0]).toMatchObject({ net: 28_000, taxes: [], note: '480.00 − 200.00 USD' });
  const cardToken_ = await cardToken(workshop.standIns, 'corvid-good');
  const attempt = { attemptKey: crypto.randomUUID(), cardToken: cardToken_, amountMinor: 28_000n };
  expect(await takePayment(sheet.invoice.linkToken, attempt, 'a')).toMatchObject({ state: 'paid' });
  await cancelInvoice(house.owner, cancelling?.id ?? '', 'Was settled after all', false);
  expect(await of(ledgerTroubles)).toEqual([]);
  const unconfirmed = await foundHouse('Unconfirmed');
  await asSuperuser(workshop.admin, 'update businesses set mail_confirmed_at = null where business_id = $1', [
    unconfirmed.business.id,
  ]);
  await expect(importInvoices(unconfirmed.owner, rows, OPEN)).rejects.toMatchObject({ code: 'mail-not-confirmed' });
});

test('plans with their next date: the same table a second time makes none that is there', async () => {
  const table = 'e-mail,name,plan,price,start\nida@marsh.example,Ida Marsh,Care club,20.00,2040-01-01\n';
  const key = crypto.randomUUID();
  expect(await makePlans(house.owner, table, key)).toEqual({ sent: 1 });
  expect(await makePlans(house.owner, table, key)).toEqual({ sent: 1 });
  expect(await makePlans(house.owner, table, crypto.randomUUID())).toEqual({ sent: 0 });
  expect(await written()).toMatchObject({ plans: 1 });
  expect((await checkPlans(house.owner, table))[0]?.trouble).toContain('already');
});
