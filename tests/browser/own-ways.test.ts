/** What is somebody's own at the desk, and what a business asks under: ways of writing, news, trading names, locations. */
import { randomUUID } from 'node:crypto';
import { expect, test } from 'vitest';
import { doDueWork } from '@/flows/day/due-work';
import { passwordHash } from '@/flows/house/password';
import { recordReceived } from '@/flows/payment/receive-payment';
import { asSuperuser } from '../support/database';
import { sharedOwnerDesk } from '../support/owner-desk';
import {
  choose,
  expectAccessible,
  openPage,
  pick,
  press,
  pressHeard,
  shown,
  signInAs,
  type,
  untilShown,
  untilTrue,
  visit,
} from '../support/person';
import { setClock } from '../support/plans';
import { until } from '../support/until';
import { mailOf, plainPaper, sentInvoice } from '../support/workshop';

const { stack, house, page, errors, browser, signIn } = await sharedOwnerDesk();
const PHONE = { width: 390, height: 844 };
const you = () => visit(page, `${stack.web}/settings/you`);

test('somebody writes numbers with a comma and dates as ISO has them: read so everywhere, typed so, and the paper stays', async () => {
  const { id } = await sentInvoice(house);
  await you();
  await expectAccessible(page, 'what is one’s own');
  await page.evaluate(() => {
    for (const label of document.querySelectorAll('label'))
      if (/^(1\.234\.567,89|\d{4}-)/.test(label.innerText.trim())) label.click();
  });
  await press(page, 'Write it so', 'button');
  await untilShown(page, 'written for you from now on');
  await visit(page, `${stack.web}/ask/invoices/${id}`);
  await untilShown(page, '110,00');
  expect(await shown(page)).toMatch(/is due \w{3} \d\d-\d\d,/);

  await press(page, 'Ask for money', 'button');
  await untilTrue(page, () => location.pathname.startsWith('/ask/compose/'));
  await type(page, 'Line 1: what for', 'Lathe, an hour');
  await type(page, 'Line 1: price of one', '1.234,50');
  await page.keyboard.press('Tab');
  await untilShown(page, '1.234,50');
  await page.waitForFunction(() => document.body.innerText.includes('Total due'));
  // A reload in the middle of it keeps it, and whoever gets the paper reads it in their own way.
  await untilTrue(page, () => document.querySelector('[data-keeping]')?.getAttribute('data-keeping') === 'kept');
  await visit(page, page.url());
  await untilShown(page, '1.234,50');
  await until('the proof', async () => {
    const frame = page.frames().find((one) => one.url().includes('/proof/'));
    // It is drawn anew after each change, and shows nothing meanwhile.
    const words = await frame?.evaluate(() => document.body.innerText).catch(() => '');
    return words?.includes('1,234.50') ?? false;
  });
});

test('news come to the desk while it is looked at, once, by the browser and by one mail; quiet hours hold', async () => {
  await setClock(stack.standIns, new Date('2027-03-01T18:00:00Z'));
  // Months have gone by.
  await signIn();
  await page.evaluateOnNewDocument(() => {
    const signs: string[] = [];
    class Sign {
      static permission = 'granted';
      static requestPermission = async () => 'granted';
      constructor(title: string, { body }: { body: string }) {
        signs.push(`${title} ${body}`);
      }
      close() {}
    }
    Object.assign(window, { Notification: Sign, signs });
  });
  await you();
  for (const way of ['at the desk', 'by mail']) await press(page, `A payment comes in: ${way}`, 'checkbox');
  await press(page, 'Keep it', 'button');
  await untilShown(page, 'you hear of that from now on');
  await visit(page, `${stack.web}/ask/invoices`);
  await untilShown(page, 'Perpetua Vane');
  for (const _ of [1, 2]) {
    const { id } = await sentInvoice(house);
    await recordReceived(house.clerk, id, {
      requestKey: randomUUID(),
      amountMinor: 11_000n,
      method: 'cash',
      reference: '',
      receivedOn: '',
    });
  }
  await untilTrue(page, () => document.querySelector('button[aria-label="News, 2 not seen"]') !== null);
  await untilTrue(page, () => (window as unknown as { signs: string[] }).signs.length === 2);
  expect(await page.evaluate(() => (window as unknown as { signs: string[] }).signs[0])).toMatch(
    /^Paid 110,00.\$ Perpetua Vane, invoice/,
  );
  await pressHeard(page, 'g');
  await page.keyboard.press('n');
  await untilShown(page, 'Choose what');
  await expectAccessible(page, 'news');
  await page.keyboard.press('Escape');
  await untilTrue(page, () => document.querySelector('button[aria-label="News"]') !== null);

  await setClock(stack.standIns, new Date('2027-03-01T18:05:00Z'));
  // What the worker does at the next full minute.
  await doDueWork(house.business.id, 'news');
  const mails = async () =>
    (await mailOf(stack.standIns, 'owner@sallow.example')).filter(({ subject }) => / news$/.test(subject));
  await until('the mail', async () => (await mails()).length > 0);
  expect((await mails()).map(({ subject }) => subject)).toEqual(['Sallow Joinery: 2 news']);

  const phone = await openPage(browser, PHONE);
  await phone.page.setCookie(...(await page.cookies(stack.web)));
  await visit(phone.page, `${stack.web}/today`);
  await press(phone.page, 'News', 'button');
  await untilShown(phone.page, 'Perpetua Vane, invoice');
  await visit(phone.page, `${stack.web}/settings/you`);
  await expectAccessible(phone.page, 'what is one’s own, on a phone');
  expect(await phone.page.evaluate(() => document.documentElement.scrollWidth <= innerWidth)).toBe(true);
  phone.close();
  expect(errors).toEqual([]);
});

