/** Another program is told: its address given, a secret kept, a test heard, what failed sent again; and on a phone. */
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, expect, test } from 'vitest';
import { sharedOwnerDesk } from '../support/owner-desk';
import { expectAccessible, openFinder, press, type, untilShown, untilTrue, visit, visitAgain } from '../support/person';
import { until } from '../support/until';
import { sentInvoice } from '../support/workshop';

const { stack, house, page, errors } = await sharedOwnerDesk();

let heard: string[] = [];
let status = 200;
const program = createServer((request, response) => {
  let body = '';
  request.on('data', (part) => {
    body += part;
  });
  request.on('end', () => {
    heard.push(body);
    response.writeHead(status).end();
  });
});
await new Promise<void>((resolve) => program.listen(0, '127.0.0.1', resolve));
const url = `http://127.0.0.1:${(program.address() as AddressInfo).port}/events`;
afterAll(() => {
  program.closeAllConnections();
  program.close();
});

test('a program is told of what happens, by what the desk says of it', async () => {
  await visit(page, `${stack.web}/today`);
  await openFinder(page);
  await page.keyboard.type('webhook');
  await untilShown(page, 'Other programs');
  await page.keyboard.press('Enter');
  await untilTrue(page, () => location.pathname === '/settings/programs');
  await expectAccessible(page, 'other programs');
  await press(page, 'Tell a program', 'button');
  await type(page, 'Its address', 'nonsense');
  await press(page, 'Tell it from now on', 'button');
  await untilShown(page, 'Write an address such as');
  await press(page, 'None of these', 'button');
  await type(page, 'Its address', url);
  await press(page, 'Tell it from now on', 'button');
  await untilShown(page, 'Choose at least one thing');
  await press(page, 'An invoice is sent', 'checkbox');
  await expectAccessible(page, 'a program');
  await press(page, 'Tell it from now on', 'button');
  await untilShown(page, 'Its secret');
  await expectAccessible(page, 'its secret');
  await press(page, 'I have kept it', 'button');
  await untilShown(page, 'told of 1 of 18 things');
  await press(page, 'Send a test', 'button');
  await until('the test is heard', async () => heard.some((body) => body.includes('"kind":"test"')));

  status = 500;
  heard = [];
  await sentInvoice(house);
  await until('the invoice is heard', async () => heard.length > 0);
  await until('what it answered is shown', async () => {
    await visitAgain(page);
    return (await page.evaluate(() => document.body.innerText)).includes('answered 500');
  });
  await expectAccessible(page, 'what a program was told');
  status = 200;
  await press(page, 'Send again', 'button');
  await until('it is heard again', async () => heard.length > 1);
  expect(new Set(heard).size).toBe(1);

  await page.setViewport({ width: 390, height: 844 });
  await press(page, `Change ${url}`, 'button');
  await press(page, 'Switched on', 'checkbox');
  await press(page, 'Save', 'button');
  await untilShown(page, 'switched off');
  await press(page, 'Remove', 'button');
  await press(page, 'Yes, tell it no more', 'button');
  await untilTrue(page, (gone: string) => !document.body.innerText.includes(gone), url);
  expect(errors).toEqual([]);
});
