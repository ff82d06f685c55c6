/** Gift vouchers: sold once, owed until they are used, used as far as they reach by whatever way, and never twice. */

import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { beforeEach, expect, test } from 'vitest';
import { addDays, type CalendarDate } from '@/core/dates/calendar-date';
import type { Choice } from '@/core/offer/choice';
import { WHOLE_REGISTER } from '@/core/register/ask';
import { NO_GIFT } from '@/core/voucher/gift';
import { accountBalances, ledgerTroubles } from '@/db/ledger';
import { inBusiness } from '@/db/transaction';
import { vouchersOfOrder } from '@/db/vouchers';
import { checkoutPage, checkoutQuote } from '@/flows/checkout/checkout-page';
import { batchSheet } from '@/flows/day/day-batches';
import { programContext } from '@/flows/door/program';
import { invoiceSheet } from '@/flows/invoice/invoice-sheet';
import { payByVoucher, payByVoucherAtDesk, voucherAtDesk, voucherForInvoice } from '@/flows/payment/pay-by-voucher';
import { refundPayment } from '@/flows/payment/refund-payment';
import { takePayment } from '@/flows/payment/take-payment';
import { handOverMessage } from '@/flows/post/hand-over-message';
import { storePartner } from '@/flows/records/partners';
import { registerOf } from '@/flows/register/register';
import { services } from '@/outside/services';
import { asSuperuser } from '../../../tests/support/database';
import { disputePayment } from '../../../tests/support/disputes';
import { underTheKnife } from '../../../tests/support/knife';
import { playMinute } from '../../../tests/support/minute';
import { paidOrder, placedOffer } from '../../../tests/support/offers';
import { clockAt, playDays } from '../../../tests/support/payouts';
import { back, backOf } from '../../../tests/support/refunds';
import { seeded } from '../../../tests/support/seeded';
import {
  cardToken,
  foundHouse,
  type House,
  mailOf,
  sentInvoice,
  sharedWorkshop,
} from '../../../tests/support/workshop';
import { lookForDisputes } from '../dispute/hear-disputes';
import { linkedVoucherPdf, voucherPage } from './voucher-page';
import { voucherLink } from './voucher-paper';
import { extendVoucher, keepVoucherRule, sendVoucherAgain, stopVoucher, voucherList, voucherSheet } from './vouchers';

// A Monday.
const DAY = '2027-03-01' as CalendarDate;
const workshop = await sharedWorkshop();
let house: House;
beforeEach(async () => {
  house = await foundHouse();
  await at(DAY, '10:00');
});

const at = (day: CalendarDate, hour: string) => clockAt(workshop, house, day, hour);
const of = <T>(work: Parameters<typeof inBusiness<T>>[1]) => inBusiness(programContext(house.business.id), work);
const balance = async (account: Parameters<typeof accountBalances>[1], currency = 'USD'): Promise<bigint> =>
  (await of((tx) => accountBalances(tx, account))).find((sum) => sum.currency === currency)?.minor ?? 0n;
const sound = async () => expect(await of(ledgerTroubles)).toEqual([]);

/** Somebody buys a voucher of so much; what was paid, and the voucher. */
async function bought(amount: string, more: Partial<Choice> = {}) {
  const { called } = await placedOffer(house, { kind: 'open', ownAmount: true, title: 'A voucher', voucher: true });
  const paymentId = await paidOrder(workshop, called, { amount, ...more });
  const [voucher] = await vouchersByPayment(paymentId);
  if (!voucher) throw new Error('No voucher was made');
  return voucher;
}

const vouchersByPayment = async (paymentId: string) => {
  const [row] = await asSuperuser<{ order: string }>(
    workshop.admin,
    'select order_id as order from payments where id = $1',
    [paymentId],
  );
  return of((tx) => vouchersOfOrder(tx, row?.order ?? ''));
};

const textOf = (bytes: Buffer): string =>
  execFileSync('pdftotext', ['-layout', '-', '-'], { input: bytes, encoding: 'utf8' }).replace(/\s+/g, ' ');

const left = async (id: string) => (await voucherSheet(house.reader, id)).voucher.balanceMinor;

