import { randomUUID } from 'node:crypto';
import { beforeEach, expect, test } from 'vitest';
import { GOES_AS_USUAL } from '@/core/item/item';
import { newOfferItem } from '@/core/offer/offer';
import { newBlock, PLACEHOLDER_TITLE } from '@/core/page/page';
import { checkoutPage } from '@/flows/checkout/checkout-page';
import { hostedPage, keepPage, publishHostedPage } from '@/flows/checkout/hosted-page';
import { findItems, itemUses, keepItem, removeItem, restoreItem } from '@/flows/records/items';
import { asSuperuser } from '../../../tests/support/database';
import { placedOffer } from '../../../tests/support/offers';
import { foundHouse, type House, sharedWorkshop } from '../../../tests/support/workshop';
import {
  beginOffer,
  discardOfferDraft,
  keepOffer,
  keepOfferDraft,
  lookAtAddress,
  offerSheet,
  placeOffer,
  setAddress,
} from './offers';
import { sendRequest } from './requests';

const workshop = await sharedWorkshop();
let house: House;
beforeEach(async () => {
  house = await foundHouse();
});

const READER = { acceptLanguage: 'en-US', lang: '', currency: '', request: '' };
const sheet = async (id: string) => (await offerSheet(house.owner, id)).placed;
const messages = async () =>
  (
    await asSuperuser<{ kind: string }>(workshop.admin, 'select kind from messages where business_id = $1', [
      house.business.id,
    ])
  ).length;

test('a request goes out only with a sum that is one, answers of their kind, and a whole address', async () => {
  const count = {
    id: randomUUID(),
    kind: 'number',
    label: 'How many',
    help: '',
    required: false,
    choices: [],
    onReceipt: false,
  } as const;
  const { id } = await placedOffer(house, {
    kind: 'open',
    ownAmount: true,
    least: { USD: '5' },
    most: { USD: '900' },
    fields: [count],
  });
  const ask = (filled: object, toAddress = 'perpetua@vane.example') =>
    sendRequest(house.owner, id, { toName: 'Perpetua Vane', toAddress, filled, locked: true, way: 'mail', words: '' });
  for (const [filled, field] of [
    [{ amount: 'abc' }, 'amount'],
    [{ amount: '-5' }, 'amount'],
    [{ amount: '4.99' }, 'amount'],
    [{ amount: '901' }, 'amount'],
    [{ amount: '50', answers: { [count.id]: 'many' } }, `answers.${count.id}`],
  ] as const)
    await expect(ask(filled), JSON.stringify(filled)).rejects.toMatchObject({
      code: 'offer-not-ready',
      fields: [{ field }],
    });
  await expect(ask({ amount: '50' }, 'perpetua@')).rejects.toMatchObject({ code: 'customer-without-email' });
  expect(await messages()).toBe(0);
  await ask({ amount: '64.80', answers: { [count.id]: '3' } });
  // What is left to the payer is not asked of the business.
  await ask({});
  expect(await messages()).toBe(2);
});

test('a page with the placeholder as its heading, or with a goal of nothing, is not published', async () => {
  const { id, called } = await placedOffer(house, { kind: 'donation', ownAmount: true, title: 'Spring fund' }, 'page');
  const publish = async (heading: string, goal: string) => {
    const blocks = [
      newBlock(randomUUID(), 'heading', { text: heading }),
      newBlock(randomUUID(), 'goal', { text: goal }),
      newBlock(randomUUID(), 'offer'),
    ];
    await keepPage(house.owner, id, { blocks });
    return publishHostedPage(house.owner, id);
  };
  for (const [heading, goal] of [
    [PLACEHOLDER_TITLE, '500'],
    ['  ', '500'],
    ['Spring fund', ''],
    ['Spring fund', '0'],
    ['Spring fund', 'much'],
  ] as const)
    await expect(publish(heading, goal), `${heading} ${goal}`).rejects.toMatchObject({ code: 'offer-not-ready' });
  await publish('Spring fund', '500');
  expect(await hostedPage(called, { acceptLanguage: 'en-US', lang: '', currency: '' })).toContain('Spring fund');
});

