import { randomUUID } from 'node:crypto';
import { solveChallenge } from 'altcha-lib';
import { deriveKey } from 'altcha-lib/algorithms/pbkdf2';
import { expect, test } from 'vitest';
import { newCustomer } from '@/core/customer/customer';
import { sendBy } from '@/core/invoice/send-with';
import { completePaper } from '@/core/paper/paper';
import { saveDraft } from '@/flows/invoice/draft';
import { invoiceSheet } from '@/flows/invoice/invoice-sheet';
import { sendInvoice } from '@/flows/invoice/send-invoice';
import { setSendingTime } from '@/flows/invoice/timed-sending';
import { logPage } from '@/flows/log/log';
import { beginOffer, placeOffer } from '@/flows/offer/offers';
import { payAtDesk } from '@/flows/payment/desk-payment';
import { takePayment } from '@/flows/payment/take-payment';
import { addCardAtDesk } from '@/flows/plan/cards-on-file';
import { addCustomer } from '@/flows/records/customers';
import { asSuperuser } from '../../../tests/support/database';
import { handedOver, linkIn } from '../../../tests/support/house-mail';
import { signIn } from '../../../tests/support/signed-in';
import { cardToken, foundHouse, mailOf, sharedWorkshop } from '../../../tests/support/workshop';
import { confirmByFigures, confirmByLink, correctAddress, lookAtConfirmLink, sendConfirmAgain } from './confirm';
import { answerForCards, firstDay } from './first-day';
import { askForPassword, chooseForgotten, forgottenWork, lookAtPasswordLink } from './forgotten';
import { passwordHash } from './password';
import { actorOf, endPlaces, signedInPlaces } from './sign-in';
import { type SignUp, signUp, signUpWork } from './sign-up';

const workshop = await sharedWorkshop();
const PASSWORD = 'seven larks and a plane';
let networks = 0;
const from = () => ({
  address: `198.51.100.${++networks}`,
  agent: 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0',
});
const fresh = () => `stranger-${randomUUID().slice(0, 8)}@lark.example`;

async function work(set: typeof signUpWork) {
  const challenge = await set();
  const solution = await solveChallenge({ challenge, deriveKey });
  return { challenge, ...(solution ? { solution } : {}) };
}

const asked = async (email: string, more: Partial<SignUp> = {}): Promise<SignUp> => ({
  key: randomUUID(),
  name: 'Wren Osei',
  business: 'Lark Joinery',
  email,
  password: PASSWORD,
  country: 'AT',
  zone: 'Europe/Vienna',
  currency: 'EUR',
  locale: 'de-AT',
  work: await work(signUpWork),
  ...more,
});

const latestMail = (businessId: string, to: string) => handedOver(workshop, businessId, to);

const figuresIn = (text: string): string => /\b(\d{3} \d{3})\b/.exec(text)?.[1] ?? '';

async function begun(email = fresh(), more: Partial<SignUp> = {}) {
  const opened = await signUp(await asked(email, more), from());
  const owner = await actorOf(opened.token);
  if (!owner) throw new Error('nobody is signed in');
  return { ...opened, owner, email };
}

