/** What a business does with its invoices beyond the first path, through the real interface. */
import type { Browser, Page } from 'puppeteer-core';
import sharp from 'sharp';
import { afterAll, afterEach, beforeAll, expect, test } from 'vitest';
import { newCustomer } from '@/core/customer/customer';
import { USUAL_WAYS } from '@/core/paper/paper';
import { ledgerTroubles } from '@/db/ledger';
import { readBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { storeFile } from '@/flows/file/store-file';
import { passwordHash } from '@/flows/house/password';
import { askQuestion } from '@/flows/invoice/consent';
import { addCustomer } from '@/flows/records/customers';
import { keepTerms } from '@/flows/records/profile';
import { startChromium } from '../support/chromium';
import { asSuperuser } from '../support/database';
import {
  byName,
  choose,
  expectAccessible,
  fillCard,
  give,
  openPage,
  pick,
  press,
  shown,
  signInAs,
  type,
  untilShown,
  untilTrue,
  visit,
} from '../support/person';
import { type Stack, startStack } from '../support/stack';
import { until } from '../support/until';
import { foundHouse, type House, mailOf, plainPaper, sentInvoice } from '../support/workshop';

const PASSWORD = 'a plane and a saw';
let stack: Stack;
let house: House;
let browser: Browser;
let closeBrowser: () => Promise<void>;
let page: Page;
let errors: string[];

beforeAll(async () => {
  stack = await startStack({ STANDINS_MAIL_REPORT_DELAY_MS: '200' });
  house = await foundHouse('Sallow Joinery', await passwordHash(PASSWORD));
  ({ browser, close: closeBrowser } = await startChromium());
  ({ page, errors } = await openPage(browser));
  await signInAs(page, stack.web, `owner-${house.business.id.slice(0, 8)}@sallow.example`, PASSWORD);
});
afterAll(async () => {
  await closeBrowser?.();
  await stack?.close();
});
afterEach(async ({ task }) => {
  if (task.result?.state === 'fail')
    await page
      .screenshot({ path: `.data/test/failed-${task.name.replace(/\W+/g, '-').slice(0, 40)}.png` })
      .catch(() => undefined);
});

const go = (path: string) => visit(page, `${stack.web}${path}`);
const only = async <Row>(text: string, values: unknown[] = []) =>
  (await asSuperuser<Row & object>(stack.admin, text, values))[0] as Row;

test('customers come from a file: columns told, rows checked, the refused ones named, then found and changed', async () => {
  await go('/records/customers/import');
  await give(
    page,
    stack.folder,
    'people.csv',
    'Full name,E-mail,Town,Country\nEdda Tolliver,edda@tolliver.example,Altmoor,Germany\nHalf,not-an-address,,\nPim Okonjo,pim@okonjo.example,,\n',
  );
  await untilShown(page, '3 rows. What is in each column?');
  await pick(page, 'Town is', 'City');
  await expectAccessible(page, 'columns of a file');
  await press(page, 'Check 3 rows', 'button');
  await untilShown(page, '2 can be added, 1 cannot.');
  expect(await shown(page)).toContain('Not an e-mail address: not-an-address');
  await press(page, 'Add 2 customers', 'button');
  await untilShown(page, '2 were added, 1 was not.');
  await press(page, 'To the customers', 'button');
  await type(page, 'Name, address, phone or group', 'altmoor');
  // By the row's words: the list of before the file came also had one row.
  await untilTrue(page, () => {
    const rows = [...document.querySelectorAll<HTMLElement>('a[data-row]')];
    return rows.length === 1 && rows[0]?.innerText.includes('Edda Tolliver');
  });
  await page.click('a[data-row]');
  await untilTrue(page, () =>
    [...document.querySelectorAll('h1')].some((heading) => heading.innerText.includes('Edda Tolliver')),
  );
  await press(page, 'Edit', 'button');
  await pick(page, 'Language', 'German');
  await type(page, 'Groups', 'Choir');
  await press(page, 'Save changes', 'button');
  await untilShown(page, 'The changes are saved');
  await expectAccessible(page, 'a customer');
  await go('/records/customers/new');
  await type(page, 'Name', 'Tolliver, Edda');
  await untilShown(page, 'Already on file?');
});

test('an item with options goes onto the paper at its price, and short stock is said without being in the way', async () => {
  await go('/records/items/new');
  await type(page, 'Name', 'Violin strings');
  await type(page, 'Price in USD', '58.50');
  await press(page, 'Add an option', 'button');
  const name = await page.waitForSelector('input[placeholder="Size, gauge …"]');
  await name?.type('light');
  await type(page, 'On hand', '2');
  await press(page, 'Save item', 'button');
  await untilTrue(page, () => /\/records\/items\/[0-9a-f-]{36}$/.test(location.pathname));
  await expectAccessible(page, 'an item');
  await page.keyboard.press('Escape');
  await press(page, 'Ask for money', 'button');
  await untilTrue(page, () => location.pathname.startsWith('/ask/compose/'));
  await press(page, 'From your items', 'button');
  await page.waitForSelector('[cmdk-item]');
  await page.keyboard.press('Enter');
  await untilShown(page, '64.35');
  await type(page, 'Line 1: how much', '3');
  await untilShown(page, 'More than there is: 2 available');
  await untilShown(page, '193.05');
});

test('rows pasted from a spreadsheet become lines; a line moves by keyboard, is duplicated; charges and an exemption count', async () => {
  await page.focus('textarea[aria-label="Line 1: what for"]');
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.setData('text/plain', 'Pegs\t4\t12.00\nBridge\t1\t85.00');
    document.activeElement?.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    );
  });
  await untilTrue(page, () => document.querySelectorAll('[data-line]').length === 3);
  await page.focus('textarea[aria-label="Line 3: what for"]');
  await page.keyboard.down('Alt');
  await page.keyboard.press('ArrowUp');
  await page.keyboard.up('Alt');
  await untilTrue(
    page,
    () => (document.querySelector('textarea[aria-label="Line 2: what for"]') as HTMLTextAreaElement).value === 'Bridge',
  );
  await press(page, 'Delivery', 'button');
  await type(page, 'Delivery: what the customer pays', '10');
  await type(page, 'Postage', '12');
  await untilShown(page, 'You pay 2.00 yourself');
  // (175.50 + 48.00 + 85.00) × 1.1 + 10.00 = 349.35
  await untilShown(page, '349.35');
  await press(page, 'No tax at all', 'button');
  await type(page, 'Why no tax applies', 'Made for a charity');
  await untilShown(page, '318.50');
  await expectAccessible(page, 'composer with charges');
});

