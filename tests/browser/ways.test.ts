/** How invoices leave and what comes back as files: texts, links, exports, one customer made of two, a line kept as an item. */
import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Browser, Page } from 'puppeteer-core';
import sharp from 'sharp';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { fromBuffer } from 'yauzl';
import { newCustomer } from '@/core/customer/customer';
import { passwordHash } from '@/flows/house/password';
import { invoiceSheet } from '@/flows/invoice/invoice-sheet';
import { addCustomer } from '@/flows/records/customers';
import { startChromium } from '../support/chromium';
import { asSuperuser } from '../support/database';
import {
  byName,
  choose,
  comeIn,
  expectAccessible,
  give,
  openPage,
  press,
  shown,
  type,
  untilShown,
  untilTrue,
  visit,
} from '../support/person';
import { signIn } from '../support/signed-in';
import { type Stack, startStack } from '../support/stack';
import { until } from '../support/until';
import { foundHouse, type House, keptDraft, plainPaper, sentInvoice } from '../support/workshop';

const PASSWORD = 'a plane and a saw';
let stack: Stack;
let house: House;
let browser: Browser;
let closeBrowser: () => Promise<void>;
let page: Page;
let errors: string[];

beforeAll(async () => {
  stack = await startStack();
  house = await foundHouse('Sallow Joinery', await passwordHash(PASSWORD));
  ({ browser, close: closeBrowser } = await startChromium());
  ({ page, errors } = await openPage(browser));
  const email = `owner-${house.business.id.slice(0, 8)}@sallow.example`;
  await comeIn(page, stack.web, (await signIn(email, PASSWORD, 'test')).token);
  const line = await page.createCDPSession();
  await line.send('Page.setDownloadBehavior', { behavior: 'allow', downloadPath: stack.folder });
});
afterAll(async () => {
  await closeBrowser?.();
  await stack?.close();
});

const go = (path: string) => visit(page, `${stack.web}${path}`);
/** A file that a link leads to, as this person gets it. */
const followed = (path: string): Promise<{ status: number; type: string; text: string }> =>
  page.evaluate(async (address) => {
    const response = await fetch(address);
    return {
      status: response.status,
      type: response.headers.get('content-type') ?? '',
      text: await response.text(),
    };
  }, path);
/** The files in a zip, as text. */
const unzipped = (bytes: Buffer): Promise<string[]> =>
  new Promise((resolve, reject) =>
    fromBuffer(bytes, { lazyEntries: true }, (error, zip) => {
      if (error) return reject(error);
      const texts: string[] = [];
      zip.on('error', reject);
      zip.on('end', () => resolve(texts));
      zip.on('entry', (entry) =>
        zip.openReadStream(entry, async (trouble, stream) => {
          if (trouble) return reject(trouble);
          texts.push(Buffer.concat(await stream.toArray()).toString());
          zip.readEntry();
        }),
      );
      zip.readEntry();
    }),
  );
const hrefOf = (words: string): Promise<string> =>
  page.evaluate(
    (wanted) => [...document.querySelectorAll('a')].find((link) => link.innerText.trim() === wanted)?.href ?? '',
    words,
  );

/** Sends what is in the composer by a way that the dialog offers. */
async function sendFromDialog(way: string): Promise<void> {
  await press(page, 'Send invoice', 'button');
  await untilShown(page, 'The number is given now');
  for (const words of [way, 'Send invoice']) {
    const button = `//*[@role='dialog']//button[normalize-space()=${JSON.stringify(words)}]`;
    await (await page.waitForSelector(`::-p-xpath(${button})`))?.click();
  }
  await untilTrue(page, () => location.pathname.startsWith('/ask/invoices/'));
}
async function shortMessages(): Promise<{ to: string; way: string; text: string }[]> {
  const answer = await fetch(`${stack.standIns}/messages/api/messages`);
  return ((await answer.json()) as { messages: { to: string; way: string; text: string }[] }).messages;
}

