/** Offers as people meet them: a link made in a minute, paid on a phone, followed, given back; a request; a rehearsal without a trace. */
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Browser, ElementHandle, Page } from 'puppeteer-core';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { ledgerTroubles } from '@/db/ledger';
import { readBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { passwordHash } from '@/flows/house/password';
import { startChromium } from '../support/chromium';
import { asSuperuser } from '../support/database';
import {
  byName,
  choose,
  comeIn,
  expectAccessible,
  fillCard,
  follow,
  openPage,
  pick,
  press,
  pressOn,
  shown,
  type,
  untilShown,
  untilTrue,
  visit,
  visitAgain,
} from '../support/person';
import { signIn } from '../support/signed-in';
import { type Stack, startStack } from '../support/stack';
import { until } from '../support/until';
import { foundHouse, type House, mailOf } from '../support/workshop';

const PASSWORD = 'a plane and a saw';
let stack: Stack;
let house: House;
let browser: Browser;
let closeBrowser: () => Promise<void>;
let page: Page;
let errors: string[];
let called = '';

beforeAll(async () => {
  stack = await startStack();
  house = await foundHouse('Sallow Joinery', await passwordHash(PASSWORD), 'owner@sallow.example');
  ({ browser, close: closeBrowser } = await startChromium());
  ({ page, errors } = await openPage(browser));
  await comeIn(page, stack.web, (await signIn('owner@sallow.example', PASSWORD, 'test')).token);
});
afterAll(async () => {
  await closeBrowser?.();
  await stack?.close();
});

const count = async (text: string, values: unknown[] = []): Promise<number> =>
  Number((await asSuperuser<{ count: string }>(stack.admin, text, values))[0]?.count);

/** The payer's own browser, on a phone. */
const phone = async (path: string) => {
  const payer = await openPage(browser, { width: 390, height: 844 });
  await visit(payer.page, `${stack.web}${path}`);
  return payer;
};

test('a payment link is made: name, price, done', async () => {
  await visit(page, `${stack.web}/ask/links`);
  await expectAccessible(page, 'payment links');
  await pressOn(page, 'New payment link', '/ask/offer/');
  await type(page, 'What is it for? The payer reads this', 'Sharpening day');
  await press(page, 'Make the link', 'button');
  await untilShown(page, 'Write the price as a number');
  await type(page, 'Price, USD', '40');
  await untilShown(page, 'Draft, saved');
  await expectAccessible(page, 'offer composer');
  await press(page, 'Make the link', 'button');
  await untilTrue(page, () => location.pathname.startsWith('/ask/links/'));
  await untilShown(page, 'Copy link');
  await expectAccessible(page, 'link sheet');
  called = await page.$eval('a[href*="/c/"]', (a) => (a as HTMLAnchorElement).href.split('/c/')[1] ?? '');
  await press(page, 'Give it a short address', 'button');
  await type(page, 'Address', 'sharpening day');
  await untilShown(page, 'It is free');
  await press(page, 'Save address', 'button');
  await untilShown(page, '/c/sharpening-day');
});

test('it is paid on a phone: what is missing is said, a refused card is tried again, a reload loses nothing', async () => {
  const payer = await phone('/c/sharpening-day');
  await untilShown(payer.page, 'Sharpening day');
  await expectAccessible(payer.page, 'checkout');
  await press(payer.page, 'Pay $44.00', 'button');
  await untilShown(payer.page, 'Write your name');
  await type(payer.page, 'Name', 'Ida Marsh');
  await type(payer.page, 'E-mail address', 'ida@marsh.example');
  await visitAgain(payer.page);
  await untilTrue(
    payer.page,
    () => (document.querySelector('input[autocomplete=name]') as HTMLInputElement)?.value === 'Ida Marsh',
  );
  await fillCard(payer.page, 'corvid-poor');
  await press(payer.page, 'Pay $44.00', 'button');
  await untilShown(payer.page, 'not enough money on this card');
  await visitAgain(payer.page);
  await untilShown(payer.page, 'not enough money on this card');
  await fillCard(payer.page, 'corvid-good');
  await press(payer.page, 'Pay $44.00', 'button');
  await untilTrue(payer.page, () => location.pathname.startsWith('/o/'));
  await untilShown(payer.page, 'Thank you');
  await untilShown(payer.page, 'The receipt goes to ida@marsh.example');
  await expectAccessible(payer.page, 'order');
  expect(payer.errors).toEqual([]);
  payer.close();
  // The sheet follows without a reload; the mails came.
  await untilShown(page, 'from 1 payment');
  await untilShown(page, 'Ida Marsh');
  await until('the receipt', async () => (await mailOf(stack.standIns, 'ida@marsh.example')).length === 1);
  const [receipt] = await mailOf(stack.standIns, 'ida@marsh.example');
  expect(receipt?.attachments).toMatchObject([{ contentType: 'application/pdf' }]);
  expect(receipt?.text).toContain('Sharpening day');
  await until('the notice', async () =>
    (await mailOf(stack.standIns, 'bench@sallow.example')).some(({ subject }) => subject.includes('Sharpening day')),
  );
});

test('two presses and two tabs are one payment; the holder’s bank leads there and back', async () => {
  const payer = await phone('/c/sharpening-day');
  await type(payer.page, 'Name', 'Otto Reed');
  await type(payer.page, 'E-mail address', 'otto@reed.example');
  await fillCard(payer.page, 'lumen-approval');
  await untilShown(payer.page, 'Pay $44.00');
  await payer.page.evaluate(() => {
    const button = [...document.querySelectorAll('button')].find((one) => one.textContent?.startsWith('Pay'));
    button?.click();
    button?.click();
  });
  await untilShown(payer.page, 'Stand-in bank');
  await follow(payer.page, 'button[value=approve]');
  await untilShown(payer.page, 'Thank you');
  expect(
    await count(
      `select count(*) from payments join orders on orders.id = order_id where payer_email = 'otto@reed.example'`,
    ),
  ).toBe(1);
  await payer.page.goBack();
  payer.close();
});

test('no answer in time is checked, wherever the payer looks, and charged once', async () => {
  const payer = await phone('/c/sharpening-day');
  await type(payer.page, 'Name', 'Ursula Flint');
  await type(payer.page, 'E-mail address', 'ursula@flint.example');
  await fillCard(payer.page, 'corvid-late');
  await press(payer.page, 'Pay $44.00', 'button');
  await untilShown(payer.page, 'We are checking');
  // On another device there is only the order's own page.
  const [{ token } = { token: '' }] = await asSuperuser<{ token: string }>(
    stack.admin,
    `select token from orders where payer_email = 'ursula@flint.example'`,
  );
  const other = await phone(`/o/${token}`);
  await untilShown(other.page, 'Thank you');
  await untilShown(payer.page, 'Thank you');
  expect(
    await count(
      `select count(*) from payments join orders on orders.id = order_id where payer_email = 'ursula@flint.example'`,
    ),
  ).toBe(1);
  other.close();
  payer.close();
});

test('a request for one person is filled in and fixed, seen, and withdrawn', async () => {
  await visit(page, `${stack.web}/ask/links`);
  await pressOn(page, 'New payment link', '/ask/offer/');
  await type(page, 'What is it for? The payer reads this', 'Work by agreement');
  await press(page, 'The payer decides', 'button');
  await press(page, 'Make the link', 'button');
  await untilShown(page, 'Ask one person');
  await press(page, 'Ask one person', 'button');
  await type(page, 'Name', 'Perpetua Vane');
  await type(page, 'E-mail address', 'perpetua@vane.example');
  await type(page, 'Amount, USD', '64.80');
  await expectAccessible(page, 'request');
  await press(page, 'Send the request', 'button');
  await untilShown(page, 'Sent');
  await until('the request', async () => (await mailOf(stack.standIns, 'perpetua@vane.example')).length === 1);
  const [letter] = await mailOf(stack.standIns, 'perpetua@vane.example');
  const link = /http:\/\/localhost:\d+(\/c\/\S+)/.exec(letter?.text ?? '')?.[1] ?? '';
  const payer = await phone(link);
  await untilShown(payer.page, 'Prepared for Perpetua Vane');
  await untilShown(payer.page, '$64.80');
  expect(await payer.page.$eval('input[autocomplete=name]', (field) => (field as HTMLInputElement).disabled)).toBe(
    true,
  );
  await untilShown(page, 'Seen');
  await press(page, 'Withdraw', 'button');
  await untilShown(page, 'Withdrawn');
  await visitAgain(payer.page);
  await untilShown(payer.page, 'This request was withdrawn');
  payer.close();
});

test('a sum that is none is said before a request goes out; what is edited of a placed link is kept beside it', async () => {
  await visit(page, `${stack.web}/ask/links`);
  await pressOn(page, 'New payment link', '/ask/offer/');
  await type(page, 'What is it for? The payer reads this', 'Repairs by agreement');
  await press(page, 'The payer decides', 'button');
  await press(page, 'Make the link', 'button');
  await press(page, 'Ask one person', 'button');
  await type(page, 'Name', 'Casimir Holt');
  await type(page, 'E-mail address', 'casimir@holt.example');
  await type(page, 'Amount, USD', 'abc');
  await press(page, 'Send the request', 'button');
  await untilShown(page, 'Write an amount.');
  expect(await mailOf(stack.standIns, 'casimir@holt.example')).toEqual([]);
  await type(page, 'Amount, USD', '64.80');
  await press(page, 'Send the request', 'button');
  await untilShown(page, 'Sent');
  // Edited and left in the middle.
  const id = await page.evaluate(() => location.pathname.split('/').at(-1) ?? '');
  await visit(page, `${stack.web}/ask/offer/${id}`);
  await type(page, 'What is it for? The payer reads this', 'Repairs and more');
  await untilShown(page, 'Saved as a draft; payers read what is placed');
  await visit(page, `${stack.web}/today`);
  await visit(page, `${stack.web}/ask/offer/${id}`);
  await untilTrue(page, () =>
    [...document.querySelectorAll('input')].some(({ value }) => value === 'Repairs and more'),
  );
  await expectAccessible(page, 'an offer with a draft beside it');
  await press(page, 'Discard the draft', 'button');
  await untilTrue(page, () =>
    [...document.querySelectorAll('input')].some(({ value }) => value === 'Repairs by agreement'),
  );
  await type(page, 'What is it for? The payer reads this', 'Repairs at last');
  await press(page, 'Place the changes', 'button');
  await untilShown(page, 'Repairs at last');
});

test('a rehearsal goes all the way and leaves no trace', async () => {
  const before = await count(
    'select (select count(*) from orders) + (select count(*) from payments) + (select count(*) from messages) as count',
  );
  const [{ id } = { id: '' }] = await asSuperuser<{ id: string }>(
    stack.admin,
    `select id from offers where address = 'sharpening-day'`,
  );
  await visit(page, `${stack.web}/proof/offer/${id}/page`);
  await untilShown(page, 'Rehearsal: nothing is booked');
  await type(page, 'Name', 'Nobody');
  await type(page, 'E-mail address', 'nobody@sallow.example');
  await fillCard(page, 'corvid-poor');
  await press(page, 'Pay $44.00', 'button');
  await untilShown(page, 'not enough money on this card');
  await fillCard(page, 'corvid-good');
  await press(page, 'Pay $44.00', 'button');
  await untilShown(page, 'That was the rehearsal');
  await untilShown(page, 'Thank you');
  expect(
    await count(
      'select (select count(*) from orders) + (select count(*) from payments) + (select count(*) from messages) as count',
    ),
  ).toBe(before);
});

test('a payment is given back in part from its sheet, and the payer is told', async () => {
  await visit(page, `${stack.web}/money/payments`);
  await untilShown(page, 'Ida Marsh');
  await page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>('a[data-row]')]
      .find((row) => row.innerText.includes('Ida Marsh'))
      ?.click(),
  );
  await untilShown(page, 'Refund');
  await press(page, 'Refund', 'button');
  await press(page, 'A sum', 'button');
  await type(page, 'How much, USD', '10');
  await type(page, 'Why, as the payer reads it', 'One plane was left out');
  await press(page, 'Refund $10.00', 'button');
  await untilShown(page, 'Part-refunded');
  await expectAccessible(page, 'payment of an order');
  await until('the refund’s mail', async () =>
    (await mailOf(stack.standIns, 'ida@marsh.example')).some(({ subject }) => subject.includes('$10.00')),
  );
  const answer = await fetch(`${stack.standIns}/cards/api/book`, { headers: { authorization: 'Bearer stand-in-key' } });
  const { sales } = (await answer.json()) as { sales: { amount: number; refunds: { amount: number }[] }[] };
  expect(sales.flatMap(({ refunds }) => refunds.map(({ amount }) => amount))).toEqual([1000]);
});