test('kept as a template it begins another; sent on a day to come it goes out by itself', async () => {
  await choose(page, 'More to do with this draft', 'Save as a template');
  await type(page, 'Name', 'Strings and pegs');
  await page.keyboard.press('Enter');
  await untilShown(page, 'is saved as a template');
  await press(page, 'Who pays: nobody chosen yet');
  await page.waitForSelector('[cmdk-input]');
  await page.keyboard.type('Perpetua');
  await untilTrue(page, () =>
    document.querySelector('[cmdk-item][data-selected="true"]')?.textContent?.includes('Perpetua Vane'),
  );
  await page.keyboard.press('Enter');
  await byName(page, 'Who pays: Perpetua Vane');
  await press(page, 'Send invoice', 'button');
  await untilShown(page, 'The number is given now');
  await press(page, 'Test copy to me', 'button');
  await untilShown(page, 'A test copy is on its way');
  await page.click('[role=dialog] input[type=checkbox]');
  const [year, month, day] = new Date(Date.now() + 86_400_000).toISOString().slice(0, 10).split('-');
  await page.type('input[aria-label="Day of sending"]', `${month}/${day}/${year}`);
  await press(page, 'Send on that day', 'button');
  await untilShown(page, 'It goes out by itself on');
  const id = new URL(page.url()).pathname.split('/').at(-1);
  expect(await only('select stage, send_at is not null as planned from invoices where id = $1', [id])).toEqual({
    stage: 'draft',
    planned: true,
  });
  await press(page, 'Not any more', 'button');
  await untilShown(page, 'It no longer goes out by itself');
});

test('the customer approves, accepts, pays a part with a tip on a phone in German; the sheet follows', async () => {
  const png = await sharp({ create: { width: 60, height: 60, channels: 3, background: '#f4e1e8' } })
    .png()
    .toBuffer();
  const file = await storeFile(house.owner, 'drawing.png', 'attachment', png);
  const termsId = await keepTerms(house.owner, null, 'Bench terms', 'Wood moves.');
  const { id, link } = await sentInvoice(
    house,
    plainPaper(house, {
      files: [{ ...file, approve: true }],
      termsId,
      ways: { ...USUAL_WAYS, parts: true, first: '30%', tip: ['10'] },
    }),
  );
  await go(`/ask/invoices/${id}`);
  const payer = await openPage(browser, { width: 390, height: 844 });
  await visit(payer.page, `${stack.web}/i/${link}?lang=de`);
  await expectAccessible(payer.page, 'customer’s page with everything');
  expect(await shown(payer.page)).toContain('Vor der Zahlung freizugeben');
  await press(payer.page, 'Freigeben', 'button');
  await untilShown(payer.page, 'Freigegeben am');
  await press(payer.page, 'Einen Teil', 'button');
  await type(payer.page, 'Wie viel jetzt', '10');
  await untilShown(payer.page, 'Zwischen 33,00');
  await type(payer.page, 'Wie viel jetzt', '40');
  await press(payer.page, '10 %', 'button');
  await payer.page.click('input[type=checkbox]');
  await fillCard(payer.page, 'corvid-good');
  await (await payer.page.waitForSelector('button.btn-tall'))?.click();
  await untilShown(payer.page, '70,00');
  await untilTrue(payer.page, () => document.body.innerText.includes('Quittung'));
  payer.close();
  await untilShown(page, 'Part-paid');
  await untilShown(page, 'tip $4.00');
  expect(await shown(page)).toContain('Terms accepted');
  expect(
    await only('select amount_minor::int as amount, tip_minor::int as tip from payments where invoice_id = $1', [id]),
  ).toEqual({ amount: 4000, tip: 400 });
});