test('a stranger writes at once, sends when the address is confirmed, and is paid by card after two answers', async () => {
  const { owner, email, invoiceId } = await begun();
  expect(owner).toMatchObject({ role: 'owner', name: 'Wren Osei' });
  const id = invoiceId ?? '';
  const { invoice, business } = await invoiceSheet(owner, id);
  expect(invoice.paper.sample).toBe(true);
  expect(business).toMatchObject({
    name: 'Lark Joinery',
    currency: 'EUR',
    paperLocale: 'de-AT',
    pricesIncludeTax: true,
  });
  const { id: customerId } = await addCustomer(owner, newCustomer('Perpetua Vane', { email: 'perpetua@vane.example' }));
  const [line] = invoice.paper.lines;
  const paper = completePaper({
    ...invoice.paper,
    customerId,
    lines: [{ ...line, what: 'Drawer', price: '50' } as never],
  });
  await saveDraft(owner, id, paper, 0);
  await expect(sendInvoice(owner, id, 1, 'link')).rejects.toMatchObject({ code: 'mail-not-confirmed' });
  await expect(
    setSendingTime(owner, id, { revision: 1, how: sendBy('mail'), on: '2099-01-04T10:00' }),
  ).rejects.toMatchObject({ code: 'mail-not-confirmed' });
  const offer = await beginOffer(owner, 'link');
  await expect(placeOffer(owner, offer)).rejects.toMatchObject({ code: /offer-not-ready|mail-not-confirmed/ });

  const mail = await latestMail(owner.businessId, email);
  // Whoever signed up could be anybody: nothing that they typed is in a mail to a stranger.
  expect(`${mail?.subject} ${mail?.text} ${mail?.html} ${mail?.to}`).not.toMatch(/Lark Joinery|Wren/);
  const figures = figuresIn(mail?.text ?? '');
  expect(figures).toMatch(/^\d{3} \d{3}$/);
  await confirmByFigures(owner, figures, 'a');
  expect((await firstDay(owner))?.steps.map(({ state }) => state)).toEqual(['open', 'open', 'next', 'later', 'later']);
  expect(await sendInvoice(owner, id, 1, 'mail')).toBe('1');
  expect((await latestMail(owner.businessId, 'perpetua@vane.example'))?.subject).toContain('1');
  const sent = await invoiceSheet(owner, id);
  expect(sent.invoice.totalMinor).toBe(5000n);

  // Until the two answers are given no card is taken, wherever somebody tries.
  const payment = { attemptKey: randomUUID(), cardToken: await cardToken(workshop.standIns, 'corvid-good') };
  const given = { how: 'telephone' as const, givenBy: 'Perpetua Vane', fileId: null };
  const link = sent.link.split('/').at(-1) ?? '';
  const byCard = () => takePayment(link, { ...payment, amountMinor: 5000n }, 'a');
  await expect(byCard()).rejects.toMatchObject({ code: 'invoice-not-payable' });
  await expect(payAtDesk(owner, { customerId, what: 'Saw', price: '5', ...payment })).rejects.toMatchObject({
    code: 'cards-not-open',
  });
  await expect(addCardAtDesk(owner, customerId, payment.cardToken, 'k', given)).rejects.toMatchObject({
    code: 'cards-not-open',
  });
  await expect(answerForCards(owner, { kind: 'x', statementName: 'La' })).rejects.toMatchObject({
    code: 'cards-not-answered',
  });
  await answerForCards(owner, { kind: '310', statementName: 'Lark Joinery' });
  expect((await firstDay(owner))?.steps.map(({ state }) => state)).toEqual(['open', 'open', 'open', 'next', 'later']);
  expect(await byCard()).toMatchObject({ state: 'paid' });
  const { entries } = await logPage(owner, null);
  expect(entries.map(({ kind }) => kind).sort()).toEqual(['address-confirmed', 'profile', 'signed-up']);
});

test('the same form twice is one business; a lost answer is given again only to its password', async () => {
  const email = fresh();
  const form = await asked(email);
  const [one, other] = [await signUp(form, from()), await signUp(form, from())];
  expect((await actorOf(one.token))?.businessId).toBe((await actorOf(other.token))?.businessId);
  await expect(signUp({ ...form, password: 'another seven larks' }, from())).rejects.toMatchObject({
    code: 'address-signs-in',
  });
  const rows = await asSuperuser(workshop.admin, 'select 1 from unconfirmed_names where email_key = $1', [email]);
  expect(rows).toHaveLength(1);
});

