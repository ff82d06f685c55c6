/** The stock as a log: every way in which it moves, who waits for it, who has the last one, and its proof. */
import { randomUUID } from 'node:crypto';
import { beforeEach, describe, expect, test } from 'vitest';
import type { Item } from '@/core/item/item';
import { newOfferItem } from '@/core/offer/offer';
import { ledgerTroubles } from '@/db/ledger';
import type { Db } from '@/db/pool';
import { run, sql } from '@/db/sql';
import { stockTroubles } from '@/db/stock';
import { readBusiness } from '@/db/transaction';
import { takeOrder } from '@/flows/checkout/take-order';
import { programContext } from '@/flows/door/program';
import { checkBooks } from '@/flows/house/check-books';
import { cancelInvoice } from '@/flows/invoice/cancel-invoice';
import { giveLabelBack } from '@/flows/parcel/shipments';
import { packDesk } from '@/flows/parcel/to-pack';
import { refundPayment } from '@/flows/payment/refund-payment';
import { takeBackReceived } from '@/flows/payment/take-back-received';
import { keepItem } from '@/flows/records/items';
import { asSuperuser } from '../../../tests/support/database';
import { orderAttempt, paidOrder, placedOffer } from '../../../tests/support/offers';
import {
  buyAll,
  livesAt,
  packAll,
  payByTransfer,
  postedItem,
  readyToPack,
  soldToPost,
} from '../../../tests/support/parcels';
import { back } from '../../../tests/support/refunds';
import { foundHouse, type House, sharedWorkshop } from '../../../tests/support/workshop';
import { countStock, type ReceivedLine, receiveStock, throwAway } from './change-stock';
import { movementCosts, stockByCode, stockCosts, stockFile, stockPage, stockSheet } from './stock-desk';

const workshop = await sharedWorkshop();
let house: House;
beforeEach(async () => {
  house = await foundHouse();
});

const of = <T>(work: (db: Db) => Promise<T>) => readBusiness(programContext(house.business.id), work);
const thing = ({ id }: Pick<Item, 'id'>) => ({ itemId: id, optionId: null });
const stocked = (name: string, onHand: string, more: Partial<Omit<Item, 'id'>> = {}) =>
  postedItem(house, name, { onHand, ...more });
const lineOf = async (item: Pick<Item, 'id'>) => (await stockSheet(house.owner, thing(item))).line;
const kinds = async (item: Pick<Item, 'id'>) =>
  (await stockSheet(house.owner, thing(item))).log.map(({ kind }) => kind).reverse();
const receive = (
  lines: readonly Partial<ReceivedLine>[],
  item: Pick<Item, 'id'>,
  key = randomUUID(),
  by = house.owner,
) =>
  receiveStock(
    by,
    key,
    lines.map((line) => ({ ...thing(item), quantity: '1', cost: '', ...line })),
    { supplier: 'Tern & Daughters', paper: 'LS 4471', fileId: null },
  );
const blocked = async () =>
  (await packDesk(house.owner, '')).blocked.rows.map(({ name, block }) => `${name}: ${block}`);
const ready = async () => (await packDesk(house.owner, '')).ready.rows.map(({ name }) => name);

/** The log adds up, and so do the books. */
async function proved() {
  expect(await of(stockTroubles)).toEqual([]);
  expect(await of(ledgerTroubles)).toEqual([]);
}

