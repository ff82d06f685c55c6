/** Fetched at the counter, or given as a file or a text: by every way of selling, undone with the payment, within its limits. */
import { randomUUID } from 'node:crypto';
import { beforeEach, describe, expect, test } from 'vitest';
import { GOES_AS_USUAL, type Item } from '@/core/item/item';
import { newOfferItem } from '@/core/offer/offer';
import { newLine } from '@/core/paper/paper';
import type { Db } from '@/db/pool';
import { stockTroubles } from '@/db/stock';
import { readBusiness } from '@/db/transaction';
import {
  fetchByInvoice,
  fetchByOrder,
  giveAgain,
  keepItemDigital,
  thingsByInvoice,
  thingsByOrder,
} from '@/flows/digital/grants';
import { paymentFile } from '@/flows/dispute/file-paper';
import { knownOf } from '@/flows/dispute/gather-file';
import { programContext } from '@/flows/door/program';
import { storeFile } from '@/flows/file/store-file';
import { cancelInvoice } from '@/flows/invoice/cancel-invoice';
import { eraseCustomer } from '@/flows/keeping/customer-data';
import { parcelsByInvoice, parcelsOfSaleAtDesk } from '@/flows/parcel/parcel-page';
import { packDesk } from '@/flows/parcel/to-pack';
import { refundPayment } from '@/flows/payment/refund-payment';
import { takeBackReceived } from '@/flows/payment/take-back-received';
import { handOverMessage } from '@/flows/post/hand-over-message';
import { stockSheet } from '@/flows/stock/stock-desk';
import { asSuperuser } from '../../../tests/support/database';
import { paidOrder, placedOffer } from '../../../tests/support/offers';
import { livesAt, packAll, payByTransfer, postedItem, readyToPack, soldToPost } from '../../../tests/support/parcels';
import { setClock } from '../../../tests/support/plans';
import { back } from '../../../tests/support/refunds';
import {
  foundHouse,
  type House,
  mailOf,
  plainPaper,
  sentInvoice,
  sharedWorkshop,
} from '../../../tests/support/workshop';
import { counterDesk, handOverAtCounter, tellReady } from './collect';

const workshop = await sharedWorkshop();
let house: House;
beforeEach(async () => {
  await setClock(workshop.standIns, new Date());
  house = await foundHouse();
});

const of = <T>(work: (db: Db) => Promise<T>) => readBusiness(programContext(house.business.id), work);
const collectedItem = (name: string, more: Partial<Omit<Item, 'id'>> = {}) =>
  postedItem(house, name, { ...more, going: { ...GOES_AS_USUAL, handed: 'collected' } });
const waits = async () =>
  (await counterDesk(house.packer, '')).rows.map(
    ({ name, lines }) => `${name}: ${lines.map(({ what, left }) => `${left} ${what}`).join(', ')}`,
  );
const fetch = (id: string, quantity: string, { key = randomUUID(), name = 'Otto Reed', line = 0 } = {}) =>
  handOverAtCounter(house.packer, key, id, { name, strokes: 'M1 2 L30 20.5', lines: [{ line, quantity }] });
const paymentOf = async (invoiceId: string) =>
  (await asSuperuser<{ id: string }>(workshop.admin, 'select id from payments where invoice_id = $1', [invoiceId]))[0]
    ?.id ?? '';
const linkOf = async (id: string) =>
  (
    await asSuperuser<{ token: string }>(workshop.admin, 'select link_token as token from invoices where id = $1', [id])
  )[0]?.token ?? '';
const mailsTo = async (address: string, begins = 'What you bought') => {
  const rows = await asSuperuser<{ id: string }>(
    workshop.admin,
    `select id from messages where business_id = $1 and state = 'queued' and kind in ('digital-ready', 'counter-ready')`,
    [house.business.id],
  );
  for (const { id } of rows) await handOverMessage(house.business.id, id);
  return (await mailOf(workshop.standIns, address)).filter(({ subject }) => subject.startsWith(begins));
};

