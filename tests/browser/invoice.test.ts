/** The whole path of an invoice through the real interface: composed, proved, sent, opened, paid, seen as paid. */
import type { Browser, Page } from 'puppeteer-core';
import { afterAll, afterEach, beforeAll, expect, test } from 'vitest';
import { newCustomer } from '@/core/customer/customer';
import { ledgerTroubles } from '@/db/ledger';
import { readBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { passwordHash } from '@/flows/house/password';
import { addCustomer } from '@/flows/records/customers';
import { PRETEND_CARDS } from '../../standins/cards/pretend-cards';
import { startChromium } from '../support/chromium';
import { asSuperuser } from '../support/database';
import {
  byName,
  expectAccessible,
  fillCard,
  goBack,
  openFinder,
  openPage,
  pick,
  press,
  pressKeyOn,
  shown,
  signInAs,
  type,
  untilShown,
  untilTrue,
  visit,
  visitAgain,
} from '../support/person';
import { type Stack, startStack } from '../support/stack';
import { until } from '../support/until';
import { fetchedWork, foundHouse, type House, keptDraft, mailOf, plainPaper, sentInvoice } from '../support/workshop';

const PASSWORD = 'a plane and a saw';
let stack: Stack;
let house: House;
let browser: Browser;
let closeBrowser: () => Promise<void>;
let desk: Awaited<ReturnType<typeof openPage>>;
let email: string;

beforeAll(async () => {
  stack = await startStack({ DAHLIA_DEMO: '1' });
  house = await foundHouse('Sallow Joinery', await passwordHash(PASSWORD));
  email = `owner-${house.business.id.slice(0, 8)}@sallow.example`;
  ({ browser, close: closeBrowser } = await startChromium());
  desk = await openPage(browser);
  await signInAs(desk.page, stack.web, email, PASSWORD);
});
afterAll(async () => {
  await closeBrowser?.();
  await stack?.close();
});

// What the screens showed when a test failed, for whoever mends it.
afterEach(async ({ task }) => {
  if (task.result?.state !== 'fail') return;
  for (const context of browser.browserContexts()) {
    for (const [at, page] of (await context.pages()).entries()) {
      const name = `${task.name.replace(/\W+/g, '-').slice(0, 40)}-${context.id ?? 'first'}-${at}`;
      await page.screenshot({ path: `.data/test/failed-${name}.png` }).catch(() => undefined);
    }
  }
});

const book = async () => {
  const answer = await fetch(`${stack.standIns}/cards/api/book`, { headers: { authorization: 'Bearer stand-in-key' } });
  return ((await answer.json()) as { sales: { key: string; status: string; amount: number }[] }).sales;
};
const open = async (link: string, size?: { width: number; height: number }) => {
  const payer = await openPage(browser, size);
  await visit(payer.page, `${stack.web}/i/${link}`);
  return payer;
};
const paid = (page: Page) => untilShown(page, 'Paid in full');
const accepted = async (amount: number) =>
  (await book()).filter((sale) => sale.status === 'accepted' && sale.amount === amount).length;
/** A sent invoice over a sum of its own, so that the processor's book can be searched for it. */
const invoiceOver = async (price: string) => {
  const [line] = plainPaper(house).lines;
  return sentInvoice(
    house,
    plainPaper(house, { lines: [{ ...(line as NonNullable<typeof line>), quantity: '1', price, taxes: [] }] }),
  );
};

test('signing in: a wrong password is said, and the address stays', async () => {
  const { page, close } = await openPage(browser);
  await visit(page, `${stack.web}/sign-in`);
  await expectAccessible(page, 'sign-in');
  expect(await shown(page)).not.toContain('Come in as');
  await type(page, 'E-mail address', email);
  await type(page, 'Password', 'wrong');
  await press(page, 'Sign in', 'button');
  await untilShown(page, 'do not go together');
  expect(await page.$eval('input[type=email]', (input) => input.value)).toBe(email);
  await page.goto(`${stack.web}/ask/invoices`);
  expect(new URL(page.url()).pathname).toBe('/sign-in');
  await close();
});

test('an invoice goes all the way: typed on the paper, proved, sent, paid, seen as paid without a reload', async () => {
  const { page, errors } = desk;
  await visit(page, `${stack.web}/today`);
  await pressKeyOn(page, 'n', '/ask/compose/');

  // A customer added on the spot: the search for who pays is open from the start.
  await page.waitForSelector('[cmdk-input]');
  await page.keyboard.type('Ödön Calloway');
  await untilShown(page, 'Add “Ödön Calloway” as a new customer');
  await page.keyboard.press('Enter');
  await byName(page, 'E-mail address', 'textbox');
  await type(page, 'E-mail address', 'odon@calloway');
  await press(page, 'Add customer', 'button');
  await untilShown(page, 'Write the whole address');
  await type(page, 'E-mail address', 'odon@calloway.example');
  await press(page, 'Add customer', 'button');
  await byName(page, 'Who pays: Ödön Calloway');
  await untilTrue(page, () => document.activeElement?.getAttribute('aria-label') === 'Line 1: what for');

  // Hours × rate, goods by piece with a discount, a discount on the whole: the sum follows each keystroke.
  await type(page, 'Line 1: what for', 'Refitting two sash windows');
  await pick(page, 'Line 1: counted in', 'h');
  await type(page, 'Line 1: how much', '3.5');
  await type(page, 'Line 1: price of one', '72');
  // 3.5 × 72.00 = 252.00, and 10 percent tax.
  await untilShown(page, '277.20');
  await press(page, 'Add goods', 'button');
  await type(page, 'Line 2: what for', 'Brass catches');
  await type(page, 'Line 2: how much', '2');
  await type(page, 'Line 2: price of one', '64.50');
  await type(page, 'Line 2: discount, as 10% or an amount', '10%');
  await type(page, 'Discount on the whole, as 10% or an amount', '5%');
  // 252.00 + 129.00 − 12.90 = 368.10; less 5 percent, 18.405 → 18.41: 349.69; tax 34.969 → 34.97; 384.66.
  await untilShown(page, '384.66');
  await press(page, 'Tally of the Sales tax', 'button');
  await untilShown(page, '34.969');

  // A due date by choice, and a word to the customer.
  await (await page.waitForSelector('[data-field="due"]'))?.click();
  await press(page, 'In 30 days', 'button');
  await untilShown(page, '30 days after sending');
  await type(page, 'Words to the customer', 'The old catches are in the box.');
  await expectAccessible(page, 'composer');

  // Kept by itself: a reload loses nothing.
  await page.waitForSelector('[data-keeping="kept"]');
  await until('the draft is kept', async () => (await shown(page)).includes('saved '));
  await visitAgain(page);
  await untilShown(page, '384.66');
  expect(await page.$eval('#note', (note) => (note as HTMLTextAreaElement).value)).toBe(
    'The old catches are in the box.',
  );

  // The proof is what the customer will get.
  const phone = await (await page.waitForSelector('iframe[title="Proof: Phone"]'))?.contentFrame();
  await untilShown(phone as NonNullable<typeof phone>, 'A proof: nothing can be paid here');
  expect(await shown(phone as NonNullable<typeof phone>)).toContain('384.66');
  await press(page, 'E-mail', 'tab');
  const mail = await (await page.waitForSelector('iframe[title="Proof: E-mail"]'))?.contentFrame();
  await untilShown(mail as NonNullable<typeof mail>, 'See and pay $384.66');

  // Sent: the sheet opens, the mail arrives with both parts and the PDF.
  await press(page, 'Send invoice', 'button');
  await untilShown(page, 'The number is given now');
  await expectAccessible(page, 'send dialog');
  await page.keyboard.press('Enter');
  await untilTrue(page, () => location.pathname.startsWith('/ask/invoices/'));
  await untilShown(page, 'still due');
  await until('the invoice mail', async () => (await mailOf(stack.standIns, 'odon@calloway.example')).length === 1);
  const [letter] = await mailOf(stack.standIns, 'odon@calloway.example');
  expect(letter?.attachments).toMatchObject([{ contentType: 'application/pdf' }]);
  const link = /http:\/\/localhost:\d+\/i\/([\w-]+)/.exec(letter?.text ?? '')?.[1] ?? '';
  await untilShown(page, 'handed to the mail server');
  await expectAccessible(page, 'invoice sheet');

  // The customer opens the link on a phone.
  const payer = await open(link, { width: 390, height: 844 });
  await expectAccessible(payer.page, 'customer’s page');
  expect(await shown(payer.page)).toContain('The old catches are in the box.');
  // The bar leads on while the button is below; wherever the page is scrolled to, nothing that can be pressed lies under it.
  await untilTrue(payer.page, () => document.querySelector('a[href="#pay"]') !== null);
  await payer.page.evaluate(() => window.scrollTo(0, document.body.scrollHeight));
  await untilTrue(payer.page, () => document.querySelector('a[href="#pay"]') === null);
  const covered = await payer.page.evaluate(
    () =>
      [...document.querySelectorAll<HTMLElement>('button, nav a, summary')].filter((one) => {
        const { left, top, width, height } = one.getBoundingClientRect();
        // What lies folded away has a place too, and cannot be pressed.
        if (!one.checkVisibility() || width === 0 || top < 0 || top + height > innerHeight) return false;
        const at = document.elementFromPoint(left + width / 2, top + height / 2);
        return !(at && (one === at || one.contains(at) || at.contains(one)));
      }).length,
  );
  expect(covered).toBe(0);
  const pdf = await fetch(`${stack.web}/i/${link}/invoice.pdf`);
  expect(pdf.headers.get('content-type')).toBe('application/pdf');
  await untilShown(page, 'Seen on a phone');

  // Refused: the reason in plain words, the entries still there. Then accepted with another card.
  await fillCard(payer.page, 'corvid-poor');
  await press(payer.page, 'Pay $384.66', 'button');
  await untilShown(payer.page, 'There is not enough money on this card');
  const fields = payer.page.frames().find((frame) => frame.url().includes('/cards/fields'));
  expect(await fields?.$eval('input[name=number]', (input) => input.value.length)).toBe(19);
  await untilShown(page, 'Card refused');
  await fillCard(payer.page, 'corvid-good');
  await press(payer.page, 'Pay $384.66', 'button');
  await paid(payer.page);
  await expectAccessible(payer.page, 'receipt on screen');

  // The business's sheet and the timeline changed by themselves; the receipt went out.
  await untilShown(page, 'Paid.');
  await until('the receipt mail', async () =>
    (await mailOf(stack.standIns, 'odon@calloway.example')).some(({ subject }) => subject.startsWith('Receipt ')),
  );
  await until('the notice', async () =>
    (await mailOf(stack.standIns, house.business.email)).some(({ subject }) =>
      subject.includes('Ödön Calloway paid $384.66'),
    ),
  );
  await untilShown(page, 'Receipt 1 handed to the mail server');
  const timeline = await page.$eval('aside[aria-label=Timeline]', (aside) => aside.innerText);
  for (const line of ['Begun', 'Sent', 'Invoice', 'Seen', 'Card refused', 'Paid $384.66', 'Receipt 1'])
    expect(timeline).toContain(line);

  // Money > Payments, with its channel; Today; and a receipt as a file.
  await page.keyboard.press('g');
  await page.keyboard.press('m');
  await untilShown(page, 'Paid · ');
  await expectAccessible(page, 'payments');
  await visit(page, `${stack.web}/today`);
  await untilShown(page, 'Ödön Calloway');
  await expectAccessible(page, 'today');
  const receipt = await fetch(`${stack.web}/i/${link}/receipts/1`);
  expect(receipt.headers.get('content-type')).toBe('application/pdf');
  expect(errors).toEqual([]);
  expect(payer.errors).toEqual([]);
  payer.close();
});

test('with the keyboard alone: from the list to a sent invoice', async () => {
  const { page } = desk;
  await visit(page, `${stack.web}/ask/invoices`);
  await expectAccessible(page, 'list');
  await pressKeyOn(page, 'n', '/ask/compose/');
  const focusOn = async (label: string) => {
    for (let tabs = 0; tabs < 40; tabs++) {
      const here = await page.evaluate(
        () => document.activeElement?.getAttribute('aria-label') ?? document.activeElement?.textContent ?? '',
      );
      if (here.startsWith(label)) return;
      await page.keyboard.press('Tab');
    }
    throw new Error(`The keyboard does not reach ${label}`);
  };
  await page.waitForSelector('[cmdk-input]');
  await page.keyboard.type('perpetua');
  await untilShown(page, 'perpetua@vane.example');
  await page.keyboard.press('Enter');
  await byName(page, 'Who pays: Perpetua Vane');
  // From `n` to the first line it took two presses: the key, and Enter on who was found.
  await untilTrue(page, () => document.activeElement?.getAttribute('aria-label') === 'Line 1: what for');
  await page.keyboard.type('Bench, oak');
  await focusOn('Line 1: price of one');
  await page.keyboard.type('310');
  await page.keyboard.press('Enter');
  await untilTrue(page, () => document.activeElement?.getAttribute('aria-label') === 'Line 2: what for');
  await untilShown(page, '341.00');
  await page.keyboard.down('Control');
  await page.keyboard.press('Enter');
  await page.keyboard.up('Control');
  await untilShown(page, 'The number is given now');
  await page.keyboard.press('Enter');
  await untilTrue(page, () => location.pathname.startsWith('/ask/invoices/'));
  await untilShown(page, 'still due');
});

test('sending what is not ready names the place and goes there', async () => {
  const { page } = desk;
  await pressKeyOn(page, 'n', '/ask/compose/');
  await press(page, 'Send invoice', 'button');
  await untilShown(page, 'Choose who pays.');
  expect(await page.evaluate(() => document.activeElement?.getAttribute('data-field'))).toBe('customer');
  await type(page, 'Line 1: what for', 'Something');
  await type(page, 'Line 1: price of one', 'twelve');
  await untilShown(page, 'Write the price as a number');
});

test('Enter before the search has answered waits for it, and the next letters go into the form that it opened', async () => {
  const { page } = desk;
  await visit(page, `${stack.web}/ask/invoices`);
  await pressKeyOn(page, 'n', '/ask/compose/');
  await page.waitForSelector('[cmdk-input]');
  await page.keyboard.type('Zebulon Qu');
  await page.keyboard.press('Enter');
  await byName(page, 'E-mail address', 'textbox');
  await page.keyboard.type('ist');
  expect(await page.$eval('[role=dialog] input[maxlength="160"]', (field) => (field as HTMLInputElement).value)).toBe(
    'Zebulon Quist',
  );
  await page.keyboard.press('Escape');
});

test('a reload in the middle of a word, again and again: the words stand, and nobody is said to have changed them', async () => {
  const { page } = desk;
  const words = () => page.$eval('textarea[aria-label="Line 1: what for"]', (field) => field.value);
  let typed = '';
  for (const pause of [0, 40, 510, 530, 700]) {
    await page.focus('textarea[aria-label="Line 1: what for"]');
    await page.keyboard.press('End');
    await page.keyboard.type(`${pause} `);
    typed += `${pause} `;
    await new Promise((resolve) => setTimeout(resolve, pause));
    await visitAgain(page);
    await byName(page, 'Line 1: what for');
    await untilTrue(
      page,
      (wanted) =>
        document.querySelector<HTMLTextAreaElement>('textarea[aria-label="Line 1: what for"]')?.value === wanted,
      typed,
    );
  }
  await until('the last words are kept', async () => {
    const rows = await asSuperuser(stack.admin, 'select 1 from invoices where paper::text like $1', [`%${typed}%`]);
    return rows.length === 1;
  });
  expect(await words()).toBe(typed);
  expect(await shown(page)).not.toContain('changed since');
});

test('without a connection nothing typed is lost', async () => {
  const { page } = desk;
  await page.setOfflineMode(true);
  try {
    await type(page, 'Line 1: what for', 'Typed in a tunnel');
    await untilShown(page, 'saved on this computer only');
  } finally {
    // Whatever happened: the next test begins with a connection.
    await page.setOfflineMode(false);
  }
  // A reload before the next try: what this computer kept is taken up again.
  await visitAgain(page);
  await untilTrue(
    page,
    () =>
      (document.querySelector('textarea[aria-label^="Line 1"]') as HTMLTextAreaElement | null)?.value ===
      'Typed in a tunnel',
  );
  await until('it reaches the database', async () => {
    const rows = await asSuperuser(stack.admin, `select 1 from invoices where paper::text like '%Typed in a tunnel%'`);
    return rows.length === 1;
  });
  await press(page, 'Discard', 'button');
  const sure = await page.waitForSelector('[role=dialog] .btn-sure');
  await sure?.click();
  await untilTrue(page, () => location.pathname === '/ask/invoices');
  // The list stays, whatever the thrown-away draft's own screen hears afterwards: what happens later is seen on it.
  const later = await addCustomer(house.owner, newCustomer('Zephyrine Afterwards'));
  await keptDraft(house, plainPaper(house, { customerId: later.id }));
  await untilShown(page, 'Zephyrine Afterwards');
  await untilShown(page, 'Choose an invoice to see it here');
});

test('the holder’s approval: to the bank and back', async () => {
  const { link } = await invoiceOver('41.10');
  const { page, close } = await open(link);
  await fillCard(page, 'lumen-approval');
  await press(page, 'Pay $41.10', 'button');
  await untilShown(page, 'Is this you?');
  // Back by the browser's own button: the page knows that the bank waits, and leads there again.
  await goBack(page);
  await untilShown(page, 'Your bank asks for your approval');
  await press(page, 'Continue at your bank', 'link');
  await untilShown(page, 'Is this you?');
  await press(page, 'Approve USD 41.1', 'button');
  await paid(page);
  expect(await accepted(4110)).toBe(1);
  await close();
});

test('declined at the bank: said on coming back, and another card works', async () => {
  const { link } = await invoiceOver('42.20');
  const { page, close } = await open(link);
  await fillCard(page, 'lumen-approval');
  await press(page, 'Pay $42.20', 'button');
  await untilShown(page, 'Is this you?');
  await press(page, 'This is not me', 'button');
  await untilShown(page, 'You did not approve the payment');
  await fillCard(page, 'lumen-good');
  await press(page, 'Pay $42.20', 'button');
  await paid(page);
  expect(await accepted(4220)).toBe(1);
  await close();
});

test('no answer in time: “we are checking”, over a reload, until the processor says; charged once', async () => {
  const { link } = await invoiceOver('43.30');
  const { page, close } = await open(link);
  await fillCard(page, 'corvid-late');
  await press(page, 'Pay $43.30', 'button');
  await untilShown(page, 'We are checking.');
  await visitAgain(page);
  await paid(page);
  expect(await accepted(4330)).toBe(1);
  await close();
});

test('no answer in time and refused in the end: the reason comes, and the fields are free again', async () => {
  const { link } = await invoiceOver('44.40');
  const { page, close } = await open(link);
  await fillCard(page, 'lumen-late');
  await press(page, 'Pay $44.40', 'button');
  await untilShown(page, 'We are checking.');
  await untilShown(page, 'There is not enough money on this card');
  await fillCard(page, 'corvid-good');
  await press(page, 'Pay $44.40', 'button');
  await paid(page);
  expect(await accepted(4440)).toBe(1);
  await close();
});

test('two tabs and a double click at once: one payment, and both tabs say so', async () => {
  const { link } = await invoiceOver('45.50');
  const [one, two] = await Promise.all([open(link), open(link)]);
  await fillCard(one.page, 'corvid-good');
  await fillCard(two.page, 'lumen-good');
  const twice = async (page: Page) => {
    const button = await byName(page, 'Pay $45.50', 'button');
    await button?.click({ clickCount: 2 });
  };
  await Promise.all([twice(one.page), twice(two.page)]);
  await Promise.all([paid(one.page), paid(two.page)]);
  expect(await accepted(4550)).toBe(1);
  one.close();
  two.close();
});

test('an invoice already paid, a link cut off and an address that leads nowhere say so', async () => {
  const { link } = await invoiceOver('46.60');
  const { page, close } = await open(link);
  await fillCard(page, 'corvid-good');
  // Enter inside the processor's fields is the button.
  const fields = page.frames().find((frame) => frame.url().includes('/cards/fields'));
  await (await fields?.waitForSelector('input[name=code]'))?.press('Enter');
  await paid(page);
  await page.goto(`${stack.web}/i/${link.slice(0, 10)}`);
  await untilShown(page, 'This link opens nothing');
  await page.goto(`${stack.web}/nowhere`);
  await untilShown(page, 'nothing at this address');
  await close();
});

test('what the holder mistypes is said by the processor, and nothing is sent', async () => {
  const { link } = await invoiceOver('47.70');
  const { page, close } = await open(link);
  await press(page, 'Pay $47.70', 'button');
  const fields = page.frames().find((frame) => frame.url().includes('/cards/fields'));
  await untilShown(fields as NonNullable<typeof fields>, 'A card number has 16 digits');
  await byName(page, 'Pay $47.70', 'button');
  expect((await book()).some(({ amount }) => amount === 4770)).toBe(false);
  await close();
});

test('cover hides names and sums, night changes the setting, and both are there after a reload', async () => {
  const { page } = desk;
  await visit(page, `${stack.web}/ask/invoices`);
  await press(page, 'Cover', 'button');
  const colour = () => page.$eval('.name.private', (name) => getComputedStyle(name).color);
  expect(await colour()).toBe('rgba(0, 0, 0, 0)');
  await visitAgain(page);
  expect(await colour()).toBe('rgba(0, 0, 0, 0)');
  await press(page, 'Uncover', 'button');
  await openFinder(page);
  await page.keyboard.type('night');
  await page.keyboard.press('Enter');
  await untilTrue(page, () => document.documentElement.dataset.setting === 'night');
  for (const path of ['/today', '/ask/invoices', '/money/payments']) {
    await visit(page, `${stack.web}${path}`);
    await expectAccessible(page, `${path} at night`);
  }
  await page.setCookie({ name: 'dahlia_setting', value: 'day', url: stack.web });
});

test('the parts of the design system are shown in the demo, by day and by night, all of them accessible', async () => {
  const { page, close } = await openPage(browser);
  await visit(page, `${stack.web}/parts`);
  await untilShown(page, 'Tally and leaders');
  await expectAccessible(page, 'parts');
  await press(page, 'Night setting', 'button');
  await expectAccessible(page, 'parts at night');
  await close();
});

test('requests from elsewhere or of the wrong shape change nothing and are answered in words', async () => {
  const { link } = await invoiceOver('48.80');
  const ask = (path: string, body: string, headers: Record<string, string> = { origin: stack.web }) =>
    fetch(`${stack.web}${path}`, { method: 'POST', headers: { 'content-type': 'application/json', ...headers }, body });
  const good = {
    attemptKey: crypto.randomUUID(),
    cardToken: `tok_${'0'.repeat(24)}`,
    amountMinor: 4880,
    work: await fetchedWork(stack.web, `/api/pay/${link}`),
  };
  const number = PRETEND_CARDS[0]?.number ?? '';
  const tries: [string, Record<string, string> | undefined, number][] = [
    [JSON.stringify(good), { origin: 'https://evil.example' }, 403],
    [JSON.stringify(good), {}, 403],
    ['[1]', undefined, 400],
    ['null', undefined, 400],
    ['{"attemptKey":', undefined, 400],
    [JSON.stringify({ ...good, extra: 1 }), undefined, 400],
    [JSON.stringify({ ...good, amountMinor: '4880' }), undefined, 400],
    [JSON.stringify({ ...good, amountMinor: 1e300 }), undefined, 400],
    [JSON.stringify({ ...good, cardToken: number }), undefined, 400],
    [JSON.stringify({ ...good, work: undefined }), undefined, 400],
    [JSON.stringify({ ...good, work: { ...good.work, solution: { counter: 0 } } }), undefined, 409],
    [JSON.stringify({ ...good, attemptKey: { $ne: null } }), undefined, 400],
  ];
  for (const [body, headers, status] of tries) {
    const answer = await ask(`/api/pay/${link}`, body, headers);
    expect(answer.status, body).toBe(status);
    expect(((await answer.json()) as { words: string }).words.length, body).toBeGreaterThan(8);
  }
  // A token that the processor never gave: refused, nothing charged, and the next try is free.
  expect(await (await ask(`/api/pay/${link}`, JSON.stringify(good))).json()).toMatchObject({
    value: { state: 'refused' },
  });
  expect((await ask('/api/invoices', '{}')).status).toBe(401);
  expect((await ask('/api/hooks/cards', '{"key":"x"}', {})).status).toBe(401);
  expect((await fetch(`${stack.web}/api/invoices/not-an-id`, { headers: { cookie: '' } })).status).toBe(405);
});

test('every page has its content policy with a nonce of its own, and the session cookie is out of reach of scripts', async () => {
  const policy = async () => (await fetch(`${stack.web}/sign-in`)).headers.get('content-security-policy') ?? '';
  const [one, two] = [await policy(), await policy()];
  expect(one).toMatch(/script-src 'self' 'nonce-[^']+' 'strict-dynamic'/);
  expect(one).not.toContain("script-src 'self' 'unsafe-inline'");
  expect(one).not.toBe(two);
  expect(one).toContain("frame-ancestors 'none'");
  const cookies = await browser.defaultBrowserContext().cookies();
  expect(cookies).toEqual([]);
  const session = (await desk.page.browserContext().cookies()).find(({ name }) => name === 'dahlia_session');
  expect(session).toMatchObject({ httpOnly: true, sameSite: 'Lax' });
});

test('no card number stands anywhere of ours: tables, jobs, logs', async () => {
  const numbers = PRETEND_CARDS.flatMap(({ number }) => [number, number.replace(/(.{4})(?=.)/g, '$1 ')]);
  const tables = await asSuperuser<{ name: string }>(
    stack.admin,
    `select format('%I.%I', table_schema, table_name) as name from information_schema.tables
     where table_schema in ('public', 'graphile_worker') and table_type = 'BASE TABLE'`,
  );
  expect(tables.length).toBeGreaterThan(20);
  const { readFileSync, readdirSync } = await import('node:fs');
  const { join } = await import('node:path');
  const places: (readonly [string, string])[] = [];
  // One after the other: each asks on a connection of its own, and other files ask the same server.
  for (const { name } of tables)
    places.push([name, JSON.stringify(await asSuperuser(stack.admin, `select t::text from ${name} t`))]);
  for (const file of readdirSync(join(stack.folder, 'log')))
    places.push([file, readFileSync(join(stack.folder, 'log', file), 'utf8')]);
  expect(places.some(([name, text]) => name.includes('payments') && text.includes('Corvid'))).toBe(true);
  for (const [name, text] of places) for (const number of numbers) expect(text.includes(number), name).toBe(false);
  // And no name or address of a person in the logs.
  for (const [name, text] of places.filter(([place]) => place.endsWith('.log'))) {
    expect(text.includes('Calloway') || text.includes('@calloway.example'), name).toBe(false);
  }
});

test('after all of it the books balance and agree with the processor’s', async () => {
  expect(await readBusiness(programContext(house.business.id), (db) => ledgerTroubles(db))).toEqual([]);
  const ours = await asSuperuser<{ key: string; amount: string }>(
    stack.admin,
    `select business_id || '.' || id as key, amount_minor::text as amount from payments where state = 'paid' order by 1`,
  );
  const theirs = (await book())
    .filter(({ status }) => status === 'accepted')
    .map(({ key, amount }) => ({ key, amount: String(amount) }));
  expect(ours).toEqual(theirs.sort((a, b) => (a.key < b.key ? -1 : 1)));
});
