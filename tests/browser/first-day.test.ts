/** Somebody who has never been here begins, sends an invoice, is paid, and is paid out; then forgets the password. */
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ElementHandle } from 'puppeteer-core';
import sharp from 'sharp';
import { afterAll, expect, test } from 'vitest';
import { addDays } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { startChromium } from '../support/chromium';
import { asSuperuser } from '../support/database';
import { playMinute } from '../support/minute';
import { bookOf, openAccount, playDays } from '../support/payouts';
import {
  byName,
  expectAccessible,
  fillCard,
  follow,
  openPage,
  press,
  shown,
  signInAs,
  type,
  untilShown,
  untilTrue,
  visit,
} from '../support/person';
import { startStack } from '../support/stack';
import { until } from '../support/until';
import { type House, mailOf } from '../support/workshop';

const stack = await startStack();
const { browser, close } = await startChromium();
afterAll(async () => {
  await close();
  await stack.close();
});

const EMAIL = 'wren@lark.example';
const PASSWORD = 'seven larks and a plane';
const desk = await openPage(browser, { width: 1280, height: 800 });

/** The text of the latest mail to an address that has these words in its subject. */
async function mailWith(to: string, words: string): Promise<string> {
  let text = '';
  await until(`the mail “${words}”`, async () => {
    const found = (await mailOf(stack.standIns, to)).find(({ subject }) => subject.includes(words));
    text = found?.text ?? '';
    return found !== undefined;
  });
  return text;
}

let payLink = '';

test('from the page before signing in to the first sent invoice: few presses, and everything is said', async () => {
  const { page, errors } = desk;
  // What a person does: each press, and each field that is filled.
  let deeds = 0;
  const pressed = async (name: string, role: string) => {
    deeds++;
    await press(page, name, role);
  };
  const typed = async (name: string, text: string) => {
    deeds++;
    await type(page, name, text);
  };

  await visit(page, stack.web);
  await expectAccessible(page, 'the page before signing in');
  deeds++;
  await follow(page, 'a[href="/sign-up"].btn');
  await expectAccessible(page, 'begin');
  await typed('Your name', 'Wren Osei');
  await typed('Your business', 'Lark Joinery');
  await typed('E-mail address', EMAIL);
  await typed('Password', 'password123');
  await pressed('Write your first invoice', 'button');
  // A wrong entry: it is said where it is, and nothing typed is lost.
  await untilShown(page, 'one of the passwords that are tried first');
  expect(
    await (await byName(page, 'Your business', 'textbox'))?.evaluate((field) => (field as HTMLInputElement).value),
  ).toBe('Lark Joinery');
  await typed('Password', PASSWORD);
  await pressed('Write your first invoice', 'button');
  await untilTrue(page, () => location.pathname.startsWith('/ask/compose/'));

  await untilShown(page, 'Your first invoice is half written');
  await untilShown(page, 'What opens what');
  await expectAccessible(page, 'the first invoice');
  await pressed('Use “Two hours of work”', 'button');
  // Who pays: written, and added on the spot.
  await pressed('Who pays: nobody chosen yet', 'button');
  await page.waitForSelector('[cmdk-input]');
  deeds++;
  await page.keyboard.type('Perpetua Vane');
  await untilShown(page, 'Add “Perpetua Vane” as a new customer');
  deeds++;
  await page.keyboard.press('Enter');
  await typed('E-mail address', 'perpetua@vane.example');
  await pressed('Add customer', 'button');
  await byName(page, 'Who pays: Perpetua Vane');
  // Sending is not open yet: said, with the place to go on.
  await pressed('Send invoice', 'button');
  await untilShown(page, 'Sending opens when your address is confirmed');
  const figures = /\b\d{3} \d{3}\b/.exec(await mailWith(EMAIL, 'Confirm your address'))?.[0] ?? '';
  deeds++;
  await page.keyboard.type(figures);
  deeds++;
  await page.keyboard.press('Enter');
  await untilShown(page, '2 of 5 open');
  await pressed('Send invoice', 'button');
  await untilShown(page, 'The number is given now');
  deeds++;
  await page.keyboard.press('Enter');
  await untilTrue(page, () => location.pathname.startsWith('/ask/invoices/'));
  await untilShown(page, 'Perpetua Vane');
  const text = await mailWith('perpetua@vane.example', 'Invoice');
  expect(text).toContain('Lark Joinery');
  // The sample that was not used was never sent.
  expect(text).not.toContain('What was used for it');
  payLink = /https?:\/\/[^\s]+\/i\/[^\s]+/.exec(text)?.[0] ?? '';
  expect(deeds).toBeLessThanOrEqual(25);
  console.info(`from the first page to the first sent invoice: ${deeds} presses and fields`);
  expect(errors).toEqual([]);
});

