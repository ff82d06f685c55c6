/** A customer's data by the people who have to do with it: fetched on their own page, erased at the desk, a business taken along and closed. */
import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from 'vitest';
import { newCustomer } from '@/core/customer/customer';
import { takePayment } from '@/flows/payment/take-payment';
import { ownPageToken } from '@/flows/plan/links';
import { addCustomer } from '@/flows/records/customers';
import { asSuperuser } from '../support/database';
import { sharedOwnerDesk } from '../support/owner-desk';
import { expectAccessible, openFinder, press, type, untilShown, untilTrue, visit, visitAgain } from '../support/person';
import { cardToken, plainPaper, sentInvoice } from '../support/workshop';

const { stack, house, page, browser, errors } = await sharedOwnerDesk();
const text = () => page.evaluate(() => document.body.innerText);

/** What an address answers to whoever is signed in here, as a file; the names in it where it is an archive. */
async function fetched(path: string): Promise<{ status: number; names: string[] }> {
  const [status, bytes] = await page.evaluate(async (asked) => {
    const answer = await fetch(asked);
    const read = new Uint8Array(await answer.arrayBuffer());
    let binary = '';
    for (const byte of read) binary += String.fromCharCode(byte);
    return [answer.status, btoa(binary)] as const;
  }, path);
  if (status !== 200) return { status, names: [] };
  const at = join(stack.folder, `${Math.random()}.zip`);
  writeFileSync(at, Buffer.from(bytes, 'base64'));
  return { status, names: execFileSync('unzip', ['-Z1', at], { encoding: 'utf8' }).trim().split('\n') };
}

test('a customer reads what is kept of them in their language, takes it along, and is erased once nothing is open', async () => {
  const email = 'quill@owl.example';
  const { id } = await addCustomer(
    house.owner,
    newCustomer('Zephyrine Quillfeather-Ångström', { email, language: 'de' }),
  );
  const { link, number } = await sentInvoice(house, plainPaper(house, { customerId: id }));

  await page.setViewport({ width: 390, height: 844 });
  await visit(page, `${stack.web}/i/${link}`);
  await press(page, 'Was von Ihnen aufbewahrt wird, und warum', 'link');
  await untilTrue(page, () => location.pathname.startsWith('/kept/'));
  await untilShown(page, '7 full years after the year they are of');
  await expectAccessible(page, 'what is kept');
  for (const [language, words] of [
    ['Deutsch', '7 volle Jahre'],
    ['Français', '7 années entières'],
    ['Español', '7 años completos'],
  ] as const) {
    await press(page, language, 'link');
    await untilShown(page, words);
  }
  await visit(page, `${stack.web}/m/${ownPageToken(house.business.id, id, new Date())}`);
  await untilShown(page, 'Ihre Daten');
  await expectAccessible(page, 'their own page');
  const own = await fetched(`${new URL(page.url()).pathname}/data`);
  expect(own.names).toEqual(['read-me.txt', 'everything.json', `papers/invoices/${number}.pdf`]);
  await visit(page, `${stack.web}/kept/nobody`);
  expect(await text()).not.toContain('Sallow Joinery');

  await page.setViewport({ width: 1280, height: 800 });
  await visit(page, `${stack.web}/records/customers/${id}`);
  expect((await fetched(`/files/customers/${id}`)).names).toHaveLength(3);
  await press(page, 'Erase this customer', 'button');
  await untilShown(page, '1 invoice is not settled.');
  await expectAccessible(page, 'what is open');
  await press(page, 'Close', 'button');
  const token = await cardToken(stack.standIns, 'corvid-good');
  await takePayment(link, { attemptKey: crypto.randomUUID(), cardToken: token, amountMinor: 11_000n }, 'a');
  await visitAgain(page);
  await press(page, 'Erase this customer', 'button');
  await untilShown(page, 'because the law wants that');
  await expectAccessible(page, 'erasing');
  // Who has just signed in is not asked; after a while everybody is.
  await asSuperuser(stack.admin, `update sessions set proved_at = now() - interval '10 minutes'`);
  await press(page, 'Erase', 'button');
  await untilShown(page, 'Show that it is you');
  await type(page, 'Your password', 'rosin and maple');
  await press(page, 'Go on', 'button');
  await untilTrue(page, () => location.pathname === '/records/customers');
  await untilTrue(page, () => !document.body.innerText.includes('Quillfeather'));
  await visit(page, `${stack.web}/records/customers/${id}`);
  await untilShown(page, 'Erased on');
  expect(await text()).not.toMatch(/Quillfeather|owl\.example/);
  await visit(page, `${stack.web}/i/${link}`);
  expect(await text()).not.toContain('Quillfeather');
  expect(errors.filter((error) => !error.includes('404'))).toEqual([]);
});

