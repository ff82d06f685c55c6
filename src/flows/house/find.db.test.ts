/** "Find or do": everything by every side it is known by, and what a typed verb does with it. */
import { beforeAll, expect, test } from 'vitest';
import { newCustomer } from '@/core/customer/customer';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { EVERYTHING } from '@/core/invoice/ask';
import { GOES_AS_USUAL, type Item } from '@/core/item/item';
import { newLine } from '@/core/paper/paper';
import { startRecurring } from '@/flows/invoice/recurring';
import { searchInvoices } from '@/flows/invoice/search-invoices';
import { storeCode } from '@/flows/offer/codes';
import { addCustomer } from '@/flows/records/customers';
import { keepItem } from '@/flows/records/items';
import { storePartner } from '@/flows/records/partners';
import { asSuperuser } from '../../../tests/support/database';
import { paidOrder, placedOffer } from '../../../tests/support/offers';
import { buyAll, livesAt, packAll, postedItem, readyToPack, soldToPost } from '../../../tests/support/parcels';
import { planTerms, runningPlan } from '../../../tests/support/plans';
import {
  foundHouse,
  type House,
  keptDraft,
  plainPaper,
  sentInvoice,
  sharedWorkshop,
} from '../../../tests/support/workshop';
import { findAll } from './find';

const ROSIN: Omit<Item, 'id'> = {
  code: 'RO-2',
  name: 'Rosin, dark',
  description: '',
  kind: 'goods',
  unit: 'piece',
  prices: { USD: '12' },
  cost: '',
  taxClass: 'standard',
  onHand: null,
  lowAt: null,
  pictureId: null,
  going: GOES_AS_USUAL,
  options: [],
};
const SPRING = {
  code: 'SPRING',
  note: 'The spring fair',
  percent: '10',
  amountMinor: null,
  currency: 'USD',
  from: '',
  to: '',
  leastMinor: 0n,
  mostUses: null,
  mostEach: null,
  itemIds: [],
};

const workshop = await sharedWorkshop();
let house: House;
let invoice: Awaited<ReturnType<typeof sentInvoice>>;
let planId: string;

beforeAll(async () => {
  house = await foundHouse();
  const calla = await addCustomer(house.owner, newCustomer('Çalla Lind-Öström', { email: 'calla@lind.example' }));
  invoice = await sentInvoice(house, plainPaper(house, { customerId: calla.id, reference: 'PO 77/4' }));
  await keptDraft(house, plainPaper(house, { customerId: calla.id }));
  const terms = planTerms(house, '2040-01-01', { name: 'Viola rental' });
  planId = (await runningPlan(house, workshop.standIns, terms, ['lumen-good'], 'Quentin Marsh')).id;
  const offer = await placedOffer(house, { prices: { USD: '40' } });
  await paidOrder(workshop, offer.called, { name: 'Ida Tarn', email: 'ida@tarn.example' });
  await keepItem(house.owner, null, ROSIN);
  await storePartner(house.owner, null, { name: 'Selma Quist', email: 'selma@quist.example' });
  await storeCode(house.owner, null, SPRING);
  const start = '2040-01-01' as CalendarDate;
  const schedule = { unit: 'month', every: 1, start, ends: 'never' } as const;
  await startRecurring(house.owner, invoice.id, { name: 'Monthly tuning', schedule, makes: 'draft' });
});

const kinds = async (words: string) => (await findAll(house.owner, words)).found.map(({ kind }) => kind);
const first = async (words: string) => (await findAll(house.owner, words)).found[0];

test('what is sent, by whom for, where to, what is in it, its sale and its number as it is read; also by who sees no sums', async () => {
  await readyToPack(house);
  const hana = await livesAt(house, 'はな Beck');
  const sale = await soldToPost(house, hana, await postedItem(house, 'Chinrest, ebony'));
  await packAll(house);
  const [id = ''] = await buyAll(house);
  const [{ number = '' } = {}] = await asSuperuser<{ number: string }>(
    workshop.admin,
    'select number from parcels where id = $1',
    [id],
  );
  const spaced = `${number.slice(0, 2)} ${number.slice(2, 6)} ${number.slice(6, 10)} ${number.slice(10)}`;
  for (const words of [number, number.toLowerCase(), spaced, number.slice(2, 9), 'chinrest, eb', 'はな'])
    expect((await findAll(house.owner, words)).found, words).toContainEqual(
      expect.objectContaining({ kind: 'shipment', id, number, name: 'はな Beck', state: 'open' }),
    );
  expect(await first(number)).toMatchObject({ kind: 'shipment' });
  expect(await first(sale.number)).toMatchObject({ kind: 'invoice' });
  const bram = { ...house.packer };
  expect((await findAll(bram, sale.number)).found.map(({ kind }) => kind)).toEqual(['shipment']);
  expect((await findAll(bram, 'はな')).found).toMatchObject([{ kind: 'shipment', amountMinor: null }]);
});