test('customers come as vCards, go out as both forms, and two who are one are made one with all their invoices', async () => {
  const card = (name: string, email: string) =>
    `BEGIN:VCARD\r\nVERSION:4.0\r\nFN:${name}\r\nEMAIL:${email}\r\nTEL:+1 206 555 0177\r\nEND:VCARD\r\n`;
  await go('/records/customers/import');
  await give(
    page,
    stack.folder,
    'people.vcf',
    card('Lindis Harrowgate', 'lindis@home.example') + card('Lindis Harrowgate', 'lindis@work.example'),
  );
  await untilShown(page, '2 rows. What is in each column?');
  await press(page, 'Check 2 rows', 'button');
  await untilShown(page, '2 can be added');
  await press(page, 'Add 2 customers', 'button');
  await untilShown(page, '2 were added');
  const people = await asSuperuser<{ id: string }>(
    stack.admin,
    `select id from customers where name = 'Lindis Harrowgate' order by email`,
  );
  const [kept, other] = people.map(({ id }) => id);
  await sentInvoice(house, plainPaper(house, { customerId: other ?? '' }));

  await go(`/records/customers/${kept}`);
  await untilShown(page, 'Perhaps the same');
  await press(page, 'Merge', 'button');
  await untilShown(page, 'This cannot be taken back');
  await expectAccessible(page, 'making two one');
  await page.evaluate(() =>
    [...document.querySelectorAll<HTMLButtonElement>('[role=dialog] button')]
      .find((button) => button.innerText === 'Merge')
      ?.click(),
  );
  await untilShown(page, '110.00');
  expect(await shown(page)).toContain('lindis@work.example');

  await go('/records/customers');
  const csv = await followed(await hrefOf('All as CSV'));
  expect(csv.type).toContain('text/csv');
  expect(csv.text.match(/Lindis Harrowgate/g)).toHaveLength(1);
  const cards = await followed(await hrefOf('All as vCards'));
  expect(cards.text).toContain('FN:Lindis Harrowgate');
  expect(cards.text).toContain('lindis@work.example');
});

test('a line is kept as an item; reminders are changed for one invoice; it goes out as a text to the phone', async () => {
  const customer = await addCustomer(house.owner, newCustomer('Osric Tanaka', { phone: '+1 206 555 0142' }));
  const id = await keptDraft(house, plainPaper(house, { customerId: customer.id, due: { kind: 'days', days: 14 } }));
  await go(`/ask/compose/${id}`);
  await page.focus('textarea[aria-label="Line 1: what for"]');
  await press(page, 'Save as an item', 'button');
  await untilShown(page, 'Saved as an item');
  await press(page, '7 days after', 'button');
  await byName(page, 'No reminder 7 days after', 'button');
  await sendFromDialog('Text');
  await until('the text', async () =>
    (await shortMessages()).some(({ text, way }) => way === 'text' && text.includes('/i/')),
  );
  const { reminders } = await invoiceSheet(house.owner, id);
  expect(reminders.map(({ offset }) => offset)).toContain(7);
  expect(await asSuperuser(stack.admin, 'select 1 from items')).toHaveLength(1);
});

test('handed over by oneself: a number, no mail, a QR of its link; the customer reads it in French and takes PDF and XML', async () => {
  const id = await keptDraft(house);
  await go(`/ask/compose/${id}`);
  await sendFromDialog('In person');
  await untilShown(page, 'Copy link');
  expect(await asSuperuser(stack.admin, 'select 1 from messages where invoice_id = $1', [id])).toEqual([]);
  const qr = await followed(await hrefOf('QR'));
  expect(qr).toMatchObject({ status: 200, type: expect.stringContaining('image/') });

  const { invoice } = await invoiceSheet(house.owner, id);
  const payer = await openPage(browser, { width: 390, height: 844 });
  await visit(payer.page, `${stack.web}/i/${invoice.linkToken}`);
  await press(payer.page, 'Français', 'link');
  await untilShown(payer.page, 'Facture');
  await expectAccessible(payer.page, 'customer’s page in French');
  const [pdf, xml] = await payer.page.evaluate(async () => {
    const links = [...document.querySelectorAll<HTMLAnchorElement>('a[href*="/i/"]')].map(({ href }) => href);
    const file = async (ending: RegExp) => (await fetch(links.find((link) => ending.test(link)) ?? '')).text();
    return [await file(/pdf/), await file(/xml/)];
  });
  expect(pdf?.startsWith('%PDF-')).toBe(true);
  expect(xml).toContain('<cbc:PayableAmount currencyID="USD">110.00');
  payer.close();
});

