/** The register: payments and refunds in one list, narrowed by whatever they hang on, summed, paged and taken along. */

import { randomUUID } from 'node:crypto';
import { beforeAll, expect, test } from 'vitest';
import { newCustomer } from '@/core/customer/customer';
import { GOES_AS_USUAL } from '@/core/item/item';
import { newLine } from '@/core/paper/paper';
import { type RegisterAsk, WHOLE_REGISTER } from '@/core/register/ask';
import { invoiceSheet } from '@/flows/invoice/invoice-sheet';
import { recordReceived } from '@/flows/payment/receive-payment';
import { refundPayment } from '@/flows/payment/refund-payment';
import { takePayment } from '@/flows/payment/take-payment';
import { addCustomer } from '@/flows/records/customers';
import { keepItem } from '@/flows/records/items';
import { storePartner } from '@/flows/records/partners';
import { keepTariff } from '@/flows/records/profile';
import { asSuperuser } from '../../../tests/support/database';
import { paidOrder, placedOffer } from '../../../tests/support/offers';
import { backOf } from '../../../tests/support/refunds';
import {
  cardToken,
  foundHouse,
  type House,
  plainPaper,
  sentInvoice,
  sharedWorkshop,
} from '../../../tests/support/workshop';
import { registerFile, registerOf, registerSums } from './register';
import { registerChoices, saveRegister } from './saved-registers';

const workshop = await sharedWorkshop();
let house: House;
let offerId: string;
let partnerId: string;
let itemId: string;
let customerId: string;

const rowsOf = async (ask: Partial<RegisterAsk>) =>
  (await registerOf(house.owner, { ...WHOLE_REGISTER, ...ask }, null)).rows;
const told = async (ask: Partial<RegisterAsk>) =>
  (await rowsOf(ask)).map(({ kind, amountMinor }) => (kind === 'refund' ? -amountMinor : amountMinor));

beforeAll(async () => {
  house = await foundHouse();
  await keepTariff(house.owner, [{ currency: 'USD', scheme: '', percent: '2', fixedMinor: 10 }]);
  // An order of 44.00 with a tip of 4.40, shared with a partner, 9.80 of it given back.
  partnerId = (await storePartner(house.owner, null, { name: 'Ada Teacher', email: '' })).id;
  const offer = await placedOffer(house, {
    prices: { USD: '40' },
    tip: ['10'],
    split: { partners: [{ partnerId, percent: '50' }], keep: '', feeFrom: 'business' },
  });
  offerId = offer.id;
  const order = await paidOrder(workshop, offer.called, { tip: '10%' });
  await refundPayment(house.owner, order, backOf(980n));
  // An invoice of 60.00 with an item, paid by cheque; another of 110.00 refused once and then paid by card.
  itemId = (
    await keepItem(house.owner, null, {
      code: 'RO-1',
      name: 'Rosin',
      description: '',
      kind: 'goods',
      unit: 'piece',
      prices: { USD: '60' },
      cost: '',
      taxClass: 'standard',
      onHand: null,
      lowAt: null,
      pictureId: null,
      going: GOES_AS_USUAL,
      options: [],
    })
  ).id;
  customerId = (await addCustomer(house.owner, newCustomer('Çalla Öström-Lind', { email: 'calla@lind.example' }))).id;
  const line = newLine(randomUUID(), 'piece', {
    what: 'Rosin',
    quantity: '1',
    price: '60',
    taxes: [],
    taxesBy: 'person',
    itemId,
  });
  const cheque = await sentInvoice(house, plainPaper(house, { customerId, lines: [line] }));
  await recordReceived(house.owner, cheque.id, {
    amountMinor: 6000n,
    method: 'cheque',
    reference: 'CHQ-0311',
    receivedOn: '2026-01-15',
    requestKey: randomUUID(),
  });
  const card = await sentInvoice(house);
  for (const name of ['corvid-poor', 'lumen-good']) {
    const attempt = {
      attemptKey: randomUUID(),
      cardToken: await cardToken(workshop.standIns, name),
      amountMinor: 11_000n,
    };
    await takePayment(card.link, attempt, '203.0.113.5');
  }
});

test('everything, latest first, refunds among it; back-dated money stands on its day', async () => {
  const rows = await rowsOf({});
  expect(rows.map(({ kind, state, amountMinor }) => `${kind} ${state} ${amountMinor}`)).toEqual([
    'payment paid 11000',
    'payment refused 11000',
    'refund done 980',
    'payment paid 4840',
    'payment paid 6000',
  ]);
});

