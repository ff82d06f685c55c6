/** What comes after: a parcel that is lost, something fetched with a signature, a file downloaded on a phone. */
import { randomUUID } from 'node:crypto';
import { mkdtemp, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ElementHandle } from 'puppeteer-core';
import sharp from 'sharp';
import { expect, test } from 'vitest';
import { addDays } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { GOES_AS_USUAL } from '@/core/item/item';
import { ledgerTroubles } from '@/db/ledger';
import { stockTroubles } from '@/db/stock';
import { readBusiness } from '@/db/transaction';
import { keepItemDigital } from '@/flows/digital/grants';
import { programContext } from '@/flows/door/program';
import { storeFile } from '@/flows/file/store-file';
import { playMinute } from '../support/minute';
import { sharedOwnerDesk } from '../support/owner-desk';
import { buyAll, livesAt, packAll, payByTransfer, postedItem, readyToPack, soldToPost } from '../support/parcels';
import { expectAccessible, openPage, press, shown, type, untilShown, untilTrue, visit } from '../support/person';
import { setClock } from '../support/plans';

const { stack, house, page, errors, browser, signIn } = await sharedOwnerDesk();

const go = (path: string, on = page) => visit(on, `${stack.web}${path}`);
const NO_DELIVERY = { paid: false, paper: { delivery: null } } as const;

test('a lost parcel comes up, the carrier is asked and pays, and the same goods are packed again', async () => {
  await readyToPack(house, { insuring: { kind: 'always' }, service: 'steady' });
  const rosin = await postedItem(house, 'Rosin', { onHand: '10' });
  await soldToPost(house, await livesAt(house, 'Lost Larkin'), rosin, { quantity: '2' });
  await packAll(house);
  const [id = ''] = await buyAll(house);
  const today = dateInZone(new Date(), 'UTC');
  const dayOn = async (day: number) => {
    await setClock(stack.standIns, new Date(`${addDays(today, day)}T23:30:00Z`));
    await playMinute();
  };
  for (let day = 1; day <= 21; day++) await dayOn(day);
  await signIn();
  await go('/today');
  await untilShown(page, 'Lost Larkin');
  await go(`/deliver/shipments/${id}`);
  await untilShown(page, 'The carrier does not find it');
  await press(page, 'Ask the carrier to pay', 'button');
  await type(page, 'How much', '900');
  await press(page, 'Ask for it', 'button');
  await untilShown(page, 'At most 16 can be asked');
  await type(page, 'How much', '15');
  await press(page, 'Ask for it', 'button');
  await untilShown(page, 'The carrier looks at it');
  await expectAccessible(page, 'lost shipment');
  await press(page, 'Send again', 'button');
  await untilShown(page, 'another of each is taken from the stock');
  await page.evaluate(() => {
    const buttons = [...document.querySelectorAll<HTMLButtonElement>('[role=dialog] button[type=submit]')];
    buttons[0]?.click();
    buttons[0]?.click();
  });
  await untilShown(page, 'It is sent again');
  for (let day = 22; day <= 25; day++) await dayOn(day);
  await signIn();
  await go(`/deliver/shipments/${id}`);
  await untilShown(page, 'The carrier paid');
  await go('/deliver/pack');
  await untilShown(page, 'One paid sale waits');
  await go('/deliver/profiles');
  await untilShown(page, 'Paid for a parcel');
  await go(`/deliver/stock/${rosin.id}`);
  await untilShown(page, 'was lost');
  expect(await readBusiness(programContext(house.business.id), ledgerTroubles)).toEqual([]);
  expect(await readBusiness(programContext(house.business.id), stockTroubles)).toEqual([]);
});

