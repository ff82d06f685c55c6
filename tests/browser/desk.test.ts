/** The desk as its people use it: two windows, a reader, a phone, a slow line, long names, second thoughts. */

import type { Browser, Page } from 'puppeteer-core';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { newCustomer } from '@/core/customer/customer';
import { NO_ADDRESS } from '@/core/place/address';
import { passwordHash } from '@/flows/house/password';
import { addCustomer } from '@/flows/records/customers';
import { SHORTENED } from '@/ui/places';
import { startChromium } from '../support/chromium';
import { asSuperuser } from '../support/database';
import {
  byName,
  comeIn,
  expectAccessible,
  goBack,
  openFinder,
  openPage,
  press,
  shown,
  signInAs,
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
const LONG = 'The Worshipful Guild of Instrument Makers, Menders and Tuners of Upper and Lower Wending-on-the-Water';
let stack: Stack;
let house: House;
let browser: Browser;
let closeBrowser: () => Promise<void>;
let sent: { id: string; link: string };

beforeAll(async () => {
  stack = await startStack();
  house = await foundHouse('Sallow Joinery', await passwordHash(PASSWORD));
  for (let at = 0; at < 40; at++) {
    const [name, email] = [`${at % 4 === 0 ? LONG : 'Calloway'} ${at}`, `customer${at}@post.example`];
    const customer = await addCustomer(
      house.owner,
      newCustomer(name, { email, billing: { ...NO_ADDRESS, lines: ['1 Weir Street'] } }),
    );
    const last = await sentInvoice(house, plainPaper(house, { customerId: customer.id }));
    if (at === 0) sent = last;
  }
  ({ browser, close: closeBrowser } = await startChromium());
});
afterAll(async () => {
  await closeBrowser?.();
  await stack?.close();
});

const emailOf = (role: string) => `${role}-${house.business.id.slice(0, 8)}@sallow.example`;
async function deskOf(
  role: string,
  size?: { width: number; height: number },
): Promise<Awaited<ReturnType<typeof openPage>>> {
  const desk = await openPage(browser, size);
  await comeIn(desk.page, stack.web, (await signIn(emailOf(role), PASSWORD, 'test')).token);
  return desk;
}
const compose = async (page: Page, id: string) => {
  await visit(page, `${stack.web}/ask/compose/${id}`);
  await byName(page, 'Line 1: what for');
};
const heldBy = (page: Page, name: string) =>
  byName(page, name).then((field) => field?.evaluate((input) => (input as HTMLInputElement).value));

test('an address that was cut down to its place opens what the place opens with', async () => {
  const opened = await Promise.all(
    SHORTENED.map(async ({ short }) => {
      const answer = await fetch(`${stack.web}${short}`, { redirect: 'manual' });
      return { short, opens: new URL(answer.headers.get('location') ?? '', stack.web).pathname };
    }),
  );
  expect(opened).toEqual(SHORTENED);
  expect(opened.length).toBeGreaterThan(3);
});

test('two windows on one draft: what one keeps the other shows, and neither overwrites the other unseen', async () => {
  const id = await keptDraft(house);
  const [one, two] = [await deskOf('owner'), await deskOf('clerk')];
  await compose(one.page, id);
  await compose(two.page, id);
  await type(one.page, 'Words to the customer', 'From the first window');
  await untilTrue(
    two.page,
    () => (document.querySelector('#note') as HTMLTextAreaElement | null)?.value === 'From the first window',
  );
  await type(two.page, 'Their reference', 'from the second');
  await untilTrue(
    one.page,
    () => (document.querySelector('#reference') as HTMLInputElement | null)?.value === 'from the second',
  );
  one.close();
  two.close();
});

test('a line removed can be taken back, as it was and where it was', async () => {
  const { page, close } = await deskOf('owner');
  const [line] = plainPaper(house).lines;
  const lines = ['First', 'Second', 'Third'].map((what) => ({
    ...(line as NonNullable<typeof line>),
    id: crypto.randomUUID(),
    what,
  }));
  await compose(page, await keptDraft(house, plainPaper(house, { lines })));
  await untilShown(page, '330.00');
  await (await byName(page, 'Line 2: price of one'))?.focus();
  await press(page, 'Remove line 2', 'button');
  await untilShown(page, '220.00');
  expect(await heldBy(page, 'Line 2: what for')).toBe('Third');
  await press(page, 'Undo', 'button');
  await untilShown(page, '330.00');
  expect(await heldBy(page, 'Line 2: what for')).toBe('Second');
  await close();
});

test('pressing send twice on a slow line sends once, and the back button does not send again', async () => {
  const { page, close } = await deskOf('owner');
  const id = await keptDraft(house);
  await compose(page, id);
  const client = await page.createCDPSession();
  await client.send('Network.emulateNetworkConditions', {
    offline: false,
    latency: 600,
    downloadThroughput: 50_000,
    uploadThroughput: 50_000,
  });
  await press(page, 'Send invoice', 'button');
  await untilShown(page, 'The number is given now');
  const send = await page.waitForSelector('[role=dialog] .btn-go');
  await send?.click({ clickCount: 2 });
  await untilTrue(page, () => location.pathname.startsWith('/ask/invoices/'));
  await client.send('Network.emulateNetworkConditions', {
    offline: false,
    latency: 0,
    downloadThroughput: -1,
    uploadThroughput: -1,
  });
  await untilShown(page, 'still due');
  const number = async () =>
    (await asSuperuser<{ number: string }>(stack.admin, 'select number from invoices where id = $1', [id]))[0]?.number;
  const given = await number();
  await goBack(page);
  expect(await number()).toBe(given);
  const events = await asSuperuser(stack.admin, `select 1 from timeline where invoice_id = $1 and kind = 'sent'`, [id]);
  expect(events.length).toBe(1);
  await visit(page, `${stack.web}/ask/compose/${id}`);
  expect(new URL(page.url()).pathname).toBe(`/ask/invoices/${id}`);
  await close();
});

test('sent again from the sheet: a second mail, and a line on the timeline', async () => {
  const { page, close } = await deskOf('owner');
  await visit(page, `${stack.web}/ask/invoices/${sent.id}`);
  await press(page, 'Send it again', 'button');
  await untilShown(page, 'Sent again');
  await until('both mails', async () => (await mailOf(stack.standIns, 'customer0@post.example')).length > 1);
  expect((await mailOf(stack.standIns, 'customer0@post.example')).length).toBe(2);
  await close();
});

test('a reader sees everything and is offered nothing to change', async () => {
  const { page, close } = await deskOf('reader');
  await visit(page, `${stack.web}/ask/invoices/${sent.id}`);
  await untilShown(page, 'still due');
  expect(await shown(page)).not.toContain('Send it again');
  expect(await shown(page)).not.toContain('New invoice');
  await compose(page, await keptDraft(house));
  await untilShown(page, 'You may look, not change.');
  expect(await page.$eval('textarea[aria-label^="Line 1"]', (field) => field.matches(':disabled'))).toBe(true);
  // By the time that another key has done its work, this one has done nothing.
  await page.keyboard.press('n');
  await openFinder(page);
  expect(new URL(page.url()).pathname).toContain('/ask/compose/');
  await close();
});

test('on a phone and in the narrowest window nothing runs out of the page', async () => {
  for (const size of [
    { width: 390, height: 844 },
    { width: 320, height: 640 },
  ]) {
    const { page, close } = await deskOf('owner', size);
    const draft = await keptDraft(house);
    for (const path of [
      '/today',
      '/ask/invoices',
      `/ask/invoices/${sent.id}`,
      `/ask/compose/${draft}`,
      '/money/payments',
      `/i/${sent.link}`,
    ]) {
      await visit(page, `${stack.web}${path}`);
      const [width, room] = await page.evaluate(() => [
        document.documentElement.scrollWidth,
        document.documentElement.clientWidth,
      ]);
      expect(width, `${path} at ${size.width}`).toBeLessThanOrEqual(room ?? 0);
    }
    await expectAccessible(page, `customer’s page at ${size.width}`);
    await close();
  }
});

test('forty customers with long names: the list goes on by key, and the arrows walk it', async () => {
  const { page, close } = await deskOf('owner');
  await visit(page, `${stack.web}/ask/invoices`);
  const rows = () => page.$$eval('a[data-row]', (links) => links.length);
  const before = await rows();
  const more = await byName(page, 'Show more', 'button');
  await more?.click();
  await untilTrue(page, (count: number) => document.querySelectorAll('a[data-row]').length > count, before);
  await page.focus('a[data-row]');
  await page.keyboard.press('ArrowDown');
  const walked = await page.evaluate(() =>
    [...document.querySelectorAll('a[data-row]')].indexOf(document.activeElement as Element),
  );
  expect(walked).toBe(1);
  await page.keyboard.press('Enter');
  await untilTrue(page, () => location.pathname.startsWith('/ask/invoices/'));
  await untilShown(page, 'still due');
  await close();
});

test('“Find or do” finds a customer and opens them', async () => {
  const { page, close } = await deskOf('owner');
  await visit(page, `${stack.web}/today`);
  await openFinder(page);
  await page.keyboard.type('Calloway 39');
  await untilShown(page, 'Calloway 39');
  await untilTrue(page, () =>
    document.querySelector('[cmdk-item][data-selected="true"]')?.textContent?.includes('Calloway 39'),
  );
  await page.keyboard.press('Enter');
  await untilTrue(page, () => location.pathname.startsWith('/records/customers/'));
  await untilShown(page, 'Calloway 39');
  await close();
});

test('a session that has ended leads to signing in, and what was typed is still there afterwards', async () => {
  const { page, close } = await deskOf('owner');
  // Nothing is heard of what the worker writes meanwhile: the screen would be read anew, and lead to signing in before anything is typed.
  await page.setRequestInterception(true);
  page.on('request', (request) => void (request.url().includes('/api/live') ? request.abort() : request.continue()));
  const id = await keptDraft(house);
  await compose(page, id);
  await asSuperuser(stack.admin, 'delete from sessions where person_id = $1', [house.owner.personId]);
  await type(page, 'Words to the customer', 'Typed after the session ended');
  await untilShown(page, 'You are no longer signed in');
  await signInAs(page, stack.web, emailOf('owner'), PASSWORD);
  await compose(page, id);
  await untilTrue(
    page,
    () => (document.querySelector('#note') as HTMLTextAreaElement | null)?.value === 'Typed after the session ended',
  );
  await close();
});

test('what is typed into a record survives a reload, and who comes in after somebody finds none of their words', async () => {
  const { page, close } = await deskOf('owner');
  const open = async () => {
    await visit(page, `${stack.web}/records/customers/new`);
    await byName(page, 'Name', 'textbox');
  };
  const name = () => page.$eval('input[maxlength="160"]', (field) => (field as HTMLInputElement).value);
  await open();
  await type(page, 'Name', 'Half a na');
  await open();
  await until('the words are there again', async () => (await name()) === 'Half a na');
  await comeIn(page, stack.web, (await signIn(emailOf('clerk'), PASSWORD, 'test')).token);
  await open();
  expect(await name()).toBe('');
  await comeIn(page, stack.web, (await signIn(emailOf('owner'), PASSWORD, 'test')).token);
  await open();
  await until('they are the owner’s', async () => (await name()) === 'Half a na');
  await press(page, 'Cancel', 'button');
  await open();
  expect(await name()).toBe('');
  await close();
});

test('what is closed to a clerk looks closed, and says who changes it; an owner finds it open', async () => {
  const { page, errors, close } = await openPage(browser, { width: 1280, height: 800 });
  const open = () =>
    page.$$eval('fieldset input, fieldset select, fieldset button, fieldset textarea', (all) =>
      all.filter((one) => !one.matches(':disabled')).map((one) => one.outerHTML.slice(0, 80)),
    );
  for (const [role, may] of [
    ['clerk', false],
    ['owner', true],
  ] as const) {
    await comeIn(page, stack.web, (await signIn(emailOf(role), PASSWORD, 'test')).token);
    for (const path of ['/settings/profile', '/records/taxes']) {
      await visit(page, `${stack.web}${path}`);
      await page.waitForSelector('fieldset input');
      const said = await page.evaluate(() =>
        document.body.innerText.includes('Only an owner changes what stands here'),
      );
      expect([path, said]).toEqual([path, !may]);
      expect([path, (await open()).length > 0]).toEqual([path, may]);
      await expectAccessible(page, `${path} for the ${role}`);
    }
    // A browser closes fields, but not what is dropped on them.
    await visit(page, `${stack.web}/settings/profile`);
    await page.waitForSelector('section[aria-label="Choose a logo"]');
    await page.$eval('section[aria-label="Choose a logo"]', (place) => {
      const dataTransfer = new DataTransfer();
      dataTransfer.items.add(new File(['x'], 'logo.png', { type: 'image/png' }));
      place.dispatchEvent(new DragEvent('drop', { bubbles: true, cancelable: true, dataTransfer }));
    });
    // As long as reading a file and showing it take.
    await page.evaluate(
      () =>
        new Promise((done) => {
          const reader = new FileReader();
          reader.onload = () => requestAnimationFrame(() => requestAnimationFrame(done));
          reader.readAsDataURL(new File(['x'], 'x'));
        }),
    );
    if (may) await untilShown(page, 'Cut the logo');
    else expect(await page.$('[role=dialog]')).toBeNull();
  }
  expect(errors).toEqual([]);
  await close();
});

test('while somebody guesses a password, its owner still comes in: the browser does some work first', async () => {
  const email = emailOf('reader');
  for (let guess = 0; guess < 8; guess++) {
    const answer = await fetch(`${stack.web}/api/sign-in`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', origin: stack.web, 'x-forwarded-for': `203.0.113.${guess}` },
      body: JSON.stringify({ email, password: `guess ${guess}` }),
    });
    expect(answer.status).toBe(401);
    expect(answer.headers.get('cache-control')).toBe('private, no-store');
  }
  const { page } = await openPage(browser);
  await visit(page, `${stack.web}/sign-in`);
  await type(page, 'E-mail address', email);
  await type(page, 'Password', PASSWORD);
  await press(page, 'Sign in', 'button');
  await untilTrue(page, () => location.pathname === '/today');
});

test('a session that ends takes its open line along', async () => {
  const { token } = await signIn(emailOf('owner'), PASSWORD, 'line');
  const cookie = `dahlia_session=${token}`;
  const line = await fetch(`${stack.web}/api/live`, { headers: { cookie } });
  const heard = line.text();
  await fetch(`${stack.web}/api/sign-out`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: stack.web, cookie },
    body: '{}',
  });
  expect(await heard).toContain('retry: 2000');
  expect((await fetch(`${stack.web}/api/live`, { headers: { cookie } })).status).toBe(401);
});

test('health says which part does not answer', async () => {
  // The worker's first beat comes with its start.
  await until('all is well', async () => (await fetch(`${stack.web}/api/health`)).status === 200);
  expect(await (await fetch(`${stack.web}/api/health`)).json()).toEqual({
    well: true,
    database: true,
    worker: true,
    cards: true,
    mail: true,
    disk: true,
    queue: true,
    clock: true,
    instance: expect.any(String),
  });
});
