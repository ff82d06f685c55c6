/** After the payment: the register, giving back in the lines, an overpayment and what becomes of it. */
import { randomUUID } from 'node:crypto';
import { expect, test } from 'vitest';
import { newLine } from '@/core/paper/paper';
import { ledgerTroubles } from '@/db/ledger';
import { readBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { invoiceSheet } from '@/flows/invoice/invoice-sheet';
import { recordReceived } from '@/flows/payment/receive-payment';
import { takePayment } from '@/flows/payment/take-payment';
import { sharedOwnerDesk } from '../support/owner-desk';
import {
  byName,
  expectAccessible,
  goBack,
  pick,
  press,
  type,
  untilShown,
  untilTrue,
  visit,
  visitAgain,
} from '../support/person';
import { until } from '../support/until';
import { cardToken, mailOf, plainPaper, sentInvoice } from '../support/workshop';

const { stack, house, page, errors } = await sharedOwnerDesk();

const lines = () => [
  newLine(randomUUID(), 'piece', { what: 'Lesson', quantity: '5', price: '32', taxes: [], taxesBy: 'person' }),
  newLine(randomUUID(), 'piece', {
    what: 'Rosin, dark',
    quantity: '2',
    price: '9',
    taxes: [house.taxId],
    taxesBy: 'person',
  }),
];
const paidByCard = async () => {
  const invoice = await sentInvoice(house, plainPaper(house, { lines: lines() }));
  const attempt = {
    attemptKey: randomUUID(),
    cardToken: await cardToken(stack.standIns, 'corvid-good'),
    amountMinor: 17_980n,
  };
  expect(await takePayment(invoice.link, attempt, '203.0.113.7')).toMatchObject({ state: 'paid' });
  return invoice;
};
const books = () => readBusiness(programContext(house.business.id), (db) => ledgerTroubles(db));
const row = (words: string) =>
  page.evaluate(
    (text) =>
      [...document.querySelectorAll<HTMLElement>('a[data-row]')].find((one) => one.innerText.includes(text))?.click(),
    words,
  );

test('lines go back from the payment’s sheet: said before, done once, with its credit note; Esc leaves without', async () => {
  const { id, number } = await paidByCard();
  await visit(page, `${stack.web}/money/payments`);
  await untilShown(page, '1 payment');
  await row(`Invoice ${number}`);
  await untilShown(page, 'Way to the bank');
  await expectAccessible(page, 'payment');
  await press(page, 'Refund', 'button');
  await untilShown(page, 'Nothing is chosen yet');
  await page.keyboard.press('Escape');
  await untilTrue(page, () => !document.body.innerText.includes('Nothing is chosen yet'));
  await press(page, 'Refund', 'button');
  await press(page, 'More of Lesson', 'button');
  await press(page, 'More of Lesson', 'button');
  await press(page, 'More of Rosin, dark', 'button');
  // 64.00 + 9.00 + 0.90 tax.
  await untilShown(page, 'gets $73.90 on Corvid ·0819');
  await untilShown(page, 'A credit note over $73.90 is written.');
  await untilShown(page, 'You owe $0.90 less tax.');
  await expectAccessible(page, 'refund');
  await press(page, 'Refund $73.90', 'button');
  await untilShown(page, 'Say why');
  await type(page, 'Why, as the payer reads it', 'Two lessons fell out');
  // Enter gives nothing back; two clicks give back once.
  await page.keyboard.press('Enter');
  await page.evaluate(() => {
    const button = [...document.querySelectorAll('button')].find((one) => one.textContent?.startsWith('Refund $'));
    button?.click();
    button?.click();
  });
  await untilShown(page, 'Part-refunded');
  await untilShown(page, 'Refunded $73.90');
  const { invoice, credits } = await invoiceSheet(house.owner, id);
  expect(invoice).toMatchObject({ refundedMinor: 7390n, creditedMinor: 7390n, dueMinor: 0n });
  expect(credits).toHaveLength(1);
  await untilShown(page, `credit note ${credits[0]?.number}`);
  await until('the refund’s mail', async () =>
    (await mailOf(stack.standIns, 'perpetua@vane.example')).some(({ text }) => text.includes('Two lessons fell out')),
  );
  const told = (await mailOf(stack.standIns, 'perpetua@vane.example')).filter(({ text }) =>
    text.includes('Two lessons fell out'),
  );
  expect(told.map(({ attachments }) => attachments.length)).toEqual([1]);
  expect(await books()).toEqual([]);
  expect(errors).toEqual([]);
});

test('the register is narrowed, and says so after a reload and on the way back; a list is saved, and a file taken along', async () => {
  const { id, number } = await sentInvoice(house);
  await recordReceived(house.owner, id, {
    amountMinor: 11_000n,
    method: 'cheque',
    reference: 'CHQ 0311',
    receivedOn: '',
    requestKey: randomUUID(),
  });
  await visit(page, `${stack.web}/money/payments`);
  await untilShown(page, '2 payments');
  await pick(page, 'Paid how', 'by cheque');
  await untilShown(page, '1 payment');
  await untilTrue(page, () => !document.body.innerText.includes('Corvid'));
  await visitAgain(page);
  await untilShown(page, '1 payment');
  await row(`Invoice ${number}`);
  await untilShown(page, 'by cheque, CHQ 0311');
  await goBack(page);
  await untilShown(page, '1 payment');
  await press(page, 'Narrow the payments and take them along', 'button');
  await untilShown(page, 'Export CSV');
  const csv = await page.evaluate(async () => {
    const link = [...document.querySelectorAll('a')].find((one) => one.textContent === 'Export CSV');
    return (await fetch(link?.href ?? '')).text();
  });
  expect(csv.trim().split('\r\n')).toHaveLength(2);
  expect(csv).toContain('CHQ 0311');
  await press(page, 'Save this list', 'button');
  await type(page, 'Name', 'Cheques');
  await press(page, 'Save list', 'button');
  await untilShown(page, '“Cheques” is saved');
  await visit(page, `${stack.web}/money/payments`);
  await pick(page, 'What is shown', 'Cheques');
  await untilShown(page, '1 payment');
  await type(page, 'Find payments', 'nobody like that');
  await untilShown(page, 'No payment like that');
  await expectAccessible(page, 'register');
  expect(errors).toEqual([]);
});

test('what was paid too much is kept where that is said, and pays the next invoice', async () => {
  const first = await sentInvoice(house);
  const second = await sentInvoice(house);
  await visit(page, `${stack.web}/ask/invoices/${first.id}?do=received`);
  await type(page, 'How much', '150');
  await press(page, 'Record payment', 'button');
  await untilShown(page, 'more than is still due');
  const keep = await byName(page, 'It is more than is due: the rest stays to the customer’s credit', 'checkbox');
  await keep?.click();
  await press(page, 'Record payment', 'button');
  await untilShown(page, 'to their credit');
  await visit(page, `${stack.web}/ask/invoices/${second.id}`);
  await untilShown(page, '$40.00');
  await press(page, 'Use the credit', 'button');
  await untilShown(page, 'The credit is used for this invoice');
  expect((await invoiceSheet(house.owner, second.id)).invoice.dueMinor).toBe(7000n);
  expect(await books()).toEqual([]);
  expect(errors).toEqual([]);
});