test('what is fetched is handed over against a name and a signature, and stands on both pages of the sale', async () => {
  await setClock(stack.standIns, new Date());
  await signIn();
  const bow = await postedItem(house, 'A very long name for a bow of the eighteenth century with its case', {
    going: { ...GOES_AS_USUAL, handed: 'collected' },
  });
  const ida = await livesAt(house, 'Bartholomew Featheringstone-Oduya');
  const { id, link } = await soldToPost(house, ida, bow, NO_DELIVERY);
  await payByTransfer(house, id, 8);
  const phone = await openPage(browser, { width: 390, height: 844 });
  await go(`/i/${link}`, phone.page);
  await untilShown(phone.page, 'To be fetched from us');
  await go('/deliver/counter');
  await untilShown(page, 'Bartholomew');
  await expectAccessible(page, 'counter');
  await press(page, 'Hand over', 'button');
  await type(page, 'Fetched by', 'Q');
  await page.click('[role=dialog] button[type=submit]');
  await untilShown(page, 'Write who fetches it');
  await type(page, 'Fetched by', 'Quentin Marsh');
  const canvas = await page.waitForSelector('[role=dialog] canvas');
  const box = await canvas?.boundingBox();
  if (!box) throw new Error('There is no place to sign');
  await page.mouse.move(box.x + 20, box.y + 60);
  await page.mouse.down();
  for (const [x, y] of [
    [60, 20],
    [110, 90],
    [160, 30],
    [230, 70],
  ] as const)
    await page.mouse.move(box.x + x, box.y + y, { steps: 6 });
  await page.mouse.up();
  await expectAccessible(page, 'handing over');
  await page.evaluate(() => document.querySelector<HTMLButtonElement>('[role=dialog] button[type=submit]')?.click());
  await untilShown(page, 'Fetched lately');
  await page.waitForSelector('[aria-label="Signature of Quentin Marsh"] path[d^="M"]');
  await untilShown(page, 'Nothing waits to be fetched');
  await go(`/ask/invoices/${id}`);
  await untilShown(page, 'Fetched by Quentin Marsh');
  await go(`/i/${link}`, phone.page);
  await untilShown(phone.page, 'by Quentin Marsh');
  expect(await phone.page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  expect(phone.errors).toEqual([]);
  await phone.page.close();
});

test('a file is kept at an item, bought, and downloaded on a phone as often as it may be, without a script too', async () => {
  const tracks = await postedItem(house, 'Practice tracks', { kind: 'digital', going: GOES_AS_USUAL });
  const bytes = Buffer.from('%PDF-1.4\n1 0 obj<</Type/Catalog>>endobj\ntrailer<</Root 1 0 R>>\n%%EOF');
  const file = await storeFile(house.owner, 'tracks.pdf', 'digital', bytes);
  await keepItemDigital(house.owner, tracks.id, { fileId: file.id, words: 'code 4471', mostDownloads: 9, days: 30 });
  await go(`/records/items/${tracks.id}`);
  await untilShown(page, 'What buyers get once it is paid');
  await type(page, 'Downloads of each bought', '2');
  await press(page, 'Save what they get', 'button');
  await untilShown(page, 'What buyers get is saved');
  await expectAccessible(page, 'what buyers get');
  const otto = await livesAt(house, 'Otto Reed', { language: 'de' });
  const { id, link } = await soldToPost(house, otto, tracks, NO_DELIVERY);
  await payByTransfer(house, id, 8);
  const phone = await openPage(browser, { width: 390, height: 844 });
  await go(`/i/${link}`, phone.page);
  await untilShown(phone.page, 'noch 2-mal');
  await expectAccessible(phone.page, 'things to download');
  await phone.page.setJavaScriptEnabled(false);
  await phone.page.goto(`${stack.web}/i/${link}`, { waitUntil: 'load' });
  expect(await shown(phone.page)).toContain('noch 2-mal');
  expect(await shown(phone.page)).toContain('code 4471');
  const action = await phone.page.$eval('form[action*="/given/"]', (form) => form.getAttribute('action'));
  const fetched = async (path = action) => {
    const headers = { origin: stack.web };
    const answer = await fetch(`${stack.web}${path}`, { method: 'POST', headers, redirect: 'manual' });
    const named = answer.headers.get('content-disposition') ?? '';
    return [answer.status, named.split(';')[0], (await answer.arrayBuffer()).byteLength];
  };
  expect(await fetched()).toEqual([200, 'attachment', bytes.byteLength]);
  // A press on the phone itself: it is counted, and the page stays.
  await phone.page.click('form[action*="/given/"] button');
  await expect
    .poll(async () => {
      await phone.page.goto(`${stack.web}/i/${link}`, { waitUntil: 'load' });
      return shown(phone.page);
    })
    .toContain('So oft heruntergeladen');
  expect((await fetched())[0]).toBe(303);
  expect((await fetched(`/i/${link}/given/${randomUUID()}`))[0]).toBe(303);
  await phone.page.goto(`${stack.web}/i/${link}`, { waitUntil: 'load' });
  expect(await shown(phone.page)).toContain('So oft heruntergeladen');
  await go(`/ask/invoices/${id}`);
  await untilShown(page, 'no downloads left');
  await press(page, 'Give it once more', 'button');
  await untilTrue(page, () => document.body.innerText.includes('2 downloads left'));
  expect([...errors, ...phone.errors]).toEqual([]);
});

test('a customer asks on a phone to send something back; it is allowed with a label, received, and its money given back', async () => {
  await setClock(stack.standIns, new Date());
  await signIn();
  const rosin = await postedItem(house, 'Rosin, amber', { onHand: '10' });
  await readyToPack(house, { service: 'steady' });
  const ida = await livesAt(house, 'Ida Quarrel', { language: 'fr' });
  const sale = await soldToPost(house, ida, rosin, { quantity: '2' });
  await packAll(house);
  await buyAll(house);
  const today = dateInZone(new Date(), 'UTC');
  for (let day = 1; day <= 12; day++) {
    await setClock(stack.standIns, new Date(`${addDays(today, day)}T23:30:00Z`));
    await playMinute();
  }
  const phone = await openPage(browser, { width: 390, height: 844 });
  await go(`/i/${sale.link}`, phone.page);
  await untilShown(phone.page, 'Remis');
  await phone.page.evaluate(() => {
    for (const details of document.querySelectorAll('details')) details.open = true;
  });
  await expectAccessible(phone.page, 'sending back');
  await phone.page.select('details select', '1');
  await phone.page.evaluate(() => document.querySelectorAll('details textarea')[0]?.scrollIntoView());
  const png = await mkdtemp(join(tmpdir(), 'back-'));
  await writeFile(
    join(png, 'crack.png'),
    await sharp({ create: { width: 40, height: 40, channels: 3, background: '#a93420' } })
      .png()
      .toBuffer(),
  );
  const input = await phone.page.waitForSelector('input[type=file][accept*=webp]');
  await (input as ElementHandle<HTMLInputElement>).uploadFile(join(png, 'crack.png'));
  await press(phone.page, 'Demander à le renvoyer', 'button');
  await untilShown(phone.page, 'Nous l’avons bien reçu');
  expect(await phone.page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await signIn();
  await go('/today');
  await untilShown(page, 'Asks to send back Rosin, amber');
  await go('/deliver/returns');
  await untilShown(page, 'Their picture');
  await expectAccessible(page, 'returns');
  await press(page, 'Allow', 'button');
  await untilShown(page, 'With a label that we pay');
  await press(page, 'Allow it', 'button');
  await untilShown(page, 'Allowed, on its way');
  await go(`/i/${sale.link}`, phone.page);
  await untilShown(phone.page, 'Étiquette de retour');
  const label = await phone.page.$eval('a[href*="/label"]', (link) => (link as HTMLAnchorElement).href);
  expect(new TextDecoder().decode((await (await fetch(label)).arrayBuffer()).slice(0, 4))).toBe('%PDF');
  await press(page, 'It has come', 'button');
  await type(page, 'Good of Rosin, amber', '3');
  await press(page, 'Take it in', 'button');
  await untilShown(page, 'Not so much of it can be sent back');
  await type(page, 'Good of Rosin, amber', '1');
  await press(page, 'Take it in', 'button');
  await untilShown(page, '1 in stock again');
  await press(page, 'Give money back', 'link');
  await untilShown(page, 'Refund');
  await go('/deliver/returns');
  await press(page, 'It is done', 'button');
  await untilShown(page, 'Nothing comes back');
  await go(`/i/${sale.link}`, phone.page);
  await untilShown(phone.page, 'Terminé');
  expect(await readBusiness(programContext(house.business.id), stockTroubles)).toEqual([]);
  expect([...errors, ...phone.errors]).toEqual([]);
});