describe('the log', () => {
  test('has every way in which stock moves, with who, why and what there is then', async () => {
    const rosin = await stocked('Rosin', '10', { cost: '2.50' });
    const ida = await livesAt(house, 'Ida Marsh');
    const paid = await soldToPost(house, ida, rosin, { quantity: '3', paid: false });
    await payByTransfer(house, paid.id, 29);
    const { id: dropped } = await soldToPost(house, ida, rosin, { quantity: '2', paid: false });
    await cancelInvoice(house.owner, dropped, 'Ordered twice', false);
    await receive([{ quantity: '5', cost: '4' }], rosin);
    await throwAway(house.owner, randomUUID(), thing(rosin), '1', 'Broken on the stairs');
    expect(await kinds(rosin)).toEqual(['opened', 'promised', 'sold', 'promised', 'freed', 'received', 'thrown-away']);
    const { log } = await stockSheet(house.owner, thing(rosin));
    expect(log[0]).toMatchObject({
      onHandBy: '-1',
      onHandAfter: '11',
      why: 'Broken on the stairs',
      byName: house.owner.name,
    });
    expect(log[1]).toMatchObject({ onHandBy: '5', supplier: 'Tern & Daughters', paper: 'LS 4471', cost: '' });
    expect(log[4]).toMatchObject({ onHandBy: '-3', promisedBy: '-3', invoiceId: paid.id });
    // Seven at 2.50 and five at 4.00.
    expect(await stockCosts(house.owner, [thing(rosin)])).toEqual({
      [rosin.id]: { average: '3.125', worthMinor: 3438n },
    });
    expect((await movementCosts(house.owner, thing(rosin)))[log[1]?.id ?? '']).toEqual({
      cost: '4',
      averageAfter: '3.125',
    });
    await proved();
  });

  test('takes back what was paid by mistake, what was given back, and what a refused card held', async () => {
    const rosin = await stocked('Rosin', '10');
    const { called } = await placedOffer(house, {
      kind: 'items',
      items: [newOfferItem('a', { name: 'Rosin', itemId: rosin.id, prices: { USD: '8' } })],
    });
    await paidOrder(workshop, called, {}, 'corvid-poor');
    const payment = await paidOrder(workshop, called);
    await refundPayment(
      house.owner,
      payment,
      back({ by: 'all' }, { aside: { toStock: [{ index: 0, quantity: '1' }] } }),
    );
    const { id } = await soldToPost(house, await livesAt(house, 'Ida Marsh'), rosin);
    const [received] = await asSuperuser<{ id: string }>(
      workshop.admin,
      'select id from payments where invoice_id = $1',
      [id],
    );
    await takeBackReceived(house.owner, received?.id ?? '', { reason: 'Another invoice', tell: false });
    expect(await kinds(rosin)).toEqual([
      ...['opened', 'promised', 'freed', 'promised', 'sold', 'returned', 'promised', 'sold', 'unsold'],
    ]);
    expect(await lineOf(rosin)).toMatchObject({ onHand: '10', promised: '1', available: '9', lies: '10' });
    await proved();
  });

  test('begins and ends with the item’s form, which moves nothing that is kept, however old it is; a program says how many', async () => {
    const rosin = await stocked('Rosin', '4');
    await soldToPost(house, await livesAt(house, 'Ida Marsh'), rosin);
    await keepItem(house.owner, rosin.id, { ...rosin, name: 'Rosin, dark', onHand: '4' });
    expect(await lineOf(rosin)).toMatchObject({ name: 'Rosin, dark', onHand: '3', lies: '4' });
    const { onHand } = await keepItem(house.owner, rosin.id, { ...rosin, onHand: '12' }, 'Said by a program');
    expect(onHand).toBe('12');
    await keepItem(house.owner, rosin.id, { ...rosin, onHand: null });
    await expect(stockSheet(house.owner, thing(rosin))).rejects.toMatchObject({ code: 'not-found' });
    await soldToPost(house, await livesAt(house, 'Otto Reed'), rosin, { paid: false, quantity: '2' });
    await keepItem(house.owner, rosin.id, { ...rosin, onHand: '6' });
    expect(await kinds(rosin)).toEqual(['opened', 'promised', 'sold', 'counted', 'closed', 'opened']);
    expect(await lineOf(rosin)).toMatchObject({ onHand: '6', promised: '2' });
    await proved();
  });

  test('only grows: nobody changes a row of it, and the nightly proof finds what was changed all the same', async () => {
    const rosin = await stocked('Rosin', '4');
    await receive([{ quantity: '2' }], rosin);
    for (const change of [sql`update stock_movements set why = why`, sql`delete from stock_movements`])
      await expect(programContext(house.business.id).write((tx) => run(tx, change))).rejects.toThrow(
        /permission denied/,
      );
    await asSuperuser(workshop.admin, 'update items set on_hand = 5 where id = $1', [rosin.id]);
    const found = (await checkBooks()).filter(({ businessId }) => businessId === house.business.id);
    expect(found).toMatchObject([{ what: 'stock and its log differ', subject: 'Rosin', off: -10_000n }]);
  });

  test('is read in pages, the newest first', async () => {
    const rosin = await stocked('Rosin', '0');
    await receive(
      Array.from({ length: 70 }, () => ({})),
      rosin,
    );
    const first = await stockSheet(house.owner, thing(rosin));
    expect([first.log.length, first.next]).toEqual([60, 12]);
    const rest = await stockSheet(house.owner, thing(rosin), first.next);
    expect(rest.log.map(({ onHandAfter }) => onHandAfter)).toEqual([
      '10',
      '9',
      '8',
      '7',
      '6',
      '5',
      '4',
      '3',
      '2',
      '1',
      '0',
    ]);
    expect(rest.next).toBe(null);
  });
});

