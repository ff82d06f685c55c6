/** What comes after a parcel went wrong: what the carrier pays, and where the goods go. */
import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { beforeEach, expect, test } from 'vitest';
import { addDays } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import type { Item } from '@/core/item/item';
import { nextMailDay } from '@/core/parcel/notice';
import type { Look } from '@/core/parcel/shipment';
import { accountBalances, ledgerTroubles } from '@/db/ledger';
import type { Db } from '@/db/pool';
import { stockTroubles } from '@/db/stock';
import { readBusiness } from '@/db/transaction';
import { todayView } from '@/flows/day/today';
import { programContext } from '@/flows/door/program';
import { refundPayment } from '@/flows/payment/refund-payment';
import { stockSheet } from '@/flows/stock/stock-desk';
import { services } from '@/outside/services';
import { playMinute } from '../../../tests/support/minute';
import { buyAll, livesAt, packAll, postedItem, readyToPack, soldToPost } from '../../../tests/support/parcels';
import { setClock } from '../../../tests/support/plans';
import { back } from '../../../tests/support/refunds';
import { foundHouse, type House, sharedWorkshop } from '../../../tests/support/workshop';
import { carrierAccount } from './balance';
import { claimParcel } from './claims';
import { handOverNow, handoverFile, orderPickUp } from './pick-up';
import { leaveParcel, sendAgain, takeIntoStock } from './settle-parcel';
import { shipmentClaim, shipmentList, shipmentSheet } from './shipments';
import { packDesk } from './to-pack';

const workshop = await sharedWorkshop();
let house: House;
let day = 0;
beforeEach(async () => {
  day = 0;
  await setClock(workshop.standIns, new Date());
  house = await foundHouse();
});

const of = <T>(work: (db: Db) => Promise<T>) => readBusiness(programContext(house.business.id), work);
const paid = async () => (await of((db) => accountBalances(db, 'carrier-claims')))[0]?.minor ?? 0n;
const waiting = async () => (await packDesk(house.owner, '')).ready.rows.map(({ name }) => name);
const lineOf = async ({ id }: Item) => (await stockSheet(house.owner, { itemId: id, optionId: null })).line;
const kindsOf = async ({ id }: Item) =>
  (await stockSheet(house.owner, { itemId: id, optionId: null })).log.map(({ kind }) => kind).reverse();

/** The clock goes on by days, looking at everything before each midnight. */
async function days(count: number): Promise<void> {
  for (const until = day + count; day < until; ) {
    day++;
    await setClock(workshop.standIns, new Date(`${addDays(dateInZone(new Date(), 'UTC'), day)}T23:30:00Z`));
    await playMinute();
  }
}

/** A parcel of somebody whose name says how it goes, until it needs a look. */
async function troubled(name: string, look: Look, more: Parameters<typeof readyToPack>[1] = {}) {
  await readyToPack(house, more);
  const rosin = await postedItem(house, 'Rosin', { onHand: '10' });
  await soldToPost(house, await livesAt(house, name), rosin, { quantity: '2' });
  await packAll(house);
  const [id = ''] = await buyAll(house);
  while ((await shipmentSheet(house.owner, id)).look !== look) {
    if (day > 40) throw new Error(`It never came to ${look}`);
    await days(1);
  }
  return { id, rosin };
}

/** The carrier's book, ours and the ledger hold the same. */
async function agree(): Promise<void> {
  const { balanceMinor } = await carrierAccount(house.owner);
  const there = await services().carrier.balance(house.business.id);
  expect([there?.minor, (await of((db) => accountBalances(db, 'carrier-balance')))[0]?.minor]).toEqual([
    Number(balanceMinor),
    balanceMinor,
  ]);
  expect(await of(ledgerTroubles)).toEqual([]);
  expect(await of(stockTroubles)).toEqual([]);
}