/** What a checkout says of a choice. */
async function quote(called: string, more: Partial<Choice>) {
  const page = await checkoutPage(called, { acceptLanguage: 'en-US', lang: '', currency: '', request: '' });
  const choice = { ...page?.begun, name: 'Ida Marsh', email: 'ida@marsh.example', ...more } as Choice;
  return checkoutQuote(called, { choice, quote: '', request: '', locale: 'en-US' });
}

type Paid = { id: string; method: string; state: string; minor: string; tip: string };
const paymentsOf = (paymentId: string): Promise<Paid[]> =>
  asSuperuser<Paid>(
    workshop.admin,
    `select id, method, state, amount_minor::text as minor, tip_minor::text as tip from payments
     where order_id = (select order_id from payments where id = $1) order by method`,
    [paymentId],
  );

test('sold: owed and not earned, without tax; it comes with code and paper, on the chosen day to the person chosen, once', async () => {
  const to = `${randomUUID().slice(0, 8)}@finch.example`;
  const on = addDays(DAY, 12);
  const gift = { toName: 'Björn Grünfink', toEmail: to, on, message: 'Für die neue Saite. Заходи!' };
  const voucher = await bought('50', { gift });
  expect(voucher).toMatchObject({
    valueMinor: 5000n,
    balanceMinor: 5000n,
    expiresOn: '2030-12-31',
    fromName: 'Ida Marsh',
  });
  expect([await balance('vouchers'), await balance('revenue'), await balance('tax-payable')]).toEqual([-5000n, 0n, 0n]);
  await sound();
  expect(await playMinute()).toEqual([]);
  const queued = () =>
    asSuperuser<{ id: string; address: string }>(
      workshop.admin,
      `select id, to_address as address from messages where business_id = $1 and kind = 'voucher' order by created_at`,
      [house.business.id],
    );
  expect(await queued()).toEqual([]);
  await at(on, '08:00');
  expect([...(await playMinute()), ...(await playMinute())]).toEqual([]);
  const [message, ...more] = await queued();
  expect([message?.address, more]).toEqual([to, []]);
  await handOverMessage(house.business.id, message?.id ?? '');
  const [mail] = await mailOf(workshop.standIns, to);
  expect(mail?.subject).toBe('Ida Marsh gives you a voucher: $50.00');
  expect(mail?.text).toContain('Für die neue Saite. Заходи!');
  expect(mail?.attachments.map(({ contentType }) => contentType)).toEqual(['application/pdf']);
  const token = voucherLink(house.business.id, voucher.id).split('/').pop() ?? '';
  const text = textOf((await linkedVoucherPdf(token)).bytes);
  for (const part of ['$50.00', 'Björn Grünfink', 'Заходи!', voucher.code.slice(0, 4)]) expect(text).toContain(part);
  await sendVoucherAgain(house.owner, voucher.id, { press: randomUUID(), to: 'other@finch.example' });
  expect((await queued()).map(({ address }) => address)).toEqual([to, 'other@finch.example']);
});

test('without a person it comes to the payer at once; several of an item are several vouchers, each with its own code', async () => {
  const item = (price: string, most: number) => ({
    id: randomUUID(),
    name: `Voucher of ${price}`,
    note: '',
    itemId: null,
    prices: { USD: price },
    taxClass: 'standard',
    options: [],
    least: 0,
    most,
  });
  const items = [item('25', 5), item('100', 5)];
  const { called } = await placedOffer(house, { kind: 'items', items, voucher: true });
  const [small, large] = items;
  const paymentId = await paidOrder(workshop, called, {
    items: [
      { id: small?.id ?? '', optionId: '', quantity: '3' },
      { id: large?.id ?? '', optionId: '', quantity: '1' },
    ],
  });
  const vouchers = await vouchersByPayment(paymentId);
  expect(vouchers.map(({ valueMinor }) => valueMinor).sort()).toEqual([10000n, 2500n, 2500n, 2500n]);
  expect(new Set(vouchers.map(({ code }) => code)).size).toBe(4);
  expect(vouchers[0]?.toEmail).toBe('ida@marsh.example');
  await sound();
});

