/** A payment is asked back by its card's holder: told at once, answered with what is known, decided while one looks on. */

import { randomUUID } from 'node:crypto';
import { PDFDocument } from '@cantoo/pdf-lib';
import { expect, test } from 'vitest';
import { ledgerTroubles } from '@/db/ledger';
import { readBusiness } from '@/db/transaction';
import { disputeList } from '@/flows/dispute/dispute-sheet';
import { programContext } from '@/flows/door/program';
import { takePayment } from '@/flows/payment/take-payment';
import { asSuperuser } from '../support/database';
import { decideDispute, disputePayment } from '../support/disputes';
import { sharedOwnerDesk } from '../support/owner-desk';
import {
  byName,
  expectAccessible,
  give,
  press,
  type,
  untilShown,
  untilTrue,
  visit,
  visitAgain,
} from '../support/person';
import { until } from '../support/until';
import { cardToken, mailOf, sentInvoice } from '../support/workshop';

const { stack, house, page, errors } = await sharedOwnerDesk();

const WORDS = 'What happened, in your own words';

async function paidByCard(): Promise<{ paymentId: string; number: string }> {
  const { link, id, number } = await sentInvoice(house);
  const token = await cardToken(stack.standIns, 'corvid-good');
  await takePayment(link, { attemptKey: randomUUID(), cardToken: token, amountMinor: 11_000n }, randomUUID());
  const [row] = await asSuperuser<{ id: string }>(stack.admin, 'select id from payments where invoice_id = $1', [id]);
  return { paymentId: row?.id ?? '', number };
}

/** A file of the desk's as the person's browser fetches it: its type, its pages, and how many of them are the square ones of a test. */
async function fetched(path: string): Promise<{ type: string; pages: number; squares: number }> {
  const { type: kind, text } = await page.evaluate(async (address) => {
    const answer = await fetch(address);
    const bytes = new Uint8Array(await answer.arrayBuffer());
    let read = '';
    for (const byte of bytes) read += String.fromCharCode(byte);
    return { type: answer.headers.get('content-type') ?? '', text: btoa(read) };
  }, path);
  if (!kind.startsWith('application/pdf')) return { type: kind, pages: 0, squares: 0 };
  const pages = (await PDFDocument.load(Buffer.from(text, 'base64'))).getPages();
  return { type: kind, pages: pages.length, squares: pages.filter((one) => one.getWidth() === one.getHeight()).length };
}

test('a dispute shows on Today by itself; the answer is kept while it is typed, sent once, and won before one’s eyes', async () => {
  const { paymentId, number } = await paidByCard();
  await visit(page, `${stack.web}/today`);
  expect(await disputePayment(stack, paymentId)).toBe(true);
  await untilShown(page, 'Answer disputes');
  await untilShown(page, 'The holder does not recognise the payment');
  await until('the owners are told by mail', async () =>
    (await mailOf(stack.standIns, 'owner@sallow.example')).some(({ subject }) => subject.includes('is disputed')),
  );
  const [open] = (await disputeList(house.owner)).open;
  await visit(page, `${stack.web}/money/disputes`);
  await untilShown(page, 'To be answered');
  await expectAccessible(page, 'disputes');
  await visit(page, `${stack.web}/money/disputes/${open?.id}`);
  await untilShown(page, 'days left');
  await untilShown(page, 'Fee for the dispute');
  await expectAccessible(page, 'dispute');

  await type(page, WORDS, 'She signed at the door');
  // On a busy machine a page is a moment behind its keys: what it has written down outlives the reload.
  await untilTrue(page, () =>
    JSON.stringify([{ ...localStorage }, { ...sessionStorage }]).includes('She signed at the door'),
  );
  await visitAgain(page);
  await byName(page, WORDS, 'textbox');
  await untilTrue(page, () => document.querySelector('textarea')?.value === 'She signed at the door');
  const own = await PDFDocument.create();
  for (let at = 0; at < 3; at++) own.addPage([300, 300]);
  await give(page, stack.folder, 'proof.pdf', Buffer.from(await own.save()));
  await untilShown(page, 'proof.pdf');
  await untilShown(page, 'Kept');
  const answer = `/files/disputes/${open?.id}`;
  const whole = await fetched(answer);
  expect(whole.squares).toBe(3);
  // What is left out of the answer is not in its file; put back, it is.
  await press(page, 'Receipt goes along', 'checkbox');
  await until('the receipt stays out', async () => (await fetched(answer)).pages < whole.pages);
  await press(page, 'Receipt goes along', 'checkbox');
  await until('the receipt goes along', async () => (await fetched(answer)).pages === whole.pages);

  await press(page, 'Send the answer', 'button');
  await untilShown(page, 'nothing can be added afterwards');
  await press(page, 'Send it', 'button');
  await untilShown(page, 'The bank decides within some weeks');
  await untilShown(page, 'She signed at the door');
  expect(await fetched(`${answer}?form=sent`)).toEqual(whole);
  expect(await decideDispute(stack, open?.key ?? '', true)).toBe(true);
  await untilShown(page, 'the sum comes back with the next payout');
  await visit(page, `${stack.web}/money/payments/${paymentId}`);
  await untilShown(page, 'Dispute won, given back');
  await untilShown(page, `Invoice ${number}`);
  expect((await fetched(`/files/payment-file/${paymentId}`)).type).toBe('application/zip');
  expect(await readBusiness(programContext(house.business.id), ledgerTroubles)).toEqual([]);
});

test('a loss is accepted only after it was asked about; the payment is not refunded beside it', async () => {
  const { paymentId } = await paidByCard();
  await disputePayment(stack, paymentId, 'charged-twice');
  await visit(page, `${stack.web}/money/disputes`);
  await untilShown(page, 'it was charged twice');
  await page.evaluate(() => document.querySelector<HTMLElement>('a[data-row]')?.click());
  await untilShown(page, 'accept the loss');
  await press(page, 'Accept the loss', 'button');
  await untilShown(page, 'This cannot be undone');
  await page.keyboard.press('Escape');
  await untilTrue(page, () => !document.querySelector('[role="dialog"]'));
  await press(page, 'Accept the loss', 'button');
  await untilShown(page, 'This cannot be undone');
  await page.evaluate(() => document.querySelector<HTMLElement>('[role="dialog"] button[type="submit"]')?.click());
  await untilShown(page, 'the loss was accepted');
  await visit(page, `${stack.web}/money/payments/${paymentId}`);
  await untilShown(page, 'Dispute lost');
  expect(await page.$('::-p-aria([name="Refund"][role="button"])')).toBeNull();
  expect(await readBusiness(programContext(house.business.id), ledgerTroubles)).toEqual([]);
  expect(errors).toEqual([]);
});