describe('people change it', () => {
  test('the same press twice, at once or later, is one receipt', async () => {
    const rosin = await stocked('Rosin', '0');
    const key = randomUUID();
    await Promise.all(Array.from({ length: 6 }, () => receive([{ quantity: '3' }, { quantity: '2' }], rosin, key)));
    expect((await lineOf(rosin)).onHand).toBe('5');
    await proved();
  });

  test('what is not kept, and nothing, cannot be booked', async () => {
    const loose = await postedItem(house, 'Loose string');
    await expect(receive([{}], loose)).rejects.toMatchObject({ code: 'no-stock-kept' });
    const rosin = await stocked('Rosin', '1');
    await expect(receive([{ quantity: '0' }], rosin)).rejects.toMatchObject({ code: 'nothing-to-book' });
    await expect(receive([{}], { id: randomUUID() })).rejects.toMatchObject({ code: 'no-stock-kept' });
    expect(await kinds(rosin)).toEqual(['opened']);
  });

  test('a shelf is counted with what is sold and lies there; what went meanwhile is told and not booked', async () => {
    await readyToPack(house);
    const [rosin, mute] = [await stocked('Rosin', '10'), await stocked('Mute', '5')];
    const ida = await livesAt(house, 'Ida Marsh');
    await soldToPost(house, ida, rosin, { quantity: '2' });
    expect(await lineOf(rosin)).toMatchObject({ onHand: '8', lies: '10' });
    // Sold while one counts: it lies there as before. Packed while one counts: it does not.
    await soldToPost(house, ida, rosin, { quantity: '1' });
    await soldToPost(house, ida, mute);
    await packAll(house);
    const key = randomUUID();
    const lines = [
      { ...thing(rosin), counted: '6', expected: '7' },
      { ...thing(mute), counted: '5', expected: '5' },
    ];
    const moved = await countStock(house.packer, key, lines, 'Count of the year');
    expect(moved).toEqual([{ ...thing(mute), expected: '4' }]);
    expect(await countStock(house.packer, key, lines, 'Count of the year')).toEqual(moved);
    expect(await lineOf(rosin)).toMatchObject({ onHand: '6', lies: '6' });
    expect((await stockSheet(house.owner, thing(rosin))).log[0]).toMatchObject({ kind: 'counted', onHandBy: '-1' });
    expect(await lineOf(mute)).toMatchObject({ onHand: '4', lies: '4' });
    await proved();
  });

  test('what is packed on account lies there no more, though it is paid later', async () => {
    await readyToPack(house);
    const rosin = await stocked('Rosin', '10');
    const ida = await livesAt(house, 'Ida Marsh', { shipsFirst: true });
    const { id } = await soldToPost(house, ida, rosin, { quantity: '4', paid: false });
    expect(await lineOf(rosin)).toMatchObject({ onHand: '10', promised: '4', lies: '10' });
    await packAll(house);
    await buyAll(house);
    expect(await lineOf(rosin)).toMatchObject({ onHand: '10', promised: '4', lies: '6' });
    await payByTransfer(house, id, 37);
    expect(await lineOf(rosin)).toMatchObject({ onHand: '6', promised: '0', lies: '6' });
    await proved();
  });
});

