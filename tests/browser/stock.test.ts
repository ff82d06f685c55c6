/** The stock as its people keep it: received from a paper, a reader and a file, counted along the shelves, waited for by sales. */
import { mkdtemp, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ElementHandle } from 'puppeteer-core';
import { expect, test } from 'vitest';
import { stockTroubles } from '@/db/stock';
import { readBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { stockSheet } from '@/flows/stock/stock-desk';
import { sharedOwnerDesk } from '../support/owner-desk';
import { livesAt, packAll, postedItem, readyToPack, soldToPost } from '../support/parcels';
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

const { stack, house, page, errors, browser } = await sharedOwnerDesk();

const go = (path: string, on = page) => visit(on, `${stack.web}${path}`);
const logOf = async (item: { id: string }) =>
  (await stockSheet(house.owner, { itemId: item.id, optionId: null })).log.map(({ kind, onHandBy, why }) =>
    [kind, onHandBy, why].filter(Boolean).join(' '),
  );
/** What a barcode reader sends: signs faster than anybody types, from anywhere but a field. */
const reads = (code: string) =>
  page.evaluate((text) => {
    (document.activeElement as HTMLElement | null)?.blur();
    for (const key of [...text, 'Enter'])
      document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
  }, code);
const chooseList = async (name: string, text: string) => {
  const path = join(await mkdtemp(join(tmpdir(), 'stock-')), name);
  await writeFile(path, text);
  const input = await page.waitForSelector('input[type=file][accept*=csv]');
  await (input as ElementHandle<HTMLInputElement>).uploadFile(path);
};

test('goods are received by name, by a reader and from a supplier’s list; what is typed outlives a reload', async () => {
  await readyToPack(house);
  const rosin = await postedItem(house, 'Rosin, dark', { code: 'ROSIN-D', onHand: '1', lowAt: '4', cost: '2' });
  const long = 'Bartholomew Featheringstone’s very long strings for the small cello of a child, by the set of four';
  const strings = await postedItem(house, long, { code: 'STR-4', onHand: '0' });
  await soldToPost(house, await livesAt(house, 'Ida Marsh'), rosin, { quantity: '3' });
  await go('/deliver/pack');
  await untilShown(page, 'Waits for stock: Rosin, dark, 3');
  await go('/today');
  await untilShown(page, 'Rosin, dark runs low');
  await go('/deliver/stock');
  await untilShown(page, '−2');
  await expectAccessible(page, 'stock');
  await go('/deliver/stock/receive');
  await type(page, 'From (supplier)', 'Tern & Daughters');
  await press(page, 'Add what came', 'button');
  await page.waitForSelector('[cmdk-input]');
  await page.keyboard.type('rosin');
  await untilShown(page, 'ROSIN-D');
  await page.keyboard.press('Enter');
  await type(page, 'Line 1: how many', '2.5');
  await type(page, 'Line 1: cost of one', '3.20');
  await go('/deliver/stock/receive');
  await untilTrue(page, () =>
    [...document.querySelectorAll('input')].some(({ value }) => value === 'Tern & Daughters'),
  );
  await reads('STR-4');
  await untilShown(page, 'STR-4');
  await reads('UNKNOWN-9');
  await untilShown(page, 'UNKNOWN-9: nothing that is counted has this code');
  await chooseList('liste.csv', 'Art.-Nr.;Qty;Price\r\nSTR-4;12;11.5\r\nNO-SUCH;1;1\r\nSTR-4;many;1\r\n');
  await untilShown(page, 'NO-SUCH: nothing that is counted has this code');
  await untilShown(page, 'Line 4: How many: not a number: many');
  await expectAccessible(page, 'receive goods');
  await press(page, 'Put into stock', 'button');
  await untilTrue(page, () => location.pathname === '/deliver/stock');
  await untilShown(page, '0.5');
  expect(await logOf(rosin)).toEqual(['received 2.5', 'sold -3', 'promised 0', 'opened 1']);
  expect((await logOf(strings)).slice(0, 2)).toEqual(['received 12', 'received 1']);
  await go('/deliver/pack');
  await untilTrue(page, () => !document.body.innerText.includes('Waits for stock'));
});

test('shelves are counted by list and by reader; what was packed meanwhile is told and counted again', async () => {
  const mute = await postedItem(house, 'Mute', { code: 'MUTE-1', onHand: '9' });
  await soldToPost(house, await livesAt(house, 'Otto Reed'), mute, { quantity: '2' });
  await go('/deliver/stock/count');
  await untilShown(page, 'should be 9');
  await type(page, 'Counted of Mute', 'some');
  await press(page, 'Book 1 count', 'button');
  await untilShown(page, 'Write how many as a number');
  await type(page, 'Counted of Mute', '7');
  await reads('MUTE-1');
  await untilShown(page, '1 missing');
  await packAll(house);
  await press(page, 'Book 1 count', 'button');
  await untilShown(page, 'Mute: something was packed, received or counted meanwhile');
  await untilShown(page, 'should be 7');
  await type(page, 'Counted of Mute', '8');
  await type(page, 'Why (stands in the log)', 'Count of the year');
  await expectAccessible(page, 'count');
  await press(page, 'Book 1 count', 'button');
  await untilTrue(page, () => !document.body.innerText.includes('meanwhile'));
  await expect.poll(async () => (await logOf(mute))[0]).toBe('counted 1 Count of the year');
  await go('/deliver/stock?words=mute');
  await page.evaluate(() =>
    [...document.querySelectorAll('a')].find(({ innerText }) => innerText.includes('Mute'))?.click(),
  );
  await untilShown(page, 'Then there');
  await press(page, 'Take some out', 'button');
  await press(page, 'Take it out', 'button');
  await untilShown(page, 'Write why: it stands in the log');
  await type(page, 'Why', 'Stepped on');
  await press(page, 'Take it out', 'button');
  await untilShown(page, 'Stepped on');
  await expectAccessible(page, 'log of stock');
  await page.setViewport({ width: 390, height: 844 });
  await go('/deliver/stock');
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await page.setViewport({ width: 1280, height: 800 });
  await go(`/records/items/${mute.id}`);
  await untilShown(page, 'Count its stock');
  expect(await shown(page)).toContain('On hand 7');
  expect(await readBusiness(programContext(house.business.id), stockTroubles)).toEqual([]);
});

test('a packer receives and takes out, and sees no cost anywhere', async () => {
  const bow = await postedItem(house, 'Bow hair', { code: 'HAIR', onHand: '3', cost: '17.35', lowAt: '5' });
  const other = await openPage(browser, { width: 1280, height: 800 });
  await signInAs(other.page, stack.web, `packer-${house.business.id.slice(0, 8)}@sallow.example`, 'rosin and maple');
  await go('/deliver/stock', other.page);
  await untilShown(other.page, 'Bow hair');
  expect(await shown(other.page)).not.toMatch(/cost|17\.35/i);
  await press(other.page, 'Receive goods', 'link');
  await untilShown(other.page, 'Add what came');
  expect(await shown(other.page)).not.toMatch(/Cost of one/i);
  await press(other.page, 'Add what came', 'button');
  await other.page.waitForSelector('[cmdk-input]');
  await other.page.keyboard.type('hair');
  await untilShown(other.page, '3 on hand');
  await other.page.keyboard.press('Enter');
  await press(other.page, 'Put into stock', 'button');
  await untilTrue(other.page, () => location.pathname === '/deliver/stock');
  expect((await logOf(bow))[0]).toBe('received 1');
  expect([...errors, ...other.errors]).toEqual([]);
});