test('a packer finds names and addresses, and no sum; a reader without customers sees what came in, and nobody', async () => {
  await setClock(stack.standIns, new Date('2027-03-01T18:30:00Z'));
  await signIn();
  const hash = await passwordHash('parcels and string');
  await asSuperuser(stack.admin, 'update people set password_hash = $1 where business_id = $2', [
    hash,
    house.business.id,
  ]);
  const mailOfRole = (role: string) => `${role}-${house.business.id.slice(0, 8)}@sallow.example`;
  const packer = await openPage(browser, PHONE);
  await signInAs(packer.page, stack.web, mailOfRole('packer'), 'parcels and string');
  await untilShown(packer.page, '9 Weir Street');
  expect(await shown(packer.page)).not.toMatch(/\d[.,]\d\d\b|\$/);
  await expectAccessible(packer.page, 'the desk of a packer, on a phone');
  await type(packer.page, 'Name, address or number', 'nobody here');
  await packer.page.keyboard.press('Enter');
  await untilShown(packer.page, 'Nobody answers to that');
  // What would show a sum leads back.
  for (const path of ['/ask/invoices', '/money/payments', '/records/items', '/settings/profile']) {
    await visit(packer.page, `${stack.web}${path}`);
    await untilTrue(packer.page, () => location.pathname === '/today');
  }
  expect(
    await packer.page.evaluate(
      async () => (await fetch('/api/customers/export')).status + (await fetch('/api/day-batches?before=')).status,
    ),
  ).toBeGreaterThanOrEqual(800);
  packer.close();

  await visit(page, `${stack.web}/settings/people`);
  await press(page, `What reader of ${house.business.name} may do`, 'button');
  await press(page, 'Customers: no names, addresses or papers', 'checkbox');
  await expectAccessible(page, 'what is hidden from somebody');
  await press(page, 'Save', 'button');
  if (await page.$('input[type=password]')) {
    await type(page, 'Password', 'parcels and string');
    await page.keyboard.press('Enter');
  }
  await untilShown(page, 'hidden: Customers');
  const reader = await openPage(browser);
  await signInAs(reader.page, stack.web, mailOfRole('reader'), 'parcels and string');
  await untilShown(reader.page, 'This month, by way');
  expect(await shown(reader.page)).not.toMatch(/Vane|Weir Street/);
  await expectAccessible(reader.page, 'the desk of who sees no customers');
  reader.close();
  expect(errors).toEqual([]);
});

test('a trading name and a location are added, an invoice is written under them, and its customer sees only them', async () => {
  await visit(page, `${stack.web}/settings/profile`);
  await press(page, 'Add a trading name', 'button');
  await press(page, 'Save it', 'button');
  await untilShown(page, 'Write the name.');
  await type(page, 'Name', house.business.name);
  await press(page, 'Save it', 'button');
  await untilShown(page, 'own name already');
  await type(page, 'Name', 'Weir Street Rentals');
  await type(page, 'Reply address', 'desk@weir-street.example');
  await expectAccessible(page, 'a trading name');
  await press(page, 'Save it', 'button');
  await untilShown(page, 'Weir Street Rentals is saved');
  await press(page, 'Add a location', 'button');
  await type(page, 'Called', 'Harbour');
  await type(page, 'Street and number', '2 Quay');
  await type(page, 'City', 'Astoria');
  await expectAccessible(page, 'a location');
  await press(page, 'Save it', 'button');
  await untilShown(page, 'Harbour is saved');

  await press(page, 'Ask for money', 'button');
  await untilTrue(page, () => location.pathname.startsWith('/ask/compose/'));
  await pick(page, 'Under which name', 'Weir Street Rentals');
  await pick(page, 'From which place', 'Harbour');
  await untilShown(page, '2 Quay');
  await untilTrue(page, () => document.querySelector('[data-keeping]')?.getAttribute('data-keeping') === 'kept');
  await visit(page, page.url());
  await untilShown(page, '2 Quay');
  await expectAccessible(page, 'an invoice under another name');

  // Not offered any more, it stays where it is chosen, and is chosen nowhere else.
  await visit(page, `${stack.web}/settings/profile`);
  await press(page, 'Edit Harbour', 'button');
  await press(page, 'Not offered any more What goes out from there already goes on so.', 'checkbox');
  await press(page, 'Save it', 'button');
  await untilShown(page, 'not offered any more');

  const { tradingNames } = await import('@/flows/records/profile').then(({ businessProfile }) =>
    businessProfile(house.owner).then(({ business }) => business),
  );
  const { link } = await sentInvoice(house, plainPaper(house, { tradingNameId: tradingNames[0]?.id ?? null }));
  const customer = await openPage(browser, PHONE);
  await visit(customer.page, `${stack.web}/i/${link}`);
  await untilShown(customer.page, 'Weir Street Rentals');
  await expectAccessible(customer.page, 'an invoice under another name, on a phone');
  customer.close();
  await choose(page, house.business.name, 'You: dates, news, signing in');
  await untilShown(page, 'How you write dates and numbers');
  expect(errors).toEqual([]);
});