describe('sales wait for stock', () => {
  test('who came first is served first; what arrives moves them on, what is given back before makes room', async () => {
    const rosin = await stocked('Rosin', '3');
    const sold = async (name: string, quantity: string) =>
      soldToPost(house, await livesAt(house, name), rosin, { quantity });
    await sold('First', '2');
    const second = await sold('Second', '3');
    await sold('Third', '1');
    expect([await ready(), await blocked()]).toEqual([['First'], ['Second: no-stock', 'Third: no-stock']]);
    await receive([{ quantity: '2' }], rosin);
    expect(await blocked()).toEqual(['Third: no-stock']);
    await receive([{ quantity: '1' }], rosin);
    expect(await blocked()).toEqual([]);
    // One breaks: the last in the queue waits again; the second gives all back, and it waits no more.
    await throwAway(house.owner, randomUUID(), thing(rosin), '1', 'Fell');
    expect(await blocked()).toEqual(['Third: no-stock']);
    const [payment] = await asSuperuser<{ id: string }>(
      workshop.admin,
      'select id from payments where invoice_id = $1',
      [second.id],
    );
    await refundPayment(
      house.owner,
      payment?.id ?? '',
      back({ by: 'all' }, { aside: { toStock: [{ index: 0, quantity: '3' }] }, method: 'transfer' }),
    );
    expect([await ready(), await blocked()]).toEqual([['First', 'Third'], []]);
    await proved();
  });

  test('by an order as by an invoice, one item of several, and on account; a label given back wants it again', async () => {
    await readyToPack(house);
    const [rosin, mute] = [await stocked('Rosin', '9'), await stocked('Mute', '0')];
    const items = [rosin, mute].map((item) =>
      newOfferItem(item.name, { name: item.name, itemId: item.id, prices: { USD: '8' } }),
    );
    const { called } = await placedOffer(house, {
      kind: 'items',
      items,
      delivery: { zones: [{ id: 'z', name: 'Anywhere', countries: [], prices: { USD: '4.50' } }], freeFrom: {} },
    });
    // A hosted sale promises no more than there is.
    await expect(
      paidOrder(workshop, called, { items: [{ id: 'Mute', optionId: '', quantity: '1' }] }),
    ).rejects.toMatchObject({
      code: 'order-not-ready',
    });
    const account = await livesAt(house, 'On Account', { shipsFirst: true });
    await soldToPost(house, account, mute, { paid: false });
    expect(await blocked()).toEqual(['On Account: no-stock']);
    await receive([{ quantity: '1' }], mute);
    expect(await ready()).toEqual(['On Account']);
    await packAll(house);
    const [label = ''] = await buyAll(house);
    await soldToPost(house, await livesAt(house, 'Late Buyer'), mute);
    expect(await blocked()).toEqual(['Late Buyer: no-stock']);
    await giveLabelBack(house.owner, label);
    expect(await ready()).toEqual(['On Account']);
    expect(await blocked()).toEqual(['Late Buyer: no-stock']);
    await proved();
  });
});