test('how long is the owner’s to decide above the law; everything is taken along, the business closed, looked at and opened again', async () => {
  await visit(page, `${stack.web}/today`);
  await openFinder(page);
  await page.keyboard.type('retention');
  await untilShown(page, 'What is kept, taken along, closed');
  await page.keyboard.press('Enter');
  await untilTrue(page, () => location.pathname === '/settings/data');
  await expectAccessible(page, 'data');
  await type(page, 'Papers, in years', '3');
  await type(page, 'What mails said, in months', 'some');
  await press(page, 'Save how long', 'button');
  await untilShown(page, 'Write a whole number.');
  await type(page, 'What mails said, in months', '12');
  await press(page, 'Save how long', 'button');
  await untilShown(page, 'A whole number from 7 to 30.');
  await type(page, 'Papers, in years', '11');
  await press(page, 'Save how long', 'button');
  await untilShown(page, 'This holds from now on');

  await untilShown(page, 'Money in one currency is not in your account yet');
  // The money of the one payment is taken for paid out here: the payouts' own journey goes that way.
  await asSuperuser(
    stack.admin,
    `with entry as (insert into ledger_entries (id, business_id, booked_on, words, cause, booked_at, posting_count)
       values (gen_random_uuid(), $1, current_date, 'paid out', 'test:paid-out', now(), 2) returning id),
     left_there as (select -sum(amount_minor) as minor, currency from ledger_postings where business_id = $1 and account = 'processor-clearing' group by currency)
     insert into ledger_postings (business_id, entry_id, position, account, currency, amount_minor)
       select $1, entry.id, 0, 'processor-clearing', currency, minor from entry, left_there
       union all select $1, entry.id, 1, 'bank', currency, -minor from entry, left_there`,
    [house.business.id],
  );
  await visitAgain(page);
  await untilShown(page, 'Take everything along first');
  await press(page, 'Take everything along', 'button');
  await untilShown(page, 'The file is being written');
  expect((await fetched('/files/everything')).names).toEqual(
    expect.arrayContaining(['read-me.txt', 'data/invoices.json', 'data/ledger-postings.json']),
  );
  await visitAgain(page);
  await press(page, 'Close the business', 'button');
  await type(page, 'Type the name of the business', 'Sallow');
  await press(page, 'Close it', 'button');
  await untilShown(page, 'This is not the name of the business.');
  await expectAccessible(page, 'closing');
  await type(page, 'Type the name of the business', 'Sallow Joinery');
  await press(page, 'Close it', 'button');
  await untilShown(page, 'This business was closed on');
  await visit(page, `${stack.web}/records/customers/new`);
  await type(page, 'Name', 'Too Late');
  await press(page, 'Add customer', 'button');
  await untilShown(page, 'This business is closed');
  await visit(page, `${stack.web}/settings/data`);
  await page.setViewport({ width: 390, height: 844 });
  await expectAccessible(page, 'closed, on a phone');
  await press(page, 'Open it again', 'button');
  await untilTrue(page, () => !document.body.innerText.includes('This business was closed on'));
  // What is added or brought in stands in place of its list on a phone, as an open row does.
  for (const [path, words] of [
    ['/records/customers/new', 'Add customer'],
    ['/records/customers/import', 'Customers from a file'],
    ['/records/items/new', 'Add a picture'],
    ['/records/items/import', 'Items from a file'],
    ['/ask/invoices/import', 'Open invoices from a file'],
  ] as const) {
    await visit(page, `${stack.web}${path}`);
    await untilShown(page, words);
    await expectAccessible(page, path);
  }
  await visit(page, `${stack.web}/records/customers`);
  await untilTrue(page, () => document.querySelector('aside')?.checkVisibility() === true);
  await page.setViewport({ width: 1280, height: 800 });
  expect(browser.connected).toBe(true);
});