test('delivery countries are countries: no other code is placed', async () => {
  const id = await beginOffer(house.owner, 'link');
  const { offer } = await sheet(id);
  const zones = (countries: string[]) => ({
    zones: [{ id: 'z', name: '', countries, prices: { USD: '5' } }],
    freeFrom: {},
  });
  const keep = async (countries: string[], revision: number) =>
    keepOffer(house.owner, id, revision, {
      name: 'x',
      offer: { ...offer, title: 'Catch', prices: { USD: '4' }, delivery: zones(countries) },
      look: {},
      sites: [],
    });
  await keep(['UK', 'XX'], 1);
  await expect(placeOffer(house.owner, id)).rejects.toMatchObject({
    code: 'offer-not-ready',
    fields: [{ field: 'delivery.zones.0.countries' }],
  });
  await keep(['GB', 'US'], 2);
  await placeOffer(house.owner, id);
});

test('what is edited of a placed offer stands beside it: payers read what is placed, and nothing is lost', async () => {
  const { id, called } = await placedOffer(house, { prices: { USD: '40' }, title: 'Sharpening' });
  const { offer, revision } = await sheet(id);
  const edit = (title: string) => ({
    name: 'Sharpening',
    offer: { ...offer, title, prices: { USD: '50' } },
    look: {},
    sites: [],
  });
  await keepOfferDraft(house.owner, id, revision, edit('Sharpening and'));
  expect((await checkoutPage(called, READER))?.title).toBe('Sharpening');
  expect((await sheet(id)).draft).toMatchObject({ revision, offer: { title: 'Sharpening and' } });
  // Not yet right is kept too, but not placed.
  await keepOfferDraft(house.owner, id, revision, {
    ...edit(''),
    offer: { ...offer, title: '', prices: { USD: 'abc' } },
  });
  await expect(
    keepOffer(house.owner, id, revision, { ...edit(''), offer: { ...offer, title: '' } }),
  ).rejects.toMatchObject({ code: 'offer-not-ready' });
  await keepOffer(house.owner, id, revision, edit('Sharpening and oiling'));
  expect(await sheet(id)).toMatchObject({ draft: null, offer: { title: 'Sharpening and oiling' } });
  expect((await checkoutPage(called, READER))?.quote.charged).toBe('$55.00');
  // A second window that edits what is not there any more is told.
  await expect(keepOfferDraft(house.owner, id, revision, edit('Late'))).rejects.toMatchObject({
    code: 'draft-changed-elsewhere',
  });
  await keepOfferDraft(house.owner, id, revision + 1, edit('Thrown away'));
  await discardOfferDraft(house.owner, id);
  expect((await sheet(id)).draft).toBeNull();
});

test('an old short address leads on to the new one, stays taken, and can be had again', async () => {
  const { id, called } = await placedOffer(house, { prices: { USD: '40' } });
  const other = await placedOffer(house, { prices: { USD: '40' } });
  const short = `spring-${randomUUID().slice(0, 8)}`;
  await setAddress(house.owner, id, short);
  await setAddress(house.owner, id, `${short}-2`);
  for (const name of [short, `${short}-2`, called])
    expect((await checkoutPage(name, READER))?.called).toBe(`${short}-2`);
  await expect(setAddress(house.owner, other.id, short)).rejects.toMatchObject({ code: 'address-taken' });
  expect(await lookAtAddress(house.owner, id, short)).toMatchObject({ state: 'free' });
  await setAddress(house.owner, id, '');
  expect((await checkoutPage(short, READER))?.called).toBe(called);
  await setAddress(house.owner, id, short);
  expect((await checkoutPage(`${short}-2`, READER))?.called).toBe(short);
});

test('what names an item is told before it goes off the list, and it can be put back', async () => {
  const item = await keepItem(house.owner, null, {
    code: 'RS',
    name: 'Rosin',
    description: '',
    kind: 'goods',
    unit: 'piece',
    prices: { USD: '8.00' },
    cost: '3.00',
    taxClass: 'standard',
    onHand: '4',
    lowAt: null,
    pictureId: null,
    going: GOES_AS_USUAL,
    options: [],
  });
  expect(await itemUses(house.owner, item.id)).toEqual({ offers: [], plans: 0, recurring: 0 });
  await placedOffer(house, {
    kind: 'items',
    items: [newOfferItem(randomUUID(), { name: 'Rosin', itemId: item.id, prices: { USD: '8' } })],
  });
  expect(await itemUses(house.owner, item.id)).toEqual({ offers: ['Bench days'], plans: 0, recurring: 0 });
  await removeItem(house.owner, item.id);
  const names = async () => (await findItems(house.owner, 'Rosin')).map(({ name }) => name);
  expect(await names()).not.toContain('Rosin');
  await restoreItem(house.owner, item.id);
  expect(await names()).toContain('Rosin');
  await expect(restoreItem(house.owner, item.id)).rejects.toMatchObject({ code: 'not-found' });
});