describe('at the counter', () => {
  test('what is paid waits there, is handed over in parts against a name and a hand, and leaves the shelf with it', async () => {
    const bow = await collectedItem('Bow', { onHand: '5' });
    const ida = await livesAt(house, 'Ida Marsh');
    const { id, link } = await soldToPost(house, ida, bow, { quantity: '3', paid: false, paper: { delivery: null } });
    expect(await waits()).toEqual([]);
    await payByTransfer(house, id, 24);
    expect(await waits()).toEqual(['Ida Marsh: 3 Bow']);
    expect((await packDesk(house.owner, '')).ready.rows).toEqual([]);
    const lies = async () => (await stockSheet(house.owner, { itemId: bow.id, optionId: null })).line.lies;
    expect(await lies()).toBe('5');
    const [row] = (await counterDesk(house.packer, 'marsh')).rows;
    const key = randomUUID();
    await Promise.all(Array.from({ length: 5 }, () => fetch(row?.id ?? '', '2', { key })));
    expect([await waits(), await lies()]).toEqual([['Ida Marsh: 1 Bow'], '3']);
    await expect(fetch(row?.id ?? '', '2')).rejects.toMatchObject({ code: 'nothing-to-fetch' });
    await expect(fetch(row?.id ?? '', '1', { name: ' 7 ' })).rejects.toMatchObject({ code: 'name-missing' });
    await expect(fetch(row?.id ?? '', '1', { line: 4 })).rejects.toMatchObject({ code: 'nothing-to-fetch' });
    expect((await parcelsByInvoice(link)).counter).toMatchObject({
      waits: [{ what: 'Bow', quantity: '1' }],
      fetched: [{ name: 'Otto Reed', what: ['Bow'] }],
    });
    await fetch(row?.id ?? '', '1');
    expect(await waits()).toEqual([]);
    // A bank is told who fetched what, with their hand.
    const payment = await paymentOf(id);
    const told = (await of((db) => knownOf(db, payment))).find(({ key }) => key === 'delivery');
    expect(told?.rows.map(([, text]) => text)).toEqual([
      `2 × Bow: fetched by Otto Reed, who signed; handed over by ${house.packer.name}`,
      `Bow: fetched by Otto Reed, who signed; handed over by ${house.packer.name}`,
    ]);
    const { bytes } = await paymentFile(house.owner, payment);
    for (const name of ['Signature 1, Otto Reed.png', 'Signature 2, Otto Reed.png'])
      expect(bytes.includes(Buffer.from(name.replace(',', '-')))).toBe(true);
    const { counter } = await parcelsOfSaleAtDesk(house.owner, id);
    expect(counter).toMatchObject({ waits: false, fetched: [{ strokes: 'M1 2 L30 20.5' }, { name: 'Otto Reed' }] });
    expect(await of(stockTroubles)).toEqual([]);
  });

  test('whoever waits is told once that it is ready, in their language; again for the rest; not once all of it is fetched', async () => {
    const bow = await collectedItem('Bow');
    const ida = await livesAt(house, 'Ida Marsh', { language: 'de' });
    const mute = await livesAt(house, 'Mute Reed');
    for (const customer of [ida, mute]) {
      const sale = await soldToPost(house, customer, bow, { quantity: '2', paper: { delivery: null }, paid: false });
      await payByTransfer(house, sale.id, 16);
    }
    await asSuperuser(
      workshop.admin,
      `update handovers set recipient = jsonb_set(recipient, '{email}', '""') where customer_id = $1`,
      [mute.id],
    );
    const ready = async () => (await mailsTo(ida.email, 'Zum Abholen bereit')).map(({ text }) => text);
    expect(await ready()).toEqual([]);
    const { rows } = await counterDesk(house.packer, '');
    const ids = rows.map(({ id }) => id);
    const told = await Promise.all([1, 2, 3].map(() => tellReady(house.packer, ids)));
    expect(told.sort()).toEqual([0, 0, 1]);
    expect((await ready())[0]).toMatch(/Bow.*2/s);
    expect((await counterDesk(house.owner, '')).rows.map(({ toldAt }) => toldAt !== null)).toEqual([true, false]);
    const own = rows.find(({ name }) => name === 'Ida Marsh')?.id ?? '';
    await fetch(own, '1');
    expect(await tellReady(house.packer, [own])).toBe(1);
    // Fetched before the mail goes out, nothing is told.
    await fetch(own, '1');
    expect((await ready()).length).toBe(1);
    expect(await tellReady(house.packer, [own, randomUUID()])).toBe(0);
  });

  test('goods of an order without delivery wait there; of an invoice only where somebody says so; with what is posted each goes its way', async () => {
    await readyToPack(house);
    const [rosin, bow] = [await postedItem(house, 'Rosin', { going: GOES_AS_USUAL }), await collectedItem('Bow')];
    const { called } = await placedOffer(house, {
      kind: 'items',
      items: [newOfferItem('a', { name: 'Rosin', itemId: rosin.id, prices: { USD: '8' } })],
    });
    await paidOrder(workshop, called);
    expect(await waits()).toEqual(['Ida Marsh: 1 Rosin']);
    const otto = await livesAt(house, 'Otto Reed');
    await soldToPost(house, otto, rosin, { paper: { delivery: null } }).catch(() => undefined);
    expect(await waits()).toEqual(['Ida Marsh: 1 Rosin']);
    const lines = [rosin, bow].map((item) =>
      newLine(randomUUID(), 'piece', { what: item.name, price: '8.00', itemId: item.id, taxes: [], taxesBy: 'person' }),
    );
    const delivery = { charged: '5.00', postage: '', packaging: '', taxes: [] };
    const { id } = await sentInvoice(house, plainPaper(house, { customerId: otto.id, lines, delivery }));
    await payByTransfer(house, id, 21);
    expect(await waits()).toEqual(['Ida Marsh: 1 Rosin', 'Otto Reed: 1 Bow']);
    await packAll(house);
    expect((await packDesk(house.owner, '')).paper.map(({ what }) => what)).toEqual(['Rosin']);
    expect(await waits()).toEqual(['Ida Marsh: 1 Rosin', 'Otto Reed: 1 Bow']);
  });

  test('what is taken back, given back or cancelled waits no more, and a payment that comes after all brings it again', async () => {
    const bow = await collectedItem('Bow');
    const ida = await livesAt(house, 'Ida Marsh');
    const sold = () => soldToPost(house, ida, bow, { quantity: '2', paper: { delivery: null }, paid: false });
    const first = await sold();
    await payByTransfer(house, first.id, 16);
    await takeBackReceived(house.owner, await paymentOf(first.id), { reason: 'Another invoice', tell: false });
    expect(await waits()).toEqual([]);
    await payByTransfer(house, first.id, 16);
    expect(await waits()).toEqual(['Ida Marsh: 2 Bow']);
    const [row] = (await counterDesk(house.owner, '')).rows;
    await fetch(row?.id ?? '', '1');
    const second = await sold();
    await cancelInvoice(house.owner, second.id, 'Not wanted', false);
    const [payment] = await asSuperuser<{ id: string }>(
      workshop.admin,
      `select id from payments where invoice_id = $1 and state = 'paid'`,
      [first.id],
    );
    await refundPayment(
      house.owner,
      payment?.id ?? '',
      back({ by: 'lines', lines: [{ index: 0, quantity: '1' }], tip: false }, { method: 'transfer' }),
    );
    expect(await waits()).toEqual([]);
  });

  test('who fetched something is forgotten with the customer', async () => {
    const bow = await collectedItem('Bow');
    const ida = await livesAt(house, 'Ida Marsh');
    const { id } = await soldToPost(house, ida, bow, { paper: { delivery: null }, paid: false });
    await payByTransfer(house, id, 8);
    const [row] = (await counterDesk(house.owner, '')).rows;
    await fetch(row?.id ?? '', '1', { name: 'Quentin Perpetua' });
    await eraseCustomer({ ...house.owner, provedSeconds: 1 }, ida.id);
    expect(
      await asSuperuser(workshop.admin, 'select name, strokes from collections where handover_id = $1', [row?.id]),
    ).toEqual([{ name: '', strokes: '' }]);
  });
});