test('before cards are open nobody is asked for one; two answers, and the customer pays on a phone', async () => {
  const { page, errors } = desk;
  const payer = await openPage(browser, { width: 390, height: 844 });
  await visit(payer.page, payLink);
  await untilShown(payer.page, 'Lark Joinery');
  expect(await payer.page.$('iframe.card-fields')).toBeNull();
  await visit(page, `${stack.web}/today`);
  await untilShown(page, 'What opens what');
  await follow(page, 'a[href="/settings/cards"]');
  await expectAccessible(page, 'two answers');
  await type(page, 'What you sell', 'joinery');
  await untilShown(page, 'Manufacture of furniture');
  await (await byName(page, 'Kinds of business', 'list'))?.$$('button').then(([first]) => first?.click());
  await untilShown(page, 'LARK JOINERY');
  await press(page, 'Open card payments', 'button');
  await untilShown(page, '3 of 5 open');
  await expectAccessible(page, 'today of the first days');
  await visit(payer.page, payLink);
  await fillCard(payer.page, 'corvid-good');
  const pay = (await shown(payer.page)).match(/Pay [^\n]*?120\.00/)?.[0] ?? '';
  await press(payer.page, pay, 'button');
  await untilShown(payer.page, 'Thank you');
  await untilShown(page, 'Perpetua Vane');
  expect(errors).toEqual([]);
  expect(payer.errors).toEqual([]);
  payer.close();
});