test('nobody takes another’s address by being first: it is whose mail it is', async () => {
  const email = fresh();
  const squatter = await begun(email, { password: 'a squatter was here' });
  const right = await begun(email);
  expect((await signIn(email, PASSWORD, 'x')).token).toBeTruthy();
  const mail = await latestMail(right.owner.businessId, email);
  const token = linkIn(mail?.text ?? '', 'confirm');
  expect(await lookAtConfirmLink(token)).toEqual({ email, business: 'Lark Joinery' });
  await confirmByLink(token, 'b');
  await expect(confirmByLink(token, 'b')).rejects.toMatchObject({ code: 'link-over' });
  // Whoever was first signs in with it no longer, and cannot confirm it any more.
  await expect(signIn(email, 'a squatter was here', 'y')).rejects.toMatchObject({ code: 'sign-in-failed' });
  const late = await latestMail(squatter.owner.businessId, email);
  await expect(confirmByFigures(squatter.owner, figuresIn(late?.text ?? ''), 'c')).rejects.toMatchObject({
    code: 'address-signs-in',
  });
  await expect(signUp(await asked(email.toUpperCase()), from())).rejects.toMatchObject({ code: 'address-signs-in' });
  // They may go on with an address of their own.
  const own = fresh();
  await correctAddress(squatter.owner, own, 'd');
  const corrected = await latestMail(squatter.owner.businessId, own);
  await confirmByFigures(squatter.owner, figuresIn(corrected?.text ?? ''), 'd');
  expect((await signIn(own, 'a squatter was here', 'z')).token).toBeTruthy();
});

test('figures are guessed eight times, then there must be new ones; older ones are good no longer', async () => {
  const { owner, email } = await begun();
  const first = figuresIn((await latestMail(owner.businessId, email))?.text ?? '');
  const wrong = first === '000 000' ? '111111' : '000000';
  const tries: string[] = [];
  for (let guess = 0; guess < 8; guess++)
    tries.push(
      await confirmByFigures(owner, wrong, 'a').then(
        () => 'in',
        (error) => error.code,
      ),
    );
  expect(tries).toEqual([...Array(7).fill('figures-differ'), 'figures-over']);
  await expect(confirmByFigures(owner, first, 'a')).rejects.toMatchObject({ code: 'figures-over' });
  await sendConfirmAgain(owner);
  const second = figuresIn((await latestMail(owner.businessId, email))?.text ?? '');
  expect(second).not.toBe(first);
  // Twenty presses at once confirm once, and none is told that it failed.
  const presses = await Promise.allSettled(Array.from({ length: 20 }, () => confirmByFigures(owner, second, 'a')));
  expect(presses.every(({ status }) => status === 'fulfilled')).toBe(true);
  await expect(sendConfirmAgain(owner)).rejects.toMatchObject({ code: 'address-confirmed' });
});

test('figures and links are over after their day, and mails are few', async () => {
  const { owner, email } = await begun();
  const mail = await latestMail(owner.businessId, email);
  await asSuperuser(
    workshop.admin,
    `update mail_proofs set good_until = good_until - interval '25 hours' where business_id = $1`,
    [owner.businessId],
  );
  await expect(confirmByFigures(owner, figuresIn(mail?.text ?? ''), 'a')).rejects.toMatchObject({
    code: 'figures-over',
  });
  expect(await lookAtConfirmLink(linkIn(mail?.text ?? '', 'confirm'))).toBeNull();
  const answers: string[] = [];
  for (let asks = 0; asks < 6; asks++)
    answers.push(
      await sendConfirmAgain(owner).then(
        () => 'sent',
        (error) => error.code,
      ),
    );
  expect(answers.slice(0, 4)).toEqual(Array(4).fill('sent'));
  expect(answers.at(-1)).toBe('mails-too-often');
});

test('robots: without work nobody begins, one piece is good once, and one address begins four times a day', async () => {
  const email = fresh();
  await expect(signUp(await asked(email, { work: undefined }), from())).rejects.toMatchObject({ code: 'not-a-robot' });
  const piece = await work(signUpWork);
  await signUp(await asked(email, { work: piece }), from());
  await expect(signUp(await asked(fresh(), { work: piece }), from())).rejects.toMatchObject({ code: 'not-a-robot' });
  for (let more = 0; more < 3; more++) await signUp(await asked(email), from());
  await expect(signUp(await asked(email), from())).rejects.toMatchObject({ code: 'sign-up-too-often' });
  await expect(signUp(await asked(fresh(), { password: 'qwertyuiop' }), from())).rejects.toMatchObject({
    code: 'password-weak',
    fields: [{ field: 'password' }],
  });
});

