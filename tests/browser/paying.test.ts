/** Somebody who pays sees what becomes of it: the bank's approval, other languages, what comes later, a refused beginning, the way back. */
import type { Browser, Frame, Page } from 'puppeteer-core';
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { Offer, Placement } from '@/core/offer/offer';
import { USUAL_WAYS } from '@/core/paper/paper';
import { ledgerTroubles } from '@/db/ledger';
import { readBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { beginOffer, keepOffer, offerSheet, placeOffer } from '@/flows/offer/offers';
import { sendRequest } from '@/flows/offer/requests';
import { keepPlan, sendPlan } from '@/flows/plan/plans';
import { startChromium } from '../support/chromium';
import { asSuperuser } from '../support/database';
import {
  byName,
  cardFields,
  expectAccessible,
  fillCard,
  follow,
  openPage,
  press,
  type,
  untilShown,
  untilTrue,
  visit,
} from '../support/person';
import { planTerms } from '../support/plans';
import { type Stack, startStack } from '../support/stack';
import { foundHouse, type House, plainPaper, sentInvoice } from '../support/workshop';

let stack: Stack;
let house: House;
let browser: Browser;
let closeBrowser: () => Promise<void>;

beforeAll(async () => {
  stack = await startStack();
  house = await foundHouse('Sallow Joinery', 'none', 'owner@sallow.example');
  ({ browser, close: closeBrowser } = await startChromium());
});
afterAll(async () => {
  await closeBrowser?.();
  await stack?.close();
});

async function placed(more: Partial<Offer>, placement: Placement = 'link', sites: string[] = []) {
  const id = await beginOffer(house.owner, placement);
  const { placed: before } = await offerSheet(house.owner, id);
  const offer = { ...before.offer, kind: 'sum' as const, title: 'Sharpening club', ...more };
  await keepOffer(house.owner, id, 1, { name: 'Sharpening club', offer, look: {}, sites });
  await placeOffer(house.owner, id);
  return { id, called: before.publicId };
}

/** The payer's own browser, on a phone. */
const phone = async (path: string) => {
  const payer = await openPage(browser, { width: 390, height: 844 });
  await visit(payer.page, `${stack.web}${path}`);
  return payer;
};

const fillIn = async (page: Page | Frame, email: string, card: string) => {
  await type(page, 'Name', 'Ida Marsh');
  await type(page, 'E-mail address', email);
  await fillCard(page, card);
};

const statesOf = async (email: string) =>
  (
    await asSuperuser<{ state: string }>(
      stack.admin,
      'select payments.state from payments join orders on orders.id = order_id where payer_email = $1 order by payments.started_at',
      [email],
    )
  ).map(({ state }) => state);

/** The checkout over a website's page, as a button's script opens it. */
async function overlay(called: string): Promise<{ shop: Page; frame: Frame }> {
  const shop = (await openPage(browser)).page;
  await visit(shop, `${stack.standIns}/shop`);
  const snippet = `<script src="${stack.web}/checkout.js" data-offer="${called}" data-pass-campaign="spring"></script>`;
  await shop.$eval('textarea', (area, text) => ((area as HTMLTextAreaElement).value = text), snippet);
  await Promise.all([shop.waitForNavigation(), press(shop, 'Put it on the page', 'button')]);
  await shop.waitForSelector('#placed img');
  await shop.evaluate(() => document.addEventListener('dahlia:paid', () => (document.title = 'heard')));
  await shop.click('#placed a');
  return { shop, frame: await frameOf(shop) };
}
const frameOf = async (shop: Page): Promise<Frame> => {
  const frame = await (await shop.waitForSelector('dialog iframe'))?.contentFrame();
  if (!frame) throw new Error('No checkout over the page');
  return frame;
};

/** Presses what leads to the bank, which opens a window of its own. */
async function bankOf(frame: Frame): Promise<Page> {
  const opened = new Promise<Page>((resolve) =>
    browser.once('targetcreated', async (target) => resolve((await target.page()) as Page)),
  );
  await press(frame, 'Continue at your bank', 'link');
  const bank = await opened;
  bank.setDefaultTimeout(30_000);
  await untilShown(bank, 'Stand-in bank');
  return bank;
}

/** Answers at the bank; what comes then says that the window can be closed, and it is. */
async function answer(bank: Page, said: 'approve' | 'decline'): Promise<void> {
  await bank.click(`button[value=${said}]`);
  await untilShown(bank, 'You can close this window');
  expect(new URL(bank.url()).pathname).toMatch(/^\/o\//);
  await bank.close();
}

test('over another website the bank is asked in a window of its own; the frame stays, and the website hears of it', async () => {
  const { called } = await placed({ prices: { USD: '40' } }, 'button', [stack.standIns]);
  const { shop, frame } = await overlay(called);
  await untilShown(frame, 'Pay $44.00');
  await fillIn(frame, 'framed@marsh.example', 'lumen-approval');
  await press(frame, 'Pay $44.00', 'button');
  await untilShown(frame, 'Your bank asks for your approval');
  const refusing = await bankOf(frame);
  await answer(refusing, 'decline');
  await shop.bringToFront();
  // The frame has heard it and takes another press.
  await untilShown(frame, 'You did not approve the payment');
  await fillCard(frame, 'lumen-approval');
  await press(frame, 'Pay $44.00', 'button');
  await untilShown(frame, 'Your bank asks for your approval');
  const bank = await bankOf(frame);
  await answer(bank, 'approve');
  await shop.bringToFront();
  await untilShown(await frameOf(shop), 'Thank you');
  await press(await frameOf(shop), 'Back to the website', 'button');
  await untilTrue(shop, () => document.title === 'heard' && !document.querySelector('dialog'));
  expect(await statesOf('framed@marsh.example')).toEqual(['refused', 'paid']);
  const [order] = await asSuperuser<{ passed: object }>(
    stack.admin,
    `select printed->'passed' as passed from orders where payer_email = 'framed@marsh.example'`,
  );
  expect(order?.passed).toEqual({ campaign: 'spring' });
  await shop.close();
});

test('a checkout over a website that is closed while the bank is asked still tells the website', async () => {
  const { called } = await placed({ prices: { USD: '40' } }, 'button', [stack.standIns]);
  const { shop, frame } = await overlay(called);
  await fillIn(frame, 'closed@marsh.example', 'lumen-approval');
  await untilShown(frame, 'Pay $44.00');
  await press(frame, 'Pay $44.00', 'button');
  await untilShown(frame, 'Your bank asks for your approval');
  const bank = await bankOf(frame);
  await shop.bringToFront();
  await shop.click('dialog button[aria-label=Close]');
  await untilTrue(shop, () => !document.querySelector('dialog[open]'));
  await bank.bringToFront();
  await answer(bank, 'approve');
  await shop.bringToFront();
  await untilTrue(shop, () => document.title === 'heard' && !document.querySelector('dialog'));
  await shop.close();
});

test('on its own page approval leads on to the business’s website, once', async () => {
  const { called } = await placed({ prices: { USD: '40' }, redirect: 'https://fernhill.example/thanks' });
  const payer = await phone(`/c/${called}?pass_order=A-17`);
  await fillIn(payer.page, 'led@marsh.example', 'lumen-approval');
  await untilShown(payer.page, 'Pay $44.00');
  await press(payer.page, 'Pay $44.00', 'button');
  await untilShown(payer.page, 'Stand-in bank');
  // The website is not there; that the browser goes to it is enough.
  const led = payer.page.waitForRequest((request) => request.url().startsWith('https://fernhill.example/thanks'));
  await payer.page.click('button[value=approve]');
  const { searchParams } = new URL((await led).url());
  expect(searchParams.get('order')).toBe('A-17');
  expect(searchParams.get('amount')).toBe('4400');
  payer.close();
});

test('a language changes words only: sum, name, lock, currency and what is passed through stay', async () => {
  const { id, called } = await placed({ kind: 'open', currency: 'EUR', ownAmount: true });
  const { sign } = await sendRequest(house.owner, id, {
    toName: 'Perpetua Vane',
    toAddress: '',
    filled: { amount: '64.80', name: 'Perpetua Vane', currency: 'EUR' },
    locked: true,
    way: 'link',
    words: '',
  });
  const payer = await phone(`/c/${called}?for=${encodeURIComponent(sign)}&currency=EUR&pass_order=B-2`);
  await untilShown(payer.page, '€64.80');
  await press(payer.page, 'Deutsch', 'link');
  await untilShown(payer.page, 'Vorbereitet für Perpetua Vane');
  await untilTrue(payer.page, () => /64,80\s€/.test(document.body.innerText));
  // The processor's own fields too, and what it says of them.
  const fields = await cardFields(payer.page);
  await untilTrue(fields, () => document.body.innerText.includes('Gültig bis'));
  expect(
    await payer.page.$eval('input[autocomplete=name]', (field) => ({
      disabled: (field as HTMLInputElement).disabled,
      value: (field as HTMLInputElement).value,
    })),
  ).toEqual({ disabled: true, value: 'Perpetua Vane' });
  const { searchParams } = new URL(payer.page.url());
  expect(Object.fromEntries(searchParams)).toEqual({ for: sign, currency: 'EUR', pass_order: 'B-2', lang: 'de' });
  payer.close();
});

test('what is charged later is said on the box that is ticked and on the thanks; back after paying says so', async () => {
  const { called } = await placed({
    prices: { USD: '40' },
    tip: ['10'],
    repeat: { rhythms: [{ unit: 'month', every: 1 }], once: true, count: 3 },
  });
  const payer = await phone(`/c/${called}`);
  await press(payer.page, 'every month', 'radio');
  await press(payer.page, '10 %', 'button');
  await untilShown(payer.page, 'Then $44.00 every month. The next ones on');
  await untilShown(payer.page, '2 payments, the last on');
  await untilShown(payer.page, 'counts for today’s payment only');
  await expectAccessible(payer.page, 'a repeated payment');
  await press(payer.page, 'I agree to this', 'checkbox');
  // Pressed too early: the words go when the field is filled.
  await press(payer.page, 'Pay $48.40', 'button');
  await untilShown(payer.page, 'Write your name.');
  await type(payer.page, 'Name', 'Ida Marsh');
  await untilTrue(payer.page, () => !document.body.innerText.includes('Write your name.'));
  await type(payer.page, 'E-mail address', 'later@marsh.example');
  await fillCard(payer.page, 'corvid-good');
  await press(payer.page, 'Pay $48.40', 'button');
  await untilShown(payer.page, 'Thank you');
  await untilShown(payer.page, 'Then $44.00 every month');
  await visit(payer.page, `${stack.web}/c/${called}`);
  await untilShown(payer.page, 'You have paid this already.');
  await press(payer.page, 'See your order', 'link');
  await untilShown(payer.page, 'Thank you');
  expect(await statesOf('later@marsh.example')).toEqual(['paid']);
  payer.close();
});

test('a plan whose first payment is refused says so, and another card begins it', async () => {
  const today = new Date().toISOString().slice(0, 10);
  const terms = planTerms(house, today, { firstNow: true });
  const { id } = await keepPlan(house.owner, null, { terms, memo: '', reference: '' });
  await sendPlan(house.owner, id, 'link');
  const [row] = await asSuperuser<{ link_token: string }>(stack.admin, 'select link_token from plans where id = $1', [
    id,
  ]);
  const customer = await phone(`/a/${row?.link_token}`);
  await untilShown(customer.page, 'The first, $22.00, is charged at once.');
  await press(customer.page, 'Agree, and begin', 'button');
  await untilShown(customer.page, 'Write your name');
  await type(customer.page, 'Your name', 'Otto Reed');
  await untilTrue(customer.page, () => !document.body.innerText.includes('Write your name'));
  await press(customer.page, 'I agree to this', 'checkbox');
  await fillCard(customer.page, 'corvid-blocked');
  await press(customer.page, 'Agree, and begin', 'button');
  await untilShown(customer.page, 'Your bank refused the first payment of $22.00');
  await untilShown(customer.page, '$22.00 that was refused is charged to it at once.');
  await expectAccessible(customer.page, 'a plan whose first payment was refused');
  expect(await customer.page.evaluate(() => document.body.innerText)).not.toContain('everything is set up');
  await press(customer.page, 'I agree to this', 'checkbox');
  await type(customer.page, 'Your name', 'Otto Reed');
  await fillCard(customer.page, 'lumen-good');
  await press(customer.page, 'Agree, and begin', 'button');
  await untilShown(customer.page, '$22.00 is paid.');
  expect(customer.errors).toEqual([]);
  customer.close();
});

test('a part that waits for the bank is under way, and once approved it is thanked for and the rest can be paid', async () => {
  const { link } = await sentInvoice(house, plainPaper(house, { ways: { ...USUAL_WAYS, parts: true } }));
  const payer = await phone(`/i/${link}`);
  await press(payer.page, 'A part', 'button');
  await type(payer.page, 'How much now', '50');
  await fillCard(payer.page, 'lumen-approval');
  await press(payer.page, 'Pay $50.00', 'button');
  await untilShown(payer.page, 'Stand-in bank');
  // Left and come back to without an answer.
  await visit(payer.page, `${stack.web}/i/${link}`);
  await untilShown(payer.page, 'Waits for the bank’s approval');
  await untilShown(payer.page, 'Your bank asks for your approval');
  expect(await payer.page.evaluate(() => document.body.innerText)).toContain('110.00');
  await expectAccessible(payer.page, 'a part under way');
  await press(payer.page, 'Continue at your bank', 'link');
  await untilShown(payer.page, 'Stand-in bank');
  await follow(payer.page, 'button[value=approve]');
  await untilTrue(payer.page, () => /Receipt \d+ is below\./.test(document.body.innerText));
  await byName(payer.page, 'Pay $60.00', 'button');
  await fillCard(payer.page, 'corvid-good');
  await press(payer.page, 'Pay $60.00', 'button');
  await untilShown(payer.page, 'Paid');
  await untilTrue(payer.page, () => !document.querySelector('iframe.card-fields'));
  expect(payer.errors).toEqual([]);
  payer.close();
});

test('a link that opens nothing leads to the business, in the reader’s language, and never to the desk', async () => {
  const { called } = await placed({ prices: { USD: '40' } });
  const [{ token } = { token: '' }] = await asSuperuser<{ token: string }>(
    stack.admin,
    'select token from orders limit 1',
  );
  const payer = await phone(`/o/${token.slice(0, 12)}${'x'.repeat(20)}`);
  await untilShown(payer.page, 'This link opens nothing');
  await untilShown(payer.page, 'bench@sallow.example');
  expect(await payer.page.evaluate(() => document.documentElement.scrollWidth - innerWidth)).toBeLessThanOrEqual(0);
  for (const path of [`/c/${called}x`, '/a/nonsense-nonsense', '/m/nonsense', '/i/nonsense']) {
    await visit(payer.page, `${stack.web}${path}`);
    await untilShown(payer.page, 'This link opens nothing');
    expect(await payer.page.evaluate(() => document.body.innerText)).not.toContain('Today');
  }
  payer.close();
});

test('without a script a checkout says truly that nothing can be chosen or paid', async () => {
  const { called } = await placed({ prices: { USD: '40' } });
  expect(await (await fetch(`${stack.web}/c/${called}`)).text()).toContain('Choosing and paying here need JavaScript');
});

test('the books agree', async () => {
  expect(await readBusiness(programContext(house.business.id), ledgerTroubles)).toEqual([]);
});