test('from the sheet: money written down, changed to a new version, credited; another cancelled with its reason', async () => {
  const { id } = await sentInvoice(house, plainPaper(house, { ways: { ...USUAL_WAYS, parts: true } }));
  await go(`/ask/invoices/${id}`);
  await choose(page, 'More to do with this invoice', 'Record a payment');
  await type(page, 'How much', '30');
  await type(page, 'Reference', 'cheque 7');
  await press(page, 'Record payment', 'button');
  await untilShown(page, 'The payment is recorded');
  await untilShown(page, '80.00 still due');
  await choose(page, 'More to do with this invoice', 'Edit');
  await untilTrue(page, () => location.pathname.startsWith('/ask/change/'));
  await type(page, 'Line 1: how much', '3');
  await untilShown(page, '165.00');
  await press(page, 'Save as version 2', 'button');
  await press(page, 'Update invoice', 'button');
  await untilTrue(page, () => location.pathname.startsWith('/ask/invoices/'));
  await untilShown(page, '135.00 still due');
  await choose(page, 'More to do with this invoice', 'Credit note');
  await type(page, 'How much is credited', '35');
  await type(page, 'Why', 'A scratch');
  await press(page, 'Write credit note', 'button');
  await untilShown(page, '100.00 still due');
  await untilShown(page, 'Credited');
  await expectAccessible(page, 'sheet with credit');

  const other = await sentInvoice(house);
  await go(`/ask/invoices/${other.id}`);
  await choose(page, 'More to do with this invoice', 'Cancel it');
  await type(page, 'Why', 'Billed twice');
  await press(page, 'Cancel invoice', 'button');
  await untilShown(page, 'The invoice is cancelled');
  await untilShown(page, 'Billed twice');
});

test('a question is answered from the sheet; a mail that comes back is told there', async () => {
  const customer = await addCustomer(house.owner, newCustomer('Bouncing', { email: 'bounced@post.example' }));
  const { id, link } = await sentInvoice(house, plainPaper(house, { customerId: customer.id }));
  await askQuestion(link, { text: 'May I fetch it on Saturday?', byName: '' }, 'test');
  await go(`/ask/invoices/${id}`);
  await untilShown(page, 'came back');
  await press(page, 'Answer', 'button');
  await type(page, 'Your answer', 'Yes, from nine.');
  await press(page, 'Send answer', 'button');
  await untilShown(page, 'The answer is on its way');
  await until('the answer’s mail', async () =>
    (await mailOf(stack.standIns, 'bounced@post.example')).some(({ text }) => text.includes('from nine')),
  );
});

test('the list is searched and narrowed; several are dealt with together; a list is kept under a name', async () => {
  const { number } = await sentInvoice(house, plainPaper(house, { reference: 'viola 1931' }));
  await go('/ask/invoices');
  await type(page, 'Find invoices', 'viola 19');
  await untilTrue(page, () => document.querySelectorAll('ul[aria-label="Found invoices"] a[data-row]').length === 1);
  expect(await shown(page)).toContain(number);
  await press(page, 'Several', 'button');
  await press(page, 'All shown', 'button');
  await untilShown(page, '1 ticked');
  await expectAccessible(page, 'list with several ticked');
  await press(page, 'Remind', 'button');
  await untilShown(page, '1 reminded');
  await press(page, 'Narrow the list and sort it', 'button');
  await press(page, 'Save this list', 'button');
  await type(page, 'Name', 'Violas');
  await page.keyboard.press('Enter');
  await untilShown(page, 'is saved');
  await until(
    'the list is kept',
    async () => (await only<{ count: number }>('select count(*)::int from saved_lists')).count === 1,
  );
});