test('an offer of vouchers takes nothing that would change their worth', async () => {
  const partner = await storePartner(house.owner, null, { name: 'Selma Quist', email: '' });
  const split = { partners: [{ partnerId: partner.id, percent: '50' }], keep: '', feeFrom: 'business' } as const;
  for (const wrong of [{ kind: 'donation' }, { codes: true }, { split }] as const)
    await expect(
      placedOffer(house, { kind: 'open', ownAmount: true, voucher: true, ...wrong }),
      JSON.stringify(wrong),
    ).rejects.toMatchObject({ code: 'offer-not-ready' });
});

test('at the checkout it pays what it can and the card the rest: one receipt, tax and partner’s part once, each in its way', async () => {
  const partner = await storePartner(house.owner, null, { name: 'Selma Quist', email: '' });
  const split = {
    partners: [{ partnerId: partner.id, percent: '50' }],
    keep: '',
    feeFrom: 'business',
    of: 'net',
  } as const;
  const voucher = await bought('30');
  const { called } = await placedOffer(house, { prices: { USD: '40' }, split, tip: ['10'] });
  // 44.00 with tax, and a tip of 4.40.
  const said = await quote(called, { tip: '10%', voucher: voucher.code });
  expect([said.chargedMinor, said.voucher]).toEqual([1840, { paid: '$30.00', stays: '' }]);
  const before = [await balance('revenue'), await balance('partners')];
  const paymentId = await paidOrder(workshop, called, { tip: '10%', voucher: voucher.code.toLowerCase() });
  expect(await paymentsOf(paymentId)).toMatchObject([
    { method: 'card', state: 'paid', minor: '1400', tip: '440' },
    { method: 'voucher', state: 'paid', minor: '3000', tip: '0' },
  ]);
  expect(await left(voucher.id)).toBe(0n);
  expect(await balance('vouchers')).toBe(0n);
  expect([
    await balance('revenue'),
    await balance('tax-payable'),
    await balance('tips'),
    await balance('partners'),
  ]).toEqual([(before[0] ?? 0n) - 4000n, -400n, -440n, (before[1] ?? 0n) - 2000n]);
  const receipts = await asSuperuser<{ method: string; amount: string }>(
    workshop.admin,
    `select printed->>'method' as method, printed->>'amount' as amount from receipts
     where business_id = $1 and order_id = (select order_id from payments where id = $2)`,
    [house.business.id, paymentId],
  );
  expect(receipts).toEqual([
    { method: expect.stringMatching(/^Gift voucher ….{4} \(\$30\.00\), Corvid/), amount: '4400' },
  ]);
  await sound();
  const rows = (await registerOf(house.reader, { ...WHOLE_REGISTER, way: 'voucher' }, null)).rows;
  expect(rows.map(({ amountMinor, state }) => [amountMinor, state])).toEqual([[3000n, 'paid']]);
  expect(await playDays(workshop, house, [addDays(DAY, 1)])).toEqual([]);
  const { batch } = await batchSheet(house.reader, DAY);
  // 30.00 for the voucher, and 18.40 beside it.
  expect([batch.differences, batch.sums.map(({ salesMinor }) => salesMinor)]).toEqual([[], [4840n]]);
});

test('a voucher that reaches pays all, without a card; what is left stays on it, and a rest that no card pays does too', async () => {
  const voucher = await bought('100');
  const { called } = await placedOffer(house, { prices: { USD: '40' } });
  const paymentId = await paidOrder(workshop, called, { voucher: voucher.code }, '');
  expect(await paymentsOf(paymentId)).toMatchObject([{ method: 'voucher', state: 'paid', minor: '4400' }]);
  expect(await left(voucher.id)).toBe(5600n);
  const small = await bought('43.80');
  const said = await quote(called, { voucher: small.code });
  // 0.20 would be left: the business's smallest payment is left instead.
  expect(said.chargedMinor).toBeGreaterThanOrEqual(50);
  await sound();
});