describe('as a file or a text', () => {
  const PDF = Buffer.from('%PDF-1.4\n1 0 obj<</Type/Catalog>>endobj\ntrailer<</Root 1 0 R>>\n%%EOF');
  async function tracks(limits: { mostDownloads: number | null; days: number | null }, words = ''): Promise<Item> {
    const item = await postedItem(house, 'Practice tracks', { kind: 'digital', going: GOES_AS_USUAL });
    const file = await storeFile(house.owner, 'tracks.pdf', 'digital', PDF);
    await keepItemDigital(house.owner, item.id, { fileId: file.id, words, ...limits });
    return item;
  }
  const sold = async (item: Item, quantity = '1') => {
    const otto = await livesAt(house, 'Otto Reed');
    const made = await soldToPost(house, otto, item, { quantity, paid: false, paper: { delivery: null } });
    return { ...made, otto, cost: 8 * Number(quantity) };
  };

  test('it is given once it is paid, by page and mail; its downloads are counted, also when they all come at once', async () => {
    const item = await tracks({ mostDownloads: 3, days: 10 }, 'Room 7\ncode 4471');
    const { id, link, otto, cost } = await sold(item);
    expect(await thingsByInvoice(link, 'en-US')).toEqual([]);
    await payByTransfer(house, id, cost);
    const [thing] = await thingsByInvoice(link, 'en-US');
    expect(thing).toMatchObject({
      what: 'Practice tracks',
      file: 'tracks.pdf',
      state: 'open',
      left: 3,
      words: 'Room 7\ncode 4471',
    });
    const [mail, ...more] = await mailsTo(otto.email);
    expect(more).toEqual([]);
    expect(mail?.text).toContain('code 4471');
    expect(mail?.text).toContain(`/i/${link}`);
    const all = await Promise.allSettled(Array.from({ length: 8 }, () => fetchByInvoice(link, thing?.id ?? '')));
    expect(all.filter(({ status }) => status === 'fulfilled')).toHaveLength(3);
    for (const one of all) if (one.status === 'rejected') expect(one.reason).toMatchObject({ code: 'download-over' });
    expect((await thingsByInvoice(link, 'en-US'))[0]).toMatchObject({ state: 'used-up', left: 0 });
    await giveAgain(house.owner, id, thing?.id ?? '');
    expect((await fetchByInvoice(link, thing?.id ?? '')).bytes).toEqual(PDF);
    await setClock(workshop.standIns, new Date(Date.now() + 11 * 86_400_000));
    await expect(fetchByInvoice(link, thing?.id ?? '')).rejects.toMatchObject({ code: 'download-over' });
    // A text is over with its file.
    expect((await thingsByInvoice(link, 'en-US'))[0]).toMatchObject({ state: 'over', words: '' });
  });

  test('by an order as by an invoice; two bought are twice the downloads; what was given stays as it was', async () => {
    const item = await tracks({ mostDownloads: 2, days: null });
    const { called } = await placedOffer(house, {
      kind: 'items',
      items: [newOfferItem('a', { name: 'Practice tracks', itemId: item.id, prices: { USD: '8' } })],
    });
    const payment = await paidOrder(workshop, called, { items: [{ id: 'a', optionId: '', quantity: '2' }] });
    const [order] = await asSuperuser<{ token: string }>(
      workshop.admin,
      'select o.token from orders o join payments p on p.order_id = o.id where p.id = $1',
      [payment],
    );
    await keepItemDigital(house.owner, item.id, { fileId: null, words: 'Other words', mostDownloads: 1, days: 1 });
    const [thing] = await thingsByOrder(order?.token ?? '', 'de-DE');
    expect(thing).toMatchObject({ file: 'tracks.pdf', left: 4, until: '', words: '' });
    expect((await fetchByOrder(order?.token ?? '', thing?.id ?? '')).name).toBe('tracks.pdf');
    await refundPayment(house.owner, payment, back({ by: 'all' }));
    expect(await thingsByOrder(order?.token ?? '', 'de-DE')).toEqual([]);
    await expect(fetchByOrder(order?.token ?? '', thing?.id ?? '')).rejects.toMatchObject({ code: 'download-over' });
  });

  test('not paid after all it ends, and is given again when it is; nobody fetches it by another sale’s page', async () => {
    const item = await tracks({ mostDownloads: 2, days: null });
    const { id, link, otto, cost } = await sold(item);
    await payByTransfer(house, id, cost);
    const [thing] = await thingsByInvoice(link, 'en-US');
    await fetchByInvoice(link, thing?.id ?? '');
    await takeBackReceived(house.owner, await paymentOf(id), { reason: 'Another invoice', tell: false });
    expect(await thingsByInvoice(link, 'en-US')).toEqual([]);
    await expect(fetchByInvoice(link, thing?.id ?? '')).rejects.toMatchObject({ code: 'download-over' });
    await payByTransfer(house, id, cost);
    // The download that was made stays made.
    expect((await thingsByInvoice(link, 'en-US'))[0]).toMatchObject({ id: thing?.id, left: 1, state: 'open' });
    expect(await mailsTo(otto.email)).toHaveLength(1);
    const other = await sold(item);
    await expect(fetchByInvoice(await linkOf(other.id), thing?.id ?? '')).rejects.toMatchObject({
      code: 'download-over',
    });
  });

  test('an item without a file or a text gives nothing and says nothing; any file of the business is no file to sell', async () => {
    const item = await postedItem(house, 'Empty tracks', { kind: 'digital', going: GOES_AS_USUAL });
    const { id, link, otto, cost } = await sold(item);
    await payByTransfer(house, id, cost);
    expect([await thingsByInvoice(link, 'en-US'), await mailsTo(otto.email)]).toEqual([[], []]);
    const private_ = await storeFile(house.owner, 'books.pdf', 'attachment', PDF);
    await expect(
      keepItemDigital(house.owner, item.id, { fileId: private_.id, words: '', mostDownloads: null, days: null }),
    ).rejects.toMatchObject({ code: 'not-found' });
    await expect(storeFile(house.owner, 'run.zip', 'digital', Buffer.from('MZ not a zip'))).rejects.toMatchObject({
      code: 'file-not-taken',
    });
  });
});