test('several go out as CSV, as e-invoices in one zip and as one PDF; an e-invoice comes in as a draft of the same sum', async () => {
  await sentInvoice(house, plainPaper(house, { reference: '=1+1 crate' }));
  await sentInvoice(house, plainPaper(house, { reference: 'second crate' }));
  await go('/ask/invoices');
  await press(page, 'Several', 'button');
  await type(page, 'Find invoices', 'crate');
  await untilTrue(page, () => document.querySelectorAll('ul[aria-label="Found invoices"] li').length === 2);
  await press(page, 'All shown', 'button');
  await untilShown(page, '2 ticked');
  const got = async (button: string, name: string): Promise<Buffer> => {
    await press(page, button, 'button');
    const path = join(stack.folder, name);
    await until(`${button} as a file`, async () => existsSync(path));
    return readFileSync(path);
  };
  const csv = (await got('CSV', 'invoices.csv')).toString();
  expect(csv).toContain('second crate');
  // A cell that a spreadsheet would count is made plain text.
  expect(csv).not.toMatch(/(^|[,"])=1\+1/m);
  const papers = await unzipped(await got('E-invoices', 'e-invoices.zip'));
  expect(papers).toHaveLength(2);
  const print = await got('Print', 'invoices.pdf');
  expect(print.subarray(0, 5).toString()).toBe('%PDF-');
  const text = execFileSync('pdftotext', ['-layout', join(stack.folder, 'invoices.pdf'), '-'], { encoding: 'utf8' });
  expect(text.match(/\$110\.00/g)).toHaveLength(2);

  await go('/ask/invoices');
  await press(page, 'Import an invoice made elsewhere', 'button');
  await give(page, stack.folder, 'theirs.xml', papers[0] ?? '');
  // Its number is ours already, and that is said before one goes on.
  await untilShown(page, 'this one gets the next number');
  await expectAccessible(page, 'what the draft could not keep');
  await press(page, 'Go to the draft', 'button');
  await untilTrue(page, () => location.pathname.startsWith('/ask/compose/'));
  await untilShown(page, '110.00');
});

test('tax rules come and go as CSV; an item has a picture; nights are quiet; an invoice goes out as a chat message', async () => {
  await go('/records/taxes');
  const before = await followed(await hrefOf('As CSV'));
  expect(before.text).toContain('Postal codes');
  await give(
    page,
    stack.folder,
    'taxes.csv',
    `${before.text.trimEnd()}\r\nHarbour levy,0.5,standard,US,,98190-98199,no,yes\r\n`,
  );
  await untilShown(page, '1 new rule is read');
  await press(page, 'Save rules', 'button');
  await untilShown(page, 'The tax rules are saved');
  expect((await followed(await hrefOf('As CSV'))).text).toContain('98190-98199');

  await go('/records/items/new');
  await type(page, 'Name', 'Rosin');
  const png = await sharp({ create: { width: 90, height: 60, channels: 3, background: '#8a6d1f' } })
    .png()
    .toBuffer();
  await give(page, stack.folder, 'rosin.png', png);
  await untilShown(page, 'Without a picture');
  await press(page, 'Save item', 'button');
  await untilTrue(page, () => /\/records\/items\/[0-9a-f-]{36}$/.test(location.pathname));
  await untilTrue(page, () => [...document.querySelectorAll('img')].some((picture) => picture.naturalWidth === 90));

  await go('/settings/profile');
  await page.$eval('input[type=time]', (input) => {
    const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')?.set;
    set?.call(input, '21:30');
    input.dispatchEvent(new Event('input', { bubbles: true }));
  });
  await press(page, 'Save profile', 'button');
  await untilShown(page, 'The profile is saved');
  expect(await asSuperuser(stack.admin, 'select quiet_from::text as quiet from businesses')).toMatchObject([
    { quiet: expect.stringMatching(/^21:30/) },
  ]);

  const customer = await addCustomer(house.owner, newCustomer('Maren Osei', { phone: '+1 206 555 0188' }));
  await go(`/ask/compose/${await keptDraft(house, plainPaper(house, { customerId: customer.id }))}`);
  await sendFromDialog('Chat');
  await until('the chat message', async () =>
    (await shortMessages()).some(({ to, way }) => way === 'chat' && to.replace(/\D/g, '').endsWith('2065550188')),
  );
});

test('the next of a repeat is made to say what a draft says', async () => {
  const { id } = await sentInvoice(house);
  await go(`/ask/recurring/new?from=${id}`);
  await type(page, 'Name', 'Upkeep');
  await press(page, 'Make it recurring', 'button');
  await untilTrue(page, () => /\/ask\/recurring\/[0-9a-f-]{36}$/.test(location.pathname));
  const draft = await keptDraft(house, plainPaper(house, { note: 'Dearer from spring' }));
  await go(`/ask/compose/${draft}`);
  await choose(page, 'More to do with this draft', 'Let “Upkeep” say this from the next on');
  await until('the repeat’s paper', async () => {
    const [row] = await asSuperuser<{ note: string }>(
      stack.admin,
      `select paper->>'note' as note from recurring_invoices`,
    );
    return row?.note === 'Dearer from spring';
  });
  expect(errors).toEqual([]);
});
