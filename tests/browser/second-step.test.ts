/** A second step when signing in: app, passkey, recovery code; asked again; asked of everybody; lost; and another address. */
import { Secret, TOTP } from 'otpauth';
import type { Page } from 'puppeteer-core';
import { expect, test } from 'vitest';
import { takePayment } from '@/flows/payment/take-payment';
import { asSuperuser } from '../support/database';
import { sharedOwnerDesk } from '../support/owner-desk';
import {
  expectAccessible,
  openPage,
  press,
  shown,
  signInAs,
  type,
  untilShown,
  untilTrue,
  visit,
  visitAgain,
} from '../support/person';
import { setClock } from '../support/plans';
import { until } from '../support/until';
import { cardToken, mailOf, sentInvoice } from '../support/workshop';

const { stack, house, page, errors, browser } = await sharedOwnerDesk();
const OWNER = 'owner@sallow.example';
const PASSWORD = 'rosin and maple';

/** What a phone's app shows: good for this half minute and the next, however long typing takes. */
let phone = (): string => '';
let codes: string[] = [];

async function linkTo(email: string, path: string): Promise<string> {
  let link = '';
  await until(`the link to ${path}`, async () => {
    const [latest] = await mailOf(stack.standIns, email);
    link = new RegExp(`https?://\\S+/${path}/\\S+`).exec(latest?.text ?? '')?.[0] ?? '';
    return link !== '';
  });
  return link;
}

/** An authenticator of the browser's own, which says who its person is without asking. */
async function withAuthenticator(one: Page): Promise<void> {
  const session = await one.createCDPSession();
  await session.send('WebAuthn.enable');
  await session.send('WebAuthn.addVirtualAuthenticator', {
    options: {
      protocol: 'ctap2',
      transport: 'internal',
      hasResidentKey: true,
      hasUserVerification: true,
      isUserVerified: true,
      automaticPresenceSimulation: true,
    },
  });
}

const signOut = async (one: Page): Promise<void> => {
  await one.evaluate(() =>
    fetch('/api/sign-out', { method: 'POST', headers: { 'content-type': 'application/json' }, body: '{}' }),
  );
};

/** As if the person had last shown who they are an hour ago. */
const anHourLater = (): Promise<unknown> =>
  asSuperuser(stack.admin, `update sessions set proved_at = now() - interval '1 hour'`);

test('an app is set up by its code, and then asked for; a used code and a wrong one do not let in', async () => {
  await visit(page, `${stack.web}/settings/you`);
  await expectAccessible(page, 'you');
  await press(page, 'Set up an app', 'button');
  await untilShown(page, 'Or type this key');
  await expectAccessible(page, 'an app');
  const key = await page.$eval('[role=dialog] .select-all', (one) => one.textContent ?? '');
  const totp = new TOTP({ secret: Secret.fromBase32(key.replaceAll(' ', '')) });
  phone = () => totp.generate();
  await type(page, 'Six figures of the app', 'abc');
  await press(page, 'Set it up', 'button');
  await untilShown(page, 'This code is not right');
  await type(page, 'Six figures of the app', phone());
  await press(page, 'Set it up', 'button');
  await untilShown(page, 'Ten recovery codes');
  await expectAccessible(page, 'recovery codes');
  codes = await page.$$eval('[role=dialog] li', (all) => all.map((one) => one.textContent ?? ''));
  expect(new Set(codes).size).toBe(10);
  await press(page, 'I have kept them', 'button');
  await untilShown(page, '10 of 10 left');

  await signOut(page);
  await visit(page, `${stack.web}/sign-in`);
  await type(page, 'E-mail address', OWNER);
  await type(page, 'Password', PASSWORD);
  await page.keyboard.press('Enter');
  await untilShown(page, 'Your second step');
  await expectAccessible(page, 'the second step');
  await type(page, 'Code of your authenticator app', '000000');
  await page.keyboard.press('Enter');
  await untilShown(page, 'This code is not right');
  await press(page, 'Recovery code instead', 'button');
  await type(page, 'Recovery code', (codes[0] ?? '').toLowerCase().replace('-', ' '));
  await page.keyboard.press('Enter');
  await untilTrue(page, () => location.pathname === '/today');
  expect(errors).toEqual([]);
});

test('a passkey is made, signs in alone, and as the second step', async () => {
  await withAuthenticator(page);
  await visit(page, `${stack.web}/settings/you`);
  await untilShown(page, '9 of 10 left');
  await press(page, 'Make a passkey', 'button');
  await type(page, 'Name', 'Laptop in the shop');
  await press(page, 'Make the passkey', 'button');
  await untilShown(page, 'not used yet');
  await signOut(page);
  await visit(page, `${stack.web}/sign-in`);
  await press(page, 'Sign in with a passkey', 'button');
  await untilTrue(page, () => location.pathname === '/today');
  await signOut(page);
  await visit(page, `${stack.web}/sign-in`);
  await type(page, 'E-mail address', OWNER);
  await type(page, 'Password', PASSWORD);
  await page.keyboard.press('Enter');
  await press(page, 'Use the passkey', 'button');
  await untilTrue(page, () => location.pathname === '/today');
  await visit(page, `${stack.web}/settings/you`);
  expect(await shown(page)).toContain('last used');
  expect(errors).toEqual([]);
});