test('a code, a partner and rates are kept under Records and in the profile, and count at the checkout', async () => {
  await visit(page, `${stack.web}/records/codes`);
  await press(page, 'New code', 'button');
  await type(page, 'Code', 'spring');
  await type(page, 'Takes off, as 10% or in USD', 'lots');
  await press(page, 'Save code', 'button');
  await untilShown(page, 'Write it as 10% or as an amount');
  await type(page, 'Takes off, as 10% or in USD', '25%');
  await press(page, 'Save code', 'button');
  await untilShown(page, 'SPRING');
  await expectAccessible(page, 'discount codes');
  await visit(page, `${stack.web}/records/partners`);
  await press(page, 'New partner', 'button');
  await type(page, 'Name', 'Ada Teacher');
  await press(page, 'Save partner', 'button');
  await untilShown(page, 'nothing earned yet');
  await expectAccessible(page, 'partners');
  await visit(page, `${stack.web}/settings/profile`);
  const csv = 'Date,USD,JPY\n2026-01-02,1.25,200\n';
  const [rates] = await page.$$('section[aria-label="Euro reference rates, XML or CSV"] input[type=file]');
  const path = join(stack.folder, 'rates.csv');
  writeFileSync(path, csv);
  await (rates as ElementHandle<HTMLInputElement>).uploadFile(path);
  await untilShown(page, '1.25 USD');
  await expectAccessible(page, 'profile');
  // An offer with codes, a share and a second currency.
  await visit(page, `${stack.web}/ask/links`);
  await pressOn(page, 'New payment link', '/ask/offer/');
  await type(page, 'What is it for? The payer reads this', 'Plane course');
  await type(page, 'Price, USD', '40');
  await page.click('::-p-xpath(//summary[contains(., "Currencies, codes, tip")])');
  await type(page, 'Another currency', 'JPY');
  await press(page, 'Add currency', 'button');
  await page.click('::-p-xpath(//label[contains(., "Discount codes can be used")])');
  await page.click('::-p-xpath(//summary[contains(., "Sharing")])');
  await pick(page, 'Share with', 'Ada');
  await untilShown(page, 'Of $100.00 without tax and delivery');
  await press(page, 'Make the link', 'button');
  await untilShown(page, 'Copy link');
  const address = await page.$eval('a[href*="/c/"]', (a) => (a as HTMLAnchorElement).href);
  const payer = await openPage(browser);
  await visit(payer.page, `${address}?currency=JPY`);
  // 40.00 × 160 = 6400 yen and 640 tax.
  await untilShown(payer.page, '¥7,040');
  await payer.page.click('details summary');
  await type(payer.page, 'Discount code', 'Spring');
  await press(payer.page, 'Use the code', 'button');
  // 6400 less 1600; 480 tax.
  await untilShown(payer.page, '¥5,280');
  await untilShown(payer.page, 'The code counts');
  payer.close();
});

test('what is closed says so, and what was used cannot be deleted', async () => {
  await visit(page, `${stack.web}/ask/links`);
  await page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>('a[data-row]')]
      .find((row) => row.innerText.includes('Sharpening day'))
      ?.click(),
  );
  await untilShown(page, 'Copy link');
  await choose(page, 'More', 'Close it');
  await byName(page, 'Close it', 'button');
  await press(page, 'Close it', 'button');
  await untilShown(page, 'Open again');
  const payer = await phone('/c/sharpening-day');
  await untilShown(payer.page, 'This is closed');
  payer.close();
  // By its long name it is the same.
  const other = await phone(`/c/${called}`);
  await untilShown(other.page, 'This is closed');
  other.close();
  expect(await shown(page)).not.toContain('Delete this');
});

test('the books agree, and no page threw an error', async () => {
  expect(await readBusiness(programContext(house.business.id), (db) => ledgerTroubles(db))).toEqual([]);
  expect(errors).toEqual([]);
});
