import { randomUUID } from 'node:crypto';
import { beforeEach, describe, expect, test } from 'vitest';
import { GOES_AS_USUAL } from '@/core/item/item';
import type { Choice } from '@/core/offer/choice';
import { newOfferItem, type Offer, type Placement } from '@/core/offer/offer';
import { keepCode } from '@/db/codes';
import { customerByEmail } from '@/db/customers';
import { itemsById } from '@/db/items';
import { accountBalances, ledgerTroubles } from '@/db/ledger';
import { offerRow } from '@/db/offers';
import { orderByCheckout, orderHolder } from '@/db/orders';
import { keepPartner, sharesOf } from '@/db/partners';
import type { Db } from '@/db/pool';
import { keepRates } from '@/db/rates';
import { inBusiness, outsideBusiness, readBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import {
  beginOffer,
  deleteOffer,
  keepOffer,
  lookAtAddress,
  offerSheet,
  placeOffer,
  setAddress,
  setOfferState,
} from '@/flows/offer/offers';
import { offerRequests, sendRequest, withdrawRequest } from '@/flows/offer/requests';
import { handOverMessage } from '@/flows/post/hand-over-message';
import { keepItem } from '@/flows/records/items';
import { asSuperuser } from '../../../tests/support/database';
import { orderAttempt, placedOffer } from '../../../tests/support/offers';
import { cardToken, foundHouse, type House, mailOf, sharedWorkshop, workDone } from '../../../tests/support/workshop';
import { checkoutPage } from './checkout-page';
import { orderBackFromBank, orderPage } from './order-page';
import { checkoutStatus, takeOrder, withdrawOrder } from './take-order';

const workshop = await sharedWorkshop({ CARD_ATTEMPTS_PER_OFFER: '5000' });
let house: House;
beforeEach(async () => {
  house = await foundHouse();
});

const READER = { acceptLanguage: 'en-US', lang: '', currency: '', request: '' };

/** An offer, placed. Returns its id and the name in its address. */
async function placed(more: Partial<Offer>, placement: Placement = 'link') {
  const made = await placedOffer(house, { title: 'Spring concert', ...more }, placement);
  if (placement === 'page') await placeOffer(house.owner, made.id);
  return made;
}

const attempt = (called: string, choice: Partial<Choice>, card?: string) =>
  orderAttempt(workshop, called, choice, card);
const buy = async (called: string, choice: Partial<Choice> = {}, card = 'corvid-good') =>
  takeOrder(called, await attempt(called, choice, card), randomUUID());
const of = <T>(work: (db: Db) => Promise<T>) => readBusiness(programContext(house.business.id), work);

/** An item with so many in stock. */
const stocked = (onHand: string) =>
  keepItem(house.owner, null, {
    code: '',
    name: 'Rosin',
    description: '',
    kind: 'goods',
    unit: 'piece',
    prices: { USD: '8.00' },
    cost: '3.00',
    taxClass: 'standard',
    onHand,
    lowAt: null,
    pictureId: null,
    going: GOES_AS_USUAL,
    options: [],
  });

const onHand = async (id: string) => (await of((db) => itemsById(db, [id])))[0]?.onHand;

describe('an order', () => {
  test('is paid, booked, receipted, counted, and makes the payer a customer', async () => {
    const { id, called } = await placed({ prices: { USD: '40' }, notify: ['front@sallow.example'] });
    const status = await buy(called);
    expect(status).toMatchObject({ state: 'paid', receipt: '1' });
    expect(await of(ledgerTroubles)).toEqual([]);
    // 44.00 less the fee of 2.9 percent (1.276, so 1.28) and 0.30.
    expect(await of((db) => accountBalances(db, 'processor-clearing'))).toEqual([{ minor: 4242n, currency: 'USD' }]);
    expect(await of((db) => accountBalances(db, 'revenue'))).toEqual([{ minor: -4000n, currency: 'USD' }]);
    const row = await of((db) => offerRow(db, id));
    expect(row?.sums).toEqual([{ currency: 'USD', orders: 1, paidMinor: 4400, refundedMinor: 0 }]);
    expect(await of((db) => customerByEmail(db, 'IDA@marsh.example'))).toMatchObject({
      name: 'Ida Marsh',
    });
    // A second order of the same person is the same customer's.
    await buy(called, { name: 'I. Marsh' });
    const [{ count } = { count: 0 }] = await asSuperuser<{ count: number }>(
      workshop.admin,
      `select count(*)::int as count from customers where email = 'ida@marsh.example' and business_id = $1`,
      [house.business.id],
    );
    expect(count).toBe(1);
    const mails = await asSuperuser<{ id: string; kind: string }>(
      workshop.admin,
      `select id, kind from messages where business_id = $1 order by kind`,
      [house.business.id],
    );
    expect(mails.map(({ kind }) => kind)).toEqual([...Array(4).fill('order-notice'), 'receipt', 'receipt']);
    for (const mail of mails) await handOverMessage(house.business.id, mail.id);
    const [receipt] = await mailOf(workshop.standIns, 'ida@marsh.example');
    expect(receipt?.attachments).toMatchObject([{ contentType: 'application/pdf' }]);
    expect(receipt?.text).toContain('Spring concert');
    expect(receipt?.text).toContain(status.order.length > 10 ? '/o/' : '');
  });

  test('is one payment however often it is sent, at once or again', async () => {
    const { called } = await placed({ prices: { USD: '40' } });
    const one = await attempt(called, {});
    const again = { ...one, attemptKey: randomUUID(), work: await workDone(called) };
    const all = await Promise.all([one, one, again, again].map((each) => takeOrder(called, each, 'a')));
    expect(new Set(all.map(({ order }) => order)).size).toBe(1);
    expect((await takeOrder(called, one, 'a')).state).toBe('paid');
    expect(await of((db) => accountBalances(db, 'revenue'))).toEqual([{ minor: -4000n, currency: 'USD' }]);
  });

  test('with a refused card is kept, and another card pays the same order', async () => {
    const { called } = await placed({ prices: { USD: '40' } });
    const first = await attempt(called, {}, 'corvid-poor');
    expect(await takeOrder(called, first, 'a')).toMatchObject({ state: 'refused', reason: 'not-enough-money' });
    expect(await checkoutStatus(called, first.checkoutKey)).toMatchObject({ state: 'refused' });
    const second = {
      ...first,
      attemptKey: randomUUID(),
      cardToken: await cardToken(workshop.standIns, 'lumen-good'),
      work: await workDone(called),
    };
    expect(await takeOrder(called, second, 'a')).toMatchObject({ state: 'paid' });
    expect(await of(ledgerTroubles)).toEqual([]);
  });

  test('that needs the holder’s approval waits at the bank, and can be withdrawn', async () => {
    const { called } = await placed({ prices: { USD: '40' } });
    const first = await attempt(called, {}, 'lumen-approval');
    const status = await takeOrder(called, first, 'a');
    if (status.state !== 'approval') throw new Error(`Expected an approval, got ${status.state}`);
    const answer = new URLSearchParams({ answer: 'approve' });
    const bank = await fetch(status.url, { method: 'POST', body: answer, redirect: 'manual' });
    expect(bank.headers.get('location')).toBe(`http://localhost:1/o/${status.order}/back`);
    await orderBackFromBank(status.order);
    expect(await orderPage(status.order)).toMatchObject({ state: 'paid' });
    const second = await attempt(called, {}, 'lumen-approval');
    await takeOrder(called, second, 'a');
    expect(await withdrawOrder(called, second.checkoutKey)).toMatchObject({ state: 'refused' });
  });

  test('at another price than the payer saw is refused; a price shown holds for half an hour', async () => {
    const { id, called } = await placed({ prices: { USD: '40' } });
    const altered = await attempt(called, {});
    await expect(takeOrder(called, { ...altered, chargedMinor: 1n }, 'a')).rejects.toMatchObject({
      code: 'amount-changed',
    });
    const seen = await attempt(called, {});
    const { placed: now } = await offerSheet(house.owner, id);
    await keepOffer(house.owner, id, now.revision, { ...now, offer: { ...now.offer, prices: { USD: '50' } } });
    expect(await takeOrder(called, seen, 'a')).toMatchObject({ state: 'paid' });
    // A quote that nobody gave is none: today's price holds.
    const made = { ...(await attempt(called, {})), quote: `${seen.quote.slice(0, -4)}AAAA`, chargedMinor: 4400n };
    await expect(takeOrder(called, made, 'a')).rejects.toMatchObject({ code: 'amount-changed' });
  });

  test('of what is missing is refused at its places, and nothing is held', async () => {
    const item = await stocked('3');
    const { called } = await placed({
      kind: 'items',
      items: [newOfferItem(randomUUID(), { name: 'Rosin', itemId: item.id, prices: { USD: '8' } })],
    });
    const { placed: offered } = await offerSheet(house.owner, (await holderOf(called)).offerId);
    const items = [{ id: offered.offer.items[0]?.id ?? '', optionId: '', quantity: '4' }];
    await expect(takeOrder(called, await attempt(called, { items, name: '' }), 'a')).rejects.toMatchObject({
      code: 'order-not-ready',
      fields: [
        { field: `items.${items[0]?.id}`, words: 'Only 3 left.' },
        { field: 'name', words: 'Write your name.' },
      ],
    });
    expect(await onHand(item.id)).toBe('3');
  });
});

const holderOf = async (called: string) => {
  const { offerHolder } = await import('@/db/offers');
  const holder = await outsideBusiness((db) => offerHolder(db, called));
  if (!holder) throw new Error('No such offer');
  return holder;
};

const ONE = newOfferItem(randomUUID(), { name: 'Rosin', prices: { USD: '8' } });
const KINDS = {
  // 40.00 and 4.00 tax; 8.00 and 0.80; 75.00 with its tax inside; 25.00 without.
  sum: [{ prices: { USD: '40' } }, {}, 4400n],
  items: [{ items: [ONE] }, {}, 880n],
  open: [{}, { amount: '75' }, 7500n],
  donation: [{ purposes: ['Strings'] }, { amount: '25', purpose: 'Strings' }, 2500n],
} as const;

describe.each(['link', 'page', 'button'] as const)('as a %s', (placement) => {
  test.each(Object.entries(KINDS))(
    '%s is paid at what it costs, under its channel',
    async (kind, [more, choice, cost]) => {
      const { called } = await placed({ kind: kind as Offer['kind'], ...more }, placement);
      const { order } = await buy(called, choice);
      const [payment] = await asSuperuser<{ channel: string; amount: string; state: string }>(
        workshop.admin,
        `select payments.channel, payments.amount_minor as amount, payments.state from payments
         join orders on orders.id = order_id where token = $1`,
        [order],
      );
      expect(payment).toEqual({ channel: placement, amount: String(cost), state: 'paid' });
    },
  );
});

describe('what is limited', () => {
  test('the last piece goes to one of two; a refused card gives it back', async () => {
    const item = await stocked('1');
    const one = newOfferItem(randomUUID(), { name: 'Rosin', itemId: item.id, prices: { USD: '8' } });
    const { called } = await placed({ kind: 'items', items: [one] });
    expect(await buy(called, {}, 'corvid-poor')).toMatchObject({ state: 'refused' });
    const attempts = await Promise.all([attempt(called, {}), attempt(called, { email: 'other@marsh.example' })]);
    const results = await Promise.allSettled(attempts.map((each) => takeOrder(called, each, randomUUID())));
    expect(results.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
    expect(await onHand(item.id)).toBe('0');
    const page = await checkoutPage(called, READER);
    expect(page?.items[0]?.left).toBe(0);
  });

  test('forty at once for ten pieces: exactly ten are sold', async () => {
    const item = await stocked('10');
    const one = newOfferItem(randomUUID(), { name: 'Rosin', itemId: item.id, prices: { USD: '8' } });
    const { called } = await placed({ kind: 'items', items: [one] });
    const attempts = await Promise.all(Array.from({ length: 40 }, () => attempt(called, {})));
    const results = await Promise.allSettled(attempts.map((each) => takeOrder(called, each, randomUUID())));
    expect(results.filter(({ status }) => status === 'fulfilled')).toHaveLength(10);
    for (const result of results)
      if (result.status === 'rejected') expect(result.reason).toMatchObject({ code: 'order-not-ready' });
    expect(await onHand(item.id)).toBe('0');
    expect(await of(ledgerTroubles)).toEqual([]);
  });

  test('a code with ten uses is used ten times, however many try at once', async () => {
    const { called } = await placed({ prices: { USD: '40' }, codes: true });
    const code = {
      id: randomUUID(),
      code: 'SPRING',
      note: '',
      percent: '50',
      amountMinor: null,
      currency: 'USD',
      from: '',
      to: '',
      leastMinor: 0n,
      mostUses: 10,
      mostEach: null,
      itemIds: [],
    };
    await inBusiness(programContext(house.business.id), (tx) => keepCode(tx, code, 'SPRING'));
    const attempts = await Promise.all(Array.from({ length: 100 }, () => attempt(called, { code: 'spring' })));
    const results = await Promise.allSettled(attempts.map((each) => takeOrder(called, each, randomUUID())));
    expect(results.filter(({ status }) => status === 'fulfilled')).toHaveLength(10);
    const [row] = await asSuperuser<{ uses: number }>(workshop.admin, 'select uses from discount_codes where id = $1', [
      code.id,
    ]);
    expect(row?.uses).toBe(10);
    // 20.00 and 2.00 tax, ten times.
    const sums = await asSuperuser(
      workshop.admin,
      'select uses, discount_minor, paid_minor from code_sums where code_id = $1',
      [code.id],
    );
    expect(sums).toEqual([{ uses: 10, discount_minor: '20000', paid_minor: '22000' }]);
  });

  test('payments end at their number, at the last day, when paused or closed; one under way is still taken', async () => {
    const { id, called } = await placed({ prices: { USD: '40' }, mostPayments: 1 });
    const waiting = await attempt(called, {}, 'lumen-approval');
    const status = await takeOrder(called, waiting, 'a');
    if (status.state !== 'approval') throw new Error('Expected an approval');
    await expect(buy(called)).rejects.toMatchObject({ code: 'offer-not-open' });
    await setOfferState(house.owner, id, 'closed');
    await fetch(status.url, { method: 'POST', body: new URLSearchParams({ answer: 'approve' }), redirect: 'manual' });
    await orderBackFromBank(status.order);
    expect(await orderPage(status.order)).toMatchObject({ state: 'paid' });
    expect(await checkoutPage(called, READER)).toMatchObject({ notOpen: 'closed' });
  });
});

test('a price in another currency is converted at the rate that was shown, which is kept with the order', async () => {
  const { called } = await placed({ prices: { USD: '40' }, currencies: ['EUR'] });
  const table = { on: '2026-01-02' as never, perEuro: { USD: '1.25' } };
  await inBusiness(programContext(house.business.id), (tx) => keepRates(tx, table, 'a file'));
  const page = await checkoutPage(called, { ...READER, acceptLanguage: 'de-AT' });
  expect(page).toMatchObject({ begun: { currency: 'EUR' }, currencies: ['USD', 'EUR'], locale: 'de-AT' });
  // 40.00 × 0.8 = 32.00; tax 3.20.
  const status = await buy(called, { currency: 'EUR' });
  const order = await orderPage(status.order);
  expect(order?.printed).toMatchObject({ total: 3520, currency: 'EUR', rate: { rate: '0.8', on: '2026-01-02' } });
});

test('partners get their shares of what is paid, and the books say so', async () => {
  const partner = { id: randomUUID(), name: 'Ada Teacher', email: '', account: '' };
  await inBusiness(programContext(house.business.id), (tx) => keepPartner(tx, partner));
  const { called } = await placed({
    prices: { USD: '40' },
    split: { partners: [{ partnerId: partner.id, percent: '60' }], keep: '', feeFrom: 'business' },
  });
  const { order } = await buy(called);
  const holder = await outsideBusiness((db) => orderHolder(db, order));
  const [{ id } = { id: '' }] = await asSuperuser<{ id: string }>(
    workshop.admin,
    'select id from payments where order_id = $1',
    [holder?.orderId],
  );
  // 60 percent of 44.00.
  expect(await of((db) => sharesOf(db, id))).toMatchObject([{ shareMinor: 2640n, feeMinor: 0n }]);
  expect(await of((db) => accountBalances(db, 'partners'))).toEqual([{ minor: -2640n, currency: 'USD' }]);
  expect(await of(ledgerTroubles)).toEqual([]);
});

describe('a prefilled request', () => {
  test('is sent, seen and paid with what it fixes, whatever the payer sends', async () => {
    const { id, called } = await placed({ kind: 'open' });
    const filled = { amount: '75', name: 'Otto Reed', email: 'otto@reed.example' };
    const { id: requestId, sign } = await sendRequest(house.owner, id, {
      toName: 'Otto Reed',
      toAddress: 'otto@reed.example',
      filled,
      locked: true,
      way: 'mail',
      words: 'As we said.',
    });
    expect((await offerRequests(house.owner, id))[0]).toMatchObject({ state: 'sent', failed: false });
    await asSuperuser(
      workshop.admin,
      `update messages set state = 'bounced', trouble = 'no such address' where request_id = $1`,
      [requestId],
    );
    expect((await offerRequests(house.owner, id))[0]).toMatchObject({ state: 'sent', failed: true });
    const page = await checkoutPage(called, { ...READER, request: sign });
    expect(page?.request).toMatchObject({ toName: 'Otto Reed', locked: true, state: 'sent' });
    const asked = { ...(await attempt(called, { amount: '1' })), request: sign };
    await expect(takeOrder(called, asked, 'a')).rejects.toMatchObject({ code: 'amount-changed' });
    expect(await takeOrder(called, { ...asked, chargedMinor: 7500n, work: await workDone(called) }, 'a')).toMatchObject(
      { state: 'paid' },
    );
    expect((await offerRequests(house.owner, id))[0]).toMatchObject({ id: requestId, state: 'paid' });
    const order = await of((db) => orderByCheckout(db, id, asked.checkoutKey));
    expect(order?.printed.payer).toMatchObject({ name: 'Otto Reed', email: 'otto@reed.example' });
    // Paid once: the same address pays nothing more.
    const more = {
      ...asked,
      checkoutKey: randomUUID(),
      attemptKey: randomUUID(),
      chargedMinor: 7500n,
      work: await workDone(called),
    };
    await expect(takeOrder(called, more, 'a')).rejects.toMatchObject({ code: 'request-ended' });
  });

  test('that is withdrawn, or whose sign was altered, is none', async () => {
    const { id, called } = await placed({ kind: 'open' });
    const fields = {
      toName: 'Otto',
      toAddress: '',
      filled: { amount: '75' },
      locked: true,
      way: 'link' as const,
      words: '',
    };
    const { id: requestId, sign } = await sendRequest(house.owner, id, fields);
    await withdrawRequest(house.owner, requestId);
    const asked = { ...(await attempt(called, { amount: '75' })), request: sign };
    await expect(takeOrder(called, asked, 'a')).rejects.toMatchObject({ code: 'request-ended' });
    const forged = `${randomUUID()}.${sign.split('.')[1]}`;
    expect((await checkoutPage(called, { ...READER, request: forged }))?.request).toBeNull();
  });
});

describe('an offer', () => {
  test('gets an address of its own; a taken one comes with others that are free', async () => {
    const mine = await placed({ prices: { USD: '40' } });
    const other = await placed({ prices: { USD: '40' } });
    const name = `concert-${randomUUID().slice(0, 8)}`;
    expect(await lookAtAddress(house.owner, mine.id, name)).toEqual({ state: 'free', instead: [] });
    await setAddress(house.owner, mine.id, name);
    const answer = await lookAtAddress(house.owner, other.id, name);
    expect(answer.state).toBe('taken');
    expect(answer.instead.length).toBeGreaterThan(0);
    await expect(setAddress(house.owner, other.id, name)).rejects.toMatchObject({ code: 'address-taken' });
    await setAddress(house.owner, other.id, answer.instead[0] ?? '');
    expect((await checkoutPage(name, READER))?.title).toBe('Spring concert');
    await expect(setAddress(house.owner, mine.id, 'No Good')).rejects.toMatchObject({ code: 'address-wrong' });
  });

  test('is deleted only if nobody used it, and copied with all it says', async () => {
    const used = await placed({ prices: { USD: '40' } });
    await buy(used.called);
    await expect(deleteOffer(house.owner, used.id)).rejects.toMatchObject({ code: 'offer-in-use' });
    const copy = await beginOffer(house.owner, 'link', used.id);
    const { placed: made } = await offerSheet(house.owner, copy);
    expect(made).toMatchObject({ name: 'Spring concert (copy)', placedAt: null, address: '' });
    expect(made.offer.prices).toEqual({ USD: '40' });
    expect(await checkoutPage(made.publicId, READER)).toBeNull();
    // What is not placed cannot be paid, whoever knows its id.
    const sneaked = { ...(await attempt(used.called, {})), work: await workDone(made.publicId) };
    await expect(takeOrder(made.publicId, sneaked, 'a')).rejects.toMatchObject({ code: 'not-found' });
    await deleteOffer(house.owner, copy);
  });

  test('that is placed is not spoilt: what keeps it from being paid is refused at its place', async () => {
    const { id } = await placed({ prices: { USD: '40' } });
    const { placed: now } = await offerSheet(house.owner, id);
    const spoilt = { ...now, offer: { ...now.offer, prices: {} } };
    await expect(keepOffer(house.owner, id, now.revision, spoilt)).rejects.toMatchObject({
      code: 'offer-not-ready',
      fields: [{ field: 'prices.USD' }],
    });
    await expect(keepOffer(house.owner, id, now.revision - 1, now)).rejects.toMatchObject({
      code: 'draft-changed-elsewhere',
    });
    await expect(keepOffer(house.reader, id, now.revision, now)).rejects.toMatchObject({ code: 'not-allowed' });
  });

  test('of another business is not there', async () => {
    const { id } = await placed({ prices: { USD: '40' } });
    const others = await foundHouse('Other House');
    for (const work of [
      () => offerSheet(others.owner, id),
      () => placeOffer(others.owner, id),
      () => setOfferState(others.owner, id, 'closed'),
      () => setAddress(others.owner, id, 'stolen-away'),
      () => deleteOffer(others.owner, id),
      () =>
        sendRequest(others.owner, id, { toName: '', toAddress: '', filled: {}, locked: false, way: 'link', words: '' }),
    ])
      await expect(work()).rejects.toMatchObject({ code: 'not-found' });
  });
});