test('what cannot be taken back asks again, and is then done by itself; a small refund does not', async () => {
  await anHourLater();
  await visit(page, `${stack.web}/settings/people`);
  await press(page, 'Invite somebody', 'button');
  await type(page, 'E-mail address', 'heron@lark.example');
  await press(page, 'Send the invitation', 'button');
  await untilShown(page, 'Show that it is you');
  await expectAccessible(page, 'asked again');
  // Left: nothing is done, and what was typed is there.
  await page.keyboard.press('Escape');
  await untilTrue(page, () => !document.body.innerText.includes('Show that it is you'));
  expect(await page.$eval('[role=dialog] input[type=email]', (one) => (one as HTMLInputElement).value)).toBe(
    'heron@lark.example',
  );
  await press(page, 'Send the invitation', 'button');
  await untilShown(page, 'Show that it is you');
  await press(page, 'Use the passkey', 'button');
  await untilShown(page, 'good until');

  await anHourLater();
  const sent = await sentInvoice(house);
  const card = await cardToken(stack.standIns, 'corvid-good');
  await takePayment(sent.link, { attemptKey: crypto.randomUUID(), cardToken: card, amountMinor: 11_000n }, 'a');
  const [paid] = await asSuperuser<{ id: string }>(stack.admin, 'select id from payments limit 1');
  await visit(page, `${stack.web}/settings/people`);
  const answered = (path: string, body: object) =>
    page.evaluate(
      async (to, given) =>
        (
          await fetch(to, {
            method: 'POST',
            headers: { 'content-type': 'application/json' },
            body: JSON.stringify(given),
          })
        ).json(),
      path,
      body,
    ) as Promise<{ ok: boolean; code?: string }>;
  const refund = (sum: number) =>
    answered(`/api/payments/${paid?.id}/refund`, {
      wish: { by: 'sum', amountMinor: sum },
      method: 'card',
      reference: '',
      owedAgain: false,
      reason: 'Too much',
      aside: {},
      requestKey: crypto.randomUUID(),
    });
  await asSuperuser(stack.admin, 'update businesses set asked_above_minor = 5000');
  expect(await refund(5001)).toMatchObject({ ok: false, code: 'prove-again' });
  expect(await refund(5000)).toMatchObject({ ok: true });
  expect(errors).toEqual([]);
});

test('the owner asks everybody for one: a clerk on a phone sets one up before anything else', async () => {
  const clerk = `clerk-${house.business.id.slice(0, 8)}@sallow.example`;
  const guest = await openPage(browser, { width: 390, height: 844 });
  await signInAs(guest.page, stack.web, clerk, PASSWORD);
  await visit(page, `${stack.web}/settings/people`);
  await page.click('input[type=checkbox]');
  await type(page, 'Ask again before giving back more than', 'a lot');
  await press(page, 'Save how people sign in', 'button');
  await untilShown(page, 'Write a sum.');
  await type(page, 'Ask again before giving back more than', '80');
  await press(page, 'Save how people sign in', 'button');
  await untilShown(page, 'Show that it is you');
  await press(page, 'Use the passkey', 'button');
  await untilShown(page, 'This holds from now on');
  await visitAgain(page);
  expect(await page.$eval('input[type=checkbox]', (one) => (one as HTMLInputElement).checked)).toBe(true);

  // What is open on the phone goes there at its next press, what is opened at once.
  await visit(guest.page, `${stack.web}/money/payments`);
  await untilTrue(guest.page, () => location.pathname === '/second-step');
  await expectAccessible(guest.page, 'a second step first');
  await withAuthenticator(guest.page);
  await press(guest.page, 'Make a passkey', 'button');
  await type(guest.page, 'Name', 'Phone');
  await press(guest.page, 'Make the passkey', 'button');
  await untilShown(guest.page, 'Ten recovery codes');
  await press(guest.page, 'I have kept them', 'button');
  await untilTrue(guest.page, () => location.pathname === '/today');
  await visitAgain(page);
  await untilTrue(page, () => document.body.innerText.split('with a second step').length === 3);
  expect([...errors, ...guest.errors]).toEqual([]);
  guest.close();
});

test('an address is changed by both, and who lost every second step comes in after three days', async () => {
  await visit(page, `${stack.web}/settings/you`);
  await press(page, 'Another address', 'button');
  await type(page, 'New e-mail address', OWNER);
  await press(page, 'Send both links', 'button');
  await untilShown(page, 'This is your address already');
  await type(page, 'New e-mail address', 'sallow@heron.example');
  await press(page, 'Send both links', 'button');
  await untilShown(page, 'have agreed by mail');
  const mails = await openPage(browser, { width: 390, height: 844 });
  for (const email of ['sallow@heron.example', OWNER]) {
    await visit(mails.page, await linkTo(email, 'address'));
    await expectAccessible(mails.page, 'another address');
    await press(mails.page, 'Agree', 'button');
    await untilShown(mails.page, email === OWNER ? 'It is changed' : 'has to agree too');
  }
  await visit(mails.page, `${stack.web}/sign-in`);
  await type(mails.page, 'E-mail address', 'sallow@heron.example');
  await type(mails.page, 'Password', PASSWORD);
  await press(mails.page, 'Sign in', 'button');
  await press(mails.page, 'I have lost all of these', 'button');
  await untilShown(mails.page, 'A link is on its way');
  await visit(mails.page, await linkTo('sallow@heron.example', 'lost'));
  await expectAccessible(mails.page, 'every second step is lost');
  await press(mails.page, 'They are all lost', 'button');
  await untilShown(mails.page, 'The wait has begun');
  // Whoever is signed in sees it, and could stop it.
  await visit(page, `${stack.web}/settings/you`);
  await untilShown(page, 'says that all of this is lost');
  await setClock(stack.standIns, new Date(Date.now() + 73 * 3_600_000));
  await visit(mails.page, `${stack.web}/sign-in`);
  await type(mails.page, 'E-mail address', 'sallow@heron.example');
  await type(mails.page, 'Password', PASSWORD);
  await press(mails.page, 'Sign in', 'button');
  // The business still asks for one.
  await untilTrue(mails.page, () => location.pathname === '/second-step');
  expect([...errors, ...mails.errors]).toEqual([]);
  mails.close();
});