test('refused, the voucher is as it was; two who use it at once use it once; what waits holds it', async () => {
  const voucher = await bought('30');
  const { called } = await placedOffer(house, { prices: { USD: '40' } });
  const refused = await paidOrder(workshop, called, { voucher: voucher.code }, 'corvid-poor');
  expect((await paymentsOf(refused)).map(({ state }) => state)).toEqual(['refused', 'refused']);
  expect(await left(voucher.id)).toBe(3000n);
  // The bank's approval is waited for: what the voucher pays is spoken for.
  const waiting = await paidOrder(workshop, called, { voucher: voucher.code }, 'lumen-approval');
  expect((await paymentsOf(waiting)).map(({ state }) => state)).toEqual(['pending', 'pending']);
  expect((await quote(called, { voucher: voucher.code })).problems).toEqual([
    { field: 'voucher', words: 'Nothing is left on this voucher.' },
  ]);
  const other = await bought('44');
  const tries = await Promise.allSettled(
    [1, 2, 3, 4].map(() => paidOrder(workshop, called, { voucher: other.code }, '')),
  );
  const paid = await asSuperuser<{ n: number }>(
    workshop.admin,
    `select count(*)::int as n from payments where voucher_id = $1 and state = 'paid'`,
    [other.id],
  );
  expect([paid[0]?.n, tries.length, await left(other.id)]).toEqual([1, 4, 0n]);
  await sound();
});

test('an invoice: by its link and at the desk, in parts, once a press; the rest by card', async () => {
  const voucher = await bought('60');
  const invoice = await sentInvoice(house);
  expect(
    await voucherForInvoice(invoice.link, ` ${voucher.code.slice(0, 8)}-${voucher.code.slice(8)}`, 'here'),
  ).toEqual({
    worthMinor: 6000,
    paysMinor: 6000,
    leftMinor: 5000,
  });
  const press = { code: voucher.code, paysMinor: 6000n, requestKey: randomUUID(), acceptsTerms: false };
  await Promise.all([1, 2, 3].map(() => payByVoucher(invoice.link, press, 'here')));
  expect((await invoiceSheet(house.reader, invoice.id)).invoice).toMatchObject({ dueMinor: 5000n, paidMinor: 6000n });
  expect(await left(voucher.id)).toBe(0n);
  const desk = await bought('20');
  expect((await voucherAtDesk(house.owner, invoice.id, desk.code)).paysMinor).toBe(2000);
  await payByVoucherAtDesk(house.owner, invoice.id, { code: desk.code, paysMinor: 2000n, requestKey: randomUUID() });
  const token = await cardToken(workshop.standIns, 'corvid-good');
  const card = { attemptKey: randomUUID(), cardToken: token, amountMinor: 3000n };
  expect(await takePayment(invoice.link, card, 'here')).toMatchObject({ state: 'paid' });
  expect((await invoiceSheet(house.reader, invoice.id)).invoice.dueMinor).toBe(0n);
  await sound();
  await expect(voucherForInvoice(invoice.link, desk.code, 'here')).rejects.toMatchObject({ code: 'already-paid' });
  const next = await sentInvoice(house);
  for (const [code, refusal] of [
    ['', 'voucher-unknown'],
    ['NOT-A-CODE', 'voucher-unknown'],
    [desk.code, 'voucher-used-up'],
  ] as const)
    await expect(voucherForInvoice(next.link, code, 'here'), code).rejects.toMatchObject({ code: refusal });
  const page = await voucherPage(voucherLink(house.business.id, desk.id).split('/').pop() ?? '');
  expect([page?.trouble, page?.moves.map(({ kind, minor }) => [kind, minor])]).toEqual([
    'voucher-used-up',
    [['used', -2000n]],
  ]);
  expect(await voucherPage('nothing')).toBeNull();
});

