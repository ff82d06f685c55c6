/** Buttons on somebody else's website: the checkout over the page where it is allowed, on its own page elsewhere. */
import { randomUUID } from 'node:crypto';
import type { Browser, Frame, Page } from 'puppeteer-core';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { newOfferItem } from '@/core/offer/offer';
import { ledgerTroubles } from '@/db/ledger';
import { readBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { passwordHash } from '@/flows/house/password';
import { beginOffer, keepOffer, offerSheet, placeOffer } from '@/flows/offer/offers';
import { startChromium } from '../support/chromium';
import { asSuperuser } from '../support/database';
import {
  choose,
  comeIn,
  expectAccessible,
  fillCard,
  follow,
  openPage,
  pick,
  press,
  pressOn,
  pressUntilShown,
  type,
  untilShown,
  untilTrue,
  visit,
} from '../support/person';
import { signIn } from '../support/signed-in';
import { type Stack, startStack } from '../support/stack';
import { until } from '../support/until';
import { foundHouse, type House } from '../support/workshop';

const PASSWORD = 'a plane and a saw';
let stack: Stack;
let house: House;
let browser: Browser;
let closeBrowser: () => Promise<void>;
let page: Page;
let errors: string[];
let id = '';

beforeAll(async () => {
  stack = await startStack();
  house = await foundHouse('Sallow Joinery', await passwordHash(PASSWORD), 'owner@sallow.example');
  ({ browser, close: closeBrowser } = await startChromium());
  ({ page, errors } = await openPage(browser));
  await comeIn(page, stack.web, (await signIn('owner@sallow.example', PASSWORD, 'test')).token);
  id = await beginOffer(house.owner, 'button');
  const { placed } = await offerSheet(house.owner, id);
  const offer = {
    ...placed.offer,
    title: 'Brass catches',
    items: [newOfferItem(randomUUID(), { name: 'Brass catch', prices: { USD: '64.50' } })],
  };
  await keepOffer(house.owner, id, 1, { name: 'Brass catches', offer, look: {}, sites: [stack.standIns] });
  await placeOffer(house.owner, id);
});
afterAll(async () => {
  await closeBrowser?.();
  await stack?.close();
});

/** What the sheet says is to be pasted, put on the sample website. */
async function pasted(which: 'html' | 'script', website: string): Promise<Page> {
  await visit(page, `${stack.web}/ask/buttons/${id}`);
  await press(page, which === 'html' ? 'HTML' : 'Script', 'tab');
  const snippet = await (await page.waitForSelector(`[data-snippet="${which}"]`, { visible: true }))?.evaluate(
    (element) => element.textContent ?? '',
  );
  const shop = (await openPage(browser)).page;
  await visit(shop, website);
  await shop.$eval('textarea', (area, text) => ((area as HTMLTextAreaElement).value = text), snippet ?? '');
  await Promise.all([shop.waitForNavigation(), press(shop, 'Put it on the page', 'button')]);
  await shop.waitForSelector('#placed img');
  return shop;
}

const checkoutFrame = async (shop: Page): Promise<Frame> => {
  const frame = await (await shop.waitForSelector('dialog iframe'))?.contentFrame();
  if (!frame) throw new Error('No checkout over the page');
  return frame;
};

test('a button is made: its look, its website, what is pasted', async () => {
  await visit(page, `${stack.web}/ask/offer/${id}`);
  await pick(page, 'Wording', 'your own words');
  await type(page, 'Your words', 'Take some home');
  await expectAccessible(page, 'button composer');
  await press(page, 'Place the changes', 'button');
  await untilTrue(page, () => location.pathname.startsWith('/ask/buttons/'));
  await untilShown(page, 'Place it');
  await expectAccessible(page, 'button sheet');
  const drawing = await fetch(`${stack.web}/b/${(await offerSheet(house.owner, id)).placed.publicId}`);
  expect(drawing.headers.get('content-type')).toContain('image/svg+xml');
  expect(await drawing.text()).toContain('Take some home');
});

test('by script it opens the checkout over the page, is paid there, and the page hears of it', async () => {
  const shop = await pasted('script', `${stack.standIns}/shop`);
  await shop.evaluate(() => document.addEventListener('dahlia:paid', () => (document.title = 'heard')));
  await shop.click('#placed a');
  const frame = await checkoutFrame(shop);
  await untilShown(frame, 'Brass catches');
  // 64.50 and 6.45.
  await untilShown(frame, 'Pay $70.95');
  await type(frame, 'Name', 'Ida Marsh');
  await type(frame, 'E-mail address', 'ida@marsh.example');
  await fillCard(frame, 'corvid-good');
  await press(frame, 'Pay $70.95', 'button');
  await untilShown(await checkoutFrame(shop), 'Thank you');
  await press(await checkoutFrame(shop), 'Back to the website', 'button');
  await untilTrue(shop, () => document.title === 'heard' && !document.querySelector('dialog'));
  const [row] = await asSuperuser<{ channel: string; state: string }>(
    stack.admin,
    `select channel, payments.state from payments join orders on orders.id = order_id where payer_email = 'ida@marsh.example'`,
  );
  expect(row).toEqual({ channel: 'button', state: 'paid' });
});

test('without a script it leads to the checkout’s own page, with what is passed through', async () => {
  const shop = await pasted('html', `${stack.standIns}/shop`);
  const address = await shop.$eval('#placed a', (a) => (a as HTMLAnchorElement).href);
  await visit(shop, `${address}?pass_campaign=spring&pass_order=A-17&other=no`);
  await untilShown(shop, 'Pay $70.95');
  await type(shop, 'Name', 'Otto Reed');
  await type(shop, 'E-mail address', 'otto@reed.example');
  await fillCard(shop, 'lumen-good');
  await press(shop, 'Pay $70.95', 'button');
  await untilShown(shop, 'Thank you');
  const [row] = await asSuperuser<{ passed: object }>(
    stack.admin,
    `select printed->'passed' as passed from orders where payer_email = 'otto@reed.example'`,
  );
  expect(row?.passed).toEqual({ campaign: 'spring', order: 'A-17' });
});

test('a website that was not named cannot show it in a frame', async () => {
  // The same server under another name is another website.
  const elsewhere = stack.standIns.replace('127.0.0.1', 'localhost');
  const shop = await pasted('script', `${elsewhere}/shop`);
  const { publicId } = (await offerSheet(house.owner, id)).placed;
  const policy = async (path: string) => (await fetch(`${stack.web}${path}`)).headers.get('content-security-policy');
  expect(await policy(`/c/${publicId}?framed=yes`)).toContain(`frame-ancestors ${stack.standIns};`);
  expect(await policy(`/c/${publicId}`)).toContain(`frame-ancestors 'none'`);
  expect(await policy('/c/nothing-there?framed=yes')).toContain(`frame-ancestors 'none'`);
  expect(await policy('/sign-in?framed=yes')).toContain(`frame-ancestors 'none'`);
  await shop.click('#placed a');
  await shop.waitForSelector('dialog iframe');
  const frame = await (await shop.$('dialog iframe'))?.contentFrame();
  await until('the browser has refused it', async () => frame?.url().startsWith('chrome-error:') ?? false);
});

test('a hosted page is built from blocks, published, seen, and paid from', async () => {
  await visit(page, `${stack.web}/ask/pages`);
  await pressOn(page, 'New hosted page', '/ask/offer/');
  await type(page, 'What is it for? The payer reads this', 'Bench days');
  await press(page, 'A donation', 'button');
  await type(page, 'Suggested amount 1', '25');
  await type(page, 'Suggested amount 2', '50');
  await untilShown(page, 'Draft, saved');
  await press(page, 'On to the page', 'button');
  await untilTrue(page, () => location.pathname.startsWith('/ask/design/'));
  await choose(page, 'Add a block', 'Goal');
  await type(page, 'Goal in USD', '500');
  // By keyboard: the goal goes up above the contact.
  await page.focus('[data-block="goal"] button[aria-label^="Move"]');
  const order = () =>
    page.$$eval('[data-block]', (rows) => rows.map((row) => row.getAttribute('data-block')).join(' '));
  // Each key once the one before has been taken: what is said to screen readers tells.
  const said = () => page.$$eval('[id^="DndLiveRegion"]', (regions) => regions.map((one) => one.textContent).join());
  for (const [key, words] of [
    ['Space', 'was moved over'],
    ['ArrowUp', 'was moved over'],
    ['Space', 'was dropped'],
  ] as const) {
    const before = await said();
    await page.keyboard.press(key);
    await until(words, async () => (await said()) !== before && (await said()).includes(words));
  }
  expect(await order()).toBe('logo heading text offer goal contact');
  await press(page, 'Remove Contact', 'button');
  await press(page, 'Undo', 'button');
  expect(await order()).toBe('logo heading text offer goal contact');
  await expectAccessible(page, 'page designer');
  await page.waitForSelector('[data-keeping="kept"]');
  await press(page, 'Publish the page', 'button');
  await untilShown(page, 'Version 1 is what visitors see now');
  const pageId = await page.evaluate(() => location.pathname.split('/').at(-1) ?? '');
  await visit(page, `${stack.web}/ask/pages/${pageId}`);
  await untilShown(page, 'Copy link');
  const address = await page.$eval('a[href*="/p/"]', (a) => (a as HTMLAnchorElement).href);
  const visitor = await openPage(browser, { width: 390, height: 844 });
  await visit(visitor.page, address);
  await untilShown(visitor.page, '$500.00');
  await expectAccessible(visitor.page, 'hosted page');
  await visitor.page.click('input[name=amount][value="50"]');
  await follow(visitor.page, 'form.offer button');
  await untilShown(visitor.page, 'Pay $50.00');
  await type(visitor.page, 'Name', 'Perpetua Vane');
  await type(visitor.page, 'E-mail address', 'perpetua@vane.example');
  await fillCard(visitor.page, 'corvid-good');
  await pressUntilShown(visitor.page, 'Pay $50.00', 'has received your gift');
  await visit(visitor.page, address);
  // 50.00 of 500.00.
  await untilShown(visitor.page, '$50.00 / $500.00');
  expect(visitor.errors).toEqual([]);
  visitor.close();
  await until('the visits', async () => ((await offerSheet(house.owner, pageId)).placed.visits ?? 0) > 1);
});

test('the books agree, and no page threw an error', async () => {
  expect(await readBusiness(programContext(house.business.id), (db) => ledgerTroubles(db))).toEqual([]);
  expect(errors).toEqual([]);
});