test('what was insured and is lost is paid once, however often it is asked: on the balance, in the ledger, in the news of its day', async () => {
  const { id } = await troubled('Lost Larkin', 'lost', { insuring: { kind: 'always' }, service: 'steady' });
  expect(await shipmentClaim(house.owner, id)).toEqual({ claim: null, mostMinor: 1600n });
  await expect(claimParcel(house.owner, id, 1601n)).rejects.toMatchObject({ code: 'amount-not-taken' });
  const presses = await Promise.allSettled(Array.from({ length: 6 }, () => claimParcel(house.owner, id, 1500n)));
  expect(presses.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
  expect((await shipmentClaim(house.owner, id)).claim).toMatchObject({ state: 'open', askedMinor: 1500n, why: 'lost' });
  const before = (await carrierAccount(house.owner)).balanceMinor;
  await days(3);
  await playMinute();
  expect((await shipmentClaim(house.owner, id)).claim).toMatchObject({ state: 'paid', paidMinor: 1500n });
  expect([(await carrierAccount(house.owner)).balanceMinor - before, await paid()]).toEqual([1500n, -1500n]);
  expect((await shipmentSheet(house.owner, id)).lines.map(({ event }) => event.kind)).toEqual(
    expect.arrayContaining(['claim-asked', 'claim-paid']),
  );
  await expect(claimParcel(house.owner, id, 100n)).rejects.toMatchObject({ code: 'claimed-already' });
  await agree();
});

test('what was not insured brings its postage; who is refused can ask again; what arrived as it should brings nothing', async () => {
  const { id } = await troubled('Contested Damaged Larkin', 'damaged');
  expect((await shipmentClaim(house.owner, id)).mostMinor).toBe(360n);
  await claimParcel(house.owner, id, 360n);
  await days(3);
  expect((await shipmentClaim(house.owner, id)).claim).toMatchObject({
    state: 'refused',
    words: 'It was not packed well enough',
  });
  expect(await paid()).toBe(0n);
  await claimParcel(house.owner, id, 200n);
  expect((await shipmentClaim(house.owner, id)).claim).toMatchObject({ state: 'open', tries: 2, askedMinor: 200n });
  await soldToPost(house, await livesAt(house, 'Ida Marsh'), await postedItem(house, 'Mute'));
  await packAll(house);
  const [good = ''] = await buyAll(house);
  await expect(claimParcel(house.owner, good, 10n)).rejects.toMatchObject({ code: 'nothing-to-claim' });
  await expect(sendAgain(house.owner, good)).rejects.toMatchObject({ code: 'nothing-to-settle' });
  await agree();
});

test('a carrier that does not answer is asked again under the same key', async () => {
  const { id } = await troubled('Lost Larkin', 'lost');
  const { claim } = services().carrier;
  const asked: string[] = [];
  services().carrier.claim = async (account, wanted) => {
    asked.push(wanted.key);
    // The first time it gets it, and its answer is lost.
    const answer = await claim(account, wanted);
    return asked.length === 1 ? null : answer;
  };
  try {
    await claimParcel(house.owner, id, 100n);
    expect((await shipmentClaim(house.owner, id)).claim).toMatchObject({ state: 'asked' });
    await days(1);
    expect((await shipmentClaim(house.owner, id)).claim).toMatchObject({ state: 'open' });
    await days(2);
    expect((await shipmentClaim(house.owner, id)).claim).toMatchObject({ state: 'paid', paidMinor: 100n });
  } finally {
    services().carrier.claim = claim;
  }
  expect(new Set(asked).size).toBe(1);
  await agree();
});

test('what is lost is sent again from the stock: packed, bought and followed anew, and done with once', async () => {
  const { id, rosin } = await troubled('Lost Larkin', 'lost');
  expect(await lineOf(rosin)).toMatchObject({ onHand: '8', lies: '8' });
  const inToday = async () => (await todayView(house.owner)).queue.filter(({ kind }) => kind === 'parcel').length;
  expect(await inToday()).toBe(1);
  const presses = await Promise.allSettled(Array.from({ length: 4 }, () => sendAgain(house.packer, id)));
  expect(presses.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
  expect([await inToday(), (await shipmentList(house.owner, { under: 'under-way' })).looks]).toEqual([0, []]);
  expect(await kindsOf(rosin)).toEqual(['opened', 'promised', 'sold', 'thrown-away']);
  // Two more are gone from the books, and lie there until they are packed.
  expect(await lineOf(rosin)).toMatchObject({ onHand: '6', lies: '8' });
  expect(await waiting()).toEqual(['Lost Larkin']);
  await packAll(house);
  const [again = ''] = await buyAll(house);
  expect(again).not.toBe(id);
  expect(await lineOf(rosin)).toMatchObject({ onHand: '6', lies: '6' });
  // It was charged for once: the second parcel only costs.
  expect((await shipmentSheet(house.owner, again)).parcel.paidMinor).toBe(0n);
  await claimParcel(house.owner, id, 300n);
  await agree();
});

test('what came back is sent again as it is, or lies in stock again; given back, it is not sent', async () => {
  const { id, rosin } = await troubled('Returned Larkin', 'returned');
  await sendAgain(house.owner, id);
  expect(await kindsOf(rosin)).toEqual(['opened', 'promised', 'sold']);
  expect(await lineOf(rosin)).toMatchObject({ onHand: '8', lies: '10' });
  await packAll(house);
  const [second = ''] = await buyAll(house);
  while ((await shipmentSheet(house.owner, second)).look !== 'returned') await days(1);
  await takeIntoStock(house.owner, second);
  expect(await lineOf(rosin)).toMatchObject({ onHand: '10', lies: '10' });
  expect([await waiting(), (await shipmentSheet(house.owner, second)).look]).toEqual([[], null]);
  await expect(leaveParcel(house.owner, second)).rejects.toMatchObject({ code: 'settled-already' });
  const { paymentId } = await shipmentSheet(house.owner, second);
  await refundPayment(house.owner, paymentId ?? '', back({ by: 'all' }, { method: 'transfer' }));
  expect((await shipmentSheet(house.owner, second)).paymentId).toBe(null);
  await agree();
});

test('of a sale that was given back nothing is sent again; it can be left at that', async () => {
  const { id } = await troubled('Lost Larkin', 'lost');
  const { paymentId } = await shipmentSheet(house.owner, id);
  await refundPayment(house.owner, paymentId ?? '', back({ by: 'all' }, { method: 'transfer' }));
  await expect(sendAgain(house.owner, id)).rejects.toMatchObject({ code: 'sale-dropped' });
  await leaveParcel(house.owner, id);
  expect((await shipmentSheet(house.owner, id)).look).toBe(null);
  await expect(claimParcel(house.reader, id, 1n)).rejects.toMatchObject({ code: 'not-allowed' });
  await agree();
});

test('what has its label goes with a list that adds up, and the carrier is ordered once; on a Sunday it does not come', async () => {
  await readyToPack(house);
  await expect(handoverFile(house.packer)).rejects.toMatchObject({ code: 'nothing-to-hand-over' });
  const rosin = await postedItem(house, 'Rosin');
  for (const name of ['Ida Marsh', '松本 花子', 'Владимир Орлов'])
    await soldToPost(house, await livesAt(house, name), rosin);
  await packAll(house);
  await buyAll(house);
  const { parcels, grams } = await handOverNow(house.packer);
  expect([parcels, grams]).toEqual([3, 180]);
  const { bytes } = await handoverFile(house.packer);
  const text = execFileSync('pdftotext', ['-layout', '-', '-'], { input: bytes, encoding: 'utf8' }).normalize('NFKC');
  for (const part of ['Ida Marsh', '松本 花子', 'Владимир Орлов', '3 parcels', 'Taken over by the carrier'])
    expect(text).toContain(part);
  expect(text.match(/TW \d{4} \d{4}/g)).toHaveLength(3);
  const monday = nextMailDay(addDays(dateInZone(new Date(), 'UTC'), 1), [1]);
  const key = randomUUID();
  await Promise.all(Array.from({ length: 4 }, () => orderPickUp(house.packer, key, monday)));
  const { pickUps } = await handOverNow(house.packer);
  expect(pickUps).toMatchObject([
    { on: monday, parcels: 3, grams: 180, state: 'ordered', number: expect.stringMatching(/^PU/) },
  ]);
  await expect(orderPickUp(house.packer, randomUUID(), addDays(monday, 6))).rejects.toMatchObject({
    code: 'no-pick-up',
  });
  expect((await handOverNow(house.packer)).pickUps).toHaveLength(1);
});
