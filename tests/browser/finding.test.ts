/** What needs a hand, and what is looked for: Today's list with its actions, and "Find or do" over everything. */
import type { Browser, Page } from 'puppeteer-core';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { newCustomer } from '@/core/customer/customer';
import { passwordHash } from '@/flows/house/password';
import { askQuestion } from '@/flows/invoice/consent';
import { addCustomer } from '@/flows/records/customers';
import { startChromium } from '../support/chromium';
import { asSuperuser } from '../support/database';
import {
  byName,
  comeIn,
  expectAccessible,
  openFinder,
  openPage,
  press,
  type,
  untilShown,
  untilTrue,
  visit,
} from '../support/person';
import { signIn } from '../support/signed-in';
import { type Stack, startStack } from '../support/stack';
import { until } from '../support/until';
import { foundHouse, type House, keptDraft, mailOf, plainPaper, sentInvoice } from '../support/workshop';

const PASSWORD = 'a plane and a saw';
let stack: Stack;
let house: House;
let browser: Browser;
let closeBrowser: () => Promise<void>;

beforeAll(async () => {
  stack = await startStack();
  house = await foundHouse('Sallow Joinery', await passwordHash(PASSWORD));
  ({ browser, close: closeBrowser } = await startChromium());
});
afterAll(async () => {
  await closeBrowser?.();
  await stack?.close();
});

async function deskOf(role: string, size?: { width: number; height: number }) {
  const desk = await openPage(browser, size);
  const email = `${role}-${house.business.id.slice(0, 8)}@sallow.example`;
  await comeIn(desk.page, stack.web, (await signIn(email, PASSWORD, 'test')).token);
  return desk;
}
const rowsOf = (page: Page) =>
  page.$$eval('section[aria-label="Remind"] [data-work]', (rows) => rows.map((row) => row.textContent ?? ''));

test('Today: nobody twice, several reminded at once, a question answered from its row; a reader only looks', async () => {
  for (let at = 0; at < 9; at++) {
    const customer = await addCustomer(
      house.owner,
      newCustomer(`Late Lena ${at}`, { email: `lena${at}@post.example` }),
    );
    for (let count = 0; count < (at === 0 ? 2 : 1); count++)
      await sentInvoice(house, plainPaper(house, { customerId: customer.id }));
  }
  await asSuperuser(stack.admin, `update invoices set due_on = due_on - 40`);
  await keptDraft(house);
  const asked = await sentInvoice(house);
  await askQuestion(asked.link, { text: 'Could I fetch it on Saturday?', byName: 'Perpetua' }, '192.0.2.7');

  const reader = await deskOf('reader');
  await visit(reader.page, `${stack.web}/today`);
  await untilShown(reader.page, 'Show all 9');
  const buttons = await reader.page.$$eval('[data-work] button, [data-work] input', (all) => all.length);
  expect(buttons).toBe(0);
  await reader.close();

  const { page, errors, close } = await deskOf('clerk');
  await visit(page, `${stack.web}/today`);
  await untilShown(page, '10 things need a hand');
  await expectAccessible(page, 'Today with work');
  expect(await rowsOf(page)).toHaveLength(5);
  await press(page, 'Show all 9', 'button');
  await untilTrue(page, () => document.querySelectorAll('section[aria-label="Remind"] [data-work]').length === 9);
  const lena = (await rowsOf(page)).filter((row) => row.includes('Late Lena 0'));
  expect(lena).toHaveLength(1);
  expect(lena[0]).toContain('220.00');
  await press(page, 'All: Remind', 'checkbox');
  await press(page, 'Late Lena 4', 'checkbox');
  await press(page, 'Remind of 9', 'button');
  await untilShown(page, '9 reminders are on the way');
  await untilTrue(page, () => document.querySelectorAll('section[aria-label="Remind"] [data-work]').length === 1);
  await untilShown(page, 'Under way by itself');
  // Both of her invoices in one mail.
  const reminders = async () =>
    (await mailOf(stack.standIns, 'lena0@post.example')).filter(({ text }) => text.includes('220.00')).length;
  await until('one reminder of two invoices', async () => (await reminders()) === 1);

  await press(page, 'Answer', 'button');
  await type(page, 'Your answer', 'Saturday at ten.');
  await press(page, 'Send answer', 'button');
  await untilShown(page, 'The answer is on its way');
  await untilTrue(page, () => !document.querySelector('section[aria-label="Answer"]'));
  expect(errors).toEqual([]);
  await close();
});

test('“Find or do” finds by number and does what is typed; keys begin every new thing, and ? shows them', async () => {
  const customer = await addCustomer(house.owner, newCustomer('Örjan Tveit', { email: 'orjan@tveit.example' }));
  const { number } = await sentInvoice(house, plainPaper(house, { customerId: customer.id }));
  const { page, errors, close } = await deskOf('owner');
  await visit(page, `${stack.web}/ask/links`);
  await openFinder(page);
  await expectAccessible(page, 'Find or do, empty');
  await page.keyboard.type(`remind ${number}`);
  await untilShown(page, `Remind of invoice ${number}`);
  await expectAccessible(page, 'Find or do, with a deed');
  await page.keyboard.press('Enter');
  await untilShown(page, 'A reminder is on its way to Örjan Tveit');
  await openFinder(page);
  await page.keyboard.type(`record ${number}`);
  await untilShown(page, `Record a payment of invoice ${number}`);
  await page.keyboard.press('Enter');
  await byName(page, 'How much');
  await page.keyboard.press('Escape');
  // Enter pressed before the answer has come means what would stand first.
  await openFinder(page);
  await page.keyboard.type('tveit');
  await page.keyboard.press('Enter');
  await untilTrue(page, () => location.pathname.startsWith('/records/customers/'));
  await openFinder(page);
  await page.keyboard.type('new disc');
  await untilShown(page, 'New discount code');
  await page.keyboard.press('Enter');
  await untilTrue(page, () => location.pathname === '/records/codes');
  await byName(page, 'Code', 'textbox');
  await page.keyboard.press('Escape');
  await page.keyboard.press('?');
  await untilShown(page, 'They act from anywhere');
  await expectAccessible(page, 'the keys');
  await page.keyboard.press('Escape');
  await untilTrue(page, () => !document.querySelector('[role="dialog"]'));
  await page.keyboard.press('a');
  await page.keyboard.press('c');
  await untilTrue(page, () => location.pathname === '/records/customers/new');
  expect(errors).toEqual([]);
  await close();

  const reader = await deskOf('reader');
  await visit(reader.page, `${stack.web}/today`);
  await openFinder(reader.page);
  await reader.page.keyboard.type(`remind ${number}`);
  await untilShown(reader.page, 'Nothing by that name');
  await reader.close();
});
