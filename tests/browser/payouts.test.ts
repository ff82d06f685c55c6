/** Money goes out and comes in at the bank: accounts, a payout that comes back, the partner's page; a statement matched by keys. */
import { randomUUID } from 'node:crypto';
import type { Page } from 'puppeteer-core';
import { expect, test } from 'vitest';
import { addDays, type CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { invoiceById } from '@/db/invoices';
import { ledgerTroubles } from '@/db/ledger';
import { readBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { takePayment } from '@/flows/payment/take-payment';
import { storePartner } from '@/flows/records/partners';
import { playMinute } from '../support/minute';
import { paidOrder, placedOffer } from '../support/offers';
import { sharedOwnerDesk } from '../support/owner-desk';
import { bookOf, clockAt, closeAccount, openAccount, playDays } from '../support/payouts';
import { expectAccessible, give, openPage, press, shown, type, untilShown, untilTrue, visit } from '../support/person';
import { until } from '../support/until';
import { cardToken, mailOf, sentInvoice } from '../support/workshop';

const { stack, house, page, errors, browser, signIn } = await sharedOwnerDesk();

const go = (path: string, on = page) => visit(on, `${stack.web}${path}`);
const books = () => readBusiness(programContext(house.business.id), ledgerTroubles);
/** The next Monday from today on, and the days after it. */
const today = dateInZone(new Date(), 'America/Los_Angeles');
const monday = (() => {
  let day = addDays(today, 3);
  while (new Date(`${day}T12:00:00Z`).getUTCDay() !== 1) day = addDays(day, 1);
  return day;
})();
const day = (count: number): CalendarDate => addDays(monday, count);
const cents = (minor: number) => (minor / 100).toFixed(2);

/** Types the two small sums that came to an account, as they stand in the bank's book. */
async function confirmSums(on: Page, number: string): Promise<void> {
  const sums = (await bookOf(stack, number)).filter(({ words }) => words.includes('to confirm')).slice(-2);
  expect(sums).toHaveLength(2);
  await type(on, 'First sum', cents(sums[1]?.minor ?? 0));
  await type(on, 'Second sum', cents(sums[0]?.minor ?? 0));
  await press(on, 'Confirm', 'button');
}

test('an account is given and confirmed; a payout is worked out, arrives, and a partner’s comes back and goes again by their page', async () => {
  const own = await openAccount(stack, 'Sallow Joinery');
  await go('/money/payouts/accounts');
  await press(page, 'Give an account', 'button');
  await type(page, 'Number of the account', '5600 1234 9999');
  await press(page, 'Send the two sums', 'button');
  await untilShown(page, 'The bank knows no account with this number');
  await type(page, 'Number of the account', own);
  await page.keyboard.press('Tab');
  await untilShown(page, 'The bank has it in the name of Sallow Joinery');
  await press(page, 'Send the two sums', 'button');
  await untilShown(page, 'Waits for its two small sums');
  await expectAccessible(page, 'accounts');
  await playMinute();
  await clockAt(stack, house, day(0), '12:00');
  await go('/money/payouts/accounts');
  await type(page, 'First sum', '0.01');
  await type(page, 'Second sum', '1.00');
  await press(page, 'Confirm', 'button');
  await untilShown(page, 'These are not the two sums');
  await confirmSums(page, own);
  await untilShown(page, 'Confirmed');

  // A partner without an account gets half of what an offer brings.
  const partner = await storePartner(house.owner, null, { name: 'Selma Quist', email: 'selma@quist.example' });
  const split = {
    partners: [{ partnerId: partner.id, percent: '50' }],
    keep: '',
    feeFrom: 'business',
    of: 'net',
  } as const;
  const { called } = await placedOffer(house, { prices: { USD: '40' }, split });
  await paidOrder(stack, called);
  const { link } = await sentInvoice(house);
  const token = await cardToken(stack.standIns, 'corvid-good');
  await takePayment(link, { attemptKey: randomUUID(), cardToken: token, amountMinor: 11_000n }, randomUUID());
  expect(await playDays(stack, house, [day(1)])).toEqual([]);
  await go('/money/payouts');
  await untilShown(page, 'no confirmed account');
  await go('/money/payouts/next.USD');
  await untilShown(page, 'so far');
  await press(page, 'Pay out now', 'button');
  await untilShown(page, 'Paid out: it is on its way');
  await playDays(stack, house, [day(2), day(3)]);
  await go('/money/payouts');
  await untilTrue(page, () => document.querySelector('a[data-row] .name')?.textContent !== undefined);
  await page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>('a[data-row]')]
      .find((one) => one.innerText.includes('Payout 1'))
      ?.click(),
  );
  await untilShown(page, 'in the account since');
  // 110.00 + 44.00, less fees of 5.07 and the partner's 20.00.
  const said = await shown(page);
  for (const words of ['154.00', '−5.07', 'Part of Selma Quist', '−20.00', '128.93']) expect(said).toContain(words);
  await expectAccessible(page, 'payout');

  // She is asked by mail, gives an account on her page on a phone, confirms it, and is paid on the next date.
  await go('/money/payouts/accounts');
  await press(page, 'Ask them for an account', 'button');
  await untilShown(page, 'is asked by e-mail');
  let address = '';
  await until('the mail to the partner', async () => {
    const [mail] = await mailOf(stack.standIns, 'selma@quist.example');
    address = /http:\/\/localhost:\d+(\/partner\/[\w.-]+)/.exec(mail?.text ?? '')?.[1] ?? '';
    return address !== '';
  });
  const hers = await openAccount(stack, 'Selma Quist');
  const phone = await openPage(browser, { width: 390, height: 844 });
  await go(address, phone.page);
  await untilShown(phone.page, '$20.00 still to come');
  await type(phone.page, 'Number of the account', hers);
  await press(phone.page, 'Send the two sums', 'button');
  await untilShown(phone.page, 'to be confirmed');
  await expectAccessible(phone.page, 'partner’s page');
  await playMinute();
  await clockAt(stack, house, day(6), '12:00');
  await go(address, phone.page);
  await confirmSums(phone.page, hers);
  await untilTrue(phone.page, () => !document.body.innerText.includes('to be confirmed'));
  await closeAccount(stack, hers);
  await playDays(stack, house, [day(7), day(8), day(9)]);
  await signIn();
  await go('/today');
  await untilShown(page, 'account closed');
  await go(address, phone.page);
  await untilShown(phone.page, 'came back: account closed');
  const better = await openAccount(stack, 'Selma Quist');
  await type(phone.page, 'Number of the account', better);
  await press(phone.page, 'Send the two sums', 'button');
  await untilShown(phone.page, 'to be confirmed');
  await playMinute();
  await clockAt(stack, house, day(11), '12:00');
  await go(address, phone.page);
  await confirmSums(phone.page, better);
  await untilTrue(phone.page, () => !document.body.innerText.includes('to be confirmed'));
  await playDays(stack, house, [day(14), day(15), day(16)]);
  const came = (await bookOf(stack, better)).filter(({ words }) => words.includes('payout'));
  expect(came.map(({ minor }) => minor)).toEqual([2_000]);
  expect(phone.errors).toEqual([]);
  phone.close();
  expect(await books()).toEqual([]);
});