test('twenty buyers of the last one, by two offers and the desk: one has it', async () => {
  const rosin = await stocked('Rosin', '1');
  const offer = () =>
    placedOffer(house, {
      kind: 'items',
      items: [newOfferItem('a', { name: 'Rosin', itemId: rosin.id, prices: { USD: '8' } })],
    });
  const [one, other] = [await offer(), await offer()];
  const attempts = await Promise.all(
    Array.from({ length: 20 }, async (_, at) => {
      const { called } = at % 2 === 0 ? one : other;
      return { called, attempt: await orderAttempt(workshop, called, { email: `buyer-${at}@marsh.example` }) };
    }),
  );
  const results = await Promise.allSettled(
    attempts.map(({ called, attempt }) => takeOrder(called, attempt, randomUUID())),
  );
  expect(results.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
  for (const result of results)
    if (result.status === 'rejected') expect(result.reason).toMatchObject({ code: 'order-not-ready' });
  expect(await lineOf(rosin)).toMatchObject({ onHand: '0', promised: '0' });
  await proved();
});

/** A sequence that is the same in each run. */
function seeded(seed: number): (most: number) => number {
  let state = seed;
  return (most) => {
    state = (state * 1_103_515_245 + 12_345) % 2_147_483_648;
    return Math.floor((state / 2_147_483_648) * most);
  };
}

test.each([11, 42, 2027])('random movements, several at once, agree with a second count: seed %i', async (seed) => {
  const next = seeded(seed);
  const option = { id: randomUUID(), name: 'light', code: 'L-1', prices: {}, onHand: '20', lowAt: null };
  const goods = [await stocked('Rosin', '30'), await stocked('Strings', '0', { onHand: null, options: [option] })];
  const things = [thing(goods[0] as Item), { itemId: goods[1]?.id ?? '', optionId: option.id }];
  const second = [30, 20];
  const ida = await livesAt(house, 'Ida Marsh');
  for (let round = 0; round < 12; round++) {
    const steps = Array.from({ length: 4 }, () => ({ at: next(2), what: next(4), much: 1 + next(5) }));
    // Somebody has one blank draft at a time: they are sent one after the other, and then all happens at once.
    const sales = new Map<object, string>();
    for (const step of steps)
      if (step.what >= 2)
        sales.set(
          step,
          (await soldToPost(house, ida, goods[step.at] as Item, { quantity: String(step.much), paid: false })).id,
        );
    await Promise.all(
      steps.map(async (step) => {
        const { at, what, much } = step;
        const one = things[at] as (typeof things)[number];
        const quantity = String(much);
        const cost = String((much % 3) + 1);
        if (what === 0)
          await receiveStock(house.owner, randomUUID(), [{ ...one, quantity, cost }], {
            supplier: '',
            paper: '',
            fileId: null,
          });
        else if (what === 1) await throwAway(house.owner, randomUUID(), one, quantity, 'Broken');
        else if (what === 2) await payByTransfer(house, sales.get(step) ?? '', 8 * much + 5);
        else await cancelInvoice(house.owner, sales.get(step) ?? '', 'Not wanted', false);
      }),
    );
    for (const { at, what, much } of steps) {
      // A line by hand names the item and no option: what is kept by option is not moved by it.
      if (what === 0) second[at] = (second[at] ?? 0) + much;
      else if (what === 1 || (what === 2 && at === 0)) second[at] = (second[at] ?? 0) - much;
    }
  }
  const counted = await Promise.all(things.map(async (one) => (await stockSheet(house.owner, one)).line));
  expect(counted.map(({ onHand, promised }) => [Number(onHand), Number(promised)])).toEqual(second.map((n) => [n, 0]));
  await proved();
});

describe('the list', () => {
  test('says what to order from what was sold; is found by words and by code, by item and by option', async () => {
    const option = { id: randomUUID(), name: 'heavy', code: 'STR-H', prices: {}, onHand: '2', lowAt: '4' };
    await postedItem(house, 'Strings', { options: [option] });
    const rosin = await stocked('Rosin', '9', { code: 'ROS', lowAt: '3' });
    await postedItem(house, 'Nothing kept');
    const { rows } = await stockPage(house.owner, {}, null);
    expect(rows.map(({ name, option: way, order }) => [name, way, order])).toEqual([
      ['Rosin', '', '0'],
      ['Strings', 'heavy', '2'],
    ]);
    await soldToPost(house, await livesAt(house, 'Ida Marsh'), rosin, { quantity: '7' });
    // Two are left: up to the mark of three, and seven more, as were sold in thirty days.
    expect((await stockPage(house.owner, { lowOnly: true }, null)).rows.map(({ order }) => order)).toEqual(['8', '2']);
    expect((await stockPage(house.owner, { words: 'stri' }, null)).rows).toHaveLength(1);
    expect((await stockByCode(house.packer, [' ros', 'str-h', 'none', ''])).map(({ name }) => name)).toEqual([
      'Rosin',
      'Strings',
    ]);
  });

  test('goes out as a file, without costs for who sees no sums', async () => {
    const rosin = await stocked('=Rosin, "dark"', '9', { code: 'ROS', cost: '2.50', lowAt: '9' });
    const { text } = await stockFile(house.owner);
    expect(text.split('\r\n')[1]).toBe(`ROS,"'=Rosin, ""dark""",,,9,0,9,9,9,1,2.5,22.50,USD`);
    const packed = await stockFile(house.packer);
    expect(packed.text).not.toMatch(/cost|2\.5/i);
    await expect(stockCosts(house.packer, [thing(rosin)])).rejects.toMatchObject({ code: 'not-allowed' });
    await expect(stockFile(house.reader)).rejects.toMatchObject({ code: 'not-allowed' });
  });
});