test('who stands behind it is shown by camera and file, looked at for two days, and then money is paid out', async () => {
  const { page, errors } = desk;
  let deeds = 0;
  const pressed = async (name: string, role = 'button') => {
    deeds++;
    await press(page, name, role);
  };
  const typed = async (name: string, text: string) => {
    deeds++;
    await type(page, name, text);
  };
  const [{ id, zone } = { id: '', zone: '' }] = await asSuperuser<{ id: string; zone: string }>(
    stack.admin,
    `select business_id as id, zone from businesses where name = 'Lark Joinery'`,
  );
  const house = { business: { id, zone } } as House;
  const today = dateInZone(new Date(), zone);
  // Fourteen days after they began the session is over: on the last of these it still goes on, whatever the hour.
  const days = Array.from({ length: 13 }, (_, at) => addDays(today, at + 1));
  await visit(page, `${stack.web}/today`);
  await follow(page, 'a[href="/settings/identity"]');
  await expectAccessible(page, 'who stands behind it');
  await typed('Your whole name, as in your document', 'Wren');
  await typed('Day of birth', '2/30/1984');
  await pressed('Save');
  await untilShown(page, 'Say the day of birth');
  await typed('Day of birth', '2/3/1984');
  await pressed('Save');
  await untilShown(page, 'Write the whole name');
  await typed('Your whole name, as in your document', 'Wren Osei');
  await typed('What you are in the business', 'Owner');
  await typed('Percent of it that is theirs', '100');
  await pressed('Save');
  await untilShown(page, 'Document, front: Wren Osei');
  await pressed('Camera for Your face, now of Wren Osei');
  await untilTrue(page, () => !document.querySelector<HTMLButtonElement>('[role=dialog] .btn-go')?.disabled);
  await expectAccessible(page, 'the camera');
  await pressed('Take the picture');
  await untilTrue(page, () => !document.body.innerText.includes('Your face, now: Wren Osei'));
  const file = await page.$('input[aria-label="File for Document, front of Wren Osei"]');
  const folder = mkdtempSync(join(tmpdir(), 'dahlia-pictures-'));
  const front = join(folder, 'front.png');
  const page1 = await sharp({ create: { width: 600, height: 400, channels: 3, background: '#a0b0c0' } })
    .png()
    .toBuffer();
  writeFileSync(front, page1);
  deeds++;
  await (file as ElementHandle<HTMLInputElement> | null)?.uploadFile(front);
  await untilTrue(page, () => !document.body.innerText.includes('Still missing'));
  await asSuperuser(stack.admin, `update sessions set proved_at = now() - interval '1 hour'`);
  await pressed('Send it to the office');
  await untilShown(page, 'Show that it is you');
  await typed('Your password', PASSWORD);
  await pressed('Go on');
  await untilShown(page, 'The office is looking since');
  await expectAccessible(page, 'being looked at');

  const own = await openAccount(stack, 'Lark Joinery');
  await visit(page, `${stack.web}/money/payouts/accounts`);
  await pressed('Give an account');
  await typed('Number of the account', own);
  await page.keyboard.press('Tab');
  await untilShown(page, 'in the name of Lark Joinery');
  await pressed('Send the two sums');
  await untilShown(page, 'Waits for its two small sums');
  await playMinute();
  await playDays(stack, house, days.slice(0, 4));
  expect(await mailWith(EMAIL, 'payouts are open')).toContain('It is known who stands behind your business');
  await visit(page, `${stack.web}/money/payouts/accounts`);
  const sums = (await bookOf(stack, own)).filter(({ words }) => words.includes('to confirm')).slice(-2);
  await typed('First sum', ((sums[0]?.minor ?? 0) / 100).toFixed(2));
  await typed('Second sum', ((sums[1]?.minor ?? 0) / 100).toFixed(2));
  await pressed('Confirm');
  await untilShown(page, 'Confirmed');
  await playDays(stack, house, days.slice(4));
  await until('the money is there', async () => {
    const lines = await bookOf(stack, own);
    return lines.some(({ words, minor }) => !words.includes('to confirm') && minor > 10_000);
  });
  console.info(`from the first payment to the first payout: ${deeds} presses and fields`);
  await visit(page, `${stack.web}/settings/identity`);
  await untilShown(page, 'It is known since');
  expect(errors).toEqual([]);
});

test('a forgotten password is chosen anew by a link, and every other place is signed out', async () => {
  const { page } = desk;
  const other = await openPage(browser, { width: 390, height: 844 });
  await visit(other.page, `${stack.web}/forgotten`);
  await expectAccessible(other.page, 'forgotten password');
  await type(other.page, 'E-mail address', EMAIL);
  await press(other.page, 'Send the link', 'button');
  await untilShown(other.page, 'a link is on its way there');
  const link = /https?:\/\/[^\s]+\/password\/[^\s]+/.exec(await mailWith(EMAIL, 'A new password'))?.[0] ?? '';
  await visit(other.page, link);
  await expectAccessible(other.page, 'a new password');
  await type(other.page, 'New password', 'eight herons on ice');
  await press(other.page, 'Change the password', 'button');
  await untilShown(other.page, 'You are signed out everywhere');
  await visit(other.page, link);
  await untilShown(other.page, 'This link is over');
  await visit(page, `${stack.web}/today`);
  await untilTrue(page, () => location.pathname === '/sign-in');
  await signInAs(page, stack.web, EMAIL, 'eight herons on ice');
  await visit(page, `${stack.web}/settings/you`);
  await untilShown(page, 'Where you are signed in');
  await untilShown(page, 'here');
  await expectAccessible(page, 'you');
  other.close();
});