test('a forgotten password: one link, once, for an hour; unknown addresses get the same answer', async () => {
  const email = fresh();
  const { owner, token } = await begun(email);
  await askForPassword('nobody@lark.example', await work(forgottenWork), 'net-1');
  expect(await mailOf(workshop.standIns, 'nobody@lark.example')).toEqual([]);
  await expect(askForPassword(email, {}, 'net-1')).rejects.toMatchObject({ code: 'not-a-robot' });
  await askForPassword(` ${email.toUpperCase()}`, await work(forgottenWork), 'net-1');
  const early = linkIn((await latestMail(owner.businessId, email))?.text ?? '', 'password');
  await askForPassword(email, await work(forgottenWork), 'net-1');
  const link = linkIn((await latestMail(owner.businessId, email))?.text ?? '', 'password');
  expect(await lookAtPasswordLink(early)).toBeNull();
  expect(await lookAtPasswordLink(link)).toMatchObject({ email });
  // A link of the other kind, or altered, opens nothing.
  expect(await lookAtConfirmLink(link)).toBeNull();
  expect(await lookAtPasswordLink(`${link}x`)).toBeNull();
  await expect(chooseForgotten(link, 'password123', 'net-1')).rejects.toMatchObject({ code: 'password-weak' });
  await chooseForgotten(link, 'eight herons on ice', 'net-1');
  expect(await actorOf(token)).toBeNull();
  await expect(chooseForgotten(link, 'nine herons on ice', 'net-1')).rejects.toMatchObject({ code: 'link-over' });
  await expect(signIn(email, PASSWORD, 'p')).rejects.toMatchObject({ code: 'sign-in-failed' });
  const again = await signIn(email, 'eight herons on ice', 'p');
  const actor = await actorOf(again.token);
  // The link came by mail: the address is theirs.
  expect(actor && (await firstDay(actor))?.mail).toBeNull();
  expect((await latestMail(owner.businessId, email))?.subject).toMatch(/new place|changed/);
});

test('somebody who signs in from a computer that is not known is told; places are ended one by one or all at once', async () => {
  const house = await foundHouse('Told', await passwordHash(PASSWORD));
  const email = `owner-${house.business.id.slice(0, 8)}@sallow.example`;
  const here = await signIn(email, PASSWORD, '203.0.113.5', { agent: from().agent });
  const mail = await latestMail(house.business.id, email);
  expect(mail?.text).toContain('Firefox on Linux');
  expect(mail?.text).toContain('203.0.113.5');
  const known = await signIn(email, PASSWORD, '203.0.113.6', { device: here.device });
  expect((await mailOf(workshop.standIns, email)).length).toBe(1);
  await signIn(email, PASSWORD, '203.0.113.7', { device: here.device });
  const places = await signedInPlaces(house.owner, here.token);
  expect(places.map(({ address, here: own }) => `${address}${own ? ' here' : ''}`).sort()).toEqual([
    '203.0.113.5 here',
    '203.0.113.6',
    '203.0.113.7',
  ]);
  const one = places.find(({ address }) => address === '203.0.113.6');
  await endPlaces(house.owner, one?.key ?? '', here.token, 'x');
  expect(await actorOf(known.token)).toBeNull();
  // Nobody ends another person's, and one's own stays.
  const stranger = await foundHouse('Elsewhere');
  await endPlaces(stranger.owner, places.at(-1)?.key ?? '', 'none', 'x');
  await endPlaces(house.owner, '', here.token, 'x');
  expect((await signedInPlaces(house.owner, here.token)).map(({ here: own }) => own)).toEqual([true]);
});