test.each<[string, () => Partial<RegisterAsk>, bigint[]]>([
  ['a customer', () => ({ customerId }), [6000n]],
  ['an offer', () => ({ offerId }), [-980n, 4840n]],
  ['a partner', () => ({ partnerId }), [-980n, 4840n]],
  ['an item', () => ({ itemId }), [6000n]],
  ['a channel', () => ({ channel: 'link' }), [-980n, 4840n]],
  ['a way', () => ({ way: 'cheque' }), [6000n]],
  ['part-refunded', () => ({ state: 'part-refunded' }), [4840n]],
  ['refused', () => ({ state: 'refused' }), [11_000n]],
  ['refunds only', () => ({ show: 'refunds' }), [-980n]],
  ['a day', () => ({ from: '2026-01-15', to: '2026-01-15' }), [6000n]],
  ['a fee that is not what was agreed', () => ({ fee: 'differs' }), [11_000n, 4840n]],
  ['what is not in the account yet', () => ({ landed: 'not-yet' }), [11_000n, -980n, 4840n]],
  ['what is disputed', () => ({ state: 'disputed' }), []],
  ['a name in other signs', () => ({ words: 'calla ostrom' }), [6000n]],
  ['a cheque’s number', () => ({ words: 'chq-03' }), [6000n]],
  ['a sum with its tip', () => ({ words: '48.40' }), [-980n, 4840n]],
  ['a refund’s sum', () => ({ words: '9.80' }), [-980n, 4840n]],
  ['an offer, another way', () => ({ offerId, way: 'cash' }), []],
  ['words that are a pattern', () => ({ words: '%' }), []],
])('narrowed by %s', async (_, ask, amounts) => {
  expect(await told(ask())).toEqual(amounts);
});

test('the sums are the same, kept by day or counted row by row, for whatever is asked', async () => {
  const whole = [{ currency: 'USD', payments: 3, paidMinor: 21_840n, refunds: 1, refundedMinor: 980n }];
  expect(await registerSums(house.owner, WHOLE_REGISTER)).toEqual(whole);
  const asks: Partial<RegisterAsk>[] = [
    {},
    { way: 'card' },
    { channel: 'invoice' },
    { show: 'refunds' },
    { show: 'payments', way: 'card' },
    { to: '2026-02-01' },
  ];
  for (const ask of asks) {
    const kept = await registerSums(house.owner, { ...WHOLE_REGISTER, ...ask });
    // Every payer has a name with a letter: words that narrow nothing make it count.
    const rows = (await rowsOf(ask)).filter(({ state }) => state === 'paid' || state === 'done');
    const paid = rows.filter(({ kind }) => kind === 'payment');
    expect(kept[0]?.paidMinor ?? 0n).toBe(paid.reduce((sum, { amountMinor }) => sum + amountMinor, 0n));
    expect(kept[0]?.payments ?? 0).toBe(paid.length);
    expect(kept[0]?.refunds ?? 0).toBe(rows.length - paid.length);
  }
  expect(await registerSums(house.owner, { ...WHOLE_REGISTER, offerId })).toEqual([
    { currency: 'USD', payments: 1, paidMinor: 4840n, refunds: 1, refundedMinor: 980n },
  ]);
});

const read = async (ask: RegisterAsk, form: 'csv' | 'json') => {
  let text = '';
  for await (const part of await registerFile(house.reader, ask, form)) text += part;
  return text;
};

test('CSV and JSON have every row, what went out below 0', async () => {
  const lines = (await read(WHOLE_REGISTER, 'csv')).trim().split('\r\n');
  expect(lines).toHaveLength(6);
  expect(lines[0]?.split(',').slice(0, 5)).toEqual(['day', 'at', 'kind', 'state', 'channel']);
  expect(lines[3]).toContain(',-9.80,');
  const rows = JSON.parse(await read(WHOLE_REGISTER, 'json')) as { amount: string; customer: string }[];
  expect(rows.map(({ amount }) => amount)).toEqual(['110.00', '110.00', '-9.80', '48.40', '60.00']);
  expect(rows.at(-1)?.customer).toBe('Çalla Öström-Lind');
  expect(JSON.parse(await read({ ...WHOLE_REGISTER, words: 'nobody like that' }, 'json'))).toEqual([]);
});

test('page by page nothing is left out or shown twice, however the instants meet', async () => {
  const many = await foundHouse('Many');
  const { id } = await sentInvoice(many);
  await asSuperuser(
    workshop.admin,
    `insert into payments (id, business_id, invoice_id, customer_id, channel, currency, amount_minor, state, attempt_key, started_at, exclusive)
     select gen_random_uuid(), $1, $2, $3, 'invoice', 'USD', 100, 'refused', n::text, timestamptz '2026-03-01' + make_interval(mins => n / 7), false
     from generate_series(1, 205) as n`,
    [many.business.id, id, many.customerId],
  );
  const seen: string[] = [];
  for (let next = null as Awaited<ReturnType<typeof registerOf>>['next']; ; ) {
    const page = await registerOf(many.owner, WHOLE_REGISTER, next);
    seen.push(...page.rows.map((row) => row.id));
    if (!page.next) break;
    next = page.next;
  }
  expect(seen).toHaveLength(205);
  expect(new Set(seen).size).toBe(205);
  expect((await invoiceSheet(many.owner, id)).payments).toEqual([]);
});

test('a list is kept under a name of its own kind, and a reader keeps none', async () => {
  const asked = { ...WHOLE_REGISTER, way: 'cheque' } as const;
  await saveRegister(house.clerk, 'Cheques', asked);
  await saveRegister(house.clerk, 'cheques', { ...asked, from: '2026-01-01' });
  const { saved, currencies } = await registerChoices(house.reader);
  expect(saved).toMatchObject([{ name: 'cheques', asked: { way: 'cheque', from: '2026-01-01' } }]);
  expect(currencies).toEqual(['USD']);
  await expect(saveRegister(house.reader, 'Mine', asked)).rejects.toMatchObject({ code: 'not-allowed' });
});