test('each kind by each of its sides', async () => {
  expect(await first('çalla')).toMatchObject({ kind: 'customer', name: 'Çalla Lind-Öström' });
  expect(await first('öström çalla')).toMatchObject({ kind: 'customer' });
  expect(await first('calla@lind')).toMatchObject({ kind: 'customer' });
  expect(await first('ça')).toMatchObject({ kind: 'customer' });
  expect(await first(invoice.number)).toMatchObject({ kind: 'invoice', state: 'open', amountMinor: 11_000n });
  expect(await first('po 77/4')).toMatchObject({ kind: 'invoice', number: invoice.number });
  expect(await kinds('110.00')).toContain('invoice');
  expect(await first('P-1')).toMatchObject({ kind: 'plan', name: 'Quentin Marsh', about: 'Viola rental' });
  expect(await first('viola')).toMatchObject({ kind: 'plan' });
  expect(await kinds('marsh')).toEqual(expect.arrayContaining(['customer', 'plan']));
  const [card] = await asSuperuser<{ last4: string }>(workshop.admin, 'select last4 from cards');
  expect(await kinds(card?.last4 ?? '')).toContain('plan');
  expect(await first('bench da')).toMatchObject({ kind: 'link' });
  const [order] = await asSuperuser<{ reference: string; last4: string; receipt: string }>(
    workshop.admin,
    `select orders.reference, card_last4 as last4, receipts.number as receipt from payments
     join orders on orders.id = order_id join receipts on receipts.payment_id = payments.id`,
  );
  expect(await first(order?.reference ?? '')).toMatchObject({ kind: 'payment', name: 'Ida Tarn', amountMinor: 4400n });
  expect(await kinds(order?.last4 ?? '')).toContain('payment');
  expect(await kinds('44')).toContain('payment');
  expect(await kinds('ida@tarn')).toContain('payment');
  expect(await kinds(order?.receipt ?? '')).toContain('receipt');
  expect(await first('rosin')).toMatchObject({ kind: 'item', number: 'RO-2' });
  expect(await first('ro-2')).toMatchObject({ kind: 'item' });
  expect(await first('quist')).toMatchObject({ kind: 'partner' });
  expect(await first('spring')).toMatchObject({ kind: 'code' });
  expect(await first('monthly tun')).toMatchObject({ kind: 'recurring' });
});

test('what a person typed is no pattern and no statement; too little finds nothing, and nobody finds what is another’s', async () => {
  for (const words of [
    '%',
    '%%',
    '__',
    "'; drop table customers; --",
    '\\',
    '\u0001',
    'x'.repeat(100),
    '9'.repeat(40),
    '😀😀',
    'ç',
    ' ',
  ])
    expect((await findAll(house.owner, words)).found, words).toEqual([]);
  const other = await foundHouse('Elsewhere');
  for (const words of ['çalla', invoice.number, 'P-1', 'bench', 'spring', 'quist'])
    expect((await findAll(other.owner, words)).found.filter(({ name }) => name !== '')).toEqual([]);
});

test('a verb and what it is about are deeds that can be done as it stands, before what is only found', async () => {
  const deeds = async (line: string) =>
    (await findAll(house.owner, line)).deeds.map(({ deed, found }) => `${deed} ${found.kind} ${found.number}`);
  expect(await deeds(`remind ${invoice.number}`)).toContain(`remind invoice ${invoice.number}`);
  expect(await deeds('pause P-1')).toEqual(['pause plan P-1']);
  expect(await deeds('resume P-1')).toEqual([]);
  expect(await deeds('pause marsh')).toEqual(['pause plan P-1']);
  expect(await deeds('new plan for marsh')).toEqual(['plan customer ']);
  expect(await deeds('record a')).toEqual([]);
  await asSuperuser(workshop.admin, `update plans set state = 'paused' where id = $1`, [planId]);
  expect(await deeds('resume P-1')).toEqual(['resume plan P-1']);
});

test('a sum is looked for as its desk writes numbers', async () => {
  const desk = await foundHouse('Weilheim');
  const priced = async (price: string) => {
    const lines = [newLine('l', 'piece', { what: 'Oak', price, taxesBy: 'person', taxes: [] })];
    return (await sentInvoice(desk, plainPaper(desk, { lines }))).id;
  };
  const [large, small] = [await priced('1500'), await priced('1.50')];
  const found = async (words: string) => {
    const list = (await searchInvoices(desk.owner, { ...EVERYTHING, words })).rows.map(({ id }) => id);
    const all = (await findAll(desk.owner, words)).found.map(({ id }) => id);
    return [large, small].map((id) => [list.includes(id), all.includes(id)]);
  };
  expect(await found('1,500')).toEqual([
    [true, true],
    [false, false],
  ]);
  await asSuperuser(workshop.admin, `update businesses set locale = 'de-DE' where business_id = $1`, [
    desk.business.id,
  ]);
  expect(await found('1.500')).toEqual([
    [true, true],
    [false, false],
  ]);
  expect(await found('1,50')).toEqual([
    [false, false],
    [true, true],
  ]);
});
