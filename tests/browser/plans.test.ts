/** Billing plans as people meet them: composed on a calendar, agreed to on a phone, refused and recovered, ended by the customer. */
import type { Browser, Page } from 'puppeteer-core';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { newCustomer } from '@/core/customer/customer';
import { NO_ADDRESS } from '@/core/place/address';
import { ledgerTroubles } from '@/db/ledger';
import { readBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { passwordHash } from '@/flows/house/password';
import { beginOffer, offerSheet, placeOffer } from '@/flows/offer/offers';
import { ownPageToken } from '@/flows/plan/links';
import { keepPlan, sendPlan } from '@/flows/plan/plans';
import { upcomingSetting } from '@/flows/plan/upcoming';
import { addCustomer } from '@/flows/records/customers';
import { startChromium } from '../support/chromium';
import { asSuperuser } from '../support/database';
import {
  choose,
  comeIn,
  expectAccessible,
  fillCard,
  give,
  openPage,
  press,
  type,
  untilShown,
  untilTrue,
  visit,
  visitAgain,
} from '../support/person';
import { planTerms, runningPlan, setClock } from '../support/plans';
import { signIn } from '../support/signed-in';
import { type Stack, startStack } from '../support/stack';
import { until } from '../support/until';
import { foundHouse, type House, mailOf } from '../support/workshop';

const PASSWORD = 'a plane and a saw';
let stack: Stack;
let house: House;
let browser: Browser;
let closeBrowser: () => Promise<void>;
let page: Page;
let errors: string[];
let planId = '';

beforeAll(async () => {
  stack = await startStack();
  house = await foundHouse('Sallow Joinery', await passwordHash(PASSWORD), 'owner@sallow.example');
  ({ browser, close: closeBrowser } = await startChromium());
  ({ page, errors } = await openPage(browser));
  await comeIn(page, stack.web, (await signIn('owner@sallow.example', PASSWORD, 'test')).token);
});
afterAll(async () => {
  await closeBrowser?.();
  await stack?.close();
});

const stateOf = async (id: string): Promise<string> =>
  (await asSuperuser<{ state: string }>(stack.admin, 'select state from plans where id = $1', [id]))[0]?.state ?? '';
const charges = (id: string) =>
  asSuperuser<{ state: string; amount: string }>(
    stack.admin,
    'select state, amount_minor::text as amount from charges where plan_id = $1 order by charged_on, part',
    [id],
  );
/** The worker has charged what is due of a plan: as many of its charges stand like this. */
const untilCharged = (id: string, state: string, count: number) =>
  until(`${count} ${state}`, async () => (await charges(id)).filter((one) => one.state === state).length === count);

test('a plan is composed: every date and sum is drawn as one types, compared, kept, and sent', async () => {
  await visit(page, `${stack.web}/ask/plans/compose?customer=${house.customerId}`);
  await type(page, 'What for? The customer reads this', 'A chest in instalments');
  await press(page, 'Instalments', 'button');
  await type(page, 'Price', '1000');
  await type(page, 'From', '01/31/2027');
  await type(page, 'Payments', '12');
  // Drawn to its end: what still grows moves what is pressed.
  await untilShown(page, 'Payments 12 In all');
  await press(page, 'Day before', 'button');
  await type(page, 'Deposit, charged at the start', '20%');
  // 1,100.00 with tax; 880.00 over twelve leave four cents.
  await untilTrue(page, () => document.querySelector('[data-total]')?.textContent === '$1,100.00');
  await untilShown(page, '4 cents left over');
  await untilShown(page, 'was Sun 31 Jan');
  await untilShown(page, 'no 31st');
  await expectAccessible(page, 'plan composer');
  await give(
    page,
    stack.folder,
    'drawing of a chest.pdf',
    '%PDF-1.4\n1 0 obj<</Type/Catalog>>endobj\ntrailer<</Root 1 0 R>>\n%%EOF\n',
  );
  await untilShown(page, 'drawing of a chest.pdf');
  await press(page, 'Compare', 'button');
  await untilShown(page, 'Side by side');
  await untilShown(page, 'Variant C');
  await press(page, 'Choose this one', 'button');
  await untilTrue(page, () => document.querySelector('[data-count]')?.textContent === '4');
  await untilShown(page, 'Draft, saved');
  await visitAgain(page);
  await untilTrue(page, () => document.querySelector('[data-total]')?.textContent === '$1,100.00');
  await press(page, 'Send the link', 'button');
  await untilShown(page, 'Waiting for the customer to agree');
  planId = await page.evaluate(() => location.pathname.split('/').at(-1) ?? '');
  await expectAccessible(page, 'plan sheet');
});

test('the customer sees every date on the phone, agrees, enters the card, and the deposit is charged', async () => {
  await until('the mail', async () => (await mailOf(stack.standIns, 'perpetua@vane.example')).length > 0);
  const [mail] = await mailOf(stack.standIns, 'perpetua@vane.example');
  const link = /\/a\/[\w-]+/.exec(mail?.text ?? '')?.[0] ?? '';
  const customer = await openPage(browser, { width: 390, height: 844 });
  await visit(customer.page, `${stack.web}${link}`);
  await untilShown(customer.page, 'In all, 4 payments');
  await untilShown(customer.page, '$1,100.00');
  await expectAccessible(customer.page, 'plan to be agreed to');
  await press(customer.page, 'Agree, and begin', 'button');
  await untilShown(customer.page, 'Tick that you agree');
  await press(customer.page, 'I agree to this', 'checkbox');
  await type(customer.page, 'Your name', 'Perpetua Vane');
  await fillCard(customer.page, 'corvid-good');
  await press(customer.page, 'Agree, and begin', 'button');
  await untilShown(customer.page, 'everything is set up');
  expect(customer.errors).toEqual([]);
  customer.close();
  await untilCharged(planId, 'charged', 1);
  await untilShown(page, 'ticked on the customer’s page');
  expect(await stateOf(planId)).toBe('active');
});

test('a refused charge waits in the queue; the customer gives another card on their own page, and it is recovered', async () => {
  const today = new Date().toISOString().slice(0, 10);
  const { id, customerId } = await runningPlan(house, stack.standIns, planTerms(house, today, { firstNow: true }), [
    'corvid-blocked',
  ]);
  await untilCharged(id, 'refused', 1);
  await visit(page, `${stack.web}/today`);
  await untilShown(page, 'Care club, ');
  await untilShown(page, 'the card is blocked');
  await visit(page, `${stack.web}/ask/plans/${id}`);
  await untilShown(page, 'the card is blocked (never with this card)');
  const own = await openPage(browser, { width: 390, height: 844 });
  await visit(own.page, `${stack.web}/m/${ownPageToken(house.business.id, customerId, new Date())}`);
  await untilShown(own.page, 'A charge was refused');
  await expectAccessible(own.page, 'the customer’s own page');
  await press(own.page, 'I agree to this', 'checkbox');
  await type(own.page, 'Your name', 'Otto Reed');
  await fillCard(own.page, 'lumen-good');
  await press(own.page, 'Save this card', 'button');
  await untilCharged(id, 'charged', 1);
  await visitAgain(own.page);
  await untilTrue(own.page, () => !document.body.innerText.includes('A charge was refused'));
  // Ended by the customer, after being asked once more.
  await press(own.page, 'Withdraw and end it', 'button');
  await untilShown(own.page, 'Nothing more is charged');
  await press(own.page, 'Withdraw and end it', 'button');
  await untilShown(own.page, 'Ended');
  expect(await stateOf(id)).toBe('cancelled');
  expect(own.errors).toEqual([]);
  own.close();
});

test('from the sheet: taken as paid, moved, paused and resumed, cancelled', async () => {
  const { id } = await runningPlan(house, stack.standIns, planTerms(house, '2027-03-01'), ['corvid-good'], 'Ida Marsh');
  await visit(page, `${stack.web}/ask/plans/${id}`);
  await choose(page, 'The charge of Mon 1 Mar', 'Mark as paid');
  await press(page, 'Mark as paid', 'button');
  await untilCharged(id, 'otherwise', 1);
  await untilShown(page, 'Paid otherwise');
  await choose(page, 'The charge of Thu 1 Apr', 'Leave this one out');
  await untilCharged(id, 'skipped', 1);
  await press(page, 'Pause', 'button');
  await press(page, 'Pause it', 'button');
  await untilShown(page, 'nothing is charged until it is resumed');
  await press(page, 'Resume', 'button');
  await untilShown(page, 'Next charge on');
  await choose(page, 'More', 'Cancel the plan');
  await press(page, 'At once', 'radio');
  await press(page, 'Cancel it', 'button');
  await untilShown(page, 'Ended: nothing more is charged.');
});

test('at the desk: a payment with a typed card, a card put on file with a signature, and a plan started with it', async () => {
  const name = 'Leocadia Tarn';
  const billing = { ...NO_ADDRESS, lines: ['9 Weir Lane'], country: 'US' };
  const customer = await addCustomer(house.owner, newCustomer(name, { email: 'leocadia@tarn.example', billing }));
  await visit(page, `${stack.web}/records/customers/${customer.id}`);
  await press(page, 'Take a card payment', 'button');
  await type(page, 'What for', 'A stool, reglued');
  await type(page, 'Price, before tax', '40');
  await fillCard(page, 'corvid-good');
  await expectAccessible(page, 'desk payment');
  // The sum with tax is said before anything is charged.
  await untilShown(page, '$4.00 of it is tax');
  await press(page, 'Charge $44.00', 'button');
  await untilShown(page, 'A stool, reglued');
  await untilShown(page, 'Receipt delivered');
  // Without an agreement no card is kept.
  await visit(page, `${stack.web}/records/customers/${customer.id}`);
  await press(page, 'Add a card', 'button');
  await fillCard(page, 'lumen-good');
  await press(page, 'Put it on file', 'button');
  await untilShown(page, 'Let the customer sign in the field.');
  const field = await page.waitForSelector('canvas');
  await field?.scrollIntoView();
  const at = (await field?.boundingBox()) ?? { x: 0, y: 0, width: 0, height: 0 };
  await page.mouse.move(at.x + 30, at.y + at.height / 2);
  await page.mouse.down();
  await page.mouse.move(at.x + 90, at.y + 15, { steps: 6 });
  await page.mouse.move(at.x + 150, at.y + at.height - 15, { steps: 6 });
  await page.mouse.up();
  await press(page, 'Put it on file', 'button');
  await untilShown(page, '3211');
  // On file once, chosen by itself, and the plan runs with it.
  const paper = { ...planTerms(house, '2027-06-01').paper, customerId: customer.id };
  const terms = { ...planTerms(house, '2027-06-01'), paper };
  const { id } = await keepPlan(house.owner, null, { terms, memo: '', reference: '' });
  await sendPlan(house.owner, id, 'link');
  await visit(page, `${stack.web}/ask/plans/${id}`);
  await press(page, 'Start with a card now', 'button');
  await untilShown(page, 'Another card');
  // Beside the signature stands what is agreed to; for the telephone it is read out.
  await untilShown(page, 'What the customer agrees to');
  await untilShown(page, '$22.00 every month. The first is $22.00 on June 1, 2027.');
  await press(page, 'By telephone', 'button');
  await untilShown(page, 'Read this out');
  await untilShown(page, 'Please say your full name');
  await expectAccessible(page, 'starting with a card');
  await type(page, 'Who said it on the telephone', name);
  await press(page, 'Start the plan', 'button');
  await untilShown(page, 'Next charge on');
  expect(await stateOf(id)).toBe('active');
});

test('a day that is past asks first; what a change comes to is said before, and the customer agrees to it by the link', async () => {
  const { id } = await runningPlan(house, stack.standIns, planTerms(house, '2027-08-02'), ['corvid-good'], 'Una Birch');
  await visit(page, `${stack.web}/ask/plans/${id}`);
  await choose(page, 'The charge of Mon 2 Aug', 'Charge it on another day');
  await type(page, 'Day', '01/05/2026');
  await untilShown(page, 'This day does not come any more: $22.00 is charged to Una Birch at once.');
  await expectAccessible(page, 'a charge on a day that is past');
  await press(page, 'Cancel', 'button');
  await choose(page, 'The charge of Mon 2 Aug', 'Another price, this once');
  await type(page, 'Price', '50');
  await press(page, 'Change this once', 'button');
  await untilShown(page, '55.00');
  await choose(page, 'More', 'Edit plan');
  await untilShown(page, 'Until now');
  await type(page, 'Price', '30');
  await untilShown(page, '$33.00 every month');
  await untilShown(page, 'The customer has to agree');
  await expectAccessible(page, 'a plan that is changed');
  await press(page, 'Ask the customer to agree', 'button');
  await untilShown(page, 'A change waits until the customer agrees');
  const [row] = await asSuperuser<{ link_token: string }>(stack.admin, 'select link_token from plans where id = $1', [
    id,
  ]);
  const customer = await openPage(browser, { width: 390, height: 844 });
  await visit(customer.page, `${stack.web}/a/${row?.link_token}`);
  await untilShown(customer.page, 'From now on:');
  await untilShown(customer.page, '$33.00 every month');
  await expectAccessible(customer.page, 'a change to be agreed to');
  await press(customer.page, 'I agree to this', 'checkbox');
  await type(customer.page, 'Your name', 'Una Birch');
  await press(customer.page, 'Agree to the change', 'button');
  await untilShown(customer.page, 'everything is set up');
  expect(customer.errors).toEqual([]);
  customer.close();
  // The one that was priced by hand stays, the others follow.
  await until(
    'the change',
    async () =>
      (await charges(id))
        .slice(0, 2)
        .map(({ amount }) => amount)
        .join() === '5500,3300',
  );
});

/** The private calendar's address, as it is copied. */
const feedOf = async (): Promise<string> => (await upcomingSetting(house.owner)).feed;

test('parts of a balance by invoice: started without a card, and the part that is asked for is paid by the link on a phone', async () => {
  await visit(page, `${stack.web}/ask/plans/compose?customer=${house.customerId}`);
  await type(page, 'What for? The customer reads this', 'A dresser in parts');
  await press(page, 'Instalments', 'button');
  await type(page, 'Price', '500');
  await type(page, 'From', '01/15/2027');
  await type(page, 'Payments', '3');
  await type(page, 'Deposit, charged at the start', '20%');
  await press(page, 'Invoice each time', 'button');
  await type(page, 'Days to pay', '10');
  await untilShown(page, 'One invoice over the whole');
  await untilTrue(page, () => document.querySelector('[data-total]')?.textContent === '$550.00');
  await untilShown(page, 'Draft, saved');
  await press(page, 'Start it', 'button');
  await untilShown(page, 'asked for by mail');
  const id = await page.evaluate(() => location.pathname.split('/').at(-1) ?? '');
  await untilCharged(id, 'billed', 1);
  const [row] = await asSuperuser<{ link: string }>(
    stack.admin,
    'select invoices.link_token as link from invoices join plans on plans.invoice_id = invoices.id where plans.id = $1',
    [id],
  );
  const payer = await openPage(browser, { width: 390, height: 844 });
  await visit(payer.page, `${stack.web}/i/${row?.link}`);
  await untilShown(payer.page, '$110.00 now');
  await expectAccessible(payer.page, 'a part asked for');
  await fillCard(payer.page, 'corvid-good');
  await press(payer.page, 'Pay $110.00', 'button');
  await untilCharged(id, 'charged', 1);
  await visitAgain(payer.page);
  // Nothing is asked for until the next day of the plan: the whole rest, or a part of one's own choice.
  await untilShown(payer.page, 'Pay $440.00');
  expect(payer.errors).toEqual([]);
  payer.close();
});

test('upcoming: found by the card’s last digits, narrowed, marked as carried over, as a calendar and as a feed', async () => {
  await visit(page, `${stack.web}/money/upcoming?state=charged&from=2020-01-01`);
  await untilShown(page, 'A chest in instalments');
  await expectAccessible(page, 'upcoming');
  await press(page, 'Not yet carried over', 'checkbox');
  await untilTrue(page, () => location.search.includes('notCarried=yes'));
  const boxes = await page.$$('li[data-charge] input[type=checkbox]');
  const before = boxes.length;
  expect(before).toBeGreaterThan(0);
  await boxes[0]?.click();
  await press(page, 'Mark as carried over', 'button');
  await untilShown(page, '1 marked as carried over');
  await visitAgain(page);
  await untilTrue(page, (count: number) => document.querySelectorAll('li[data-charge]').length === count - 1, before);
  const csv = await page.evaluate(async () => (await fetch('/files/upcoming?state=charged')).text());
  expect(csv).toContain('A chest in instalments');
  await visit(page, `${stack.web}/money/upcoming?as=calendar&month=2027-02`);
  await untilShown(page, 'February 2027');
  await expectAccessible(page, 'upcoming as a calendar');
  const old = await feedOf();
  await press(page, 'New calendar address', 'button');
  await press(page, 'Make a new address', 'button');
  await untilShown(page, 'The old address is void');
  const fetched = (address: string) => fetch(address).then(({ status }) => status);
  expect([await fetched(old), await fetched(await feedOf())]).toEqual([404, 200]);
});

test('the first payment of an offer that is repeated begins a plan', async () => {
  const id = await beginOffer(house.owner, 'link');
  const { placed } = await offerSheet(house.owner, id);
  await visit(page, `${stack.web}/ask/offer/${id}`);
  await type(page, 'What is it for? The payer reads this', 'Sharpening club');
  await type(page, 'Price, USD', '12');
  await (await page.waitForSelector('::-p-xpath(//summary[contains(., "Paid again")])'))?.click();
  await press(page, 'every month', 'checkbox');
  await untilShown(page, 'Draft, saved');
  expect((await offerSheet(house.owner, id)).placed.offer.repeat?.rhythms).toEqual([{ unit: 'month', every: 1 }]);
  await placeOffer(house.owner, id);
  const payer = await openPage(browser, { width: 390, height: 844 });
  await visit(payer.page, `${stack.web}/c/${placed.publicId}`);
  await press(payer.page, 'every month', 'radio');
  await type(payer.page, 'Name', 'Casimir Holt');
  await type(payer.page, 'E-mail address', 'casimir@holt.example');
  await fillCard(payer.page, 'lumen-good');
  await press(payer.page, 'Pay $13.20', 'button');
  await untilShown(payer.page, 'Tick that you agree to being charged again');
  await press(payer.page, 'I agree to this', 'checkbox');
  // What was said goes, and the button moves up.
  await untilTrue(payer.page, () => !document.body.innerText.includes('Tick that you agree'));
  await press(payer.page, 'Pay $13.20', 'button');
  await untilShown(payer.page, 'Thank you');
  expect(payer.errors).toEqual([]);
  payer.close();
  await visit(page, `${stack.web}/ask/plans`);
  await untilShown(page, 'Casimir Holt');
  // Found by the last digits of the card, too.
  await type(page, 'Customer, plan, last four digits', '3211');
  await untilTrue(page, () => !document.body.innerText.includes('Ida Marsh'));
  await untilShown(page, 'Casimir Holt');
});

test('a plan comes due at the charge hour of a later day, by itself', async () => {
  const { id } = await runningPlan(house, stack.standIns, planTerms(house, '2027-05-03'), ['lumen-good'], 'Nora Alder');
  await setClock(stack.standIns, new Date('2027-05-03T16:05:00Z'));
  // The worker looks every minute of the real clock.
  for (let tries = 0; tries < 6 && !(await charges(id)).some(({ state }) => state === 'charged'); tries++)
    await until('the charge', async () => (await charges(id)).some(({ state }) => state === 'charged')).catch(
      () => null,
    );
  expect((await charges(id))[0]).toMatchObject({ state: 'charged', amount: '2200' });
});

test('the day’s batch closed by itself: by channel, compared, and a difference is looked into', async () => {
  const day = new Intl.DateTimeFormat('en-CA', { timeZone: house.business.zone }).format(new Date());
  const closed = () => asSuperuser(stack.admin, 'select day from day_batches where day = $1', [day]);
  // The minute that charged has closed it, or the next one does.
  for (let tries = 0; tries < 6 && (await closed()).length === 0; tries++)
    await until('the closing', async () => (await closed()).length > 0).catch(() => null);
  // Months have gone by: whoever was signed in is not any more.
  await comeIn(page, stack.web, (await signIn('owner@sallow.example', PASSWORD, 'test')).token);
  await visit(page, `${stack.web}/money/batches/${day}`);
  await untilShown(page, 'compared with the processor’s book');
  await untilTrue(page, () => document.querySelector('article')?.innerText.includes('Agrees') === true);
  await untilShown(page, 'Billing plan, ');
  await expectAccessible(page, 'batch');
  const csv = await page.evaluate(async (on) => (await fetch(`/files/day-batches/${on}`)).text(), day);
  expect(csv).toContain('Leocadia Tarn');
  await asSuperuser(
    stack.admin,
    `update payments set fee_minor = fee_minor + 1 where channel = 'desk' and method = 'card'`,
  );
  await press(page, 'Compare again', 'button');
  await untilShown(page, 'Another fee with the processor');
  await visit(page, `${stack.web}/today`);
  await untilShown(page, 'The processor’s book differs from yours');
  await visit(page, `${stack.web}/money/batches/${day}`);
  await press(page, 'I have looked into it', 'button');
  await type(page, 'What was found', 'A cent, by contract');
  await press(page, 'Note it', 'button');
  await untilShown(page, 'A cent, by contract');
  await asSuperuser(
    stack.admin,
    `update payments set fee_minor = fee_minor - 1 where channel = 'desk' and method = 'card'`,
  );
});

test('the books agree, and no page threw an error', async () => {
  expect(await readBusiness(programContext(house.business.id), (db) => ledgerTroubles(db))).toEqual([]);
  expect(errors).toEqual([]);
});
