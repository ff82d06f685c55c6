/** From paid to delivered: thirty sales are packed in five presses, told on their day, followed to the door; and what a packer sees of it. */
import { expect, test } from 'vitest';
import { addDays, type CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { nextMailDay, USUAL_DELIVERY } from '@/core/parcel/notice';
import { ledgerTroubles } from '@/db/ledger';
import { shipmentRows } from '@/db/shipments';
import { readBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { playMinute } from '../support/minute';
import { sharedOwnerDesk } from '../support/owner-desk';
import { GULL_POINT, livesAt, postedItem, readyToPack, soldToPost } from '../support/parcels';
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
} from '../support/person';
import { setClock } from '../support/plans';
import { mailOf } from '../support/workshop';

const { stack, house, page, errors, browser, signIn } = await sharedOwnerDesk();

const go = (path: string, on = page) => visit(on, `${stack.web}${path}`);
const shipments = () =>
  readBusiness(programContext(house.business.id), (db) => shipmentRows(db, { under: 'all' }, 100));
/** The clock of the business at an hour of Los Angeles, in winter. */
const at = (on: CalendarDate, hour: number) =>
  setClock(stack.standIns, new Date(Date.parse(`${on}T00:00:00Z`) + (hour + 8) * 3_600_000));

test('thirty paid sales are chosen, weighed against what was paid, bought and printed in five presses', async () => {
  await readyToPack(house);
  const rosin = await postedItem(house, 'Rosin, dark', { code: 'ROS' });
  const names = Array.from(
    { length: 30 },
    (_, at) => `Bartholomew Featheringstone-Oduya ${String.fromCharCode(65 + (at % 26))}${at}`,
  );
  for (const name of names) await soldToPost(house, await livesAt(house, name), rosin);
  await go('/deliver/pack');
  await untilShown(page, '30 paid sales wait');
  await press(page, 'Add all', 'button');
  await untilShown(page, '30 parcels cost');
  // 3.60 and 0.35 each, against 5.00: 1.05 over, thirty times.
  await untilShown(page, '31.50 over');
  await untilShown(page, '108.00 goes to the carrier now');
  await expectAccessible(page, 'To pack');
  await press(page, 'Buy 30 labels', 'button');
  await untilShown(page, '30 labels are bought and not printed yet');
  await press(page, 'Print 30 labels', 'button');
  await untilShown(page, 'They can be printed again at any time');
  const sizes = await page.$$eval('[role=dialog] a', (links) =>
    Promise.all(
      links.map(async (link) => {
        const answer = await fetch((link as HTMLAnchorElement).href);
        const bytes = new Uint8Array(await answer.arrayBuffer());
        return `${answer.status} ${new TextDecoder().decode(bytes.slice(0, 4))}`;
      }),
    ),
  );
  expect(sizes).toEqual(['200 ^XA\n', '200 %PDF', '200 %PDF']);
  await page.keyboard.press('Escape');
  await untilTrue(page, () => !document.body.innerText.includes('not printed yet'));
  const rows = await shipments();
  expect(rows).toHaveLength(30);
  expect(new Set(rows.map(({ number }) => number)).size).toBe(30);
  expect(await readBusiness(programContext(house.business.id), ledgerTroubles)).toEqual([]);
});

test('keys and a reader: a number puts a sale on the paper, Space takes it off, what is not known is said and nothing guessed', async () => {
  const mute = await postedItem(house, 'Mute');
  const { number } = await soldToPost(house, await livesAt(house, 'Una Fell'), mute);
  await go('/deliver/pack');
  await untilShown(page, 'One paid sale waits');
  await page.keyboard.press('b');
  await page.keyboard.type('nothing');
  await page.keyboard.press('Enter');
  await untilShown(page, 'nothing: no sale and no label has this number');
  await page.keyboard.type(number);
  await page.keyboard.press('Enter');
  await untilShown(page, 'One parcel costs');
  await page.focus('[data-paper-row]');
  await page.keyboard.press('Space');
  await untilShown(page, 'Choose what goes out together');
  await press(page, 'Put Una Fell on the paper');
  await untilShown(page, 'One parcel costs');
  await page.click('[data-paper-row]');
  await untilShown(page, 'Weighed, with its packing');
  await type(page, 'Weighed, with its packing', 'much');
  await untilShown(page, 'Write it as 12 oz or 3 lb 4 oz');
  await type(page, 'Weighed, with its packing', '5 lb');
  await press(page, 'Save parcel', 'button');
  await untilShown(page, 'Heavier than this box bears');
  await press(page, 'Take all off', 'button');
  await untilShown(page, 'Choose what goes out together');
  // A reader types faster than anybody, from anywhere but a field; its signs are no keys of the desk.
  const [parcel] = await shipments();
  await page.evaluate((number) => {
    (document.activeElement as HTMLElement).blur();
    for (const key of [...number, 'Enter'])
      document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
  }, parcel?.number ?? '');
  await untilTrue(page, (id) => location.pathname === `/deliver/shipments/${id}`, parcel?.id ?? '');
});

test('a sale whose address lacks something waits until that is put right; a parcel goes without any sale', async () => {
  const mute = await postedItem(house, 'Bow');
  await soldToPost(house, await livesAt(house, 'Nell Ash', { billing: { ...GULL_POINT, city: '' } }), mute);
  await go('/deliver/pack');
  await untilShown(page, 'The address has no city');
  await page.click('[aria-label="Cannot go yet"] button');
  await untilShown(page, 'Complete it, and the sale can be packed');
  await press(page, 'Save address', 'button');
  await untilShown(page, 'The address needs a name, a street, a city');
  await type(page, 'City', 'Gull Point');
  await press(page, 'Save address', 'button');
  await untilTrue(page, () => !document.body.innerText.includes('The address has no city'));
  await press(page, 'Parcel without a sale', 'button');
  await type(page, 'What is in it', 'Two bridges to try');
  await type(page, 'For', 'Otto Reed');
  await type(page, 'Street and number', '4 Mill Rise');
  await type(page, 'City', 'Cresset');
  await type(page, 'ZIP code', '98020');
  await press(page, 'Put on the paper', 'button');
  await untilShown(page, 'Two bridges to try');
  await press(page, 'Take all off', 'button');
});

test('the notice goes out on its day and not before; the customer’s page follows it to the door, in their language, on a phone', async () => {
  // Early on a day of the post, whatever the hour of this run: from eight on the worker's minute tells by itself.
  const today = dateInZone(new Date(), 'America/Los_Angeles');
  await at(nextMailDay(addDays(today, 1), USUAL_DELIVERY.mailDays), 6);
  await signIn();
  const rosin = await postedItem(house, 'Colophane');
  const ida = await livesAt(house, 'Ida Marsh', { language: 'fr' });
  const { link } = await soldToPost(house, ida, rosin);
  const phone = await openPage(browser, { width: 390, height: 844 });
  await go(`/i/${link}`, phone.page);
  expect(await shown(phone.page)).not.toContain('Où il se trouve');
  await go('/deliver/pack');
  await press(page, 'Put Ida Marsh on the paper');
  await untilShown(page, 'One parcel costs');
  await press(page, 'Buy 1 label', 'button');
  await untilShown(page, 'One label is bought and not printed yet');
  const parcel = (await shipments()).find(({ recipient }) => recipient.name === 'Ida Marsh');
  if (!parcel) throw new Error('No parcel');
  await go(`/i/${link}`, phone.page);
  await untilShown(phone.page, 'En préparation');
  expect(await shown(phone.page)).not.toContain(parcel.number.slice(2, 6));
  await go(`/deliver/shipments/${parcel.id}`);
  await untilShown(page, 'Not told yet');
  await expectAccessible(page, 'shipment');
  await press(page, 'Hold back', 'button');
  await untilShown(page, 'The notice is held back');
  await press(page, 'Send now', 'button');
  await untilTrue(page, () => !document.body.innerText.includes('The notice is held back'));
  await playMinute();
  await signIn();
  const subjects = async () => (await mailOf(stack.standIns, ida.email)).map(({ subject }) => subject);
  await expect.poll(subjects, { timeout: 20_000 }).toContain('Votre colis de Sallow Joinery est en route');
  for (let day = 0; day <= 9; day++)
    for (const hour of [12, 23]) {
      await at(addDays(parcel.mailOn, day), hour);
      await playMinute();
    }
  await go(`/i/${link}`, phone.page);
  await untilShown(phone.page, 'Remis');
  await expectAccessible(phone.page, 'customer’s parcels');
  const width = await phone.page.evaluate(() => document.documentElement.scrollWidth);
  expect(width).toBeLessThanOrEqual(390);
  await signIn();
  await go(`/deliver/shipments/${parcel.id}`);
  await untilShown(page, 'Notice that a parcel arrived');
});

test('a profile and a rule are written, tried out on an example, and say what they take', async () => {
  await setClock(stack.standIns, new Date());
  await signIn();
  await go('/deliver/profiles');
  await press(page, 'Add a profile', 'button');
  await type(page, 'Name', 'Bow tube');
  for (const [label, typed] of [
    ['Length (in)', '31'],
    ['Width (in)', '3'],
    ['Height (in)', '3'],
    ['It weighs itself', '6 oz'],
    ['Packing costs', '1.10'],
  ] as const)
    await type(page, label, typed);
  await press(page, 'Save profile', 'button');
  await untilShown(page, '31 × 3 × 3 in, 6 oz');
  await press(page, 'Add a rule', 'button');
  await untilShown(page, 'When this is so, take that');
  await press(page, 'Keep rule', 'button');
  await untilShown(page, 'Choose the profile that it takes');
  await page.keyboard.press('Escape');
  await press(page, 'Try it', 'button');
  await untilShown(page, 'Goes as');
  await expectAccessible(page, 'Parcel profiles');
  await press(page, 'Top up', 'button');
  await type(page, 'How much', '50');
  await press(page, 'Top up', 'button');
  await untilShown(page, 'Topped up');
});

test('a packer sees what to pack and where it is, no sums anywhere, and buys all the same', async () => {
  const email = `packer-${house.business.id.slice(0, 8)}@sallow.example`;
  const mute = await postedItem(house, 'Peg paste');
  await soldToPost(house, await livesAt(house, 'Quentin Marsh'), mute);
  const other = await openPage(browser, { width: 1280, height: 800 });
  await signInAs(other.page, stack.web, email, 'rosin and maple');
  await go('/deliver/pack', other.page);
  await untilShown(other.page, 'Quentin Marsh');
  await press(other.page, 'Put Quentin Marsh on the paper');
  await untilShown(other.page, 'One parcel');
  expect(await shown(other.page)).not.toMatch(/\d+\.\d\d/);
  await press(other.page, 'Buy 1 label', 'button');
  await untilShown(other.page, 'bought and not printed yet');
  await go('/deliver/shipments', other.page);
  await untilShown(other.page, 'Quentin Marsh');
  expect(await shown(other.page)).not.toMatch(/\d+\.\d\d/);
  expect([...errors, ...other.errors]).toEqual([]);
});