test('an invoice comes again by a schedule whose dates are seen first; one goes to a whole group and to those ticked in the list', async () => {
  const { id } = await sentInvoice(house);
  await go(`/ask/recurring/new?from=${id}`);
  await press(page, 'Day after', 'button');
  await type(page, 'Every', '2');
  await untilTrue(page, () => document.querySelectorAll('ol[aria-label="Coming dates"] li').length === 12);
  await expectAccessible(page, 'repeat form');
  await press(page, 'Make it recurring', 'button');
  await untilTrue(page, () => /\/ask\/recurring\/[0-9a-f-]{36}$/.test(location.pathname));
  await press(page, 'Leave this one out', 'button');
  await untilShown(page, 'The next one is left out');
  await press(page, 'Pause', 'button');
  await untilShown(page, 'It is paused');

  await addCustomer(house.owner, newCustomer('Mute Singer', { groups: ['Choir'] }));
  await addCustomer(house.owner, newCustomer('First Singer', { groups: ['Choir'], email: 'first@choir.example' }));
  await go(`/ask/bulk/new?from=${id}`);
  await pick(page, 'A whole group', 'Choir');
  await type(page, 'Name, address, phone or group', 'okonjo');
  await untilTrue(page, () => document.querySelectorAll('input[type=checkbox]').length === 1);
  await page.click('input[type=checkbox]');
  await untilShown(page, 'Customers from the list, 1 ticked');
  await expectAccessible(page, 'a batch to be');
  await (await page.waitForSelector('button.btn-go'))?.click();
  await untilShown(page, '3 can be sent, 1 cannot.');
  await expectAccessible(page, 'a batch');
  await press(page, 'Send 3 invoices', 'button');
  await untilShown(page, '3 are sent, 1 were refused');
  await until('the batch’s mail', async () => (await mailOf(stack.standIns, 'first@choir.example')).length === 1);
  await until('the ticked one’s mail', async () => (await mailOf(stack.standIns, 'pim@okonjo.example')).length === 1);
});

test('profile with a logo on every paper; tax rules answer for a place; a statement is mailed', async () => {
  await go('/settings/profile');
  await expectAccessible(page, 'profile');
  await give(
    page,
    stack.folder,
    'logo.png',
    await sharp({ create: { width: 300, height: 80, channels: 3, background: '#2c6b4c' } })
      .png()
      .toBuffer(),
  );
  await press(page, 'Use it', 'button');
  await page.waitForSelector('img[alt="The logo"]');
  await type(page, 'Website', 'sallow.example/bench');
  await press(page, 'Save profile', 'button');
  await untilShown(page, 'The profile is saved');
  const { link } = await sentInvoice(house);
  const payer = await openPage(browser);
  await visit(payer.page, `${stack.web}/i/${link}`);
  await untilTrue(
    payer.page,
    () => (document.querySelector('img[alt="Sallow Joinery"]') as HTMLImageElement | null)?.naturalWidth === 300,
  );
  payer.close();

  await go('/records/taxes');
  await press(page, 'Add a rule', 'button');
  await type(page, 'Rule 2: name', 'County tax');
  await type(page, 'Rule 2: rate in percent', '7.5');
  await type(page, 'Rule 2: postal codes', '32004-32099');
  await type(page, 'Postal code', '32055');
  await untilTrue(page, () => document.querySelector('[aria-label="The answer"]')?.textContent?.includes('County tax'));
  await expectAccessible(page, 'tax rules');
  await press(page, 'Save rules', 'button');
  await untilShown(page, 'The tax rules are saved');

  await go(`/records/customers/${house.customerId}/statement`);
  await untilShown(page, 'Balance before');
  await expectAccessible(page, 'statement');
  await press(page, 'Mail it', 'button');
  await until('the statement’s mail', async () =>
    (await mailOf(stack.standIns, 'perpetua@vane.example')).some(({ subject }) =>
      subject.startsWith('Statement of account'),
    ),
  );
});

test('an invoice made elsewhere is brought in; what is no invoice is refused in words', async () => {
  await go('/ask/invoices');
  await press(page, 'Import an invoice made elsewhere', 'button');
  await give(page, stack.folder, 'wrong.xml', '<note/>');
  await untilShown(page, 'There is no invoice in the file');
  await give(
    page,
    stack.folder,
    'theirs.pdf',
    Buffer.from('%PDF-1.4\n%âãÏÓ\n1 0 obj<</Type/Catalog>>endobj\ntrailer<</Root 1 0 R>>\n%%EOF'),
  );
  await untilTrue(page, () => location.pathname.startsWith('/ask/compose/'));
  await untilTrue(
    page,
    () =>
      (document.querySelector('textarea[aria-label="Line 1: what for"]') as HTMLTextAreaElement | null)?.value ===
      'As in theirs.pdf',
  );
});

test('after all of it the books agree, and no page threw an error', async () => {
  expect(await readBusiness(programContext(house.business.id), (db) => ledgerTroubles(db))).toEqual([]);
  expect(errors).toEqual([]);
});
