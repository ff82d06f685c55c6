/** Parcels across a border: what customs ask is said before the label is bought, goes with it, and stands on the form. */
import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { beforeEach, expect, test } from 'vitest';
import { USUAL_CUSTOMS } from '@/core/customs/declaration';
import { addDays } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import type { Item } from '@/core/item/item';
import { newLine } from '@/core/paper/paper';
import type { ParcelSpec } from '@/core/parcel/packed';
import { NO_ADDRESS } from '@/core/place/address';
import { deliverSettings } from '@/db/parcel-profiles';
import { parcelsByIds } from '@/db/parcels';
import type { Db } from '@/db/pool';
import { keepRates } from '@/db/rates';
import { shipmentRows } from '@/db/shipments';
import { inBusiness, readBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { itemSheet } from '@/flows/records/items';
import { returnLabelByInvoice } from '@/flows/returning/return-label';
import { allowReturn, askBackByInvoice, returnsByInvoice } from '@/flows/returning/returns';
import { services } from '@/outside/services';
import { asSuperuser } from '../../../tests/support/database';
import { playMinute } from '../../../tests/support/minute';
import { buyAll, livesAt, packAll, postedItem, readyToPack, soldToPost } from '../../../tests/support/parcels';
import { setClock } from '../../../tests/support/plans';
import { foundHouse, type House, sharedWorkshop } from '../../../tests/support/workshop';
import { customsFile, declareParcel, rememberCustoms } from './customs';
import { changeParcel, leaveOut, putFreeParcel } from './pack';
import { keepDelivering } from './profiles';
import { sendAgain } from './settle-parcel';
import { packDesk } from './to-pack';

const workshop = await sharedWorkshop();
let house: House;
beforeEach(async () => {
  await setClock(workshop.standIns, new Date());
  house = await foundHouse();
});

/** A door in Osaka: whoever writes it, the form is read there and here. */
const OSAKA = { ...NO_ADDRESS, lines: ['北浜 2-4-6'], city: '大阪市', postalCode: '541-0041', country: 'JP' };
const abroad = (name = 'はな Marsh') => livesAt(house, name, { billing: OSAKA });
const of = <T>(work: (db: Db) => Promise<T>) => readBusiness(programContext(house.business.id), work);
const onPaper = async () => (await packDesk(house.owner, '')).paper;
const parcelOf = async (id: string) => {
  const [parcel] = await of((db) => parcelsByIds(db, [id]));
  if (!parcel) throw new Error('The parcel is gone');
  return parcel;
};
const textOf = (bytes: Uint8Array) =>
  execFileSync('pdftotext', ['-layout', '-', '-'], { input: bytes, encoding: 'utf8' })
    .normalize('NFKC')
    .replace(/\s+/g, ' ');
const known = { hsCode: '9209.94', origin: 'DK' };
const stringsOf = (more: Partial<Item> = {}) => postedItem(house, 'Violin strings', more);
const said = (more: object = {}) => ({
  ...{ place: 0, declaredAs: 'Violin strings, steel', hsCode: '9209.94', origin: 'DK', netGrams: 38, valueMinor: null },
  ...more,
});

test('what customs ask is missing, is said, and goes onto the form; the next parcel knows it', async () => {
  await readyToPack(house);
  const strings = await stringsOf();
  await soldToPost(house, await abroad(), strings, { quantity: '2' });
  const [id = ''] = await packAll(house);
  const [row] = await onPaper();
  expect([row?.isBuyable, row?.faults, row?.customsProblems.map(({ field }) => field)]).toEqual([
    false,
    ['customs'],
    ['hsCode', 'origin'],
  ]);
  // What the carrier asks is known before: the declaration changes no rate.
  expect(row?.serviceName).toBe('Light');
  await declareParcel(house.packer, id, { ...USUAL_CUSTOMS, importer: 'JP 1234' }, [said()]);
  await expect(rememberCustoms(house.packer, id)).rejects.toMatchObject({ code: 'not-allowed' });
  await rememberCustoms(house.owner, id);
  expect((await onPaper()).map(({ isBuyable }) => isBuyable)).toEqual([true]);
  await buyAll(house);
  const { label } = await parcelOf(id);
  expect([label?.customsForm, label?.spec.customs?.lines]).toEqual([
    'cn22',
    [{ what: 'Violin strings, steel', quantity: '2', grams: 76, minor: 1600, hsCode: '920994', origin: 'DK' }],
  ]);
  const file = await customsFile(house.packer, [id]);
  const text = textOf(file.bytes);
  for (const part of [
    'CN 22',
    '[X] Sale of goods',
    'Violin strings, steel',
    '0.076',
    '16.00 USD',
    '920994',
    'DK',
    '0.100',
  ])
    expect(text).toContain(part);
  const { going } = (await itemSheet(house.owner, strings.id)).item;
  expect(going).toMatchObject({ ...known, grams: 40 });
  await soldToPost(house, await abroad('Mio Marsh'), strings);
  await packAll(house);
  expect((await onPaper()).map(({ isBuyable }) => isBuyable)).toEqual([true]);
});

test('what is worth more goes with the whole form, with numbers, references and the town in its own script', async () => {
  await readyToPack(house, { service: 'steady' });
  await keepDelivering(house.owner, { ...(await of(deliverSettings)), customsReference: 'EORI 77 410' });
  const strings = await stringsOf({ going: { ...(await stringsOf()).going, ...known } });
  await soldToPost(house, await abroad(), strings, { quantity: '60' });
  const [id = ''] = await packAll(house);
  await declareParcel(house.owner, id, { ...USUAL_CUSTOMS, licence: 'L-9', comments: 'No plants' }, [
    said({ valueMinor: 48_000n }),
  ]);
  expect((await onPaper())[0]?.faults).toEqual(['no-profile']);
  await leaveOut(house.owner, id, [{ place: 0, quantity: '50' }], false);
  await buyAll(house);
  const { label, number } = await parcelOf(id);
  // What was said stays with what is left of the line, and its worth is shared by the count.
  expect([label?.customsForm, label?.spec.customs?.lines[0]]).toEqual([
    'cn23',
    { what: 'Violin strings, steel', quantity: '10', grams: 380, minor: 8000, hsCode: '920994', origin: 'DK' },
  ]);
  const text = textOf((await customsFile(house.owner, [id])).bytes);
  for (const part of [
    'CN 23',
    'EORI 77 410',
    '大阪市',
    '80.00 USD',
    'L-9',
    'No plants',
    number.slice(2, 5),
    'Postal charges',
  ])
    expect(text).toContain(part);
});

test('at home nothing is asked; several forms are one file; what has no label has none', async () => {
  await readyToPack(house);
  const strings = await stringsOf({ going: { ...(await stringsOf()).going, ...known } });
  await soldToPost(house, await livesAt(house, 'Ida Marsh'), strings);
  await soldToPost(house, await abroad(), strings);
  await soldToPost(house, await abroad('Mio Marsh'), strings);
  const ids = await packAll(house);
  await expect(customsFile(house.owner, ids)).rejects.toMatchObject({ code: 'no-border' });
  await buyAll(house);
  const { toPrint, toDeclare } = await packDesk(house.owner, '');
  expect([toPrint.length, toDeclare.length]).toEqual([3, 2]);
  const pages = execFileSync('pdfinfo', ['-'], {
    input: (await customsFile(house.owner, ids)).bytes,
    encoding: 'utf8',
  });
  expect(/Pages:\s+(\d+)/.exec(pages)?.[1]).toBe('2');
});

test('a gift without a sale needs its worth; an option weighs as it does; a sale in euros is declared in our own currency', async () => {
  await readyToPack(house);
  const id = await putFreeParcel(house.packer, {
    customerId: null,
    recipient: { name: 'Mio Beck', address: OSAKA, email: '', phone: '', locale: 'en' },
    lines: [{ what: 'Two bridges, maple', itemId: null, optionId: null, quantity: '2', valueMinor: 0n }],
  });
  const fields = async () => (await onPaper()).map(({ customsProblems }) => customsProblems.map(({ field }) => field));
  await declareParcel(house.packer, id, { ...USUAL_CUSTOMS, nature: 'gift' }, []);
  expect(await fields()).toEqual([['netGrams', 'minor']]);
  await changeParcel(house.packer, id, { grams: 30 });
  await declareParcel(house.packer, id, { ...USUAL_CUSTOMS, nature: 'gift' }, [
    said({ declaredAs: '', hsCode: '', origin: '', netGrams: 20, valueMinor: 900n }),
  ]);
  expect(await fields()).toEqual([['netGrams']]);
  await changeParcel(house.packer, id, { grams: 60 });
  expect(await fields()).toEqual([[]]);
  await buyAll(house);
  expect((await parcelOf(id)).label?.spec.customs).toMatchObject({
    nature: 'gift',
    lines: [{ grams: 40, minor: 900 }],
  });

  const option = {
    id: randomUUID(),
    name: 'Heavy',
    code: '',
    prices: {},
    onHand: null,
    lowAt: null,
    grams: 70,
    shelf: '',
  };
  const strings = await stringsOf({ going: { ...(await stringsOf()).going, ...known }, options: [option] });
  const rates = { on: dateInZone(new Date(), 'UTC'), perEuro: { USD: '1.25' } };
  await inBusiness(programContext(house.business.id), (tx) => keepRates(tx, rates, 'a file'));
  const line = newLine(randomUUID(), 'piece', {
    ...{ what: 'Strings, Heavy', price: '8.00', quantity: '1', itemId: strings.id, optionId: option.id },
    ...{ taxes: [], taxesBy: 'person' as const },
  });
  await soldToPost(house, await abroad('Hana Reed'), strings, {
    paid: false,
    paper: { currency: 'EUR', lines: [line], shipsFirst: true },
  });
  await packAll(house);
  expect((await onPaper())[0]?.isBuyable).toBe(true);
  await buyAll(house);
  const [{ label } = { label: null }] = await of((db) => shipmentRows(db, { under: 'all', words: 'hana' }, 1));
  expect(label?.spec.customs).toMatchObject({ currency: 'USD', lines: [{ grams: 70, minor: 1000 }] });
});

test('the carrier takes nothing across a border that says nothing for customs', async () => {
  await readyToPack(house);
  const strings = await stringsOf({ going: { ...(await stringsOf()).going, ...known } });
  await soldToPost(house, await abroad(), strings);
  const [id = ''] = await packAll(house);
  await buyAll(house);
  const { customs, ...bare } = (await parcelOf(id)).label?.spec ?? {};
  const whys = async (spec: object) =>
    (await services().carrier.rates('USD', [spec as ParcelSpec]))?.[0]?.refused.map(({ why }) => why);
  expect(await whys({ ...bare, customs })).toEqual([]);
  for (const nothing of [undefined, null, 'x', { lines: [] }, { lines: [{ minor: -1 }] }])
    expect(await whys({ ...bare, customs: nothing })).toEqual(['not-declared', 'not-declared', 'not-declared']);
});

test('a return from abroad comes with its own form: returned goods, from the customer to the house', async () => {
  await readyToPack(house);
  const strings = await stringsOf({ going: { ...(await stringsOf()).going, ...known } });
  const sale = await soldToPost(house, await abroad(), strings, { quantity: '2' });
  const [id = ''] = await packAll(house);
  await buyAll(house);
  for (let day = 1; day < 30 && (await parcelOf(id)).state !== 'delivered'; day++) {
    await setClock(workshop.standIns, new Date(`${addDays(dateInZone(new Date(), 'UTC'), day)}T23:30:00Z`));
    await playMinute();
  }
  await askBackByInvoice(sale.link, randomUUID(), {
    ...{ reason: 'does-not-fit', words: '', fileId: null, lines: [{ line: 0, quantity: '1' }] },
  });
  const [back] = await asSuperuser<{ id: string }>(workshop.admin, 'select id from returns where business_id = $1', [
    house.business.id,
  ]);
  await allowReturn(house.owner, back?.id ?? '', '', true);
  expect((await returnsByInvoice(sale.link)).returns).toMatchObject([{ papers: 'form' }]);
  const text = textOf((await returnLabelByInvoice(sale.link, back?.id ?? '')).bytes);
  for (const part of ['CN 22', '[X] Returned goods', 'Violin strings', '8.00 USD', '0.040'])
    expect(text).toContain(part);
});

test('lost abroad and sent again it is asked anew; forgotten, what was told of it is forgotten', async () => {
  await readyToPack(house);
  const strings = await stringsOf();
  const lost = await abroad('Lost Marsh');
  await soldToPost(house, lost, strings);
  const [id = ''] = await packAll(house);
  await declareParcel(house.owner, id, { ...USUAL_CUSTOMS, importer: 'Quince 77' }, [said()]);
  await buyAll(house);
  for (let day = 1; day < 40 && (await parcelOf(id)).state !== 'lost'; day++) {
    await setClock(workshop.standIns, new Date(`${addDays(dateInZone(new Date(), 'UTC'), day)}T23:30:00Z`));
    await playMinute();
  }
  await sendAgain(house.owner, id);
  await packAll(house);
  expect((await onPaper()).map(({ faults }) => faults)).toEqual([['customs']]);
  await asSuperuser(workshop.admin, `update customers set erased_at = now() where business_id = $1 and id = $2`, [
    house.business.id,
    lost.id,
  ]);
  const kept = await asSuperuser<{ text: string }>(
    workshop.admin,
    `select coalesce(string_agg(p.customs::text || p.label::text, ''), '')
        || coalesce((select string_agg(l.customs::text, '') from parcel_lines l where l.business_id = $1), '') as text
      from parcels p where p.business_id = $1`,
    [house.business.id],
  );
  expect(kept[0]?.text).not.toMatch(/Quince|steel|Lost/);
});
