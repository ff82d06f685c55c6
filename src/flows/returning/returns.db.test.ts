/** What comes back: asked for on the page of the sale, allowed with a label that is bought once, received, exchanged or given back. */
import { randomUUID } from 'node:crypto';
import { beforeEach, expect, test } from 'vitest';
import { addDays } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { GOES_AS_USUAL, type Item } from '@/core/item/item';
import { ledgerTroubles } from '@/db/ledger';
import { deliverSettings } from '@/db/parcel-profiles';
import type { Db } from '@/db/pool';
import { stockTroubles } from '@/db/stock';
import { readBusiness } from '@/db/transaction';
import { counterDesk, handOverAtCounter } from '@/flows/counter/collect';
import { programContext } from '@/flows/door/program';
import { storeFile } from '@/flows/file/store-file';
import { carrierAccount } from '@/flows/parcel/balance';
import { keepDelivering } from '@/flows/parcel/profiles';
import { packDesk } from '@/flows/parcel/to-pack';
import { refundPayment } from '@/flows/payment/refund-payment';
import { handOverMessage } from '@/flows/post/hand-over-message';
import { stockSheet } from '@/flows/stock/stock-desk';
import { services } from '@/outside/services';
import { asSuperuser } from '../../../tests/support/database';
import { playMinute } from '../../../tests/support/minute';
import {
  buyAll,
  livesAt,
  packAll,
  payByTransfer,
  postedItem,
  readyToPack,
  soldToPost,
} from '../../../tests/support/parcels';
import { setClock } from '../../../tests/support/plans';
import { back } from '../../../tests/support/refunds';
import { foundHouse, type House, mailOf, sharedWorkshop } from '../../../tests/support/workshop';
import { returnLabelByInvoice, returnsUnderWay } from './return-label';
import {
  type AskedBack,
  allowReturn,
  askBackByInvoice,
  closeReturn,
  exchangeReturn,
  receiveReturn,
  refuseReturn,
  returnsByInvoice,
  returnsDesk,
} from './returns';

const workshop = await sharedWorkshop();
let house: House;
let day = 0;
beforeEach(async () => {
  day = 0;
  await setClock(workshop.standIns, new Date());
  house = await foundHouse();
});

const of = <T>(work: (db: Db) => Promise<T>) => readBusiness(programContext(house.business.id), work);
async function days(count: number): Promise<void> {
  for (const until = day + count; day < until; ) {
    day++;
    await setClock(workshop.standIns, new Date(`${addDays(dateInZone(new Date(), 'UTC'), day)}T23:30:00Z`));
    await playMinute();
  }
}
const lineOf = async ({ id }: Item) => (await stockSheet(house.owner, { itemId: id, optionId: null })).line;
const asked = (quantity: string, more: Partial<AskedBack> = {}): AskedBack => ({
  ...{ reason: 'does-not-fit', words: 'Too long by a hand', fileId: null, lines: [{ line: 0, quantity }] },
  ...more,
});
const states = async () => (await returnsDesk(house.owner)).map(({ name, state }) => `${name}: ${state}`);

/** Three of something that came to the door. */
async function delivered() {
  await readyToPack(house, { service: 'steady' });
  const rosin = await postedItem(house, 'Rosin', { onHand: '10' });
  const ida = await livesAt(house, 'Ida Marsh');
  const sale = await soldToPost(house, ida, rosin, { quantity: '3' });
  await packAll(house);
  await buyAll(house);
  for (let at = 0; at < 30 && (await returnsByInvoice(sale.link)).lines.length === 0; at++) await days(1);
  return { ...sale, rosin, ida };
}

async function proved(): Promise<void> {
  expect(await of(ledgerTroubles)).toEqual([]);
  expect(await of(stockTroubles)).toEqual([]);
  const there = await services().carrier.balance(house.business.id);
  expect(BigInt(there?.minor ?? 0)).toBe((await carrierAccount(house.owner)).balanceMinor);
}