test('given back: onto the voucher, or the card, each its own part; the order is credited once', async () => {
  const voucher = await bought('30');
  const { called } = await placedOffer(house, { prices: { USD: '40' } });
  const paymentId = await paidOrder(workshop, called, { voucher: voucher.code });
  const [card, byVoucher] = await paymentsOf(paymentId);
  const wish = back({ by: 'all' }, { method: 'voucher' });
  await expect(refundPayment(house.owner, card?.id ?? '', wish)).rejects.toMatchObject({ code: 'not-by-card' });
  await Promise.all([1, 2].map(() => refundPayment(house.owner, byVoucher?.id ?? '', wish)));
  expect(await left(voucher.id)).toBe(3000n);
  await sound();
  expect(await refundPayment(house.owner, card?.id ?? '', back({ by: 'all' }))).toBe('done');
  await sound();
  expect([await balance('tax-payable'), await balance('vouchers')]).toEqual([0n, -3000n]);
  // An invoice's, which is owed again or credited.
  const invoice = await sentInvoice(house);
  await payByVoucher(
    invoice.link,
    { code: voucher.code, paysMinor: 3000n, requestKey: randomUUID(), acceptsTerms: false },
    'here',
  );
  const [paid] = (await invoiceSheet(house.reader, invoice.id)).payments;
  await refundPayment(house.owner, paid?.id ?? '', backOf(1000n, { method: 'voucher', owedAgain: true }));
  expect((await invoiceSheet(house.reader, invoice.id)).invoice.dueMinor).toBe(9000n);
  expect(await left(voucher.id)).toBe(1000n);
  await sound();
});

test('the sale is refunded as far as it is not used; a refusal of the processor’s puts it back; disputed, it pays nothing', async () => {
  const voucher = await bought('50');
  const invoice = await sentInvoice(house);
  await payByVoucherAtDesk(house.owner, invoice.id, { code: voucher.code, paysMinor: 5000n, requestKey: randomUUID() });
  await expect(refundPayment(house.owner, voucher.paymentId, backOf(100n))).rejects.toMatchObject({
    code: 'voucher-used',
  });
  const whole = await bought('50');
  expect(await refundPayment(house.owner, whole.paymentId, backOf(2000n))).toBe('done');
  expect(await left(whole.id)).toBe(3000n);
  await sound();
  const refused = await bought('50');
  const { cards } = services();
  const given = cards.refund;
  cards.refund = async () => false;
  await expect(refundPayment(house.owner, refused.paymentId, backOf(2000n))).rejects.toMatchObject({
    code: 'refund-refused',
  });
  cards.refund = given;
  expect(await left(refused.id)).toBe(5000n);
  await sound();
  expect(await disputePayment(workshop, refused.paymentId)).toBe(true);
  await lookForDisputes(programContext(house.business.id));
  const other = await sentInvoice(house);
  await expect(voucherAtDesk(house.owner, other.id, refused.code)).rejects.toMatchObject({ code: 'voucher-blocked' });
  await sound();
});

test('over after its last day: earned, not owed; made good for longer it is worth what it was; stopped it pays nothing', async () => {
  await keepVoucherRule(house.owner, { months: 1, toYearEnd: false });
  const voucher = await bought('50');
  expect(voucher.expiresOn).toBe('2027-04-01');
  await at('2027-04-01' as CalendarDate, '23:00');
  expect(await playMinute()).toEqual([]);
  expect(await left(voucher.id)).toBe(5000n);
  await at('2027-04-02' as CalendarDate, '01:00');
  expect([...(await playMinute()), ...(await playMinute())]).toEqual([]);
  expect([await left(voucher.id), await balance('vouchers'), await balance('expired-vouchers')]).toEqual([
    0n,
    0n,
    -5000n,
  ]);
  await sound();
  const invoice = await sentInvoice(house);
  await expect(voucherAtDesk(house.owner, invoice.id, voucher.code)).rejects.toMatchObject({ code: 'voucher-over' });
  await expect(extendVoucher(house.owner, voucher.id, '2027-03-20')).rejects.toMatchObject({
    code: 'voucher-not-over',
  });
  await Promise.all([1, 2].map(() => extendVoucher(house.owner, voucher.id, '2027-12-31')));
  expect([await left(voucher.id), await balance('vouchers'), await balance('expired-vouchers')]).toEqual([
    5000n,
    -5000n,
    0n,
  ]);
  await stopVoucher(house.owner, voucher.id, true);
  await expect(voucherAtDesk(house.owner, invoice.id, voucher.code)).rejects.toMatchObject({ code: 'voucher-blocked' });
  await stopVoucher(house.owner, voucher.id, false);
  expect((await voucherAtDesk(house.owner, invoice.id, voucher.code)).paysMinor).toBe(5000);
  await expect(stopVoucher(house.reader, voucher.id, true)).rejects.toMatchObject({ code: 'not-allowed' });
  for (const months of [0, 1.5, 241])
    await expect(keepVoucherRule(house.owner, { months, toYearEnd: false })).rejects.toMatchObject({
      code: 'offer-not-ready',
    });
  const { sums, rows } = await voucherList(house.reader, { words: voucher.code.slice(0, 6), after: '' });
  expect([sums.map(({ openMinor }) => openMinor), rows.map(({ id }) => id)]).toEqual([[5000n], [voucher.id]]);
  await sound();
});