test('a statement is imported and matched: the sure by one press, the rest by keys, taken back, and no customer’s for ever', async () => {
  const numberOf = async () => {
    const { id } = await sentInvoice(house);
    return (await readBusiness(programContext(house.business.id), (db) => invoiceById(db, id)))?.number ?? '';
  };
  // Weeks have gone by: the session has ended.
  await signIn();
  const [first, second] = [await numberOf(), await numberOf()];
  const csv = (rows: string) => `Date,Name,Details,Amount\r\n${rows}`;
  await go('/money/bank');
  await press(page, 'Import a statement', 'button');
  await give(page, stack.folder, 'broken.xml', '<?xml version="1.0"?><Document>');
  await untilShown(page, 'This file cannot be read');
  const rows = [
    `2026-11-24,Petra Moor,Invoice ${first},110.00`,
    `2026-11-24,Somebody,invoice ${second} less,100.00`,
    '2026-11-24,LARKSPUR,strings,-80.00',
  ];
  await give(page, stack.folder, 'bank.csv', csv(rows.join('\r\n')));
  await untilShown(page, 'What the columns are');
  await type(page, 'Number of the account', '77 0042');
  await expectAccessible(page, 'columns');
  await press(page, 'Read the lines', 'button');
  await untilShown(page, '3 lines');
  await press(page, 'Look at the lines', 'button');
  await go('/money/bank?account=770042&currency=USD');
  await untilShown(page, '3 lines wait');
  await expectAccessible(page, 'bank');
  // The likely one by keys: a part of what is due.
  await page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>('[data-line]')].find((one) => one.innerText.includes('100.00'))?.click(),
  );
  await untilShown(page, `Invoice ${second}`);
  await page.keyboard.press('Enter');
  await untilShown(page, '2 lines wait');
  await page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>('[data-line]')].find((one) => one.innerText.includes('100.00'))?.click(),
  );
  await untilShown(page, 'Matched with');
  await page.keyboard.press('u');
  await untilShown(page, '3 lines wait');
  // Not from a customer, and always so: the next file says it by itself.
  await page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>('[data-line]')]
      .find((one) => one.innerText.includes('LARKSPUR'))
      ?.click(),
  );
  await untilTrue(page, () =>
    document.querySelector('[aria-label="The line in hand"]')?.textContent?.includes('strings'),
  );
  await page.keyboard.press('x');
  await type(page, 'In words', 'Strings from the wholesaler');
  await press(page, 'Always like this for LARKSPUR', 'checkbox');
  await press(page, 'Take it', 'button');
  await untilShown(page, '2 lines wait');
  await press(page, 'Import a statement', 'button');
  await give(page, stack.folder, 'next.csv', csv([...rows, '2026-11-25,LARKSPUR,more strings,-12.00'].join('\r\n')));
  await untilShown(page, '1 of 4 lines are new');
  await untilShown(page, 'One line named itself and is matched');
  await press(page, 'Look at the lines', 'button');
  await go('/money/bank?account=770042&currency=USD');
  await untilShown(page, 'One thing is always so');
  await go('/today');
  await untilShown(page, '2 lines of the bank');
  expect(await books()).toEqual([]);
  expect(errors).toEqual([]);
});