test('asked on the page once, however often it is pressed; allowed with a label that is bought once; received and given back', async () => {
  const { id, link, rosin, ida } = await delivered();
  expect((await returnsByInvoice(link)).lines).toEqual([{ line: 0, what: 'Rosin', most: '3' }]);
  const key = randomUUID();
  await Promise.all(Array.from({ length: 5 }, () => askBackByInvoice(link, key, asked('2'))));
  expect([await states(), (await returnsByInvoice(link)).lines[0]?.most]).toEqual([['Ida Marsh: asked'], '1']);
  await expect(askBackByInvoice(link, randomUUID(), asked('2'))).rejects.toMatchObject({ code: 'nothing-to-return' });
  const [row] = await returnsDesk(house.packer);
  const before = (await carrierAccount(house.owner)).balanceMinor;
  const presses = await Promise.allSettled(
    Array.from({ length: 4 }, () => allowReturn(house.owner, row?.id ?? '', 'Put the case in too', true)),
  );
  expect(presses.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
  // One label, one sum: whoever pressed second found it bought.
  expect(before - (await carrierAccount(house.owner)).balanceMinor).toBeGreaterThan(0n);
  const [shown] = (await returnsByInvoice(link)).returns;
  expect(shown).toMatchObject({ state: 'allowed', answer: 'Put the case in too', papers: 'label' });
  const label = await returnLabelByInvoice(link, row?.id ?? '');
  expect(label.bytes.subarray(0, 4).toString()).toBe('%PDF');
  const [mail] = await asSuperuser<{ id: string }>(
    workshop.admin,
    `select id from messages where business_id = $1 and kind = 'return-answered'`,
    [house.business.id],
  );
  await handOverMessage(house.business.id, mail?.id ?? '');
  const [letter] = (await mailOf(workshop.standIns, ida.email)).filter(({ subject }) => /send back/.test(subject));
  expect(letter?.text).toContain('Put the case in too');
  expect(letter?.text).toContain('See it, and the label:');
  // On its way it is followed; a carrier that is silent keeps nobody waiting.
  const numbers = (await returnsDesk(house.packer)).map(({ number }) => number);
  expect((await returnsUnderWay(house.packer, numbers)).size).toBe(0);
  await days(8);
  expect((await returnsUnderWay(house.packer, numbers)).get(numbers[0] ?? '')).toMatchObject({ scan: 'delivered' });
  const { scans } = services().carrier;
  try {
    services().carrier.scans = () => new Promise(() => undefined);
    expect((await returnsUnderWay(house.packer, numbers)).size).toBe(0);
  } finally {
    services().carrier.scans = scans;
  }
  await expect(
    receiveReturn(house.packer, row?.id ?? '', [{ line: 0, toStock: '2', thrown: '1' }]),
  ).rejects.toMatchObject({
    code: 'nothing-to-return',
  });
  await receiveReturn(house.packer, row?.id ?? '', [{ line: 0, toStock: '1', thrown: '1' }]);
  await expect(
    receiveReturn(house.packer, row?.id ?? '', [{ line: 0, toStock: '1', thrown: '0' }]),
  ).rejects.toMatchObject({
    code: 'return-moved-on',
  });
  expect(await lineOf(rosin)).toMatchObject({ onHand: '8', lies: '8' });
  const [{ paymentId } = { paymentId: null }] = await returnsDesk(house.owner);
  const wish = { by: 'lines', lines: [{ index: 0, quantity: '2' }], tip: false } as const;
  await refundPayment(house.owner, paymentId ?? '', back(wish, { method: 'transfer' }));
  await closeReturn(house.packer, row?.id ?? '');
  expect([await states(), (await returnsByInvoice(link)).returns[0]?.state]).toEqual([[], 'closed']);
  expect(await lineOf(rosin)).toMatchObject({ onHand: '8', lies: '8' });
  expect((await packDesk(house.owner, '')).ready.rows).toEqual([]);
  expect(id).toBeTruthy();
  await proved();
});

test.each(['received first', 'money first'])(
  '%s: what came back and what money is given for are the same goods',
  async (order) => {
    const { id, link, rosin } = await delivered();
    await askBackByInvoice(link, randomUUID(), asked('2'));
    const [row] = await returnsDesk(house.owner);
    await allowReturn(house.owner, row?.id ?? '', '', false);
    const wish = (quantity: string) => ({ by: 'lines', lines: [{ index: 0, quantity }], tip: false }) as const;
    const give = (quantity: string) =>
      refundPayment(
        house.owner,
        row?.paymentId ?? '',
        back(wish(quantity), { method: 'transfer', aside: { toStock: [{ index: 0, quantity }] } }),
      );
    const steps = [
      () => receiveReturn(house.packer, row?.id ?? '', [{ line: 0, toStock: '2', thrown: '0' }]),
      () => give('2'),
    ];
    for (const step of order === 'money first' ? steps.reverse() : steps) {
      await step();
      expect(await lineOf(rosin)).toMatchObject({ onHand: '9' });
    }
    // The third one is given back without having been seen.
    await give('1');
    expect(await lineOf(rosin)).toMatchObject({ onHand: '10' });
    expect(id).toBeTruthy();
    await proved();
  },
);

test('exchanged, the same goods are taken from the stock and packed anew', async () => {
  const { link, rosin } = await delivered();
  await askBackByInvoice(link, randomUUID(), asked('2', { reason: 'damaged' }));
  const [row] = await returnsDesk(house.owner);
  await allowReturn(house.owner, row?.id ?? '', '', false);
  await receiveReturn(house.packer, row?.id ?? '', [{ line: 0, toStock: '0', thrown: '2' }]);
  expect(await lineOf(rosin)).toMatchObject({ onHand: '7', lies: '7' });
  const presses = await Promise.allSettled(
    Array.from({ length: 3 }, () => exchangeReturn(house.packer, row?.id ?? '')),
  );
  expect(presses.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
  expect(await lineOf(rosin)).toMatchObject({ onHand: '5', lies: '7' });
  expect((await packDesk(house.owner, '')).ready.rows.map(({ what }) => what)).toEqual(['Rosin, 2']);
  await packAll(house);
  await buyAll(house);
  expect(await lineOf(rosin)).toMatchObject({ onHand: '5', lies: '5' });
  await proved();
});

test('refused it can be asked again; what was not delivered, is too old, or is another’s, cannot', async () => {
  const { link } = await delivered();
  await askBackByInvoice(link, randomUUID(), asked('3'));
  const [row] = await returnsDesk(house.owner);
  await expect(refuseReturn(house.packer, row?.id ?? '', 'No')).rejects.toMatchObject({ code: 'not-allowed' });
  await refuseReturn(house.owner, row?.id ?? '', 'It was cut to your measure');
  expect((await returnsByInvoice(link)).returns[0]).toMatchObject({
    state: 'refused',
    answer: 'It was cut to your measure',
  });
  expect((await returnsByInvoice(link)).lines[0]?.most).toBe('3');
  const other = await soldToPost(house, await livesAt(house, 'Otto Reed'), await postedItem(house, 'Mute'));
  expect((await returnsByInvoice(other.link)).lines).toEqual([]);
  await expect(askBackByInvoice(other.link, randomUUID(), asked('1'))).rejects.toMatchObject({
    code: 'nothing-to-return',
  });
  await expect(returnLabelByInvoice(other.link, row?.id ?? '')).rejects.toMatchObject({ code: 'not-found' });
  const private_ = await storeFile(house.owner, 'a.csv', 'attachment', Buffer.from('A,B\n1,2\n'));
  await expect(askBackByInvoice(link, randomUUID(), asked('1', { fileId: private_.id }))).rejects.toMatchObject({
    code: 'not-found',
  });
  await keepDelivering(house.owner, { ...(await of(deliverSettings)), returnDays: 0 });
  expect((await returnsByInvoice(link)).lines).toEqual([]);
  await keepDelivering(house.owner, { ...(await of(deliverSettings)), returnDays: 14 });
  await days(20);
  expect((await returnsByInvoice(link)).lines).toEqual([]);
});

test('what was fetched comes back to the counter, without a label, and is exchanged there', async () => {
  const bow = await postedItem(house, 'Bow', { onHand: '4', going: { ...GOES_AS_USUAL, handed: 'collected' } });
  const sale = await soldToPost(house, await livesAt(house, 'Ida Marsh'), bow, {
    paid: false,
    paper: { delivery: null },
  });
  await payByTransfer(house, sale.id, 8);
  const [waits] = (await counterDesk(house.owner, '')).rows;
  const fetched = { name: 'Ida Marsh', strokes: '', lines: [{ line: 0, quantity: '1' }] };
  await handOverAtCounter(house.packer, randomUUID(), waits?.id ?? '', fetched);
  await askBackByInvoice(sale.link, randomUUID(), asked('1'));
  const [row] = await returnsDesk(house.owner);
  expect(row?.wasPosted).toBe(false);
  await expect(allowReturn(house.owner, row?.id ?? '', '', true)).rejects.toMatchObject({ code: 'no-return-label' });
  await allowReturn(house.owner, row?.id ?? '', '', false);
  await receiveReturn(house.packer, row?.id ?? '', [{ line: 0, toStock: '1', thrown: '0' }]);
  await exchangeReturn(house.packer, row?.id ?? '');
  expect((await counterDesk(house.owner, '')).rows.map(({ name }) => name)).toEqual(['Ida Marsh']);
  expect(await lineOf(bow)).toMatchObject({ onHand: '3', lies: '4' });
  await proved();
});