test('other money, another business, a gift of nothing, a day that has passed: said, and nothing moves', async () => {
  const voucher = await bought('50');
  const { called } = await placedOffer(house, { prices: { USD: '40', EUR: '35' }, currencies: ['EUR'] });
  const inEuro = await quote(called, { currency: 'EUR', voucher: voucher.code });
  expect(inEuro.problems.map(({ words }) => words)).toEqual(['This voucher is in another currency.']);
  const others = await foundHouse('Other House');
  const elsewhere = await placedOffer(others, { prices: { USD: '40' } });
  expect((await quote(elsewhere.called, { voucher: voucher.code })).problems).toHaveLength(1);
  const { called: sells } = await placedOffer(house, { kind: 'open', ownAmount: true, voucher: true });
  const wrong = { ...NO_GIFT, toEmail: 'ida@', on: addDays(DAY, -1) };
  expect((await quote(sells, { amount: '20', gift: wrong })).problems.map(({ field }) => field)).toEqual([
    'gift.toEmail',
    'gift.on',
  ]);
  const gift = await placedOffer(house, { kind: 'donation', ownAmount: true });
  expect((await quote(gift.called, { amount: '20', voucher: voucher.code })).chargedMinor).toBe(2000);
});

test('killed at any step of buying and using, nothing is made or used twice, and the books agree', async () => {
  const chance = seeded(31);
  const sale = await placedOffer(house, { kind: 'open', ownAmount: true, title: 'A voucher', voucher: true });
  const shop = await placedOffer(house, { prices: { USD: '40' } });
  const outside = [{ of: services().cards, calls: ['sale', 'ask', 'close'] }];
  const knifed = (work: () => Promise<unknown>) =>
    underTheKnife(work, { steps: 12 + Math.floor(chance() * 70), heard: chance() < 0.5, outside });
  for (let kill = 0; kill < 10; kill++) await knifed(() => paidOrder(workshop, sale.called, { amount: '25' }));
  const voucher = await bought('500');
  for (let kill = 0; kill < 14; kill++)
    await knifed(() =>
      paidOrder(workshop, shop.called, { voucher: voucher.code }, chance() < 0.5 ? '' : 'corvid-good'),
    );
  const open = await asSuperuser<{ id: string }>(
    workshop.admin,
    `select id from payments where business_id = $1 and state = 'pending' and beside_id is null`,
    [house.business.id],
  );
  const { settlePayments } = await import('@/flows/payment/settle-payment');
  await settlePayments(
    house.business.id,
    open.map(({ id }) => id),
  );
  await sound();
  const [counted] = await asSuperuser<{ sold: number; made: number; used: string; spent: string }>(
    workshop.admin,
    `select (select count(*)::int from payments p join orders o on o.id = p.order_id where p.business_id = $1 and p.state = 'paid'
        and (o.definition->>'voucher')::boolean) as sold,
       (select count(*)::int from vouchers where business_id = $1) as made,
       (select coalesce(sum(amount_minor + tip_minor), 0)::text from payments where business_id = $1 and method = 'voucher' and state = 'paid') as used,
       (select coalesce(sum(value_minor - balance_minor), 0)::text from vouchers where business_id = $1) as spent`,
    [house.business.id],
  );
  expect(counted?.made).toBe(counted?.sold);
  expect(counted?.spent).toBe(counted?.used);
});
